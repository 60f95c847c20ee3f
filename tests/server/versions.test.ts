/** Earlier versions as the server keeps them: by age and under a name, listed some at a time, looked at, brought back. */
import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, beforeEach, describe, expect, test } from 'vitest';
import { JOB_FORMAT, type Job } from '../../src/core/document/schema';
import type { Database } from '../../src/server/database';
import { bringBackVersion, createJob, deleteJob, openJob, saveJob } from '../../src/server/jobs';
import { jobRevisions, jobs } from '../../src/server/schema';
import { listVersions, nameVersion, openPicture, openVersion, VERSIONS_A_PAGE } from '../../src/server/versions';
import { jobWith, lettering, partOf } from '../support/jobs';
import { ownDatabase } from '../support/own-database';

let db: Database;
let close: () => Promise<void>;

beforeAll(async () => {
  ({ db, close } = await ownDatabase('versions'));
});
afterAll(() => close());
beforeEach(async () => {
  await db.delete(jobs);
});

const job = jobWith([partOf([lettering('Lane')])], { title: 'first' });
const extras = (openFindings: number) => ({ picture: { width: 300, height: 200, shapes: [] }, openFindings });
const NOWHERE = '00000000-0000-4000-8000-000000000000';

async function make(): Promise<string> {
  const made = await createJob(db, job, extras(1));
  if (!made) throw new Error('not made');
  return made.id;
}
const save = (id: string, from: number, title: string) =>
  saveJob(db, id, { from, job: { ...job, title }, extras: extras(from + 1) });
const age = (id: string, version: number, minutes: number) =>
  db
    .update(jobRevisions)
    .set({ savedAt: new Date(Date.now() - minutes * 60_000) })
    .where(eq(jobRevisions.version, version))
    .returning({ id: jobRevisions.jobId })
    .then((rows) => expect(rows).toEqual([{ id }]));
const listed = async (id: string) => (await listVersions(db, id, 0))?.versions.map((v) => [v.version, v.title, v.name]);

describe('saving', () => {
  test('keeps what was there, with its picture and its findings; the newest is listed first', async () => {
    const id = await make();
    await save(id, 1, 'second');
    const page = await listVersions(db, id, 0);
    expect(page).toMatchObject({
      hasMore: false,
      versions: [
        { version: 2, title: 'second', openFindings: 2, name: null },
        { version: 1, title: 'first', openFindings: 1, name: null },
      ],
    });
    expect((await openPicture(db, id, 1)).picture).toMatchObject({ width: 300 });
    expect(await openVersion(db, id, 1)).toMatchObject({ version: 1, document: job });
    expect(await openVersion(db, id, 2)).toMatchObject({ version: 2, document: { title: 'second' } });
  });

  test('drops those that are too old for how many there are of their age', async () => {
    const id = await make();
    await save(id, 1, 'second');
    await age(id, 1, 3 * 24 * 60);
    await save(id, 2, 'third');
    await age(id, 2, 3 * 24 * 60 - 0.001);
    await save(id, 3, 'fourth');
    // The first two are of one day: the last of it stays.
    expect(await listed(id)).toEqual([
      [4, 'fourth', null],
      [3, 'third', null],
      [2, 'second', null],
    ]);
  });

  test('of one job leaves the earlier versions of others', async () => {
    const [one, two] = [await make(), await make()];
    await save(two, 1, 'other');
    for (let from = 1; from < 5; from++) await save(one, from, `save ${from}`);
    expect((await listed(two))?.map(([version]) => version)).toEqual([2, 1]);
    expect((await listed(one))?.length).toBeLessThanOrEqual(3);
  });
});

describe('a name', () => {
  test('keeps a version for good, the newest too, and lets it go again', async () => {
    const id = await make();
    expect(await nameVersion(db, id, 1, 'as ordered')).toBe(true);
    expect(await listed(id)).toEqual([[1, 'first', 'as ordered']]);
    for (let from = 1; from < 4; from++) await save(id, from, `save ${from}`);
    await age(id, 1, 800 * 24 * 60);
    await save(id, 4, 'last');
    expect((await listed(id))?.at(-1)).toEqual([1, 'first', 'as ordered']);
    expect(await openVersion(db, id, 1)).toMatchObject({ name: 'as ordered', document: job });
    expect(await nameVersion(db, id, 1, null)).toBe(true);
    await save(id, 5, 'later');
    expect((await listed(id))?.map(([version]) => version)).not.toContain(1);
  });

  test('can’t be given to what is not there', async () => {
    const id = await make();
    expect(await nameVersion(db, id, 7, 'x')).toBe(false);
    expect(await listed(id)).toEqual([[1, 'first', null]]);
    expect(await nameVersion(db, NOWHERE, 1, 'x')).toBe(false);
    await deleteJob(db, id);
    expect(await nameVersion(db, id, 1, 'x')).toBe(false);
    expect(await listVersions(db, id, 0)).toBeNull();
    expect(await openVersion(db, id, 1)).toBeNull();
  });
});

test('many are listed some at a time, each once', async () => {
  const id = await make();
  const many = Array.from({ length: 2 * VERSIONS_A_PAGE + 3 }, (_, i) => i + 1);
  await db
    .update(jobs)
    .set({ version: many.length + 1 })
    .where(eq(jobs.id, id));
  await db.insert(jobRevisions).values(many.map((version) => ({ jobId: id, version, document: job })));
  const seen: number[] = [];
  for (let before = 0; ; ) {
    const page = await listVersions(db, id, before);
    expect(page?.versions.length).toBeLessThanOrEqual(VERSIONS_A_PAGE + (before === 0 ? 1 : 0));
    seen.push(...(page?.versions.map((v) => v.version) ?? []));
    if (!page?.hasMore) break;
    before = seen.at(-1) ?? 0;
  }
  expect(seen).toEqual([...many, many.length + 1].reverse());
  // A page that is just full is the last one.
  expect(await listVersions(db, id, VERSIONS_A_PAGE + 1)).toMatchObject({
    versions: { length: VERSIONS_A_PAGE },
    hasMore: false,
  });
});

describe('bringing back', () => {
  test('makes an earlier version the newest; what was the newest is an earlier one', async () => {
    const id = await make();
    await save(id, 1, 'second');
    expect(await bringBackVersion(db, id, 1)).toMatchObject({ version: 3 });
    expect(await openJob(db, id)).toMatchObject({ version: 3, document: { title: 'first' } });
    const [now] = (await listVersions(db, id, 0))?.versions ?? [];
    expect(now).toMatchObject({ openFindings: 1 });
    expect((await openPicture(db, id, 3)).picture).toMatchObject({ width: 300 });
    expect(await openVersion(db, id, 2)).toMatchObject({ document: { title: 'second' } });
  });

  test('while somebody saves, neither is lost', async () => {
    const id = await make();
    await save(id, 1, 'second');
    // With a name it is not dropped for another of the same minute.
    await nameVersion(db, id, 1, 'kept');
    const [back, saved] = await Promise.all([bringBackVersion(db, id, 1), save(id, 2, 'theirs')]);
    const now = await openJob(db, id);
    expect(back).toMatchObject({ version: saved.outcome === 'saved' ? 4 : 3 });
    expect(now).toMatchObject({ version: saved.outcome === 'saved' ? 4 : 3, document: { title: 'first' } });
    const before = saved.outcome === 'saved' ? 'theirs' : 'second';
    expect((await db.select().from(jobRevisions)).map((r) => r.document.title)).toContain(before);
  });

  test('reads what was kept in an older format, and says what can’t be read', async () => {
    const id = await make();
    const old = { format: 1, title: 'old', sheet: { width: 100, height: 100 }, parts: [] } as unknown as Job;
    await db.insert(jobRevisions).values({ jobId: id, version: 0, document: old });
    expect(await bringBackVersion(db, id, 0)).toMatchObject({ version: 2 });
    expect((await openJob(db, id))?.document).toMatchObject({ title: 'old', format: JOB_FORMAT });
    await db.insert(jobRevisions).values({ jobId: id, version: 9, document: { format: 99 } as unknown as Job });
    expect(await bringBackVersion(db, id, 9)).toMatch(/newer Needlefile/);
    expect(await bringBackVersion(db, id, 8)).toBeNull();
    expect(await bringBackVersion(db, NOWHERE, 1)).toBeNull();
  });
});
