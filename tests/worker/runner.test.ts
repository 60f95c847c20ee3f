/** Questions answered in turns: of each kind the newest wins, and what nobody looks at waits. */
import { describe, expect, test } from 'vitest';
import type { Progress } from '../../src/core/job/evaluate';
import { Runner } from '../../src/worker/runner';

const turn = () => new Promise<void>((resolve) => setImmediate(resolve));
/** A clock that goes on by `ms` each time it is looked at. */
const clock = (ms: number) => {
  let at = 0;
  return () => {
    at += ms;
    return at;
  };
};
/** An answer in so many steps, which are written down as they are taken. */
function* steps<T>(count: number, answer: T, taken: string[] = [], name = ''): Generator<Progress, T> {
  for (let done = 0; done < count; done++) {
    taken.push(name);
    yield { done, of: count };
  }
  return answer;
}

test('every question of no kind is answered', async () => {
  const runner = new Runner(turn, clock(100));
  const ask = (n: number) => runner.ask({ kind: null }, async () => steps(3, n));
  expect(await Promise.all([ask(1), ask(2), ask(3)])).toEqual([1, 2, 3]);
});

test('of a kind only the newest is, and of other kinds each', async () => {
  const runner = new Runner(turn, clock(100));
  const ask = (kind: string, n: number) => runner.ask({ kind }, async () => steps(3, n));
  expect(await Promise.all([ask('a', 1), ask('b', 2), ask('a', 3)])).toEqual([null, 2, 3]);
  expect(await ask('a', 4)).toBe(4);
});

test('an older one is given up at the next turn, and takes no step more', async () => {
  const runner = new Runner(turn, clock(100));
  const taken: string[] = [];
  const older = runner.ask({ kind: 'a' }, async () => steps(50, 1, taken, 'old'));
  for (let i = 0; i < 4; i++) await turn();
  const before = taken.length;
  expect(before).toBeGreaterThan(0);
  const newer = runner.ask({ kind: 'a' }, async () => steps(2, 2, taken, 'new'));
  expect(await Promise.all([older, newer])).toEqual([null, 2]);
  expect(taken.filter((name) => name === 'old')).toHaveLength(before);
});

test('turns are given only when steps took long, and progress is told then', async () => {
  let turns = 0;
  const pause = async () => {
    turns++;
    await turn();
  };
  const told: (readonly [number, number])[] = [];
  const onProgress = (done: number, of: number) => void told.push([done, of]);
  await new Runner(pause, clock(1)).ask({ kind: 'a', onProgress }, async () => steps(11, 0));
  expect([turns, told]).toEqual([0, []]);
  await new Runner(pause, clock(13)).ask({ kind: 'a', onProgress }, async () => steps(3, 0));
  expect([turns, told]).toEqual([
    3,
    [
      [0, 3],
      [1, 3],
      [2, 3],
    ],
  ]);
});

describe('a patient question', () => {
  test('waits while others are under way, from when they are asked', async () => {
    const runner = new Runner(turn, clock(100));
    const taken: string[] = [];
    const patient = runner.ask({ kind: 'picture', isPatient: true }, async () => steps(4, 'picture', taken, 'picture'));
    const urgent = runner.ask({ kind: 'view' }, async () => {
      await turn();
      return steps(4, 'view', taken, 'view');
    });
    expect(await Promise.all([patient, urgent])).toEqual(['picture', 'view']);
    expect(taken).toEqual([...Array(4).fill('view'), ...Array(4).fill('picture')]);
  });

  test('is held up in the middle of its work', async () => {
    const runner = new Runner(turn, clock(100));
    const taken: string[] = [];
    const patient = runner.ask({ kind: 'picture', isPatient: true }, async () => steps(6, 0, taken, 'picture'));
    for (let i = 0; i < 3; i++) await turn();
    const from = taken.length;
    expect(from).toBeGreaterThan(0);
    await runner.ask({ kind: 'view' }, async () => steps(5, 0, taken, 'view'));
    expect(taken.slice(from + 1, from + 5)).not.toContain('picture');
    await patient;
    expect(taken.filter((name) => name === 'picture')).toHaveLength(6);
  });

  test('goes on when another failed, and is given up for a newer one while it waits', async () => {
    const runner = new Runner(turn, clock(100));
    const failed = runner.ask({ kind: 'view' }, async () => {
      await turn();
      throw new Error('no engine');
    });
    const older = runner.ask({ kind: 'picture', isPatient: true }, async () => steps(2, 1));
    const newer = runner.ask({ kind: 'picture', isPatient: true }, async () => steps(2, 2));
    await expect(failed).rejects.toThrow('no engine');
    expect(await Promise.all([older, newer])).toEqual([null, 2]);
  });
});
