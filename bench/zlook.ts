/* throwaway: drives the dev server. usage: npx tsx bench/zlook.ts <script> */
import { chromium, type Page } from 'playwright-core';
import { browserArguments, browserPath } from '@/cli/browser';
const [, , script, ...rest] = process.argv;
const run = async () => {
  const browser = await chromium.launch({ executablePath: browserPath, args: browserArguments });
  const page: Page = await (
    await browser.newContext({
      viewport: { width: 1280, height: 800 },
      colorScheme: rest.includes('dark') ? 'dark' : 'light',
    })
  ).newPage();
  page.on('console', (m) => {
    if (['error', 'warning'].includes(m.type()) && !/GL Driver|GPU stall|inline style/.test(m.text()))
      console.log('console:', m.text().slice(0, 400));
  });
  page.on('pageerror', (e) => console.log('pageerror:', e.message, e.stack?.slice(0, 600)));
  const { walk } = await import(script);
  try {
    await walk(page, 'http://127.0.0.1:4100', (n: string) => page.screenshot({ path: `/tmp/look/${n}.png` }));
  } finally {
    await browser.close();
  }
};
void run().then(
  () => process.exit(0),
  (e) => {
    console.error(e);
    process.exit(1);
  },
);
