import { eq, isNotNull, sql } from 'drizzle-orm';
import { afterAll, beforeAll, beforeEach, describe, expect, test } from 'vitest';
import { bytesOf, Refusal } from '../../src/server/answer';
import { clearUnusedAssets, keepAsset, openAsset } from '../../src/server/assets';
import type { Database } from '../../src/server/database';
import { assets, jobRevisions, jobs } from '../../src/server/schema';
import { jobWith } from '../support/jobs';
import { ownDatabase } from '../support/own-database';

let db: Database;
let close: () => Promise<void>;

beforeAll(async () => {
  ({ db, close } = await ownDatabase('assets'));
});
afterAll(() => close());
beforeEach(async () => {
  await db.delete(assets);
  await db.delete(jobs);
});

const rowOf = (document: never) => ({ document, title: '', units: 'mm' as const, material: '', width: 1, height: 1 });

test('a file comes back as it was; the same file twice is kept once', async () => {
  const bytes = Buffer.from([0, 255, 10, 13, 0, 1]);
  const id = await keepAsset(db, bytes, 'plate.dxf');
  expect(id).toMatch(/^[0-9a-f]{64}$/);
  expect(await keepAsset(db, bytes, 'the same.dxf')).toBe(id);
  expect(await db.select({ id: assets.sha256 }).from(assets)).toHaveLength(1);
  expect(await openAsset(db, id ?? '')).toEqual({ bytes, name: 'plate.dxf' });
  expect(await openAsset(db, '0'.repeat(64))).toBeNull();
});

describe('files that nothing uses', () => {
  const days = (n: number) => sql`now() - ${n} * interval '1 day'`;
  const ids = async () => (await db.select({ id: assets.sha256 }).from(assets)).map((row) => row.id);
  const keep = async (words: string) => (await keepAsset(db, Buffer.from(words), words)) ?? '';
  /** A document in which an id stands. */
  const withId = (id: string) => ({ ...jobWith([]), note: id }) as never;

  test('are dropped a month after that was first seen; what was used meanwhile stays', async () => {
    const [used, unused, again] = [await keep('used'), await keep('unused'), await keep('again')];
    await db.insert(jobs).values(rowOf(withId(used)));
    expect(await clearUnusedAssets(db)).toBe(0);
    await db
      .update(assets)
      .set({ unusedSince: days(31) })
      .where(isNotNull(assets.unusedSince));
    // Brought in again, its time begins anew.
    expect(await keep('again')).toBe(again);
    expect(await clearUnusedAssets(db)).toBe(1);
    expect((await ids()).sort()).toEqual([used, again].sort());
    expect(await openAsset(db, unused)).toBeNull();
    // A day less, and it is still there.
    await db.update(assets).set({ unusedSince: days(29) });
    expect(await clearUnusedAssets(db)).toBe(0);
    expect(await db.select().from(assets).where(eq(assets.sha256, used))).toMatchObject([{ unusedSince: null }]);
  });

  test('are none while a version, or a deleted job, has them', async () => {
    const [earlier, deleted] = [await keep('earlier'), await keep('deleted')];
    const [row] = await db
      .insert(jobs)
      .values({ ...rowOf(withId(deleted)), deletedAt: days(100) })
      .returning();
    await db.insert(jobRevisions).values({ jobId: row?.id ?? '', version: 1, document: withId(earlier) });
    await db.update(assets).set({ unusedSince: days(31) });
    expect(await clearUnusedAssets(db)).toBe(0);
    await db.delete(jobs);
    await clearUnusedAssets(db);
    await db.update(assets).set({ unusedSince: days(31) });
    expect(await clearUnusedAssets(db)).toBe(2);
    expect(await clearUnusedAssets(db)).toBe(0);
  });
});

test('a body that is too large is refused with a sentence', async () => {
  const request = () => new Request('http://127.0.0.1/', { method: 'POST', body: new Uint8Array(1000) });
  expect(await bytesOf(request(), 1000, 'Too large.')).toHaveLength(1000);
  await expect(bytesOf(request(), 999, 'Too large.')).rejects.toThrow(Refusal);
});

test('of a body that is too large so much is still read that its sender hears the refusal, and no more', async () => {
  const most = 1000;
  /** How many of so many chunks of 500 bytes are taken; the chunks read ahead are not counted. */
  const taken = async (chunks: number) => {
    let given = 0;
    const body = new ReadableStream(
      {
        pull: (to) => {
          if (given++ < chunks) to.enqueue(new Uint8Array(500));
          else to.close();
        },
      },
      { highWaterMark: 0 },
    );
    const request = new Request('http://127.0.0.1/', { method: 'POST', body, duplex: 'half' } as RequestInit);
    const outcome = await bytesOf(request, most, 'Too large.').then(
      (bytes) => bytes.length,
      (reason: unknown) => (reason instanceof Refusal ? `${reason.status} ${reason.message}` : String(reason)),
    );
    return [outcome, given];
  };
  expect(await taken(2)).toEqual([1000, 3]);
  expect(await taken(3)).toEqual(['413 Too large.', 4]);
  // Eight times as much as is taken is read to its end …
  expect(await taken(16)).toEqual(['413 Too large.', 17]);
  // … of more, reading stops with the first chunk beyond that.
  expect(await taken(100)).toEqual(['413 Too large.', 17]);
});

test('a body of nothing is nothing; its bytes come in order', async () => {
  expect(await bytesOf(new Request('http://127.0.0.1/', { method: 'POST' }), 10, 'Too large.')).toHaveLength(0);
  const chunks = [Uint8Array.of(1, 2), Uint8Array.of(3), Uint8Array.of(4, 5, 6)];
  const body = new ReadableStream({
    pull: (to) => {
      const chunk = chunks.shift();
      if (chunk) to.enqueue(chunk);
      else to.close();
    },
  });
  const request = new Request('http://127.0.0.1/', { method: 'POST', body, duplex: 'half' } as RequestInit);
  expect([...(await bytesOf(request, 10, 'Too large.'))]).toEqual([1, 2, 3, 4, 5, 6]);
});
