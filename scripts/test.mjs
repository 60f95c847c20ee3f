// npm test: installs what the tests need and runs everything: types, linter, core, server, interface.
import { CHECKERS, ensureDebian, ensureNodeModules } from './lib/install.mjs';
import { bin, ended, must, run, start } from './lib/run.mjs';

ensureNodeModules();
ensureDebian(['postgresql', 'chromium', ...CHECKERS]);

const node = process.execPath;
const failed = [];
const step = (name, command, args, env = {}) => {
  const began = Date.now();
  console.log(`\n── ${name}`);
  if (run(command, args, { env: { NEXT_TELEMETRY_DISABLED: '1', ...env } }).status !== 0) failed.push(name);
  console.log(`── ${name}: ${((Date.now() - began) / 1000).toFixed(0)} s`);
};

must(node, [bin('next', 'dist', 'bin', 'next'), 'typegen'], { quiet: true });
step('types', node, [bin('typescript', 'bin', 'tsc'), '--noEmit']);
// What the interface is tested on is built beside what follows.
const building = start(node, ['scripts/build.mjs']);
step('linter and layers', node, [bin('@biomejs', 'biome', 'bin', 'biome'), 'ci', '.']);
step('licences', node, ['scripts/licences.mjs']);
step('nothing unused', node, [bin('knip', 'bin', 'knip.js')]);

step('core, server and bench', node, [bin('vitest', 'vitest.mjs'), 'run']);

if ((await ended(building)) !== 0) failed.push('build');
else step('interface', node, ['scripts/e2e.mjs']);

if (failed.length > 0) {
  console.error(`\nNot passed: ${failed.join(', ')}`);
  process.exit(1);
}
console.log('\nEverything passed.');
