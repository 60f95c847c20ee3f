// npm run verify: the large verification sets in full, and the bench; writes docs/measurements.md.
import fs from 'node:fs';
import path from 'node:path';
import { CHECKERS, ensureDebian, ensureNodeModules } from './lib/install.mjs';
import { local, root } from './lib/paths.mjs';
import { bin, run } from './lib/run.mjs';
import { sectionOf } from './mutate/section.mjs';

ensureNodeModules();
ensureDebian(CHECKERS);
fs.mkdirSync(local, { recursive: true });
const file = path.join(local, 'figures.jsonl');
fs.rmSync(file, { force: true });

const env = { NEEDLEFILE_FIGURES: file };
const sets = run(process.execPath, [bin('vitest', 'vitest.mjs'), 'run', 'tests/core', 'tests/formats'], {
  env: { ...env, NEEDLEFILE_VERIFY: '1', NEEDLEFILE_COMMAND: 'npm run verify' },
});
const bench = run(process.execPath, ['scripts/bench.mjs'], { env });

const chaos = run(process.execPath, ['scripts/e2e.mjs'], {
  env: { ...env, NEEDLEFILE_BROWSER_RUN: 'chaos', NEEDLEFILE_COMMAND: 'npm run verify' },
});

const figures = fs
  .readFileSync(file, 'utf8')
  .trim()
  .split('\n')
  .map((line) => JSON.parse(line));
const shown = (f) => `${f.value.toFixed(f.digits)}${f.unit ? ` ${f.unit}` : ''}`;
const rows = figures
  .sort((a, b) => a.command.localeCompare(b.command) || a.name.localeCompare(b.name, 'en', { numeric: true }))
  .map(
    (f) =>
      `| ${f.name} | ${shown(f)} | ${f.aim ? `at most ${f.aim.most}${f.unit ? ` ${f.unit}` : ''}` : ''} | ${f.note ?? ''} | \`${f.command}\` |`,
  );
const page = path.join(root, 'docs', 'measurements.md');
const mutation = sectionOf(fs.readFileSync(page, 'utf8'));
fs.writeFileSync(
  page,
  `# Measurements

Written by \`npm run verify\` on ${new Date().toISOString().slice(0, 10)}; ratios are against the thing named, measured in the same run.

| figure | measured | aim | how | command |
|---|---|---|---|---|
${rows.join('\n')}
${mutation ? `\n${mutation}` : ''}`,
);
const missed = figures.filter((f) => f.aim && f.value > f.aim.most);
for (const f of missed) console.error(`Aim missed: ${f.name}: ${shown(f)}`);
process.exit([sets, bench, chaos].some(({ status }) => status !== 0) || missed.length > 0 ? 1 : 0);
