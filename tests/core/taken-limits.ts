/** Limits of jobs taken along, and of files asked for at once, by their names. */
import { expect } from 'vitest';
import { GET } from '../../src/app/api/assets/route';
import { openTaken, packJob, type TakenFile } from '../../src/core/job/taken-along';
import { LIMITS } from '../../src/core/limits';
import { keepAsset, openAssets } from '../../src/server/assets';
import { jobWith } from '../support/jobs';
import { ownDatabase } from '../support/own-database';

const limits = LIMITS as { -readonly [K in keyof typeof LIMITS]: number };

const takenFile = (n: number, bytes: number): TakenFile => ({
  id: n.toString(16).padStart(64, '0'),
  as: 'picture',
  name: '',
  bytes: new Uint8Array(bytes),
});

const many = (count: number): TakenFile[] => Array.from({ length: count }, (_, i) => takenFile(i, 1));

export const TAKEN_LIMITS = {
  assetsAtOnce: async () => {
    const asked = async (n: number) =>
      (
        await GET(
          new Request(
            `http://127.0.0.1/api/assets?ids=${many(n)
              .map((f) => f.id)
              .join()}`,
          ),
        )
      ).status;
    expect(await asked(LIMITS.assetsAtOnce)).toBe(200);
    expect(await asked(LIMITS.assetsAtOnce + 1)).toBe(422);
  },
  assetsAtOnceBytes: async () => {
    const { db, close } = await ownDatabase('at_once');
    try {
      const ids: string[] = [];
      for (const size of [400, 500, 300]) ids.push((await keepAsset(db, Buffer.alloc(size, size), '')) ?? '');
      limits.assetsAtOnceBytes = 900;
      expect((await openAssets(db, ids)).map((b) => b?.length ?? null)).toEqual([400, 500, null]);
      limits.assetsAtOnceBytes = 800;
      expect((await openAssets(db, [...ids, '0'.repeat(64)])).map((b) => b?.length ?? null)).toEqual([
        400,
        null,
        300,
        null,
      ]);
    } finally {
      await close();
    }
  },
  takenBytes() {
    const long = { length: LIMITS.takenBytes + 1 } as Uint8Array;
    expect(openTaken(long)).toMatchObject({ ok: false, sentence: expect.stringContaining('512 MB') });
    const job = jobWith([]);
    const three = [1, 2, 3].map((n) => takenFile(n, 40_000));
    const packed = packJob(
      job,
      three.map((f) => ({ ...f, as: 'original' })),
      [],
    );
    limits.takenBytes = 125_000;
    expect(openTaken(packed)).toMatchObject({ ok: true });
    limits.takenBytes = 119_000;
    expect(openTaken(packed)).toMatchObject({
      ok: false,
      sentence: expect.stringContaining('larger than what is read'),
    });
  },
  takenFiles() {
    limits.takenFiles = 3;
    const packed = (n: number) => packJob(jobWith([]), many(n), []);
    expect(openTaken(packed(3))).toMatchObject({ ok: true });
    expect(openTaken(packed(4))).toMatchObject({ ok: false, sentence: expect.stringContaining('more than 3 files') });
  },
};
