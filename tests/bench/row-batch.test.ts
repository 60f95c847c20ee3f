/** Long lists on the bench: row workers are asked where there are any, and the page goes on by itself where they go. */
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { type Hearing, preparedByWorkers } from '../../src/bench/names/row-batch';
import { rosterOf, setRoster } from '../../src/core/commands/roster';
import { jobWith } from '../support/jobs';

const BATCH = '123e4567-e89b-42d3-a456-426614174000';
const seen = { picture: { width: 1, height: 1, shapes: [] }, findings: [], isOnePiece: true, size: null, bounds: [] };
const job = setRoster(jobWith([]), rosterOf(['Name'], [['Ivy'], ['Fern'], ['Ivy']]));

let sent: string[];
let answers: object[];
let told: string[];
let progress: number[][];
let isOld: boolean;
const hearing: Hearing = {
  onRows: (rows) => told.push(...rows.map(({ rowId, seen: { isOnePiece } }) => `${rowId} ${isOnePiece}`)),
  onProgress: (...p) => progress.push(p),
  isOld: () => isOld,
};
const asked = { asked: { batch: BATCH, of: 3, workers: 2 } };
const news = (rows: object[], done: number, workers = 2, after = done) => ({ rows, after, done, of: 3, workers });
const ivy = { rowIds: ['r1', 'r3'], seen, fault: null };
const fern = { rowIds: ['r2'], seen: null, fault: 'It would not.' };

beforeEach(() => {
  vi.useFakeTimers();
  [sent, answers, told, progress, isOld] = [[], [], [], [], false];
  vi.stubGlobal('fetch', async (address: string, { method }: { method: string }) => {
    sent.push(`${method} ${address.replace('/api/row-batches', '').replace(BATCH, 'B')}`);
    if (method === 'DELETE') return Response.json({});
    const answer = answers.length > 1 ? answers.shift() : answers[0];
    if (answer instanceof Error) throw answer;
    return Response.json(answer);
  });
});
afterEach(() => {
  vi.unstubAllGlobals();
  vi.useRealTimers();
});

const run = async () => {
  const running = preparedByWorkers(job, '2026-05-04', hearing);
  await vi.advanceTimersByTimeAsync(30_000);
  return running;
};

test('rows are told as they are there, one that failed with its sentence; then nobody waits any more', async () => {
  answers = [asked, news([], 0), news([ivy], 2), news([fern], 3)];
  expect(await run()).toBe(true);
  expect(told).toEqual(['r1 true', 'r3 true', 'r2 false']);
  expect(progress).toEqual([
    [0, 3, 2],
    [2, 3, 2],
    [3, 3, 2],
  ]);
  expect(sent).toEqual(['POST ', 'GET /B?since=0', 'GET /B?since=0', 'GET /B?since=2', 'DELETE /B']);
});

test('what was passed over is asked for again, and told once', async () => {
  answers = [asked, news([fern], 1, 2, 9), news([], 3, 2, 9), news([ivy, fern], 3)];
  expect(await run()).toBe(true);
  expect(told).toEqual(['r2 false', 'r1 true', 'r3 true']);
  expect(sent.slice(1, 4)).toEqual(['GET /B?since=0', 'GET /B?since=9', 'GET /B?since=0']);
});

test('without workers, without an answer, and once workers are gone for a while, the page computes', async () => {
  answers = [{ asked: null }];
  expect(await run()).toBe(false);
  expect(sent).toEqual(['POST ']);
  answers = [new TypeError('Failed to fetch')];
  expect(await run()).toBe(false);
  sent = [];
  answers = [asked, news([ivy], 2, 0), news([], 2, 1), news([], 2, 0)];
  expect(await run()).toBe(false);
  // Heard of once more in between: eight times nobody, from then on.
  expect(sent.filter((one) => one.startsWith('GET'))).toHaveLength(10);
  expect(sent.at(-1)).toBe('DELETE /B');
});

test('a newer document ends it, and lets the workers go', async () => {
  answers = [asked, news([], 0)];
  const running = preparedByWorkers(job, '', hearing);
  await vi.advanceTimersByTimeAsync(1_000);
  isOld = true;
  await vi.advanceTimersByTimeAsync(1_000);
  expect(await running).toBe(false);
  expect(told).toEqual([]);
  expect(sent.at(-1)).toBe('DELETE /B');
  expect(sent.length).toBeLessThan(6);
});
