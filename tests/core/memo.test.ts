/** What is remembered of computed results, and what goes when there is too much. */
import { describe, expect, test } from 'vitest';
import { finished, type LongStage, Memo, NO_MEMORY, type Stage } from '../../src/core/memo';

type Asked = { readonly key: string; readonly numbers?: number; readonly value?: number | null };

/** A memory with a stage that counts what it computes; each result weighs what is asked, with its key some 32 numbers more. */
function counted(most: number, name = 'counted') {
  const memo = new Memo(most);
  let made = 0;
  const stage: Stage<Asked, number | null> = {
    name,
    key: ({ key }) => key,
    run: ({ value = 0 }) => {
      made++;
      return value;
    },
    weigh: () => weight,
  };
  let weight = 0;
  const ask = (key: string, numbers = 0, value: number | null = 0, memory: Pick<Memo, 'get'> = memo) => {
    weight = numbers;
    return memory.get(stage, { key, value });
  };
  return { memo, ask, stage, made: () => made };
}

describe('results', () => {
  test('are computed once for a key, whatever they are', () => {
    const { ask, made } = counted(1e6);
    for (const value of [7, 0, null]) {
      const key = String(value);
      for (let i = 0; i < 3; i++) expect(ask(key, 0, i === 0 ? value : 99)).toBe(value);
    }
    expect(made()).toBe(3);
  });

  test('of another stage are others, also under the same key', () => {
    const memo = new Memo();
    const stage = (name: string, result: number): Stage<string, number> => ({
      name,
      key: (k) => k,
      run: () => result,
      weigh: () => 1,
    });
    expect([memo.get(stage('a', 1), 'k'), memo.get(stage('b', 2), 'k'), memo.get(stage('a', 3), 'k')]).toEqual([
      1, 2, 1,
    ]);
  });

  test('may ask for others on the way', () => {
    const memo = new Memo();
    const inner: Stage<number, number> = { name: 'inner', key: String, run: (n) => n + 1, weigh: () => 1 };
    const outer: Stage<number, number> = {
      name: 'outer',
      key: String,
      run: (n, memory) => memory.get(inner, n) * 10,
      weigh: () => 1,
    };
    expect([memo.get(outer, 1), memo.size.results]).toEqual([20, 2]);
  });

  test('in steps are remembered once they are done, and leave nothing when they are left', () => {
    const memo = new Memo();
    let made = 0;
    const slow: LongStage<string, { n: number }> = {
      name: 'slow',
      key: (k) => k,
      *run() {
        yield 0.5;
        made++;
        return { n: made };
      },
      weigh: () => 1,
    };
    const left = memo.steps(slow, 'k');
    expect(left.next()).toEqual({ done: false, value: 0.5 });
    left.return({ n: -1 });
    expect(memo.size.results).toBe(0);
    const first = finished(memo.steps(slow, 'k'));
    const again = memo.steps(slow, 'k').next();
    expect([again.done, again.value === first, made]).toEqual([true, true, 1]);
  });

  test('that two ask for at once are one', () => {
    const memo = new Memo();
    const slow: LongStage<string, object> = {
      name: 'slow',
      key: (k) => k,
      *run() {
        yield 0.5;
        return {};
      },
      weigh: () => 1000,
    };
    const [a, b] = [memo.steps(slow, 'k'), memo.steps(slow, 'k')];
    a.next();
    b.next();
    expect(a.next().value).toBe(b.next().value);
    expect([memo.size.results, memo.size.numbers < 2000]).toEqual([1, true]);
  });
});

describe('when there is too much', () => {
  test('what was asked for longest ago goes, and takes its weight along', () => {
    const { ask, made, memo } = counted(250);
    ask('a', 60, 1);
    ask('b', 60, 2);
    expect(ask('a', 60, 9)).toBe(1);
    ask('c', 60, 3);
    expect([memo.size.results, made()]).toEqual([2, 3]);
    expect(ask('a', 60, 9)).toBe(1);
    expect(ask('b', 60, 4)).toBe(4);
    // Asked for last, `a` has stayed: `c` has gone.
    expect(ask('a', 60, 9)).toBe(1);
    expect(ask('c', 60, 5)).toBe(5);
  });

  test('the newest stays, however much it weighs', () => {
    const { ask, memo } = counted(100);
    ask('a', 10, 1);
    ask('b', 5000, 2);
    expect([ask('b', 5000, 9), memo.size.results]).toEqual([2, 1]);
  });

  test('what weighs nothing is counted all the same, so that it goes some day', () => {
    const { ask, memo } = counted(320);
    for (let i = 0; i < 100; i++) ask(`k${i}`);
    expect(memo.size.results).toBeLessThan(10);
    expect(memo.size.numbers).toBeLessThanOrEqual(320);
  });

  test('what the two newest turns asked for stays; what older turns, or nobody’s turn, asked for goes', () => {
    const { ask, memo, made } = counted(10);
    const first = memo.turn();
    ask('a', 60, 1, first);
    ask('b', 60, 2, first);
    ask('loose', 60, 3);
    const second = memo.turn();
    ask('c', 60, 4, second);
    expect([ask('a', 60, 9), ask('b', 60, 9), ask('c', 60, 9)]).toEqual([1, 2, 4]);
    expect(ask('loose', 60, 5)).toBe(5);
    // A turn later `a` is asked for again, `b` is not.
    const third = memo.turn();
    ask('a', 60, 9, third);
    const before = made();
    memo.turn();
    ask('d', 60, 6);
    expect([ask('a', 60, 9), made()]).toEqual([1, before + 1]);
    expect(ask('b', 60, 8)).toBe(8);
  });
});

test('nobody’s results go though all else stays, and in the next turn what went on staying can go', () => {
  const { ask, memo } = counted(10);
  const first = memo.turn();
  ask('a', 60, 1, first);
  ask('b', 60, 2, first);
  ask('loose', 60, 3);
  ask('c', 60, 4, first);
  // Kept for the turn, it made nobody's go.
  expect(memo.size.results).toBe(3);
  ask('other', 60, 5);
  ask('last', 60, 6);
  expect(memo.size.results).toBe(4);
  memo.turn();
  const third = memo.turn();
  ask('d', 60, 7, third);
  expect(memo.size.results).toBe(1);
});

test('many small results of one turn are looked through once, not for each', () => {
  const { ask, memo } = counted(10);
  const first = memo.turn();
  let looked = 0;
  const entries = (memo as unknown as { entries: Map<string, unknown> }).entries;
  const each = entries[Symbol.iterator].bind(entries);
  entries[Symbol.iterator] = function* () {
    for (const entry of each()) {
      looked++;
      yield entry;
    }
    return undefined;
  } as unknown as (typeof entries)[typeof Symbol.iterator];
  for (let i = 0; i < 500; i++) ask(`k${i}`, 60, i, first);
  expect(memo.size.results).toBe(500);
  expect(looked).toBeLessThan(1000);
});

test('of a slot only the newest result is remembered, and the weight is its own', () => {
  const memo = new Memo();
  let made = 0;
  const placed: Stage<{ readonly id: string; readonly at: number }, { readonly at: number }> = {
    name: 'placed',
    key: ({ id, at }) => `${id}|${at}`,
    slot: ({ id }) => id,
    run: ({ at }) => {
      made++;
      return { at };
    },
    weigh: (_result, { at }) => at,
  };
  const at = (id: string, where: number) => memo.get(placed, { id, at: where });
  const first = at('a', 1000);
  expect([at('a', 1000) === first, at('b', 1).at, made]).toEqual([true, 1, 2]);
  const numbers = memo.size.numbers;
  expect(at('a', 10)).toEqual({ at: 10 });
  expect(memo.size).toEqual({ results: 2, numbers: expect.closeTo(numbers - 990, 0) });
  // Where it was before is computed again; another's place was left alone.
  expect([at('a', 1000) === first, at('b', 1).at, made]).toEqual([false, 1, 4]);
});

test('objects are told apart by a number, the same for the same object', () => {
  const memo = new Memo();
  const [a, b] = [{}, {}];
  expect(memo.idOf(a)).toBe(memo.idOf(a));
  expect(memo.idOf(a)).not.toBe(memo.idOf(b));
  expect(memo.turn().idOf(a)).toBe(memo.idOf(a));
});

test('what belongs to an object is made once for it, by name', () => {
  const memo = new Memo();
  const owner = {};
  let made = 0;
  const make = () => (++made === 2 ? undefined : made);
  expect([memo.of(owner, 'x', make), memo.of(owner, 'x', make)]).toEqual([1, 1]);
  expect([memo.of(owner, 'y', make), memo.of(owner, 'y', make), made]).toEqual([undefined, undefined, 2]);
  expect(memo.of({}, 'x', make)).toBe(3);
});

test('no memory computes every time, and tells nothing apart', () => {
  const { stage, made } = counted(1e6);
  for (let i = 0; i < 3; i++) NO_MEMORY.get(stage, { key: 'k' });
  expect(made()).toBe(3);
  expect(() => NO_MEMORY.idOf({})).toThrow('nothing is remembered');
  let n = 0;
  expect([NO_MEMORY.of({}, 'x', () => ++n), NO_MEMORY.of({}, 'x', () => ++n)]).toEqual([1, 2]);
});
