// npm run mutate: small changes are made to the sources named in stryker.config.json, one at a time, and the quick unit tests
// must notice. Writes the figure, and every change they did not notice with the reason, into docs/measurements.md. Names of
// sources (npm run mutate -- src/bench/store.ts) change only those, and write nothing.
import fs from 'node:fs';
import path from 'node:path';
import { ensureDebian, ensureNodeModules } from './lib/install.mjs';
import { local, root } from './lib/paths.mjs';
import { postgres } from './lib/postgres.mjs';
import { bin, must, run } from './lib/run.mjs';
import { reasonFor } from './mutate/reasons.mjs';
import { withSection } from './mutate/section.mjs';

/** Of the changes made this share must be noticed. */
const AIM = 0.85;
const REPORT = path.join(local, 'mutation.json');
const MEASUREMENTS = path.join(root, 'docs', 'measurements.md');

const only = process.argv.slice(2);
ensureNodeModules();
ensureDebian(['postgresql']);
const database = postgres('mutate-database', { fast: true });
const env = { DATABASE_URL: await database.start() };
must(process.execPath, [bin('tsx', 'dist', 'cli.mjs'), 'scripts/migrate.ts'], { env });
const began = Date.now();
const arguments_ = ['run', ...(only.length > 0 ? ['--mutate', only.join(',')] : [])];
const { status } = run(process.execPath, [bin('@stryker-mutator', 'core', 'bin', 'stryker.js'), ...arguments_], {
  env,
});
database.stop();
if (status !== 0) process.exit(status);

const { files } = JSON.parse(fs.readFileSync(REPORT, 'utf8'));
const all = Object.entries(files).flatMap(([file, { source, mutants }]) => {
  const lines = source.split('\n');
  return mutants
    .filter((m) => m.status !== 'Ignored')
    .map((m) => ({ ...m, file, text: lines[m.location.start.line - 1].trim() }));
});
const noticed = all.filter((m) => m.status === 'Killed' || m.status === 'Timeout');
const survived = all.filter((m) => m.status === 'Survived' || m.status === 'NoCoverage');
const share = noticed.length / (noticed.length + survived.length);
const minutes = Math.round((Date.now() - began) / 60_000);
console.log(
  `${noticed.length} of ${noticed.length + survived.length} changes noticed (${(100 * share).toFixed(1)} %), in ${minutes} min.`,
);
for (const m of survived) console.log(`${m.file}:${m.location.start.line} ${m.mutatorName}: ${oneLine(m.replacement)}`);
if (only.length === 0) {
  fs.writeFileSync(MEASUREMENTS, withSection(fs.readFileSync(MEASUREMENTS, 'utf8'), section()));
  if (share < AIM) process.exit(1);
}

function oneLine(text = '') {
  return text.replace(/\s+/g, ' ').slice(0, 80);
}

function section() {
  const code = (text) => `\`${oneLine(text).replaceAll('|', '\\|').replaceAll('`', '´')}\``;
  const figures = Object.keys(files).map((file) => {
    const count = (list) => list.filter((m) => m.file === file).length;
    const [yes, no] = [count(noticed), count(survived)];
    return `| ${file} | ${yes + no} | ${yes + no > 0 ? ((100 * yes) / (yes + no)).toFixed(0) : '100'} % |`;
  });
  const rows = survived.map(
    (m) => `| ${m.file}:${m.location.start.line} | ${code(m.text)} | ${code(m.replacement)} | ${reasonFor(m)} |`,
  );
  return `Small changes made one at a time (a comparison turned, a condition dropped, a block emptied), and how many of them the
quick unit tests notice: ${noticed.length} of ${noticed.length + survived.length}, ${(100 * share).toFixed(1)} % (aim: at least ${100 * AIM} %), in ${minutes} minutes on two cores.
Written by \`npm run mutate\` on ${new Date().toISOString().slice(0, 10)}. Words, lists and regular expressions are not changed.

| file | changes | noticed |
|---|---|---|
${figures.join('\n')}

What was not noticed:

| where | line | changed to | why |
|---|---|---|---|
${rows.join('\n')}
`;
}
