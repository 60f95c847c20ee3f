// npm run verify: the large verification sets in full, and the bench; writes docs/measurements.md.
import fs from 'node:fs';
import path from 'node:path';
import { CHECKERS, ensureDebian, ensureNodeModules } from './lib/install.mjs';
import { figuresIn, shown, writeMeasurements } from './lib/measurements.mjs';
import { local } from './lib/paths.mjs';
import { bin, must, run } from './lib/run.mjs';

ensureNodeModules();
ensureDebian(CHECKERS);
fs.mkdirSync(local, { recursive: true });
const file = path.join(local, 'figures.jsonl');
fs.rmSync(file, { force: true });

const env = { NEEDLEFILE_FIGURES: file };
// Typefaces that do not ship, to judge on.
must('npm', ['ci', '--no-fund', '--no-audit', '--prefix', 'tests/typefaces']);
const folders = [
  'tests/core',
  'tests/formats',
  'tests/lettering',
  'tests/tracing',
  'tests/ordering',
  'tests/motion',
  'tests/machine',
  'tests/proof',
  'tests/roster',
  'tests/nesting',
  'tests/row-workers',
];
const sets = run(process.execPath, [bin('vitest', 'vitest.mjs'), 'run', ...folders], {
  env: { ...env, NEEDLEFILE_VERIFY: '1', NEEDLEFILE_COMMAND: 'npm run verify' },
});
const bench = run(process.execPath, ['scripts/bench.mjs'], { env });

const chaos = run(process.execPath, ['scripts/e2e.mjs'], {
  env: { ...env, NEEDLEFILE_BROWSER_RUN: 'chaos', NEEDLEFILE_COMMAND: 'npm run verify' },
});

const figures = figuresIn(file);
writeMeasurements(figures, true);
const missed = figures.filter((f) => f.aim && f.value > f.aim.most);
for (const f of missed) console.error(`Aim missed: ${f.name}: ${shown(f)}`);
process.exit([sets, bench, chaos].some(({ status }) => status !== 0) || missed.length > 0 ? 1 : 0);
