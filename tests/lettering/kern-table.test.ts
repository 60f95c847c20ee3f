/** Kerning of the older table: as Microsoft and as Apple wrote it, with marks in between, and damaged. */
import { expect, test } from 'vitest';
import { PLAIN_SHAPING } from '../../src/core/lettering/face';
import { kerningOf } from '../../src/core/lettering/kern-table';
import { Bytes } from '../../src/core/lettering/sfnt';
import { loadTypeface } from '../../src/core/lettering/typeface';
import { fontOf, SQUARE } from '../support/font';

const words = (...values: number[]) => values.flatMap((v) => [(v >> 8) & 0xff, v & 0xff]);
const PAIRS = [[1, 2, -49] as const, [2, 1, 10] as const];
const pairs = words(PAIRS.length, 0, 0, 0, ...PAIRS.flat());
const microsoft = (coverage = 1, size = 6 + pairs.length) =>
  Uint8Array.from([...words(0, 1, 0, size, coverage), ...pairs]);
const apple = Uint8Array.from([...words(1, 0, 0, 1), ...words(0, 8 + pairs.length, 0, 0), ...pairs]);
const of = (table: Uint8Array) => kerningOf(new Bytes(table));

test('pairs are found in either kind of table', () => {
  for (const table of [microsoft(), apple]) {
    const kerning = of(table);
    expect([kerning?.(1, 2), kerning?.(2, 1), kerning?.(1, 1)]).toEqual([-49, 10, 0]);
  }
});

test('what is for columns, or not to be added, is left; lengths that can’t be are not believed', () => {
  for (const coverage of [0, 3, 5, 0x201]) expect(of(microsoft(coverage))).toBeNull();
  expect(of(microsoft(1, 0))?.(1, 2)).toBe(-49);
  expect(of(microsoft().slice(0, 21))).toBeNull();
  expect(of(new Uint8Array())).toBeNull();
  expect(kerningOf(undefined)).toBeNull();
});

test('glyphs come nearer by halves, unless kerning is off', async () => {
  const glyphs = [
    { char: 'A', contours: [SQUARE] },
    { char: 'V', contours: [SQUARE] },
  ];
  const load = await loadTypeface(fontOf({ glyphs, tables: { kern: microsoft() } }));
  if (!load.ok) throw new Error(load.sentence);
  const shaped = (features: { tag: string; value: number }[] = []) =>
    load.typeface.shape('AV', 'ltr', { ...PLAIN_SHAPING, features }).map(({ advance, dx }) => [advance, dx]);
  expect(shaped()).toEqual([
    [675, 0],
    [676, -24],
  ]);
  expect(shaped([{ tag: 'kern', value: 0 }])).toEqual([
    [700, 0],
    [700, 0],
  ]);
});
