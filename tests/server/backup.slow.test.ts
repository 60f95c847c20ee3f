/**
 * A backup holds all there is at one moment, comes back as it was, and says so where it can't.
 *
 * @module-tag slow
 */
import { createHash } from 'node:crypto';
import { copyFileSync, existsSync, mkdirSync, readFileSync, rmSync, truncateSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { sql } from 'drizzle-orm';
import { afterAll, afterEach, beforeAll, describe, expect, test } from 'vitest';
import { backUp, lookThrough, restoreInto } from '../../scripts/lib/backup.mjs';
import { local } from '../../scripts/lib/paths.mjs';
import { keptPassphrase } from '../../src/serve/entrance';
import { keepAsset } from '../../src/server/assets';
import { type Database, openDatabase } from '../../src/server/database';
import { createJob, saveJob } from '../../src/server/jobs';
import { assets, jobRevisions, jobs, settings, shopEntries } from '../../src/server/schema';
import { changeSettings } from '../../src/server/settings';
import { openShop } from '../../src/server/shop';
import { nameVersion } from '../../src/server/versions';
import { jobWith, lettering, partOf } from '../support/jobs';
import { ownDatabase } from '../support/own-database';

const folder = path.join(local, 'backups');
const file = path.join(folder, 'all.backup');
const job = jobWith([partOf([lettering('Lane')])]);
const extras = { picture: { width: 3, height: 2, shapes: [] }, openFindings: 2 };
let db: Database;
let close: () => Promise<void>;
let url: string;

beforeAll(async () => {
  rmSync(folder, { recursive: true, force: true });
  mkdirSync(folder, { recursive: true });
  ({ db, close } = await ownDatabase('backup'));
  const at = new URL(process.env.DATABASE_URL ?? '');
  at.pathname = `/test_backup_${process.pid}`;
  url = at.href;
  for (let i = 0; i < 12; i++) {
    const made = await createJob(db, { ...job, title: `Zeichen „${i}“ \t\\ ${'\n'}` }, extras);
    await saveJob(db, made?.id ?? '', { from: 1, job: { ...job, title: `Job ${i}` }, extras });
    await nameVersion(db, made?.id ?? '', 1, 'as sold');
  }
  for (let i = 0; i < 3; i++) await keepAsset(db, Buffer.alloc(300_000, `plate ${i}\n\\.\n`), `plate ${i}.dxf`);
  await changeSettings(db, { names: ['bench.shop'], passphrase: await keptPassphrase('four oak boards') });
  await openShop(db);
  await db.update(jobs).set({ deletedAt: sql`now()` }).where(sql`${jobs.title} = 'Job 3'`);
});
afterAll(async () => {
  await close();
  rmSync(folder, { recursive: true, force: true });
});
afterEach(() => rmSync(file, { force: true }));

const everything = async (from: Database) => ({
  jobs: await from.select().from(jobs).orderBy(jobs.id),
  versions: await from.select().from(jobRevisions).orderBy(jobRevisions.jobId, jobRevisions.version),
  assets: (await from.select().from(assets).orderBy(assets.sha256)).map((a) => ({
    ...a,
    bytes: createHash('sha256').update(a.bytes).digest('hex'),
  })),
  settings: await from.select().from(settings).orderBy(settings.name),
  shop: await from.select().from(shopEntries).orderBy(shopEntries.shelf, shopEntries.id),
});

/** Run with a database in which there is nothing at all. */
async function withEmpty(run: (empty: { db: Database; url: string }) => Promise<void>): Promise<void> {
  const name = sql.identifier(`test_restored_${process.pid}`);
  await db.execute(sql`drop database if exists ${name} with (force)`);
  await db.execute(sql`create database ${name}`);
  const at = new URL(url);
  at.pathname = `/test_restored_${process.pid}`;
  const opened = openDatabase(at.href);
  try {
    await run({ db: opened.database, url: at.href });
  } finally {
    await opened.close();
    await db.execute(sql`drop database if exists ${name} with (force)`);
  }
}

test('all there is comes back as it was', async () => {
  const told: string[] = [];
  const counts = await backUp(url, file, (words) => told.push(words));
  expect(counts).toMatchObject({ jobs: 12, job_revisions: 12, assets: 3, settings: 2 });
  expect(counts.shop_entries).toBeGreaterThan(100);
  expect(told.at(-1)).toContain('reading it back');
  expect(await lookThrough(file)).toEqual(counts);
  await withEmpty(async (empty) => {
    told.length = 0;
    expect(await restoreInto(empty.url, file, (words) => told.push(words))).toEqual(counts);
    expect(told).toContain('files …');
    expect(await everything(empty.db)).toEqual(await everything(db));
  });
});

test('what is saved meanwhile is in it wholly or not at all', async () => {
  let isDone = false;
  const saving = (async () => {
    for (let i = 0; !isDone; i++) await createJob(db, { ...job, title: `Meanwhile ${i}` }, extras);
  })();
  const counts = await backUp(url, file);
  isDone = true;
  await saving;
  expect(counts.jobs).toBeGreaterThanOrEqual(12);
  await withEmpty(async (empty) => expect((await restoreInto(empty.url, file)).jobs).toBe(counts.jobs));
  await db.delete(jobs).where(sql`${jobs.title} like 'Meanwhile%'`);
});

describe('nothing is written or touched', () => {
  test('where there is such a file, or the database is away', async () => {
    writeFileSync(file, 'mine');
    await expect(backUp(url, file)).rejects.toThrow('already; nothing was written');
    expect(readFileSync(file, 'utf8')).toBe('mine');
    rmSync(file);
    await expect(backUp(url.replace(/:\d+\//, ':9/'), file)).rejects.toThrow();
    expect([existsSync(file), existsSync(`${file}.part`)]).toEqual([false, false]);
  });

  test('by a file that is none, is cut short or damaged', async () => {
    await expect((async () => lookThrough(path.join(folder, 'none')))()).rejects.toThrow('There is no file');
    writeFileSync(file, 'no backup at all');
    await expect((async () => lookThrough(file))()).rejects.toThrow('is no backup of Needlefile');
    rmSync(file);
    await backUp(url, file);
    const spoiled = path.join(folder, 'spoiled.backup');
    const bytes = readFileSync(file);
    copyFileSync(file, spoiled);
    truncateSync(spoiled, bytes.length - 2_000);
    const middle = Buffer.from(bytes);
    middle.fill(0, bytes.length >> 1, (bytes.length >> 1) + 64);
    await withEmpty(async (empty) => {
      await expect(restoreInto(empty.url, spoiled)).rejects.toThrow('is no backup of Needlefile, or it is damaged');
      writeFileSync(spoiled, middle);
      await expect(restoreInto(empty.url, spoiled)).rejects.toThrow(/damaged|has arrived|no backup/);
      const { rows } = await empty.db.execute(
        sql`select 1 from information_schema.tables where table_schema = 'public'`,
      );
      expect(rows).toEqual([]);
      expect((await restoreInto(empty.url, file)).jobs).toBe(12);
      await expect(restoreInto(empty.url, file)).rejects.toThrow('something in the database already');
    });
  });

  test('by one of a newer Needlefile, and one whose files are not what they were', async () => {
    await withEmpty(async (empty) => {
      await backUp(url, file);
      await restoreInto(empty.url, file);
      await empty.db.execute(
        sql`insert into drizzle.__drizzle_migrations (hash, created_at) values ('later', 9999999999999)`,
      );
      const newer = path.join(folder, 'newer.backup');
      await backUp(empty.url, newer);
      await empty.db.execute(sql`delete from drizzle.__drizzle_migrations where hash = 'later'`);
      await empty.db.execute(sql`update assets set bytes = bytes || 'x'::bytea where name = 'plate 0.dxf'`);
      const damaged = path.join(folder, 'damaged.backup');
      await backUp(empty.url, damaged);
      await empty.db.execute(sql`drop schema public cascade; drop schema drizzle cascade; create schema public`);
      await expect(restoreInto(empty.url, newer)).rejects.toThrow('by a newer Needlefile');
      await empty.db.execute(sql`drop schema public cascade; drop schema drizzle cascade; create schema public`);
      await expect(restoreInto(empty.url, damaged)).rejects.toThrow('1 of the files are not what they were');
    });
  });
});

test('what an older Needlefile backed up, which had no shop, comes back', async () => {
  await db.execute(sql`drop table shop_entries`);
  const counts = await backUp(url, file);
  expect(counts).toMatchObject({ shop_entries: 0 });
  expect(counts.jobs).toBeGreaterThanOrEqual(12);
  await withEmpty(async (empty) => {
    expect(await restoreInto(empty.url, file)).toEqual(counts);
  });
});
