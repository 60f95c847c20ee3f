/** Limits of row workers, by their names. */
import { readFileSync } from 'node:fs';
import { expect } from 'vitest';
import { isForWorkers } from '../../src/bench/names/row-batch';
import { editRows, rosterOf, setRoster } from '../../src/core/commands/roster';
import { LIMITS } from '../../src/core/limits';
import { openPreparing } from '../../src/row-workers/prepare';
import { askRows, keepPrepared, lookAtBatch, tasksFor, wantedOf, workerIsThere } from '../../src/server/row-batches';
import { jobWith, lettering, partOf } from '../support/jobs';
import { ownDatabase } from '../support/own-database';

const limits = LIMITS as { -readonly [K in keyof typeof LIMITS]: number };
const jobOf = (...names: string[]) =>
  setRoster(
    jobWith([partOf([lettering('‹Name›')])]),
    rosterOf(
      ['Name'],
      names.map((name) => [name]),
    ),
  );
const anyFace = async () => new Uint8Array(readFileSync('public/typefaces/poppins.ttf'));
const nothing = async () => null;

export const ROW_WORKER_LIMITS = {
  rowsForWorkers: () => {
    limits.rowsForWorkers = 3;
    const job = jobOf('Ivy', 'Fern', 'Sage');
    expect(isForWorkers(job)).toBe(true);
    const withoutOne = editRows(job, ['r2'], (row) => {
      row.out = true;
    });
    expect(isForWorkers(withoutOne)).toBe(false);
    expect(isForWorkers(jobWith([]))).toBe(false);
  },
  rowsAtOnce: () => {
    limits.rowsAtOnce = 2;
    expect(tasksFor('b', [4, 5, 6]).map(({ nths }) => nths)).toEqual([[4, 5], [6]]);
  },
  rowSeconds: async () => {
    let now = 0;
    const came = async (stepMs: number) => {
      const preparing = await openPreparing(anyFace, nothing, () => {
        now += stepMs;
        return now;
      });
      return preparing.row(jobOf('Ivy'), 0, '');
    };
    expect(await came(0)).toHaveProperty('seen');
    limits.rowSeconds = 7;
    expect(await came(7_001)).toEqual({
      fault: 'It takes longer than 7 seconds to compute: put it on the sheet to see it.',
    });
  },
  rowsTold: async () => {
    const { db, close } = await ownDatabase('rows_told');
    try {
      await workerIsThere(db, '11111111-2222-4333-8444-555555555555');
      const queue = { put: async () => {} } as unknown as Parameters<typeof askRows>[1];
      const asked = await askRows(db, queue, jobOf('Ivy', 'Fern', 'Sage'), '');
      const batch = asked?.batch ?? '';
      for (const { key } of await wantedOf(db, { batch, nths: [0, 1, 2] })) await keepPrepared(db, key, { fault: key });
      limits.rowsTold = 2;
      const first = await lookAtBatch(db, batch, 0);
      expect(first?.rows).toHaveLength(2);
      expect(first?.done).toBe(3);
      expect((await lookAtBatch(db, batch, first?.after ?? 0))?.rows).toHaveLength(1);
    } finally {
      await close();
    }
  },
};
