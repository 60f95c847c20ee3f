/** What is held of computed results, and what goes when there is too much. */
import { describe, expect, test } from 'vitest';
import { ResultCache } from '../../src/core/result-cache';

/** A cache of numbers, each weighing what it is, that counts what it computes. */
function counted(most: number, weigh?: (n: number) => number) {
  const cache = new ResultCache<number>(most, weigh);
  let made = 0;
  const get = (key: string, n = 0) =>
    cache.get(key, () => {
      made++;
      return n;
    });
  return { cache, get, made: () => made };
}

describe('held by number', () => {
  test('what was used longest ago is forgotten, asking for it counts as use', () => {
    const { cache, get, made } = counted(2);
    get('a', 1);
    get('b', 2);
    expect(get('a', 9)).toBe(1);
    get('c', 3);
    expect([cache.size, made()]).toEqual([2, 3]);
    expect([cache.find('a'), cache.find('b'), cache.find('c')]).toEqual([1, undefined, 3]);
    get('b', 4);
    // Found last, `c` is the newest used: `a` goes.
    expect([cache.find('a'), cache.find('b'), cache.find('c')]).toEqual([undefined, 4, 3]);
  });

  test('a result that is held is not computed again, nor weighed again', () => {
    const { cache, get, made } = counted(3);
    for (let i = 0; i < 10; i++) get('a', i);
    get('b');
    get('c');
    expect([made(), cache.size, cache.find('a')]).toEqual([3, 3, 0]);
  });

  test('results that are null or 0 are results', () => {
    const cache = new ResultCache<number | null>(2);
    let made = 0;
    for (const value of [null, 0]) {
      const key = String(value);
      for (let i = 0; i < 3; i++)
        expect(
          cache.get(key, () => {
            made++;
            return value;
          }),
        ).toBe(value);
    }
    expect(made).toBe(2);
  });
});

describe('held by weight', () => {
  test('as many of the oldest go as it takes, the newest never', () => {
    const { cache, get, made } = counted(10, (n) => n);
    get('a', 6);
    get('b', 4);
    get('a', 6);
    expect(made()).toBe(2);
    get('c', 5);
    expect([cache.find('a'), cache.find('b'), cache.find('c'), cache.size]).toEqual([undefined, undefined, 5, 1]);
    get('d', 50);
    expect([cache.find('c'), cache.find('d')]).toEqual([undefined, 50]);
    // What goes takes its weight along.
    get('e', 10);
    get('f', 0);
    expect([cache.find('d'), cache.find('e'), cache.find('f')]).toEqual([undefined, undefined, 0]);
    get('g', 9);
    expect([cache.find('f'), cache.find('g'), cache.size]).toEqual([0, 9, 2]);
  });

  test('what weighs nothing is counted all the same, so that it goes some day', () => {
    const { cache, get } = counted(3, () => 0);
    for (const key of 'abcdefgh') get(key, 1);
    expect([cache.size, cache.find('e'), cache.find('f')]).toEqual([3, undefined, 1]);
  });
});
