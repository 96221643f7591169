import { existsSync } from 'node:fs';
import { ensurePackage } from './system';

/** Debian's Chromium. */
export const browserPath = '/usr/bin/chromium';

/** Draws in software, keeps to itself: no look-ups, no updates. */
export const browserArguments = [
  '--headless',
  '--no-sandbox',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
  '--use-angle=swiftshader',
  '--enable-unsafe-swiftshader',
  '--disable-accelerated-2d-canvas',
];

export const ensureBrowser = (): void =>
  ensurePackage('chromium', () => existsSync(browserPath), 'Chromium, which the interface tests drive,');
