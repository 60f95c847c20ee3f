/** Databases of earlier versions are taken along: migrations that were given out stay as they are, and later ones run on what those made. */
import { createHash } from 'node:crypto';
import { cpSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { sql } from 'drizzle-orm';
import { migrate } from 'drizzle-orm/node-postgres/migrator';
import { expect, test } from 'vitest';
import { keepAsset } from '../../src/server/assets';
import { listGivenFiles } from '../../src/server/given-files';
import { createJob } from '../../src/server/jobs';
import { jobWith } from '../support/jobs';
import { ownDatabase } from '../support/own-database';

/** What each migration is. A line is added with a migration; none is ever changed: databases that have run it do not run it anew. */
const GIVEN_OUT = {
  '0000_jobs.sql': '513f2f353c134e66fd8dffb3f620cd61171b64578933e5956b80f9385453a97b',
  '0001_materials.sql': '1f351379bc4b467b9877cdad50662cc5a438d1589ff5f97310dca2d45716b064',
  '0002_assets.sql': '404039bb7c6f5d240ae0f2841da327dcc506c19f3ff68f48f63542de3c84cf9a',
  '0003_versions.sql': '21163806657a6066cacc25dfbd6945340b2aef0f0b41d1708fb1579939ef8a0a',
  '0004_settings.sql': '73bc471c7c02ee5f15667990d2b96a451acf963fd01ba31954ec4f0531bfdd42',
  '0005_unused_assets.sql': 'c4be99373f5c439f1e0851bf1b9a4dc698d9493d768c15a5b1984ad21181dc46',
  '0006_typefaces.sql': 'f610f29c0f3bde6d1720f3b37ba7c98b9b4c2d912036196c253bc43ab06d7a5e',
  '0007_starters.sql': '38b895fa6ad12cecded870a02043a6c1c97f76dcf6f35bafe894d4c3b502082a',
  '0008_kerfs.sql': '709d32a60c71871006e3ce91d4b55fa7d5df801997ef3cb7328a5b58d0eb9925',
  '0009_kerfs_by_process.sql': '372b11b5d7fec9ad5be7912129fbfcf0efed45705277ca576e3ab496522457b4',
  '0010_shop.sql': '1630d41bb2fbd39d0b6644125d207ab32980264e6a3b2744a39be92e7e12a216',
  '0011_no_materials.sql': '9b88ba69870e2a66e3636780764e4d34e9cf8713b6b97b1c403377c083ac4542',
  '0012_given_files.sql': 'd82f72127ed85b69584eff887b062835ff0cf6f034489e248398f4773c14268d',
  '0013_given_parts.sql': 'ab3f8fd8f20116340b4f239e2992c44fc773106f5da2e5be5fe6cb48238eedf0',
  '0014_row_workers.sql': '6eb3bbba70b216037978a8d3be8568b8024179404aeed73da0fae9ca1ffdb1e6',
};

interface Journal {
  readonly entries: readonly { readonly tag: string; readonly when: number }[];
}
const journal: Journal = JSON.parse(readFileSync('drizzle/meta/_journal.json', 'utf8'));

/** A folder with the migrations up to one, as an earlier version had it. */
function upTo(tag: string): string {
  const folder = mkdtempSync(join(tmpdir(), 'migrations-'));
  cpSync('drizzle', folder, { recursive: true });
  const last = journal.entries.findIndex((e) => e.tag === tag);
  writeFileSync(
    join(folder, 'meta/_journal.json'),
    JSON.stringify({ ...journal, entries: journal.entries.slice(0, last + 1) }),
  );
  return folder;
}

test('a migration that was given out is never rewritten', () => {
  const hashes = readdirSync('drizzle')
    .filter((name) => name.endsWith('.sql'))
    .map((name) => [
      name,
      createHash('sha256')
        .update(readFileSync(join('drizzle', name)))
        .digest('hex'),
    ]);
  expect(Object.fromEntries(hashes)).toEqual(GIVEN_OUT);
});

test('migrations are run in their order, each later than the one before: one that is earlier would never be run', () => {
  expect(journal.entries.map((e) => `${e.tag}.sql`)).toEqual(Object.keys(GIVEN_OUT));
  const when = journal.entries.map((e) => e.when);
  expect(when).toEqual([...new Set(when)].sort((a, b) => a - b));
});

test.for([
  ['as it was given out', sql`select 1`],
  ['with the column already there', sql`alter table given_files add column part_ids text[]`],
] as const)('files noted before it was noted what they are of: of all parts; a table %s', async ([, before]) => {
  const folder = upTo('0012_given_files');
  const { db, close } = await ownDatabase('migrations', folder);
  try {
    await db.execute(before);
    const id = (await createJob(db, jobWith([]), { picture: null, openFindings: 0 }))?.id as string;
    const file = await keepAsset(db, Buffer.from('cut'), 'cut.svg');
    await db.execute(
      sql`insert into given_files (job_id, version, name, file, nth) values (${id}, 1, 'cut.svg', ${file}, 0)`,
    );
    await migrate(db, { migrationsFolder: 'drizzle' });
    expect(await listGivenFiles(db, id)).toMatchObject([{ name: 'cut.svg', version: 1, partIds: null, bytes: 3 }]);
  } finally {
    await close();
    rmSync(folder, { recursive: true });
  }
});
