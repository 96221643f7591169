import { AppRouterCacheProvider } from '@mui/material-nextjs/v16-appRouter';
import InitColorSchemeScript from '@mui/material/InitColorSchemeScript';
import '@fontsource/overpass/latin-400.css';
import '@fontsource/overpass/latin-600.css';
import '@fontsource/overpass/latin-700.css';
import '@fontsource/overpass/latin-ext-400.css';
import '@fontsource/overpass-mono/latin-400.css';
import '@fontsource/overpass-mono/latin-600.css';
import type { Metadata } from 'next';
import { headers } from 'next/headers';
import type { ReactNode } from 'react';
import { Providers } from '@/ui/Providers';
import './globals.css';

export const metadata: Metadata = {
  title: 'Zircon Frame',
  description: 'Architectural plans in, calculation models out.',
};

export default async function RootLayout({ children }: { children: ReactNode }) {
  const nonce = (await headers()).get('x-nonce') ?? undefined;
  return (
    <html lang="en" suppressHydrationWarning>
      <body>
        {/* Notices make their styles when their module loads, and look for the nonce here. */}
        <script nonce={nonce} dangerouslySetInnerHTML={{ __html: 'window.__nonce__ = document.currentScript.nonce' }} />
        <InitColorSchemeScript attribute="data-scheme" nonce={nonce} defaultMode="system" />
        <AppRouterCacheProvider options={{ nonce }}>
          <Providers nonce={nonce}>{children}</Providers>
        </AppRouterCacheProvider>
      </body>
    </html>
  );
}
