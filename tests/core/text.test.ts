/** Text that can be kept, and where it is cut. */
import fc from 'fast-check';
import { expect, test } from 'vitest';
import { unkeepableIn } from '../../src/core/document/json';
import { checkJob } from '../../src/core/document/read';
import { cutTo, isKeepable, keepable } from '../../src/core/units/text';
import { jobWith, lettering, partOf } from '../support/jobs';

test('what can’t be kept is found and dropped; all else stays', () => {
  expect(['oak', 'Ä😀\u200d\n\t', ''].map(isKeepable)).toEqual([true, true, true]);
  expect(['a\0', '\ud83d', 'a\ude00b'].map(isKeepable)).toEqual([false, false, false]);
  expect(keepable('a\0b\ud83dc\ude00😀')).toBe('abc😀');
  expect(keepable('oak')).toBe('oak');
});

test('text is cut between letters as a reader takes them', () => {
  expect(cutTo('oak', 3)).toBe('oak');
  expect(cutTo('oaks', 3)).toBe('oak');
  expect(cutTo('ab😀', 3)).toBe('ab');
  expect(cutTo('ae\u0301', 2)).toBe('a');
  // A farmer is one letter of five units.
  expect(cutTo('a👩‍🌾b', 5)).toBe('a');
  expect(cutTo('a👩‍🌾b', 6)).toBe('a👩‍🌾');
  expect(cutTo('', 5)).toBe('');
  // However long it is, and where no plain sign stands before the cut.
  for (const before of ['x'.repeat(9_000), 'é'.repeat(9_000), '👩‍🌾'.repeat(1_800)]) {
    expect(cutTo(`${before}a👩‍🌾b`, before.length + 5)).toBe(`${before}a`);
    expect(cutTo(`${before}a👩‍🌾b`, before.length + 6)).toBe(`${before}a👩‍🌾`);
  }
});

test('text that is cut is no longer than asked, the start of what it was, and can be kept', () => {
  fc.assert(
    fc.property(fc.string({ unit: 'grapheme', maxLength: 60 }), fc.nat(40), (text, most) => {
      const cut = cutTo(text, most);
      expect(cut.length).toBeLessThanOrEqual(most);
      expect(text.startsWith(cut)).toBe(true);
      expect(isKeepable(cut)).toBe(true);
    }),
  );
});

test('a document with text that can’t be kept is refused with its field', () => {
  const job = JSON.parse(JSON.stringify(jobWith([partOf([lettering('Oak')])])));
  job.parts[0].members[0].text = 'O\0ak';
  expect(checkJob(job)).toEqual({
    ok: false,
    sentences: ['parts[0].members[0].text holds a sign that can’t be kept: half of a letter, or none at all.'],
  });
  expect(unkeepableIn({ a: [{ b: 'oak' }, null, 7, true] })).toBeNull();
  expect(unkeepableIn('\ud83d')).toEqual([]);
  let deep: unknown = '\0';
  for (let i = 0; i < 50_000; i++) deep = [deep];
  expect(unkeepableIn(deep)).toHaveLength(50_000);
});
