// npm run mutate: small changes are made to the sources named in stryker.config.json, one at a time, and the quick unit tests
// must notice. Writes the figures, and every change they did not notice with the reason, into docs/measurements.md. Names of
// sources (npm run mutate -- src/bench/store.ts,src/bench/saving.ts) measure those anew; the figures of the others are kept.
import fs from 'node:fs';
import path from 'node:path';
import { ensureDebian, ensureNodeModules } from './lib/install.mjs';
import { local, root } from './lib/paths.mjs';
import { postgres } from './lib/postgres.mjs';
import { bin, must, run } from './lib/run.mjs';
import { merged, readSection, shareOf, withSection, writeSection } from './mutate/section.mjs';

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
const { mutate } = JSON.parse(fs.readFileSync(path.join(root, 'stryker.config.json'), 'utf8'));
const isNoticed = (m) => m.status === 'Killed' || m.status === 'Timeout';
const isLeft = (m) => m.status === 'Survived' || m.status === 'NoCoverage';
const minutes = Math.round((Date.now() - began) / 60_000);
const now = { files: new Map(), survived: [], runs: [] };
for (const [file, { source, mutants }] of Object.entries(files)) {
  const lines = source.split('\n');
  const left = mutants.filter(isLeft);
  const noticed = mutants.filter(isNoticed).length;
  now.files.set(file, { changes: noticed + left.length, noticed });
  for (const { location, replacement = '' } of left) {
    const line = location.start.line;
    now.survived.push({ file, line, text: lines[line - 1].trim(), replacement });
  }
}
const changes = [...now.files.values()].reduce((n, f) => n + f.changes, 0);
now.runs = [`${new Date().toISOString().slice(0, 10)}: ${now.files.size} files, ${changes} changes, in ${minutes} min`];
console.log(`${(100 * shareOf(now)).toFixed(1)} % of ${changes} changes noticed, in ${minutes} min.`);
for (const m of now.survived) console.log(`${m.file}:${m.line} ${m.replacement.replace(/\s+/g, ' ').slice(0, 80)}`);
const page = fs.readFileSync(MEASUREMENTS, 'utf8');
const figures =
  only.length === 0 ? now : merged(readSection(page), now, (file) => mutate.some((glob) => matches(file, glob)));
fs.writeFileSync(MEASUREMENTS, withSection(page, writeSection(figures, AIM)));
if (shareOf(figures) < AIM) process.exit(1);

/** Whether a file is meant by a name with * and {a,b} in it. */
function matches(file, glob) {
  const pattern = glob
    .replace(/[.+^$()|[\]\\]/g, '\\$&')
    .replace(/\*/g, '[^/]*')
    .replace(/\{([^}]*)\}/g, (_, names) => `(${names.replaceAll(',', '|')})`);
  return new RegExp(`^${pattern}$`).test(file);
}
