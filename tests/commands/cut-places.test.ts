/** Starts and tabs placed by hand. */
import { describe, expect, test } from 'vitest';
import { carryPlaces } from '../../src/core/commands/carry';
import {
  addTab,
  letGoCutPlaces,
  letGoStart,
  letGoTabs,
  placeStart,
  placeTab,
  setSide,
  setTabs,
  type TabNow,
  takeOutTab,
} from '../../src/core/commands/cut-places';
import type { Job } from '../../src/core/document/schema';
import { jobWith } from '../support/jobs';

const at = (x: number, y = 0) => ({ letter: 'w:0', x, y });
const job = (more = {}): Job => jobWith([{ id: 'p', members: [], ...more }]);
const placesOf = (of: Job) => ({ starts: of.parts[0]?.starts, tabs: of.parts[0]?.tabs });
const found = (x: number): TabNow => ({ place: at(x), byHand: null });

describe('starts', () => {
  test('one that is moved first is kept, one that is there is moved, and let go it is gone', () => {
    const one = placeStart(job(), 'p', at(0.123456789), null);
    expect(placesOf(one).starts).toEqual([at(0.12346)]);
    const two = placeStart(placeStart(one, 'p', at(2), null), 'p', at(3), 0);
    expect(placesOf(two).starts).toEqual([at(3), at(2)]);
    expect(placesOf(letGoStart(two, 'p', 0)).starts).toEqual([at(2)]);
  });
  test('one that is there no more is put anew', () => {
    expect(placesOf(placeStart(job(), 'p', at(1), 4)).starts).toEqual([at(1)]);
  });
});

describe('tabs', () => {
  const three = [found(1), found(2), found(3)];
  test('one that is moved takes the others of its outline in hand as they lie', () => {
    const moved = placeTab(job(), 'p', { tabs: three, nth: 1, to: at(9) });
    expect(placesOf(moved).tabs).toEqual([1, 9, 3].map((x) => ({ ...at(x), width: null })));
    const inHand = three.map((tab, byHand) => ({ ...tab, byHand }));
    const again = placeTab(moved, 'p', { tabs: inHand, nth: 1, to: at(8) });
    expect(placesOf(again).tabs?.map((t) => t.x)).toEqual([1, 8, 3]);
  });
  test('one more beside those there are', () => {
    expect(placesOf(addTab(job(), 'p', { tabs: three, to: at(9) })).tabs?.map((t) => t.x)).toEqual([1, 2, 3, 9]);
  });
  test('one is taken out; the last leaves word that there is none', () => {
    expect(placesOf(takeOutTab(job(), 'p', { tabs: three, nth: 0 })).tabs?.map((t) => t.x)).toEqual([2, 3]);
    expect(placesOf(takeOutTab(job(), 'p', { tabs: [found(1)], nth: 0 })).tabs).toEqual([{ ...at(1), width: 0 }]);
  });
  test('those of one outline are let go, or all', () => {
    const tabs = [1, 2, 3].map((x) => ({ ...at(x), width: null }));
    expect(placesOf(letGoTabs(job({ tabs }), 'p', [0, 2])).tabs?.map((t) => t.x)).toEqual([2]);
    const all = job({ tabs, starts: [at(1)] });
    expect(placesOf(letGoCutPlaces(all, 'p'))).toEqual({ starts: [], tabs: [] });
    const none = job();
    expect(letGoCutPlaces(none, 'p')).toBe(none);
  });
});

test('an outline on another side: said once, changed, and as the operation says again', () => {
  const sidesOf = (of: Job) => of.parts[0]?.sides.map((s) => [s.x, s.side]);
  const one = setSide(job(), 'p', { place: at(1), side: 'line', byHand: null });
  expect(sidesOf(one)).toEqual([[1, 'line']]);
  const other = setSide(one, 'p', { place: at(2), side: 'other', byHand: 0 });
  expect(sidesOf(other)).toEqual([[2, 'other']]);
  expect(sidesOf(setSide(other, 'p', { place: at(2), side: null, byHand: 0 }))).toEqual([]);
  expect(sidesOf(letGoCutPlaces(other, 'p'))).toEqual([]);
});

test('a locked part stays as it is', () => {
  const locked = job({ locked: true, starts: [at(1)], tabs: [{ ...at(1), width: null }] });
  expect(placeStart(locked, 'p', at(2), 0)).toBe(locked);
  expect(letGoStart(locked, 'p', 0)).toBe(locked);
  expect(addTab(locked, 'p', { tabs: [], to: at(2) })).toBe(locked);
  expect(letGoCutPlaces(locked, 'p')).toBe(locked);
});

test('tabs of an operation: at first usual ones, then what is said', () => {
  const tabsOf = (of: Job) => of.operations.find((o) => o.id === 'cut')?.tabs;
  const on = setTabs(job(), 'cut', {});
  expect(tabsOf(on)).toEqual({ width: 1, count: null, scrap: false });
  expect(tabsOf(setTabs(on, 'cut', { count: 3 }))).toEqual({ width: 1, count: 3, scrap: false });
  expect(tabsOf(setTabs(on, 'cut', null))).toBeNull();
});

test('what stands on letters is carried with them', () => {
  const part = structuredClone(
    job({ starts: [at(1)], tabs: [{ ...at(1), width: 2 }] }).parts[0],
  ) as Job['parts'][number];
  carryPlaces(part, () => 'w:5');
  expect([part.starts, part.tabs]).toEqual([[{ ...at(1), letter: 'w:5' }], [{ ...at(1), letter: 'w:5', width: 2 }]]);
  carryPlaces(part, () => null);
  expect([part.starts, part.tabs]).toEqual([[], []]);
});
