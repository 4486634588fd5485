import { spawn } from 'node:child_process';
import { chromium, type Browser } from '@playwright/test';
import { CHROMIUM_FLAGS } from '../playwright.config';

/** Serves the built app on a port, gives a browser to work with, and ends both whatever happens. */
export const browse = async (port: number, work: (browser: Browser) => Promise<void>): Promise<void> => {
  const server = spawn(process.execPath, ['--import', 'tsx', 'server/main.ts'], {
    env: { ...process.env, PORT: String(port) },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  try {
    await new Promise((resolve) => server.stdout.once('data', resolve));
    const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: CHROMIUM_FLAGS });
    await work(browser);
    await browser.close();
  } finally {
    server.kill();
  }
};
