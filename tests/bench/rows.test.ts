/** Rows of a list as the bench follows them: asked for, shown as they come, stopped and gone on with. */
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { followRows, resumeRows, stopRows, useRows } from '../../src/bench/names/rows';
import { dispatchDocument } from '../../src/bench/store';
import { setCell } from '../../src/core/commands/roster';
import type { Job } from '../../src/core/document/schema';
import type { RowDone, RowSeen } from '../../src/core/job/rows';
import { answer, openJob } from '../support/bench';
import { jobWith, lettering, partOf } from '../support/jobs';
import { rosterOfNames } from '../support/names';

type Asked = {
  readonly job: Job;
  readonly tell: (rows: readonly RowDone[]) => void;
  readonly end: (done: true | null) => void;
};
let asked: Asked[] = [];
let leave = () => {};
const seen = (findings: RowSeen['findings'] = []): RowSeen => ({
  picture: { width: 1, height: 1, shapes: [] },
  findings,
  isOnePiece: true,
  size: null,
  bounds: [],
});

beforeEach(() => {
  vi.useFakeTimers();
  asked = [];
  openJob(jobWith([partOf([lettering('‹Name›')])], { roster: rosterOfNames(['Rowan', 'Ivy']) }));
  answer({
    rows: (job, _today, tell) => new Promise((end) => void asked.push({ job, tell, end })),
  });
  leave = followRows();
});
afterEach(() => {
  leave();
  vi.useRealTimers();
});

test('rows that come in after the answer are shown too', async () => {
  await vi.advanceTimersByTimeAsync(10);
  asked[0]?.end(true);
  await vi.advanceTimersByTimeAsync(1);
  asked[0]?.tell([{ rowId: 'r0', seen: seen() }]);
  await vi.advanceTimersByTimeAsync(500);
  expect([...useRows.getState().seen.keys()]).toEqual(['r0']);
  expect(useRows.getState().progress).toBeNull();
});

test('a change asks anew after a while, and rows of before are passed over', async () => {
  await vi.advanceTimersByTimeAsync(10);
  dispatchDocument((job) => setCell(job, 'r1', 0, 'Sage'));
  asked[0]?.tell([{ rowId: 'r0', seen: seen() }]);
  await vi.advanceTimersByTimeAsync(500);
  expect(useRows.getState().seen.size).toBe(0);
  expect(asked.map(({ job }) => job.roster?.rows[1]?.cells[0])).toEqual(['Ivy', 'Sage']);
});

test('stopping asks for no rows at all, so that none is forgotten; going on asks for all', async () => {
  await vi.advanceTimersByTimeAsync(10);
  asked[0]?.tell([{ rowId: 'r0', seen: seen() }]);
  await vi.advanceTimersByTimeAsync(500);
  stopRows();
  expect(asked.at(-1)?.job.roster).toBeNull();
  expect(useRows.getState()).toMatchObject({ isStopped: true, progress: null });
  asked[0]?.tell([{ rowId: 'r1', seen: seen() }]);
  await vi.advanceTimersByTimeAsync(500);
  expect([...useRows.getState().seen.keys()]).toEqual(['r0']);
  resumeRows();
  expect(asked.at(-1)?.job.roster?.rows).toHaveLength(2);
});

test('what can not be computed is told, and the list is safe', async () => {
  leave();
  answer({ rows: () => Promise.reject(new Error('out of memory')) });
  leave = followRows();
  await vi.advanceTimersByTimeAsync(500);
  expect(useRows.getState().fault).toBe('The names could not be computed: out of memory. The list itself is safe.');
});
