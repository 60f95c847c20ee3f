// Bundles the quick unit tests with what they import, each to one file and what they share: loading hundreds of modules anew
// for every mutant would take longer than the tests. Run by the mutation run in its copy of the project.
import fs from 'node:fs';
import { build } from 'esbuild';

const tests = fs
  .readdirSync('tests', { recursive: true })
  .filter((file) => file.endsWith('.test.ts') && !file.endsWith('.slow.test.ts'))
  // It reads the sources as they are written, and here they are rewritten.
  .filter((file) => file !== 'structure.test.ts');
await build({
  entryPoints: Object.fromEntries(tests.map((file) => [file.replace('/', '-').replace(/\.ts$/, ''), `tests/${file}`])),
  bundle: true,
  splitting: true,
  format: 'esm',
  platform: 'node',
  target: 'node20',
  // The rest is bundled too: loading it file by file takes longer. These look for files beside them, or must not come twice.
  external: ['vitest', 'harfbuzzjs', 'clipper2-wasm', 'pg', 'pg-*', 'next', 'sharp'],
  banner: {
    js: "import { createRequire as requireFrom } from 'node:module'; const require = requireFrom(import.meta.url);",
  },
  // Two folders deep, as the sources are, so that what they look for relative to themselves is found.
  outdir: '.bundle/tests',
  entryNames: '[name]',
  chunkNames: '[name]-[hash]',
  logLevel: 'error',
});
