/** Pens of plotter files: which is written, which operation one means, and what is kept of what the user says. */
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { readPenAs, readPensAs, writeWithPen } from '../../src/core/commands/pens';
import { operationOfPen, pensOf } from '../../src/core/document/pens';
import type { Job } from '../../src/core/document/schema';
import { likelyOperation } from '../../src/core/job/bring-in';
import { LIMITS } from '../../src/core/limits';
import { jobWith } from '../support/jobs';

const KINDS = ['engrave', 'mark', 'score', 'cut'] as const;
const withPens = (pens: Readonly<Record<string, readonly number[]>>): Job =>
  jobWith([], { operations: KINDS.map((kind) => ({ id: kind, name: kind, kind, pens: pens[kind] ?? [] })) });
const written = (job: Job) => Object.fromEntries(pensOf(job.operations));
const meant = (job: Job, pen: number) => operationOfPen(pen, job.operations)?.id ?? null;

describe('the pen an operation is written with', () => {
  test('is the lowest that is free where none is said, cuts first', () => {
    expect(written(withPens({}))).toEqual({ cut: 1, score: 2, engrave: 3, mark: 4 });
    expect(written(withPens({ mark: [1], score: [3] }))).toEqual({ mark: 1, cut: 2, score: 3, engrave: 4 });
  });

  test('is the first of its own; others may have the same', () => {
    expect(written(withPens({ cut: [7, 2], score: [7] }))).toMatchObject({ cut: 7, score: 7, engrave: 1, mark: 3 });
    const job = writeWithPen(writeWithPen(withPens({ cut: [7, 2] }), 'cut', 9), 'score', 9);
    expect(job.operations.find((o) => o.id === 'cut')?.pens).toEqual([9, 2]);
    expect(written(job)).toMatchObject({ cut: 9, score: 9 });
  });

  test('is one for each, and a different one where nobody said otherwise', () => {
    const kinds = fc.array(
      fc.record({ kind: fc.constantFrom(...KINDS), pens: fc.array(fc.integer({ min: 1, max: 9 }), { maxLength: 2 }) }),
      { maxLength: 12 },
    );
    fc.assert(
      fc.property(kinds, (list) => {
        const operations = list.map((o, i) => ({ ...o, id: String(i) }));
        const pens = pensOf(operations);
        expect(pens.size).toBe(operations.length);
        const free = operations.filter((o) => o.pens.length === 0).map((o) => pens.get(o.id));
        expect(new Set(free).size).toBe(free.length);
        for (const o of operations) for (const pen of o.pens) if (o.pens.length > 0) expect(free).not.toContain(pen);
      }),
    );
  });
});

describe('the operation a pen means', () => {
  test('is the one it was said to be for, else the one written with it, else none', () => {
    const job = withPens({ mark: [5, 1] });
    expect([1, 2, 5, 6, 9].map((pen) => meant(job, pen))).toEqual(['mark', 'cut', 'mark', null, null]);
    const group = { name: 'Pen 5', colour: '#000000', filled: false };
    expect(likelyOperation({ ...group, pen: 5 }, job)).toBe('mark');
    // Colours of pens are ours, to tell them apart by, and mean nothing.
    for (const colour of ['#248b88', '#b26417', '#501528'])
      expect(likelyOperation({ ...group, colour, pen: 9 }, job)).toBe('cut');
    // Without a pen, or with one of nobody, it goes by name and colour, and lines are cut.
    expect(likelyOperation({ ...group, pen: 9 }, job)).toBe('cut');
    expect(likelyOperation(group, job)).toBe('cut');
  });

  test('is kept when the user says so, and no other has it then; what is written stays', () => {
    const job = readPenAs(withPens({ cut: [4], score: [2, 6] }), 6, 'cut');
    expect(job.operations.map((o) => o.pens)).toEqual([[], [], [2], [4, 6]]);
    expect(written(job).cut).toBe(4);
    expect(meant(job, 6)).toBe('cut');
    expect(readPenAs(job, 6, 'cut')).toBe(job);
  });

  test('is kept for every pen of a file, so that one does not move another', () => {
    // Two pens that cut, one that scores, as was proposed for the first and the second.
    const job = readPensAs(withPens({}), [
      { pen: 1, operationId: 'cut' },
      { pen: 2, operationId: 'score' },
      { pen: 2, operationId: 'mark' },
      { pen: 7, operationId: 'cut' },
    ]);
    expect([1, 2, 7].map((pen) => meant(job, pen))).toEqual(['cut', 'score', 'cut']);
    expect(written(job)).toMatchObject({ cut: 1, score: 2 });
  });

  test('of more than an operation can have, the last are not kept', () => {
    let job = withPens({});
    for (let pen = 1; pen <= LIMITS.pensOfOperation + 3; pen++) job = readPenAs(job, pen, 'cut');
    expect(job.operations[3]?.pens).toHaveLength(LIMITS.pensOfOperation);
  });
});
