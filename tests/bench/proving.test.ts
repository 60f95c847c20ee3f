/** The proof on the bench: of just the document that is there, its run played, held, stepped through, and let go of. */
import { beforeEach, expect, test } from 'vitest';
import {
  forgetProof,
  hideRun,
  isProved,
  lookAt,
  passTime,
  playOrHold,
  proofOf,
  proveNow,
  setRate,
  stepOperation,
  useProof,
} from '../../src/bench/proof/proving';
import { change, undo, useBench } from '../../src/bench/store';
import { answer, hostHere, openJob } from '../support/bench';
import { jobWith, lettering, partOf } from '../support/jobs';

const all = { partIds: null };
const job = jobWith(
  [
    partOf([{ id: 'r', kind: 'rectangle', placement: { x: 150, y: 100 }, width: 120, height: 60 }], { id: 'plate' }),
    partOf([lettering('Elm', 'Poppins', { size: { by: 'capital', mm: 12 } })], {
      id: 'words',
      hangsTogether: 'no',
      work: [{ what: 'fill', operation: 'engrave' }],
    }),
  ],
  {
    machine: { id: 'm', name: 'Bench', kind: 'laser', areas: {} },
    operations: [
      { id: 'engrave', name: 'Engrave', kind: 'engrave', settings: { typed: { speed: 200, rowDistance: 0.2 } } },
      { id: 'cut', name: 'Cut', kind: 'cut', settings: { typed: { speed: 10 } } },
    ],
  },
);
const state = useProof.getState;

const host = hostHere();

beforeEach(() => {
  forgetProof();
  answer(host);
  openJob(job, 'prove');
});

const run = () => proofOf(state().proved, useBench.getState().job)?.run;

test('it holds for the document that was proved, goes with any change, and is there again when that is undone', async () => {
  const view = await proveNow(all);
  expect(view?.findings).toEqual([]);
  expect(view?.files.map((f) => f.sha256)).toEqual([expect.stringMatching(/^[0-9a-f]{64}$/)]);
  const { job: now, view: seen } = useBench.getState();
  expect(isProved(state().proved, now, seen)).toBe(true);
  change((draft) => {
    draft.title = 'Another';
  });
  expect(proofOf(state().proved, useBench.getState().job)).toBeNull();
  expect(isProved(state().proved, useBench.getState().job, seen)).toBe(false);
  undo();
  expect(isProved(state().proved, useBench.getState().job, seen)).toBe(true);
});

test('of some parts it is no proof of the job', async () => {
  expect((await proveNow({ partIds: ['plate'] }))?.files).toHaveLength(1);
  const { job: now, view } = useBench.getState();
  expect(proofOf(state().proved, now)).not.toBeNull();
  expect(isProved(state().proved, now, view)).toBe(false);
});

test('the same document gives the same bytes', async () => {
  const first = await proveNow(all);
  const again = await proveNow(all);
  expect(again?.files.map((f) => f.sha256)).toEqual(first?.files.map((f) => f.sha256));
});

test('played: time passes as fast as chosen, and ends at the end', async () => {
  await proveNow(all);
  const whole = run()?.seconds ?? 0;
  expect(whole).toBeGreaterThan(10);
  playOrHold();
  expect(state()).toMatchObject({ isShown: true, isPlaying: true, at: 0 });
  setRate(5);
  passTime(1);
  expect(state().at).toBe(5);
  playOrHold();
  passTime(1);
  expect(state()).toMatchObject({ isPlaying: false, at: 5 });
  playOrHold();
  setRate(100);
  passTime(1000);
  expect(state()).toMatchObject({ isPlaying: false, at: whole });
  // From the start again where it was over.
  playOrHold();
  expect(state()).toMatchObject({ isPlaying: true, at: 0 });
  hideRun();
  expect(state()).toMatchObject({ isShown: false, isPlaying: false });
});

test('step by operation, both ways; what comes free comes free after its cut', async () => {
  await proveNow(all);
  const [engrave, cut] = run()?.operations ?? [];
  expect([engrave?.kind, cut?.kind]).toEqual(['engrave', 'cut']);
  lookAt(0);
  stepOperation(1);
  expect(state().at).toBeCloseTo(engrave?.begin ?? -1, 9);
  stepOperation(1);
  expect(state().at).toBeCloseTo(cut?.begin ?? -1, 9);
  stepOperation(1);
  expect(state().at).toBe(run()?.seconds);
  stepOperation(-1);
  expect(state().at).toBeCloseTo(cut?.begin ?? -1, 9);
  const free = run()?.pieces.filter((p) => p.free !== null) ?? [];
  expect(free).toHaveLength(1);
  expect(free[0]).toMatchObject({ isKept: true, free: cut?.end });
});

test('a change while it is played takes the run off the sheet', async () => {
  await proveNow(all);
  playOrHold();
  change((draft) => {
    draft.title = 'Another';
  });
  passTime(0.1);
  expect(state()).toMatchObject({ isShown: false, isPlaying: false });
});
