import { defineConfig } from '@playwright/test';

const PORT = 4790;

export const CHROMIUM_FLAGS = [
  '--no-sandbox',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
  '--autoplay-policy=no-user-gesture-required',
];

export default defineConfig({
  testDir: 'e2e',
  // Emptied at each start: the results of the other tests lie beside it.
  outputDir: 'test-results/e2e',
  timeout: 60000,
  expect: { timeout: 10000 },
  workers: 2,
  // A machine that does other work beside may be too slow once; what needed it is told as flaky.
  retries: 1,
  reporter: [['list'], ['json', { outputFile: 'test-results/e2e.json' }]],
  use: {
    baseURL: `http://127.0.0.1:${PORT}`,
    video: 'off',
    // What is kept from an earlier page would hide what a test refuses; it has tests of its own.
    serviceWorkers: 'block',
    trace: 'off',
    launchOptions: { executablePath: '/usr/bin/chromium', args: CHROMIUM_FLAGS },
  },
  projects: [
    // Paper, faults, folders, what ends and what can be exchanged are the same on every screen; a thumb, sliders under it and whoever is without a server have a phone, keys and
    // stand-ins in windows of their own a wide screen.
    {
      name: 'phone',
      testIgnore: /paper|faults|folder|ended|exchange|ports|keys/,
      use: { viewport: { width: 390, height: 844 }, hasTouch: true, colorScheme: 'dark' },
    },
    {
      name: 'wide',
      testIgnore: /offline|sliders|guide\.thumb/,
      use: { viewport: { width: 1280, height: 800 }, colorScheme: 'light' },
    },
  ],
  webServer: {
    command: 'node --import tsx server/main.ts',
    env: { PORT: String(PORT) },
    url: `http://127.0.0.1:${PORT}/health`,
    reuseExistingServer: false,
  },
});
