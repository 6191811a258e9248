import { defineConfig } from '@playwright/test';

export default defineConfig({
  testDir: 'src',
  workers: 1,
  // A machine that is shared may stand still for a while: waiting longer costs nothing where it does not.
  timeout: 300_000,
  expect: { timeout: 60_000 },
  outputDir: '../test-results',
  reporter: [['line'], ['json']],
  use: {
    baseURL: process.env.GW_URL,
    viewport: { width: 1280, height: 800 },
    trace: 'off',
    // What glides into its place is where it belongs at once.
    contextOptions: { reducedMotion: 'reduce' },
    launchOptions: {
      executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
      ],
    },
  },
});
