// npm run bench [-- --write] [--runs N] [NAME ...]: speed on realistic work, as ratios against something measured in the same run. Names are
// those of files in scripts/bench and of e2e/NAME.bench.ts; --write puts the figures into docs/measurements.md, of several runs their
// median with the least and the most.
import fs from 'node:fs';
import path from 'node:path';
import { ensureDebian, ensureNodeModules } from './lib/install.mjs';
import { figuresIn, writeMeasurements } from './lib/measurements.mjs';
import { local, root } from './lib/paths.mjs';
import { bin, must } from './lib/run.mjs';
import { ofRuns } from './lib/runs.mjs';

const CORE = [
  'core',
  'signs',
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

const words = process.argv.slice(2);
const writes = words.includes('--write');
const at = words.indexOf('--runs');
const runs = at < 0 ? 1 : Number(words[at + 1]);
if (!Number.isInteger(runs) || runs < 1) {
  console.error('--runs takes how many runs are made, at least one.');
  process.exit(2);
}
const named = words.filter((word, i) => word !== '--write' && (at < 0 || (i !== at && i !== at + 1)));
const asked = (names) => names.filter((name) => named.length === 0 || named.includes(name));

ensureNodeModules();
ensureDebian(['postgresql', 'chromium']);
fs.mkdirSync(local, { recursive: true });
const file = path.join(local, 'bench.jsonl');
fs.rmSync(file, { force: true });
const said = [...(runs > 1 ? [`--runs ${runs}`] : []), ...named];
const command = ['npm run bench', ...(said.length > 0 ? ['--', ...said] : [])].join(' ');
const env = { NEEDLEFILE_COMMAND: command, ...(writes && { NEEDLEFILE_FIGURES: file }) };
for (let run = 1; run <= runs; run++) {
  console.log(`\n── core${runs > 1 ? `, run ${run} of ${runs}` : ''}`);
  for (const name of asked(CORE))
    must(process.execPath, [bin('tsx', 'dist', 'cli.mjs'), `scripts/bench/${name}.ts`], { env });
  if (asked(BROWSER).length === 0) continue;
  console.log('\n── browser');
  const files = asked(BROWSER).map((name) => `e2e/${name}.bench.ts`);
  must(process.execPath, ['scripts/e2e.mjs', ...files], { env: { ...env, NEEDLEFILE_BROWSER_RUN: 'bench' } });
}
if (writes) writeMeasurements(ofRuns(figuresIn(file)), false);
