// The browser drives the real interface on a real server: `tasks` are the tests, `screenshots` and `bench` use the same.
import { defineConfig } from '@playwright/test';

export default defineConfig({
  outputDir: '.cache/test-results',
  workers: 1,
  timeout: 120_000,
  // What is broken breaks twice; what a standstill of the machine broke is listed as flaky.
  retries: 1,
  // A machine that is busy with other things may stand still for seconds; no test is about how long a screen takes.
  expect: { timeout: 20_000 },
  reporter: [['list']],
  use: {
    viewport: { width: 1280, height: 800 },
    launchOptions: {
      executablePath: '/usr/bin/chromium',
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
  projects: [
    { name: 'tasks', testDir: 'e2e/tasks' },
    { name: 'screenshots', testDir: 'e2e/screenshots' },
    { name: 'bench', testDir: 'bench/screen' },
  ],
});
