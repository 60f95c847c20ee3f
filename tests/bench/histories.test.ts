/** Going to the list and back keeps what can be undone. */
import { beforeEach, expect, test } from 'vitest';
import { HISTORIES } from '../../src/bench/histories';
import { change, openBench, redo, undo, useBench } from '../../src/bench/store';
import type { Job } from '../../src/core/document/schema';
import { jobWith } from '../support/jobs';

const state = useBench.getState;
const open = (id: string, job: Job) =>
  openBench(id, job, { version: 1, savedAt: '', selection: { partId: null, memberId: null }, station: 'compose' });
const retitle = (title: string) =>
  change((job) => {
    job.title = title;
  });
/** As a database gives it back: another object, its keys in another order. */
const fromServer = (job: Job): Job =>
  JSON.parse(JSON.stringify(Object.fromEntries(Object.entries(job).reverse()))) as Job;
const plain = jobWith([]);

beforeEach(() => useBench.setState({ id: '', past: [], future: [] }));

test('back on the bench, what was done before is undone and done again', () => {
  open('a', plain);
  retitle('One');
  retitle('Two');
  undo();
  const left = state().job;
  open('b', plain);
  expect([state().past, state().future]).toEqual([[], []]);
  open('a', fromServer(left));
  undo();
  expect(state().job.title).toBe('Trial');
  redo();
  redo();
  expect(state().job.title).toBe('Two');
});

test('the same job opened anew in its place keeps it too', () => {
  open('a', plain);
  retitle('One');
  open('a', fromServer(state().job));
  undo();
  expect(state().job.title).toBe('Trial');
});

test('a job that somebody else changed meanwhile starts anew', () => {
  open('a', plain);
  retitle('One');
  open('b', plain);
  open('a', { ...plain, title: 'Theirs' });
  expect(state().past).toEqual([]);
  expect(state().job.title).toBe('Theirs');
});

test('so many are kept, those left last', () => {
  const lefts: Job[] = [];
  for (let n = 0; n <= HISTORIES; n++) {
    open(`job ${n}`, plain);
    retitle(`Left ${n}`);
    lefts.push(state().job);
  }
  open('other', plain);
  open('job 0', lefts[0] as Job);
  expect(state().past).toEqual([]);
  open('job 1', lefts[1] as Job);
  expect(state().past).toHaveLength(1);
});
