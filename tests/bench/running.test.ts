/** How the job is run is kept in step with the document: quickly found, then that of the files; how much longer it takes is shown for a while. */
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { followRun } from '../../src/bench/running';
import { change, openBench, useBench } from '../../src/bench/store';
import type { Job } from '../../src/core/document/schema';
import type { RunView } from '../../src/worker/run-view';
import { answer } from '../support/bench';
import { jobWith, lettering, partOf } from '../support/jobs';

const asked: { readonly job: Job; readonly how: string }[] = [];
let seconds = 10;
let unknown: string[] = [];
const running = async (job: Job, how: 'quick' | 'full'): Promise<RunView | null> => {
  asked.push({ job, how });
  // In the order of the files it takes a little less.
  return { operations: [], seconds: how === 'full' ? seconds - 1 : seconds, unknown, price: null };
};
const machine = { id: 'm', name: 'M', kind: 'laser' };
const open = (job: Job, station: 'compose' | 'assign' = 'compose') =>
  openBench('job', job, { version: 1, savedAt: '', selection: { partId: null, memberId: null }, station });
const later = (ms: number) => vi.advanceTimersByTimeAsync(ms);
const state = useBench.getState;
const withMachine = () => jobWith([partOf([lettering('Elm')])], { machine });

beforeEach(() => {
  vi.useFakeTimers();
  asked.length = 0;
  seconds = 10;
  unknown = [];
  answer({ running });
});
afterEach(() => vi.useRealTimers());

test('a time quickly, and that of the files when nothing is done for a while', async () => {
  open(withMachine());
  const run = followRun(() => false);
  await run.ask();
  expect([asked.map((a) => a.how), state().run?.seconds]).toEqual([['quick'], 10]);
  await later(2000);
  expect([asked.map((a) => a.how), state().run?.seconds]).toEqual([['quick', 'full'], 9]);
});

test('what a change does to it is told by orders found alike, and for some seconds', async () => {
  open(withMachine());
  const run = followRun(() => false);
  await run.ask();
  await later(2000);
  expect(state().runDiffers).toBeNull();
  seconds = 14;
  change((draft) => {
    draft.title = 'other';
  });
  await run.ask();
  expect(state().runDiffers).toBe(4);
  await later(20_000);
  expect(state().runDiffers).toBeNull();
  // Asked again of the same document nothing has changed, and that of the files stays.
  seconds = 20;
  const before = asked.length;
  useBench.setState({ station: 'assign' });
  await run.ask();
  expect([state().runDiffers, state().run?.seconds, asked.length]).toEqual([null, 13, before]);
});

test('where the time of something was not known, nothing is said to have become longer', async () => {
  open(withMachine());
  unknown = ['Cut'];
  const run = followRun(() => false);
  await run.ask();
  for (const [known, said] of [
    [[], null],
    [[], 5],
    [['Cut'], null],
  ] as const) {
    unknown = [...known];
    seconds += 5;
    change((draft) => {
      draft.title += '.';
    });
    await run.ask();
    expect(state().runDiffers).toBe(said);
    await later(7000);
  }
});

test('a newer document makes the answer old; so does leaving', async () => {
  open(withMachine());
  let isLeft = false;
  const run = followRun(() => isLeft);
  const asking = run.ask();
  change((draft) => {
    draft.title = 'newer';
  });
  await asking;
  expect(state().run).toBeNull();
  isLeft = true;
  await run.ask();
  expect(state().run).toBeNull();
});

test('without a machine it is asked only where the order is shown', async () => {
  open(jobWith([partOf([lettering('Elm')])]));
  const run = followRun(() => false);
  await run.ask();
  expect([asked.length, state().run]).toEqual([0, null]);
  useBench.setState({ station: 'assign' });
  await run.ask();
  expect(state().run?.seconds).toBe(10);
  useBench.setState({ station: 'compose' });
  await run.ask();
  expect(state().run).toBeNull();
});

test('an answer that fails leaves what is there; nothing is asked after the end', async () => {
  open(withMachine());
  const run = followRun(() => false);
  await run.ask();
  const other = () =>
    change((draft) => {
      draft.title += '.';
    });
  answer({ running: () => Promise.reject(new Error('stopped')) });
  await later(2000);
  other();
  await run.ask();
  expect(state().run?.seconds).toBe(10);
  answer({ running });
  other();
  await run.ask();
  const before = asked.length;
  run.stop();
  await later(5000);
  expect(asked).toHaveLength(before);
});
