// npm run bench [-- --write] [NAME ...]: speed on realistic work, as ratios against something measured in the same run. Names are those of
// files in scripts/bench and of e2e/NAME.bench.ts; --write puts the figures into docs/measurements.md.
import fs from 'node:fs';
import path from 'node:path';
import { ensureDebian, ensureNodeModules } from './lib/install.mjs';
import { figuresIn, writeMeasurements } from './lib/measurements.mjs';
import { local, root } from './lib/paths.mjs';
import { bin, must } from './lib/run.mjs';

const CORE = [
  'core',
  'parts',
  'bridges',
  'cuts',
  'order',
  'proof',
  'joining',
  'names',
  'row-workers',
  'command',
  'drawings',
  'lines',
  'fill',
  'files',
  'pdf',
  'trace',
];
const BROWSER = fs
  .readdirSync(path.join(root, 'e2e'))
  .flatMap((name) => (name.endsWith('.bench.ts') ? [name.slice(0, -'.bench.ts'.length)] : []));

const writes = process.argv.includes('--write');
const named = process.argv.slice(2).filter((word) => word !== '--write');
const asked = (names) => names.filter((name) => named.length === 0 || named.includes(name));

ensureNodeModules();
ensureDebian(['postgresql', 'chromium']);
fs.mkdirSync(local, { recursive: true });
const file = path.join(local, 'bench.jsonl');
fs.rmSync(file, { force: true });
const env = { NEEDLEFILE_COMMAND: 'npm run bench', ...(writes && { NEEDLEFILE_FIGURES: file }) };
console.log('\n── core');
for (const name of asked(CORE))
  must(process.execPath, [bin('tsx', 'dist', 'cli.mjs'), `scripts/bench/${name}.ts`], { env });
if (asked(BROWSER).length > 0) {
  console.log('\n── browser');
  const files = asked(BROWSER).map((name) => `e2e/${name}.bench.ts`);
  must(process.execPath, ['scripts/e2e.mjs', ...files], { env: { ...env, NEEDLEFILE_BROWSER_RUN: 'bench' } });
}
if (writes) writeMeasurements(figuresIn(file), false);
