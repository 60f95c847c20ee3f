import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { defineConfig, devices, type PlaywrightTestConfig } from '@playwright/test';

const port = Number(process.env.E2E_PORT ?? 23_100);
const machinePort = Number(process.env.E2E_MACHINE_PORT ?? 23_101);
const machineURL = `http://127.0.0.1:${machinePort}`;
const baseURL = `http://127.0.0.1:${port}`;
const asRoot = process.getuid?.() === 0;

const PROJECTS: Readonly<Record<string, PlaywrightTestConfig['projects']>> = {
  // The last one takes the database away, so nothing else may run beside it.
  test: [
    { name: 'interface', testMatch: '*.spec.ts', testIgnore: 'away.spec.ts' },
    { name: 'away', testMatch: 'away.spec.ts', dependencies: ['interface'] },
  ],
  bench: [{ name: 'bench', testMatch: '*.bench.ts' }],
  pictures: [{ name: 'pictures', testMatch: 'pictures.ts' }],
  chaos: [{ name: 'chaos', testMatch: 'chaos.ts' }],
};
const measuring = process.env.NEEDLEFILE_BROWSER_RUN === 'bench';

export default defineConfig({
  testDir: 'e2e',
  outputDir: '.local/e2e',
  fullyParallel: !measuring,
  // They wait more than they work: three fill two processors.
  workers: measuring ? 1 : 3,
  forbidOnly: !!process.env.CI,
  retries: 0,
  // Room for a machine that stalls: nothing here is measured by its time.
  timeout: 300_000,
  expect: { timeout: 45_000 },
  reporter: [['list']],
  projects: PROJECTS[process.env.NEEDLEFILE_BROWSER_RUN ?? 'test'] ?? [],
  use: {
    ...devices['Desktop Chrome'],
    baseURL,
    viewport: { width: 1280, height: 800 },
    navigationTimeout: 60_000,
    actionTimeout: 60_000,
    // Recording every step costs as much as the test; a failure is recorded when asked for: PWTRACE=1 npm run e2e.
    trace: process.env.PWTRACE ? 'retain-on-failure' : 'off',
    screenshot: 'only-on-failure',
    launchOptions: {
      executablePath: '/usr/bin/chromium',
      chromiumSandbox: !asRoot,
      args: [
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
        '--disable-gpu',
      ],
    },
  },
  webServer: [
    {
      command: 'node node_modules/tsx/dist/cli.mjs src/bench-machine/main.ts',
      url: `${machineURL}/api/state`,
      reuseExistingServer: false,
      timeout: 180_000,
      gracefulShutdown: { signal: 'SIGTERM', timeout: 5_000 },
      env: {
        NEEDLEFILE_MACHINE_PORT: String(machinePort),
        NEEDLEFILE_MACHINE_HOME: mkdtempSync(path.join(tmpdir(), 'needlefile-machine-')),
        // So slow that it is still running when a busy page gets to stopping it.
        NEEDLEFILE_MACHINE_PACE: '1',
      },
    },
    {
      command: 'node node_modules/tsx/dist/cli.mjs src/serve/main.ts',
      url: `${baseURL}/api/health`,
      reuseExistingServer: false,
      timeout: 180_000,
      gracefulShutdown: { signal: 'SIGTERM', timeout: 5_000 },
      env: {
        NEEDLEFILE_MACHINE_URL: machineURL,
        DATABASE_URL: process.env.DATABASE_URL ?? '',
        PORT: String(port),
        NODE_ENV: 'production',
        NEXT_TELEMETRY_DISABLED: '1',
      },
    },
  ],
});
