import { defineConfig } from 'vitest/config';

export default defineConfig({
  resolve: { tsconfigPaths: true },
  test: {
    environment: 'node',
    include: ['tests/**/*.test.ts'],
    setupFiles: ['tests/support/setup.ts'],
    pool: 'forks',
    testTimeout: process.env.NEEDLEFILE_VERIFY ? 1_800_000 : 120_000,
    maxWorkers: 2,
  },
});
