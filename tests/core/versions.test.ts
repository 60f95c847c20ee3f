/** Which earlier versions are kept: one a minute for an hour, one an hour for a day, one a day for a year, and those with a name. */
import fc from 'fast-check';
import { expect, test } from 'vitest';
import { KEPT_BY_AGE, type VersionAge, versionsToDrop } from '../../src/core/job/versions';

const MINUTE = 60_000;
const HOUR = 60 * MINUTE;
const DAY = 24 * HOUR;
const YEAR = 365 * DAY;
/** Ten seconds after a full day, so that spans of the clock are easy to tell. */
const NOW = 20_000 * DAY + 10_000;

const aged = (...ages: number[]): VersionAge[] =>
  ages.map((age, i) => ({ version: i + 1, savedAt: NOW - age, isNamed: false }));
const dropped = (versions: VersionAge[], now = NOW) => versionsToDrop(versions, now);

test('of one minute, hour or day the last is kept', () => {
  // 15 and 20 s ago lie in the minute before that of 5 s ago.
  expect(dropped(aged(20_000, 15_000, 5_000))).toEqual([1]);
  expect(dropped(aged(70 * MINUTE, 65 * MINUTE, 50 * MINUTE))).toEqual([1]);
  expect(dropped(aged(2 * DAY + 5 * HOUR, 2 * DAY + 3 * HOUR, DAY + HOUR))).toEqual([1]);
});

test('older than a year only those with a name are kept', () => {
  const [old, named] = aged(YEAR + 1, YEAR + 1) as [VersionAge, VersionAge];
  expect(dropped([old, { ...named, isNamed: true }, ...aged(YEAR - 1)])).toEqual([1]);
});

test('one with a name stays beside the last of its minute', () => {
  const [a, b, c] = aged(4_000, 3_000, 2_000) as [VersionAge, VersionAge, VersionAge];
  expect(dropped([a, { ...b, isNamed: true }, c])).toEqual([1]);
});

test('one saved later than now, by another clock, is kept', () => {
  expect(dropped(aged(-HOUR, -2 * HOUR))).toEqual([]);
});

/** The same said otherwise: for each version, whether another of its span is newer. */
function staysBySaying(one: VersionAge, all: readonly VersionAge[], now: number): boolean {
  if (one.isNamed) return true;
  const ageOf = (v: VersionAge) => now - v.savedAt;
  const level = (v: VersionAge) => (ageOf(v) < HOUR ? MINUTE : ageOf(v) < DAY ? HOUR : ageOf(v) < YEAR ? DAY : 0);
  const each = level(one);
  if (each === 0) return false;
  return !all.some(
    (v) =>
      !v.isNamed &&
      v.version > one.version &&
      level(v) === each &&
      Math.floor(v.savedAt / each) === Math.floor(one.savedAt / each),
  );
}

const history = fc.array(fc.record({ gap: fc.integer({ min: 1, max: 3 * DAY }), isNamed: fc.boolean() }), {
  maxLength: 60,
});
const versionsOf = (steps: readonly { gap: number; isNamed: boolean }[]): VersionAge[] => {
  let savedAt = NOW;
  const newestFirst = steps.map(({ gap, isNamed }, i) => {
    savedAt -= gap;
    return { version: steps.length - i, savedAt, isNamed };
  });
  return newestFirst.reverse();
};

test('any history: what stays is the last of its span, and staying is never undone by what comes after', () => {
  fc.assert(
    fc.property(history, fc.integer({ min: 0, max: 400 * DAY }), (steps, later) => {
      const all = versionsOf(steps);
      const gone = new Set(dropped(all));
      for (const one of all) expect(!gone.has(one.version)).toBe(staysBySaying(one, all, NOW));
      // Dropped now and then, or only at the end: the same is left.
      const left = all.filter((v) => !gone.has(v.version));
      const leftLater = (versions: VersionAge[]) => {
        const old = new Set(dropped(versions, NOW + later));
        return versions.filter((v) => !old.has(v.version)).map((v) => v.version);
      };
      expect(leftLater(left)).toEqual(leftLater(all));
    }),
  );
});

test('a year of work each minute comes to a few hundred versions', () => {
  const most = KEPT_BY_AGE.reduce(
    (sum, { upTo, each }, i) => sum + (upTo - (KEPT_BY_AGE[i - 1]?.upTo ?? 0)) / each + 1,
    0,
  );
  const all = Array.from({ length: 20_000 }, (_, i) => ({
    version: 20_000 - i,
    savedAt: NOW - i * 29 * MINUTE,
    isNamed: false,
  }));
  const kept = all.length - dropped(all).length;
  expect(kept).toBeLessThanOrEqual(most);
  expect(kept).toBeGreaterThan(360);
});
