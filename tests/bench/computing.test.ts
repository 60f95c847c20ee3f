/** The view kept in step with the document: newest wins, progress of long work only, faults told and got over. */
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import { followDocument } from '../../src/bench/computing';
import { change, openBench, setLook, useBench } from '../../src/bench/store';
import type { Job } from '../../src/core/document/schema';
import type { Host } from '../../src/worker/host';
import type { CutPieceView, JobUpdate, PartView } from '../../src/worker/view';
import { answer } from '../support/bench';
import { jobWith, lettering, partOf } from '../support/jobs';
import { rosterOfNames } from '../support/names';

type Asked = {
  readonly job: Job;
  readonly held: number | null;
  readonly progress: (done: number, of: number) => void;
  readonly answer: (update: JobUpdate | null) => Promise<void>;
  readonly fail: (reason: unknown) => Promise<void>;
};
type AskedCut = { readonly job: Job; readonly answer: (pieces: CutPieceView[] | null) => Promise<void> };

const asked: Asked[] = [];
const cuts: AskedCut[] = [];
const settled = async (): Promise<void> => {
  await vi.advanceTimersByTimeAsync(0);
};
const evaluate = (job: Job, held: number | null, progress: Asked['progress']) =>
  new Promise<JobUpdate | null>((resolve, reject) => {
    asked.push({
      job,
      held,
      progress,
      answer: (update) => {
        resolve(update);
        return settled();
      },
      fail: (reason) => {
        reject(reason);
        return settled();
      },
    });
  });
const asCut = (job: Job) =>
  new Promise<CutPieceView[] | null>((resolve, reject) => {
    cuts.push({
      job,
      answer: (pieces) => {
        if (pieces) resolve(pieces);
        else reject(new Error('stopped'));
        return settled();
      },
    });
  });

const job = jobWith([partOf([lettering('Lane')])]);
const state = useBench.getState;
const retitle = (title: string) =>
  change((draft) => {
    draft.title = title;
  });
const part = (id: string) => ({ id }) as PartView;
const update = (serial: number, parts: JobUpdate['parts'] = [part('part')], codes: string[] = []): JobUpdate => ({
  serial,
  parts,
  operations: [],
  findings: codes.map((code) => ({ code }) as JobUpdate['findings'][number]),
  workBox: { minX: 0, minY: 0, maxX: 1, maxY: 1 },
});
const last = () => asked.at(-1) as Asked;
const frames: (() => void)[] = [];
let stop: () => void;

beforeEach(() => {
  vi.useFakeTimers();
  frames.length = 0;
  vi.stubGlobal('requestAnimationFrame', (run: () => void) => frames.push(run));
  asked.length = 0;
  cuts.length = 0;
  answer({ evaluate, asCut } as unknown as Partial<Host>);
  openBench('trial', job, { version: 1, savedAt: '', selection: { partId: null, memberId: null }, station: 'compose' });
  stop = followDocument();
});
afterEach(() => {
  stop();
  vi.unstubAllGlobals();
  vi.useRealTimers();
});

describe('the view', () => {
  test('is asked for at once, and anew for every document', async () => {
    expect(asked.map((a) => a.job)).toEqual([job]);
    expect(last().held).toBeNull();
    await last().answer(update(7));
    expect(state()).toMatchObject({ viewOf: job, progress: null, workerFault: null });
    expect(state().view?.parts.map((p) => p.id)).toEqual(['part']);
    retitle('one');
    expect(asked).toHaveLength(2);
    // The next is asked for against what was given before, and names what has not changed.
    expect(last().held).toBe(7);
    const before = state().view?.parts[0];
    await last().answer(update(8, ['part', part('new')]));
    expect(state().view?.parts[0]).toBe(before);
    expect(state().viewOf?.title).toBe('one');
    useBench.setState({ station: 'fill' });
    expect(asked).toHaveLength(2);
  });

  test('stays as it was while newer work is under way, or where a newer question was asked', async () => {
    await last().answer(update(1));
    const { view } = state();
    retitle('one');
    expect(state().view).toBe(view);
    await last().answer(null);
    expect(state().view).toBe(view);
    expect(state().viewOf).toBe(job);
    retitle('two');
    expect(last().held).toBe(1);
  });

  test('comes to what stands beside the sheet when the frame with the new sheet was drawn', async () => {
    await last().answer(update(1));
    const { view } = state();
    expect(state().viewBeside).toBeNull();
    for (const draw of frames) draw();
    expect(state().viewBeside).toBeNull();
    await settled();
    expect(state().viewBeside).toBe(view);
    // No frame is drawn of a page that is not looked at.
    retitle('one');
    await last().answer(update(2));
    expect(state().viewBeside).toBe(view);
    vi.advanceTimersByTime(200);
    expect(state().viewBeside).toBe(state().view);
    // A bench that was left is left alone.
    retitle('two');
    await last().answer(update(3));
    const beside = state().viewBeside;
    stop();
    vi.advanceTimersByTime(200);
    expect(state().viewBeside).toBe(beside);
  });

  test('says how far it has come when it takes longer, and no more once it is there', async () => {
    last().progress(1, 4);
    expect(state().progress).toBeNull();
    vi.advanceTimersByTime(160);
    last().progress(2, 4);
    expect(state().progress).toEqual({ done: 2, of: 4 });
    const first = last();
    await first.answer(update(1));
    expect(state().progress).toBeNull();
    first.progress(3, 4);
    expect(state().progress).toBeNull();
  });

  test('progress of a document that has changed since is not shown', () => {
    const first = last();
    retitle('one');
    vi.advanceTimersByTime(160);
    first.progress(1, 4);
    expect(state().progress).toBeNull();
    last().progress(1, 4);
    expect(state().progress).toEqual({ done: 1, of: 4 });
  });

  test('that can’t be computed is said; with the next that can, all is well', async () => {
    vi.advanceTimersByTime(160);
    last().progress(1, 2);
    const first = last();
    await first.fail(new Error('out of memory'));
    expect(state()).toMatchObject({
      progress: null,
      workerFault: 'This could not be computed: out of memory. The job itself is safe.',
    });
    first.progress(2, 2);
    expect(state().progress).toBeNull();
    retitle('one');
    await last().fail('gone');
    expect(state().workerFault).toBe('This could not be computed: the worker stopped. The job itself is safe.');
    retitle('two');
    await last().answer(update(1));
    expect(state().workerFault).toBeNull();
  });

  test('without a typeface is asked for again after six seconds, or at the next change', async () => {
    await last().answer(update(1, [], ['no-typeface']));
    vi.advanceTimersByTime(5_900);
    expect(asked).toHaveLength(1);
    vi.advanceTimersByTime(200);
    expect(asked).toHaveLength(2);
    await last().answer(update(2, [], ['no-typeface']));
    retitle('one');
    expect(asked).toHaveLength(3);
    vi.advanceTimersByTime(60_000);
    expect(asked).toHaveLength(3);
    await last().answer(update(3, [], ['no-words']));
    vi.advanceTimersByTime(60_000);
    expect(asked).toHaveLength(3);
  });
});

describe('the pieces after the cut', () => {
  const pieces = (d: string) => [{ partId: 'part', kind: 'main', d } as CutPieceView];

  test('are asked for while that look is chosen, and anew for every document', async () => {
    expect(cuts).toHaveLength(0);
    retitle('one');
    expect(cuts).toHaveLength(0);
    setLook('cut');
    expect(cuts.map((c) => c.job.title)).toEqual(['one']);
    await cuts[0]?.answer(pieces('a'));
    expect(state().cutPieces).toEqual(pieces('a'));
    retitle('two');
    expect(cuts).toHaveLength(2);
    await cuts[1]?.answer(null);
    expect(state().cutPieces).toEqual(pieces('a'));
    setLook('outlines');
    retitle('three');
    expect(cuts).toHaveLength(2);
  });
});

test('stopped, nothing is asked for, taken in or said any more', async () => {
  setLook('cut');
  const [first, cut] = [last(), cuts[0]];
  stop();
  retitle('one');
  expect([asked.length, cuts.length]).toEqual([1, 1]);
  await first.answer(update(1));
  await cut?.answer([]);
  expect(state()).toMatchObject({ view: null, viewOf: null, cutPieces: null });
  stop = followDocument();
  const next = last();
  stop();
  await next.fail(new Error('late'));
  expect(state().workerFault).toBeNull();
  stop = followDocument();
  await last().answer(update(2, [], ['no-typeface']));
  const count = asked.length;
  stop();
  vi.advanceTimersByTime(60_000);
  expect(asked).toHaveLength(count);
});

test('where a name that is laid on sheets lies by itself is not found on the bench', async () => {
  const found = async (layout: object | null) => {
    openBench('trial', jobWith([partOf([lettering('‹Name›')])], { roster: rosterOfNames(['Ivy']), layout }), {
      version: 1,
      savedAt: '',
      selection: { partId: null, memberId: null },
      station: 'compose',
    });
    await settled();
    await asked.at(-1)?.answer(update(99, [part('part')], ['off-sheet', 'loose']));
    return state().view?.findings.map((f) => f.code);
  };
  expect(await found(null)).toEqual(['off-sheet', 'loose']);
  expect(await found({})).toEqual(['loose']);
});
