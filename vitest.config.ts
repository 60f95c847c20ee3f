import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
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

/** Files with slow tests in them: the others need not be loaded for these. */
const withSlow = readdirSync('tests', { recursive: true, encoding: 'utf8' })
  .filter((file) => file.endsWith('.test.ts'))
  .map((file) => path.join('tests', file))
  .filter((file) => /tags: 'slow'|@module-tag slow/.test(readFileSync(file, 'utf8')));

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
      { extends: true, test: { ...both, name: 'slow', include: withSlow, testTimeout: HANGS_MS } },
    ],
  },
});
