/** Letters joined as reads best along a curve: one piece, strips turned with their letters, and as on a straight line where it hardly bends. */
import { describe, expect, test } from 'vitest';
import { offsetRegion } from '../../src/core/geometry/offset/offset';
import { pathArea } from '../../src/core/geometry/path';
import { IDENTITY } from '../../src/core/geometry/point';
import { Evaluator } from '../../src/core/job/evaluate';
import { type Layout, layoutLettering, letterPaths } from '../../src/core/lettering/layout';
import { Memo } from '../../src/core/memo';
import { piecesOf } from '../../src/core/prepare/pieces';
import { weldLettering } from '../../src/core/prepare/weld';
import { alongSchema } from '../../src/core/schema/along';
import type { CloseUp, LetterChange } from '../../src/core/schema/lettering';
import { faces, spec, typeface, wasmEngine } from '../support/faces';
import { type Draft, jobWith, lettering, partOf } from '../support/jobs';
import { inFull } from '../support/scale';

const CAP = 20;
const WIDTH = 2;
const memory = new Memo();
const joined = (
  family: string,
  text: string,
  along: Draft | null,
  more: Partial<CloseUp> = {},
  letters: LetterChange[] = [],
): Layout =>
  layoutLettering(
    spec(text, {
      size: { by: 'capital', mm: CAP },
      align: 'centre',
      along: along && alongSchema.parse(along),
      closeUp: { overlap: WIDTH, words: true, lines: false, joints: 'best', pairs: [], ...more },
      letters,
    }),
    typeface(family),
    memory,
  );
const weldedOf = (layout: Layout) => weldLettering(wasmEngine, layout, { weld: true, matrix: IDENTITY });
const kindsOf = (layout: Layout) => layout.closedUp.map(({ start, kind }) => `${start} ${kind}`);

const LINES: readonly (readonly [string, Draft])[] = [
  ['outside a circle', { line: { kind: 'circle', radius: 70 } }],
  ['inside a circle', { line: { kind: 'circle', radius: 80 }, side: 'under' }],
  ['on a small arc', { line: { kind: 'arc', by: 'radius', mm: 35, bends: 'up' } }],
  ['in an arc that hangs', { line: { kind: 'arc', by: 'radius', mm: 60, bends: 'down' } }],
  ['on a wave', { line: { kind: 'wave', length: 120, height: 14 } }],
  ['upright on a wave', { line: { kind: 'wave', length: 160, height: 10 }, letters: 'upright' }],
];
const FACES = ['Poppins', 'Caveat', ...(inFull ? ['Archivo Black', 'Libre Baskerville', 'Bebas Neue'] : [])];

describe.each(LINES)('%s', (_, along) => {
  test.each(FACES)('a name is one piece, and stays so where 0.45 of the weakest joint is worn off: %s', (family) => {
    for (const text of ['Lilly RIDGE', 'Zoë & Jim']) {
      const layout = joined(family, text, along);
      const welded = weldedOf(layout);
      expect(piecesOf(welded)).toHaveLength(1);
      const weakest = Math.min(...layout.closedUp.map(({ joint }) => joint));
      expect(weakest).toBeGreaterThan(0.4 * WIDTH);
      const worn = offsetRegion(wasmEngine, welded, { by: -0.45 * weakest, corners: 'round' });
      expect(worn.filter((o) => pathArea(o.path) > 0.5)).toHaveLength(1);
    }
  });
});

test.each(FACES)('where the line hardly bends it is as on a straight one: %s', (family) => {
  const straight = joined(family, 'Lilly & RIDGE', null);
  const bent = joined(family, 'Lilly & RIDGE', { line: { kind: 'arc', by: 'radius', mm: 1e5, bends: 'up' } });
  expect(kindsOf(bent)).toEqual(kindsOf(straight));
  expect(kindsOf(bent).some((said) => /foot|tie/.test(said))).toBe(true);
  bent.closedUp.forEach(({ move, joint }, i) => {
    expect(move).toBeCloseTo(straight.closedUp[i]?.move ?? 0, 1);
    // Ink is looked at in rows of a five hundredth of a capital along a curve.
    expect(joint).toBeCloseTo(straight.closedUp[i]?.joint ?? 0, 1);
  });
  const areaOf = (layout: Layout) => weldedOf(layout).reduce((sum, o) => sum + o.area, 0);
  expect(areaOf(bent) / areaOf(straight)).toBeCloseTo(1, 3);
});

test('what was said of a pair counts along a curve too, in its own line of the words', () => {
  const along = { line: { kind: 'circle', radius: 70 } };
  const lowest = { left: 'l', right: 'l', at: 5 + 3, how: 'apart' as const };
  const layout = joined('Poppins', 'Lane\nLilly', along, { pairs: [lowest], words: false });
  const kinds = kindsOf(layout);
  expect(kinds).toContain('7 foot');
  expect(kinds.some((said) => said.startsWith('8 '))).toBe(false);
  expect(piecesOf(weldedOf(layout)).length).toBeGreaterThan(
    piecesOf(weldedOf(joined('Poppins', 'Lane\nLilly', along, { words: false }))).length,
  );
});

test('a letter that is moved by itself keeps its strips, which follow it', () => {
  const along = { line: { kind: 'circle', radius: 70 } };
  const moved = joined('Poppins', 'RIDGE', along, {}, [{ at: 2, dx: 0.03, dy: 0.05, turn: 0, scale: 1, form: null }]);
  expect(moved.closedUp.filter(({ kind }) => kind === 'foot' || kind === 'tie').length).toBeGreaterThan(2);
  expect(piecesOf(weldedOf(moved))).toHaveLength(1);
});

test('no strip lies in the letters as they were set, and each is told by the letter after it', () => {
  const layout = joined('Poppins', 'RIDGE', { line: { kind: 'circle', radius: 70 } });
  const bare = { ...layout, letters: layout.letters.map((l) => ({ ...l, drawn: null })) };
  expect(letterPaths(layout).length - letterPaths(bare).length).toBe(
    layout.closedUp.filter(({ kind }) => kind === 'foot' || kind === 'tie').length,
  );
});

test('along a ring its letters are as readable as on a straight line', () => {
  const readable = (along: Draft | null): number => {
    const words = lettering('Lilly RIDGE', 'Poppins', {
      size: { by: 'capital', mm: CAP },
      along,
      closeUp: { overlap: WIDTH, words: true, joints: 'best' },
    });
    const [part] = new Evaluator(wasmEngine).evaluate(
      jobWith([partOf([words], { steps: [{ kind: 'weld' }] })]),
      faces,
    ).parts;
    const figures = (part?.readability ?? []).map(({ figure }) => figure);
    expect(figures).toHaveLength(10);
    return Math.min(...figures);
  };
  const [straight, ring] = [readable(null), readable({ line: { kind: 'circle', radius: 90 } })];
  expect(straight).toBeGreaterThan(80);
  expect(Math.abs(ring - straight)).toBeLessThan(6);
});
