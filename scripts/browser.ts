import { chromium, type Browser } from '@playwright/test';

/** Debian's Chromium, quiet: nothing of its own leaves the machine. */
export const CHROMIUM = process.env.CHROMIUM ?? '/usr/bin/chromium';
export const CHROMIUM_ARGS = [
  '--headless',
  '--no-sandbox',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
];

export function launch(): Promise<Browser> {
  return chromium.launch({ executablePath: CHROMIUM, args: CHROMIUM_ARGS });
}
