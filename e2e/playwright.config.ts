import { existsSync } from 'node:fs';
import { defineConfig } from '@playwright/test';
import { WORKERS } from './servers';

/** Debian's Chromium without what draws on a monitor, where it is installed: it takes a fifth less of the processor. */
const CHROMIUM = ['/usr/bin/chromium-headless-shell', '/usr/bin/chromium'].find((path) => existsSync(path));

/** Journeys through the real interface, on the demo, started as a newcomer starts it. */
export default defineConfig({
  testDir: '.',
  outputDir: '../test-results',
  globalSetup: './global-demos.ts',
  fullyParallel: false,
  workers: WORKERS,
  // A shared machine can be starved for a minute: a journey that waits that long has not failed.
  timeout: 240_000,
  expect: { timeout: 40_000 },
  // A shared machine can be starved for half a minute; a second failure is a real one.
  retries: process.env.CI ? 1 : 0,
  reporter: [['list'], ['json']],
  use: {
    viewport: { width: 1280, height: 800 },
    locale: 'en-GB',
    trace: 'off',
    launchOptions: {
      executablePath: CHROMIUM!,
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
      ],
    },
  },
});
