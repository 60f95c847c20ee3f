/** Brings the database up to date; with --demo also loads the sample jobs that are not there yet. */
import { readdir, readFile } from 'node:fs/promises';
import path from 'node:path';
import { drizzle } from 'drizzle-orm/node-postgres';
import { migrate } from 'drizzle-orm/node-postgres/migrator';
import pg from 'pg';
import { diskFaces } from '../src/cli/typefaces';
import { readJob } from '../src/core/document/read';
import { loadWasmEngine } from '../src/core/geometry/boolean/engine-wasm';
import { Evaluator } from '../src/core/job/evaluate';
import { pictureOf } from '../src/core/job/picture';
import { SHIPPED_FACES } from '../src/core/lettering/catalogue';
import { finished } from '../src/core/memo';
import { openGroups } from '../src/core/rules/groups';
import { faceOfFamily } from '../src/core/schema/lettering';
import { openDatabase } from '../src/server/database';
import { createJob } from '../src/server/jobs';
import { jobs } from '../src/server/schema';

/** Any number no other program locks on: only one process migrates at a time. */
const LOCK = 7_270_041;
const root = path.resolve(import.meta.dirname, '..');

const url = process.env.DATABASE_URL;
if (!url) throw new Error('DATABASE_URL is not set');

const client = new pg.Client({ connectionString: url });
await client.connect();
await client.query('select pg_advisory_lock($1)', [LOCK]);
await migrate(drizzle(client), { migrationsFolder: path.join(root, 'drizzle') });
if (process.argv.includes('--demo')) await loadSamples(url);
await client.end();

async function loadSamples(databaseUrl: string) {
  const { database: db, close } = openDatabase(databaseUrl);
  const held = new Set((await db.select({ sample: jobs.sample }).from(jobs)).map((row) => row.sample));
  const files = (await readdir(path.join(root, 'demo')))
    .filter((f) => f.endsWith('.json'))
    .sort()
    .reverse();
  const wanted = files.filter((file) => !held.has(path.basename(file, '.json')));
  if (wanted.length > 0) {
    const evaluator = new Evaluator(await loadWasmEngine());
    const faces = await diskFaces(
      SHIPPED_FACES.map((f) => faceOfFamily(f.family)),
      null,
    );
    for (const file of wanted) {
      const read = readJob(await readFile(path.join(root, 'demo', file), 'utf8'));
      if (!read.ok) throw new Error(`${file}: ${read.sentences.join(' ')}`);
      const result = evaluator.evaluate(read.job, faces);
      const openFindings = openGroups(result.findings).length;
      await createJob(
        db,
        read.job,
        { picture: finished(pictureOf(read.job, result)), openFindings },
        path.basename(file, '.json'),
      );
    }
  }
  await close();
}
