import { defineConfig } from '@playwright/test';
import { portOf, WORKERS } from './servers';

const folder = '../node_modules/.cache/haycart-e2e';

/** Journeys through the real interface, on the demo, started as a newcomer starts it. */
export default defineConfig({
  testDir: '.',
  outputDir: '../test-results',
  fullyParallel: false,
  workers: WORKERS,
  timeout: 90_000,
  expect: { timeout: 15_000 },
  // A shared machine can be starved for half a minute; a second failure is a real one.
  retries: process.env.CI ? 1 : 0,
  reporter: [['list'], ['json']],
  use: {
    viewport: { width: 1280, height: 800 },
    locale: 'en-GB',
    trace: 'off',
    launchOptions: {
      executablePath: '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
      ],
    },
  },
  webServer: Array.from({ length: WORKERS }, (_, worker) => ({
    command: `sh -c 'cd .. && ./haycart reset --yes; exec ./haycart demo'`,
    cwd: '.',
    url: `http://127.0.0.1:${portOf(worker)}/readyz`,
    timeout: 240_000,
    reuseExistingServer: false,
    gracefulShutdown: { signal: 'SIGINT' as const, timeout: 15_000 },
    env: {
      HAYCART_PORT: String(portOf(worker)),
      HAYCART_DATA: `${process.cwd()}/${folder.replace('../', '')}-${worker}`,
      HAYCART_LOG: 'warn',
    },
  })),
});
