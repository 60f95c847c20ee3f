import { afterAll, beforeAll, beforeEach, expect, test } from 'vitest';
import { bytesOf, Refusal } from '../../src/server/answer';
import { keepAsset, openAsset } from '../../src/server/assets';
import { type Database, openDatabase } from '../../src/server/database';
import { assets } from '../../src/server/schema';

let db: Database;
let close: () => Promise<void>;

beforeAll(() => {
  ({ database: db, close } = openDatabase(process.env.DATABASE_URL ?? ''));
});
afterAll(() => close());
beforeEach(async () => {
  await db.delete(assets);
});

test('a file comes back as it was; the same file twice is kept once', async () => {
  const bytes = Buffer.from([0, 255, 10, 13, 0, 1]);
  const id = await keepAsset(db, bytes, 'plate.dxf');
  expect(id).toMatch(/^[0-9a-f]{64}$/);
  expect(await keepAsset(db, bytes, 'the same.dxf')).toBe(id);
  expect(await db.select({ id: assets.sha256 }).from(assets)).toHaveLength(1);
  expect(await openAsset(db, id)).toEqual({ bytes, name: 'plate.dxf' });
  expect(await openAsset(db, '0'.repeat(64))).toBeNull();
});

test('a body that is too large is refused with a sentence', async () => {
  const request = () => new Request('http://127.0.0.1/', { method: 'POST', body: new Uint8Array(1000) });
  expect(await bytesOf(request(), 1000, 'Too large.')).toHaveLength(1000);
  await expect(bytesOf(request(), 999, 'Too large.')).rejects.toThrow(Refusal);
});
