/** What words use of their typeface, and how they are written. */
import { expect, test } from 'vitest';
import { setAxes, setFeature, setForm } from '../../src/core/commands/faces';
import { setCase } from '../../src/core/commands/words';
import type { Job } from '../../src/core/document/schema';
import { type Draft, jobWith, lettering, partOf } from '../support/jobs';

const job = (text = 'Dahlia bed', more: Draft = {}): Job => jobWith([partOf([lettering(text)], more)]);
const words = (of: Job) => {
  const member = of.parts[0]?.members[0];
  if (member?.kind !== 'lettering') throw new Error('no words');
  return member;
};

test('places along axes are set one by one, and their name goes with them', () => {
  let now = setAxes(job(), { partId: 'part', memberId: 'words', lines: null }, { wght: 900, opsz: 9 }, 'Black');
  expect(words(now)).toMatchObject({ axes: { wght: 900, opsz: 9 }, style: 'Black' });
  now = setAxes(now, { partId: 'part', memberId: 'words', lines: null }, { wght: 650 });
  expect(words(now)).toMatchObject({ axes: { wght: 650, opsz: 9 }, style: null });
  const locked = job('Lane', { locked: true });
  expect(setAxes(locked, { partId: 'part', memberId: 'words', lines: null }, { wght: 1 })).toBe(locked);
  expect(setAxes(now, { partId: 'gone', memberId: 'words', lines: null }, { wght: 1 })).toBe(now);
});

test('a feature is switched, and given back to the face', () => {
  const on = setFeature(job(), { partId: 'part', memberId: 'words', lines: null }, 'ss02', 1);
  expect(words(on).features).toEqual({ ss02: 1 });
  expect(words(setFeature(on, { partId: 'part', memberId: 'words', lines: null }, 'ss02', null)).features).toEqual({});
});

test('letters get another form, keep what else was changed of them, and lose it again', () => {
  const moved = jobWith([partOf([lettering('Dahlia', 'Poppins', { letters: [{ at: 1, dx: 0.2 }] })])]);
  const other = setForm(moved, { partId: 'part', memberId: 'words' }, [1, 5], { tag: 'salt', value: 2 });
  expect(words(other).letters).toMatchObject([
    { at: 1, dx: 0.2, form: { tag: 'salt', value: 2 } },
    { at: 5, dx: 0, form: { tag: 'salt', value: 2 } },
  ]);
  expect(words(setForm(other, { partId: 'part', memberId: 'words' }, [1, 5], null)).letters).toMatchObject([
    { at: 1, dx: 0.2, form: null },
  ]);
});

test.each([
  ['upper', 'SOW IN MARCH’S RAIN'],
  ['lower', 'sow in march’s rain'],
  ['title', 'Sow In March’s Rain'],
] as const)('written in %s case, what is anchored to a letter stays with it', (as, text) => {
  const first = jobWith([partOf([lettering('sow In march’s Rain', 'Poppins', { letters: [{ at: 4, dx: 0.5 }] })])]);
  expect(words(setCase(first, 'part', 'words', as))).toMatchObject({ text, letters: [{ at: 4, dx: 0.5 }] });
});

test('where letters become more, what is anchored goes along', () => {
  const first = jobWith([partOf([lettering('groß 4', 'Poppins', { letters: [{ at: 5, dx: 0.5 }] })])]);
  expect(words(setCase(first, 'part', 'words', 'upper'))).toMatchObject({ text: 'GROSS 4', letters: [{ at: 6 }] });
  expect(setCase(first, 'part', 'gone', 'upper')).toBe(first);
});
