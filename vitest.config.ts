import { defineConfig, type ViteUserConfig } from 'vitest/config';

/** What both projects have. Modules are loaded once a worker, not once a file: loading took half the time. */
const both = {
  environment: 'node',
  include: ['tests/**/*.test.ts'],
  setupFiles: 'tests/support/setup.ts',
  runner: 'tests/support/runner.ts',
  pool: 'forks',
  isolate: false,
} satisfies ViteUserConfig['test'];

/** A test that hangs is to end; none is to fail because the machine is busy. */
const HANGS_MS = process.env.NEEDLEFILE_VERIFY ? 3_600_000 : 600_000;

export default defineConfig({
  resolve: { tsconfigPaths: true },
  test: {
    maxWorkers: 2,
    globalSetup: 'tests/support/database.ts',
    tags: [{ name: 'slow', description: 'Takes long: run by npm test and npm run unit, not while working.' }],
    projects: [
      // Where all of a file is slow, its name says so, and it is not even loaded.
      { extends: true, test: { ...both, name: 'quick', exclude: ['**/*.slow.test.ts'], testTimeout: HANGS_MS } },
      { extends: true, test: { ...both, name: 'slow', testTimeout: HANGS_MS } },
    ],
  },
});
