/** Files that were given out: in their order, with version and proof, their bytes kept as long as they are in the list. */
import { afterAll, beforeAll, beforeEach, expect, test } from 'vitest';
import { clearUnusedAssets, keepAsset, openAsset } from '../../src/server/assets';
import type { Database } from '../../src/server/database';
import { giveFiles, listGivenFiles } from '../../src/server/given-files';
import { createJob } from '../../src/server/jobs';
import { assets, givenFiles, jobs } from '../../src/server/schema';
import { jobWith } from '../support/jobs';
import { ownDatabase } from '../support/own-database';

let db: Database;
let close: () => Promise<void>;
let id: string;

beforeAll(async () => {
  ({ db, close } = await ownDatabase('given'));
});
afterAll(() => close());
beforeEach(async () => {
  await db.delete(jobs);
  await db.delete(assets);
  id = (await createJob(db, jobWith([]), { picture: null, openFindings: 0 }))?.id as string;
});

const kept = async (text: string): Promise<string> => (await keepAsset(db, Buffer.from(text), 'a.svg')) as string;
const NOBODY = '00000000-0000-4000-8000-000000000000';

test('noted together they stay in their order; what was given later comes first', async () => {
  const [a, b, c] = [await kept('a'), await kept('bb'), await kept('ccc')];
  const proof = { machine: 'Laser', differences: 0, faults: 0 };
  expect(
    await giveFiles(db, id, {
      version: 3,
      partIds: ['plate'],
      files: [
        { name: 'engrave.dxf', file: a, proof },
        { name: 'cut.dxf', file: b, proof: null },
      ],
    }),
  ).toBe(true);
  expect(
    await giveFiles(db, id, { version: 4, partIds: null, files: [{ name: 'all.svg', file: c, proof: null }] }),
  ).toBe(true);
  const list = await listGivenFiles(db, id);
  expect(list?.map((f) => [f.name, f.version, f.partIds, f.bytes, f.proof])).toEqual([
    ['all.svg', 4, null, 3, null],
    ['engrave.dxf', 3, ['plate'], 1, proof],
    ['cut.dxf', 3, ['plate'], 2, null],
  ]);
  expect(list?.[0]?.givenAt).toMatch(/^\d{4}-/);
});

test('of no job, or with a file that is not kept, nothing is noted', async () => {
  const there = { name: 'a.svg', file: await kept('a'), proof: null };
  expect(await listGivenFiles(db, NOBODY)).toBeNull();
  expect(await giveFiles(db, NOBODY, { version: 1, partIds: null, files: [there] })).toBe(false);
  const missing = { name: 'b.svg', file: 'f'.repeat(64), proof: null };
  expect(await giveFiles(db, id, { version: 1, partIds: null, files: [there, missing] })).toBe(false);
  expect(await listGivenFiles(db, id)).toEqual([]);
});

test('their bytes are in use as long as they are in the list', async () => {
  const [given, other] = [await kept('given'), await kept('other')];
  await giveFiles(db, id, { version: 1, partIds: null, files: [{ name: 'a.svg', file: given, proof: null }] });
  await clearUnusedAssets(db);
  const rows = await db.select({ id: assets.sha256, since: assets.unusedSince }).from(assets);
  expect(new Map(rows.map((r) => [r.id, r.since === null]))).toEqual(
    new Map([
      [given, true],
      [other, false],
    ]),
  );
  await db.delete(givenFiles);
  await clearUnusedAssets(db);
  expect((await db.select({ since: assets.unusedSince }).from(assets)).every((r) => r.since !== null)).toBe(true);
  expect((await openAsset(db, given))?.bytes.toString()).toBe('given');
});
