/** The islands of one letter bridged together: alike where they are alike, and with white left between their bridges. */
import { expect, test } from 'vitest';
import type { Bridge } from '../../src/core/prepare/bridges/notes';
import { FAMILIES } from '../support/faces';
import { notesOf, stencil } from '../support/stencils';

const WIDTH = 4;
const bridgesIn = (text: string, face: string, more = {}): readonly Bridge[] =>
  notesOf(stencil(text, { width: WIDTH, reads: true, ...more }, face, { size: { by: 'capital', mm: 60 } })).bridges;

const of = (bridges: readonly Bridge[], letter: number): readonly Bridge[] =>
  bridges.filter((b) => b.letter === `words:${letter}`);

/** Directions of the bridges of each island of a letter, up and down alike. */
const waysOf = (bridges: readonly Bridge[], letter: number): string[] => {
  const byIsland = new Map<number | null, string[]>();
  for (const b of of(bridges, letter)) {
    const turn = Math.abs(Math.round(b.own.turn / 5) * 5);
    byIsland.set(b.island, [...(byIsland.get(b.island) ?? []), String(turn)].sort());
  }
  return [...byIsland.values()].map((ways) => ways.join());
};

/** Shortest way between the sides of two bridges, tried at places along both, in mm. */
function whiteBetween(a: Bridge, b: Bridge): number {
  let least = Infinity;
  for (let s = 0; s <= 40; s++)
    for (let t = 0; t <= 40; t++)
      least = Math.min(
        least,
        Math.hypot(
          a.from.x + (s / 40) * (a.to.x - a.from.x) - b.from.x - (t / 40) * (b.to.x - b.from.x),
          a.from.y + (s / 40) * (a.to.y - a.from.y) - b.from.y - (t / 40) * (b.to.y - b.from.y),
        ),
      );
  return least - (a.width + b.width) / 2;
}

/** Faces whose 8 and B have halves of one shape; the others write them in one stroke. */
const BUILT = ['Archivo Black', 'Poppins', 'Bebas Neue', 'Alfa Slab One', 'Libre Baskerville', 'JetBrains Mono'];

test.each(BUILT)('both halves of a B and both bowls of an 8 are bridged alike: %s', (face) => {
  const bridges = bridgesIn('B8', face);
  for (const letter of [0, 1]) {
    const [upper, lower, ...more] = waysOf(bridges, letter);
    expect(more).toEqual([]);
    expect(upper).toBeDefined();
    expect(lower).toBe(upper);
  }
});

test.each(FAMILIES)('bridges of one letter leave white between them: %s', (face) => {
  const text = 'ØÅå&%8B';
  const bridges = bridgesIn(text, face);
  for (let letter = 0; letter < text.length; letter++) {
    const own = of(bridges, letter);
    own.forEach((a, i) => {
      for (const b of own.slice(0, i)) expect(whiteBetween(a, b)).toBeGreaterThan(0.9 * WIDTH);
    });
  }
});

test('the same letter again, also turned and mirrored, has the same bridges', () => {
  const bridges = bridgesIn('B&B', 'Bebas Neue');
  const own = (letter: number) => of(bridges, letter).map(({ own: { x, y, turn } }) => [x, y, turn]);
  own(0).forEach((place, i) => {
    place.forEach((value, k) => {
      expect(own(2)[i]?.[k]).toBeCloseTo(value, 4);
    });
  });
  const turned = notesOf(
    stencil('B', { width: WIDTH, reads: true }, 'Bebas Neue', {
      size: { by: 'capital', mm: 60 },
      placement: { x: 750, y: 200, turn: 37, mirror: true },
    }),
  ).bridges;
  expect(waysOf(turned, 0)).toEqual(waysOf(bridges, 0));
});

test('a number of bridges that was asked for is kept by both', () => {
  const bridges = bridgesIn('8', 'Poppins', { count: 2 });
  expect(bridges.filter(({ island }) => island === 0)).toHaveLength(2);
  expect(bridges.filter(({ island }) => island === 1)).toHaveLength(2);
});
