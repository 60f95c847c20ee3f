/** Jobs by chance to be put in order: letters with their counters, plates with holes and words, lines to be marked. */

import type { Path } from '../../src/core/geometry/path';
import { transformPath } from '../../src/core/geometry/path';
import { compose, rotation, translation } from '../../src/core/geometry/point';
import { measureOutlines } from '../../src/core/prepare/outline';
import { ellipsePath, roundedRectangle } from '../../src/core/prepare/shape';
import type { Stop, ToOrder } from '../../src/core/toolpath/ordering/stops';
import { FAMILIES, rawOutlines, set, typeface } from '../support/faces';
import { chance } from '../support/random';

const LETTERS = 'AaBbDdEeGgKkMmOoPpQqRrSs468&Å';
const at = (path: Path, x: number, y: number, turn = 0): Path =>
  transformPath(path, compose(rotation(turn), translation(x, y)));

/** Closed paths and open lines of a job with about so many of them; of four kinds. */
function pathsByChance(seed: number, count: number): { closed: Path[]; lines: Path[] } {
  const next = chance(seed);
  const closed: Path[] = [];
  const lines: Path[] = [];
  const letter = (x: number, y: number, mm: number, turn = 0): void => {
    const family = FAMILIES[Math.floor(next() * FAMILIES.length)] as string;
    const text = LETTERS[Math.floor(next() * LETTERS.length)] as string;
    closed.push(
      ...rawOutlines(set(family, text, { size: { by: 'capital', mm } }), typeface(family)).map((p) =>
        at(p, x, y, turn),
      ),
    );
  };
  const wide = 30 * Math.sqrt(count);
  while (closed.length + lines.length < count) {
    const [x, y] = [wide * next(), wide * next()];
    if (seed % 4 === 0) letter(x, y, 5 + 10 * next(), 360 * next());
    else if (seed % 4 === 1) for (let i = 0; i < 8; i++) letter(x + 12 * i, y, 10);
    else if (seed % 4 === 2) {
      closed.push(at(roundedRectangle(60, 30, 4), x, y));
      for (let i = -1; i <= 1; i++) letter(x + 15 * i, y - 4, 8);
      for (let i = 0; i < 3; i++)
        lines.push({
          closed: false,
          segments: [{ kind: 'line', x0: x - 20, y0: y - 9 - i, x1: x + 20 * next(), y1: y - 9 - i }],
        });
    } else {
      closed.push(at(roundedRectangle(40, 40, 2), x, y, 90 * next()));
      for (let i = 0; i < 4; i++) closed.push(at(ellipsePath(4, 4), x + 12 * (next() - 0.5), y + 12 * (next() - 0.5)));
    }
  }
  return { closed, lines };
}

/** The same made ready: closed paths begin at any of their nodes, what lies in one comes before it; lines either way. */
export function jobByChance(seed: number, count: number): ToOrder {
  const { closed, lines } = pathsByChance(seed, count);
  const outlines = measureOutlines(closed.map((path) => ({ path, labels: [] })));
  const stops: Stop[] = [
    ...outlines.map(({ path }) => ({
      isOpen: false,
      // At 24 of its nodes at most, as jobs are.
      ways: path.segments
        .filter((_, k) => k % Math.ceil(path.segments.length / 24) === 0)
        .map(({ x0: x, y0: y }) => ({ from: { x, y }, to: { x, y } })),
    })),
    ...lines.map(({ segments: [s] }) => {
      const [p, q] = [
        { x: s?.x0 ?? 0, y: s?.y0 ?? 0 },
        { x: s?.x1 ?? 0, y: s?.y1 ?? 0 },
      ];
      return {
        isOpen: true,
        ways: [
          { from: p, to: q },
          { from: q, to: p },
        ],
      };
    }),
  ];
  const first: number[][] = stops.map(() => []);
  outlines.forEach(({ parent }, i) => {
    first[parent]?.push(i);
  });
  return { stops, first };
}
