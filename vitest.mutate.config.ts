/** The quick unit tests as the mutation run bundles them; see scripts/mutate.mjs. */
import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    environment: 'node',
    include: ['.bundle/tests/*.test.js'],
    setupFiles: 'tests/support/setup.ts',
    tags: [{ name: 'slow' }],
    runner: 'tests/support/runner.ts',
    isolate: false,
    testTimeout: 120_000,
  },
});
