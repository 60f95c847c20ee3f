/** What is easily missed in words. */
import { expect, test } from 'vitest';
import { gramsOf } from '../../src/core/document/weight';
import { missedIn } from '../../src/core/units/letters-alike';

test('doubled spaces, and spaces at the ends of lines', () => {
  expect(missedIn('Sit a while')).toEqual([]);
  expect(missedIn('Sit  a while')).toEqual(['There is a doubled space.']);
  expect(missedIn('Sit  a   while\nunder')).toEqual(['There are 2 doubled spaces.']);
  expect(missedIn('Sit \nunder')).toEqual(['A line begins or ends with a space.']);
});

test('letters of another script beside Latin ones; words of that script are at home', () => {
  expect(missedIn('Аlder')).toEqual(['“А” is the Cyrillic letter that looks like A.']);
  expect(missedIn('Οak')).toEqual(['“Ο” is the Greek letter that looks like O.']);
  expect(missedIn('Сад')).toEqual([]);
  expect(missedIn('Żółw, naïve, Straße')).toEqual([]);
});

test('weight by the usual density, where material and thickness are known', () => {
  // 100 × 100 mm of steel, 3 mm: 30 cm³ at 7.85 g/cm³.
  expect(gramsOf(10_000, { material: 'mild steel', thickness: 3 })).toBeCloseTo(235.5, 6);
  expect(gramsOf(10_000, { material: 'Oak', thickness: 6 })).toBeCloseTo(42, 6);
  expect(gramsOf(10_000, { material: 'Moon rock', thickness: 3 })).toBeNull();
  expect(gramsOf(10_000, { material: 'mild steel', thickness: null })).toBeNull();
});
