/** What makes a letter itself, and joining letters by what costs the words least of it. */
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { closedPath, type Path, pathArea, regionBox } from '../../src/core/geometry/path';
import { IDENTITY } from '../../src/core/geometry/point';
import { line } from '../../src/core/geometry/segment';
import { keepAsSet, layoutAsSet } from '../../src/core/lettering/as-set';
import { EVIDENCE, type Evidence } from '../../src/core/lettering/evidence';
import { heldLetter } from '../../src/core/lettering/joining/held-parts';
import { type Layout, layoutLettering, letterPaths } from '../../src/core/lettering/layout';
import {
  COLUMNS,
  columnAt,
  differenceOf,
  imageOf,
  leastDifference,
  leastDifferenceAt,
  middleOf,
  ROWS,
  rowAt,
} from '../../src/core/lettering/letter-image';
import { glyphNames } from '../../src/core/lettering/set-letter';
import { loadTypeface } from '../../src/core/lettering/typeface';
import { Memo, NO_MEMORY } from '../../src/core/memo';
import { piecesOf } from '../../src/core/prepare/pieces';
import { weldLettering } from '../../src/core/prepare/weld';
import { type CloseUp, letteringSchema } from '../../src/core/schema/lettering';
import { FAMILIES, spec, typeface, wasmEngine } from '../support/faces';
import { fontOf, SQUARE } from '../support/font';
import { lettering } from '../support/jobs';
import { inFull, sample } from '../support/scale';

const CAP = 20;
const memory = new Memo();
const closeUp = (more: Partial<CloseUp> = {}): CloseUp => ({
  overlap: 2,
  words: true,
  lines: false,
  joints: 'best',
  pairs: [],
  ...more,
});
const joined = (family: string, text: string, more: Partial<CloseUp> = {}, mm = CAP): Layout =>
  layoutLettering(spec(text, { size: { by: 'capital', mm }, closeUp: closeUp(more) }), typeface(family), memory);
const outlinesOf = (layout: Layout) => weldLettering(wasmEngine, layout, { weld: true, matrix: IDENTITY });
const piecesIn = (layout: Layout): number => piecesOf(outlinesOf(layout)).length;

describe('what makes a letter itself', () => {
  const evidenceOf = (family: string, text: string): Evidence => {
    const face = typeface(family);
    const layout = layoutLettering(spec(text, { size: { by: 'capital', mm: 1 } }), face);
    return NO_MEMORY.get(EVIDENCE, { face, text, paths: () => letterPaths(layout), drawn: text });
  };
  /** The share of it between two heights and to one side of the middle. */
  const within = (
    cells: Float32Array,
    [low, high]: readonly [number, number],
    [left, right]: readonly [number, number],
  ) => {
    let sum = 0;
    cells.forEach((v, i) => {
      const [r, c] = [Math.floor(i / COLUMNS), i % COLUMNS];
      if (r >= rowAt(low) && r < rowAt(high) && c >= columnAt(left) && c < columnAt(right)) sum += v;
    });
    return sum;
  };

  test('what two pictures differ by at least is never more than they do, and most of it for most', () => {
    const images = [...'AOQILg8&'].flatMap((c) =>
      ['Poppins', 'Caveat'].map((family) => {
        const paths = letterPaths(layoutLettering(spec(c, { size: { by: 'capital', mm: 1 } }), typeface(family)));
        return imageOf(paths, middleOf(paths));
      }),
    );
    let some = 0;
    for (const a of images)
      for (const b of images)
        for (const shift of [-5, -1, 0, 2]) {
          const [least, leastHere, really] = [
            leastDifference(a, b),
            leastDifferenceAt(a, b, shift, Infinity),
            differenceOf(a, b, shift),
          ];
          expect(least).toBeLessThanOrEqual(really + 1e-3);
          expect(leastHere).toBeLessThanOrEqual(really + 1e-3);
          if (least > really / 2) some++;
        }
    expect(some).toBeGreaterThan(200);
  });

  test.each(['Poppins', 'Archivo Black', 'Bebas Neue'])('all of it counts 1 together: %s', (family) => {
    for (const text of 'OQEG8') {
      const { ink, white } = evidenceOf(family, text);
      expect([...ink, ...white].reduce((a, b) => a + b, 0)).toBeCloseTo(1, 4);
      expect(Math.min(...ink, ...white)).toBeGreaterThanOrEqual(0);
    }
  });

  test('an O hangs on its right side, an e on its bar and what closes it, a Q on its tail', () => {
    const o = evidenceOf('Poppins', 'O').ink;
    expect(within(o, [0.2, 0.8], [0.2, 1])).toBeGreaterThan(1.5 * within(o, [0.2, 0.8], [-1, -0.2]));
    const e = evidenceOf('Poppins', 'e').ink;
    expect(within(e, [0.25, 0.45], [-0.25, 0.25])).toBeGreaterThan(2 * within(e, [0.6, 0.8], [-0.25, 0.25]));
    const q = evidenceOf('Poppins', 'Q').ink;
    expect(within(q, [-0.3, 0.35], [0.1, 1])).toBeGreaterThan(0.5 * within(q, [-1, 2], [-2, 2]));
  });

  test('what looks the same is no other letter: nothing of it counts twice where a face draws two alike', () => {
    // Bebas Neue has capitals in place of its small letters.
    const capital = evidenceOf('Bebas Neue', 'R');
    const small = evidenceOf('Bebas Neue', 'r');
    expect(within(capital.ink, [-1, 2], [-2, 2])).toBeGreaterThan(0.2);
    expect([...small.ink]).toEqual([...capital.ink]);
  });

  test('measured once, and the same for joints as for bridges', () => {
    const face = typeface('Poppins');
    const held = new Memo();
    const words = spec('Bob', { closeUp: closeUp() });
    layoutLettering(words, face, held);
    const { letters } = layoutLettering(spec('B'), face);
    const glyphs = letters[0]?.glyphs ?? [];
    const unasked = () => {
      throw new Error('measured again');
    };
    const evidence = held.get(EVIDENCE, { face, text: 'B', paths: unasked, drawn: glyphNames(glyphs) });
    expect([...evidence.ink]).toEqual([...evidenceOf('Poppins', 'B').ink]);
  });
});

/** A rectangle, by its lower left corner, its width and its height. */
const box = (x: number, y: number, w: number, h: number): Path =>
  closedPath([line(x, y, x + w, y), line(x + w, y, x + w, y + h), line(x + w, y + h, x, y + h), line(x, y + h, x, y)]);

/** As if white between two heights were what makes a letter itself. */
const whiteWithin = (low: number, high: number): Evidence => {
  const [ink, white] = [new Float32Array(ROWS * COLUMNS), new Float32Array(ROWS * COLUMNS)];
  white.fill(0.01, Math.floor(rowAt(low)) * COLUMNS, Math.floor(rowAt(high)) * COLUMNS);
  return { ink, white };
};

test.each(inFull ? FAMILIES.filter((f) => f !== 'Saira Stencil One') : ['Poppins', 'Sacramento'])(
  'a bar between words is level: %s',
  (family) => {
    let bars = 0;
    for (const text of ['Ana & Joel', 'Ida Berg', 'Room 9', 'Ty Te', 'Elm 4', 'Paul Iff']) {
      const layout = joined(family, text);
      layout.letters.slice(1).forEach((letter, i) => {
        if (letter.start - (layout.letters[i]?.end ?? 0) < 1) return;
        const strip = letter.drawn?.paths[letter.drawn.paths.length - 1];
        expect(new Set(strip?.segments.map(({ y0 }) => y0.toFixed(6))).size).toBe(2);
        bars++;
      });
      expect(piecesIn(layout)).toBe(1);
    }
    expect(bars).toBe(7);
  },
);

describe('joined as reads best', () => {
  const some = inFull ? FAMILIES : ['Archivo Black', 'Libre Baskerville', 'Saira Stencil One', 'Sacramento'];
  test.each(some)('words with dots, accents, signs and spaces are one piece in %s', (family) => {
    for (const text of ["O'Brien", 'Åsa & Jo', 'Zoë', 'Jean-Luc', 'Lilly 7i', 'Kim+Lou', '“Sage”', 'Ty. Te, Yo'])
      expect(`${text}: ${piecesIn(joined(family, text))}`).toBe(`${text}: 1`);
  });

  test('any words of Latin letters, any width of joint', () => {
    const letters = [...'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789äöüéñå'];
    fc.assert(
      fc.property(
        fc.constantFrom('Poppins', 'Archivo Black', 'Caveat', 'Libre Baskerville'),
        fc.array(fc.constantFrom(...letters), { minLength: 1, maxLength: 8 }),
        fc.double({ min: 0.6, max: 3, noNaN: true }),
        (family, word, overlap) => {
          expect(piecesIn(joined(family, word.join(''), { overlap }))).toBe(1);
        },
      ),
      { numRuns: sample(25, 400), seed: 11 },
    );
  });

  test('stems stay apart: they share no more than a quarter of the height of small letters', () => {
    for (const family of ['Poppins', 'Archivo Black', 'Bebas Neue'])
      for (const text of ['Mimi', 'mill', 'HIMH']) {
        const { letters, scale } = joined(family, text, { overlap: 1.5 });
        const bare = typeface(family);
        letters.forEach((letter, i) => {
          const next = letters[i + 1];
          if (!next) return;
          const right = letter.x + Math.max(...letter.glyphs.map((g) => g.x + bare.box(g.glyph).maxX));
          const left = next.x + Math.min(...next.glyphs.map((g) => g.x + bare.box(g.glyph).minX));
          expect((left - right) * scale).toBeGreaterThan(0.05 * CAP * 0.99);
        });
      }
  });

  test('like pairs are treated alike, wherever they stand', () => {
    const { closedUp, letters } = joined('Poppins', 'lilili');
    const moves = (pair: string) =>
      closedUp.filter((c) => {
        if (c.kind === 'held') return false;
        const i = letters.findIndex((l) => l.start === c.start);
        return `${letters[i - 1]?.text}${letters[i]?.text}` === pair;
      });
    for (const pair of ['li', 'il']) {
      const [first, ...others] = moves(pair).map(({ kind, move, joint }) => ({ kind, move, joint }));
      for (const other of others) {
        expect(other.kind).toBe(first?.kind);
        expect(other.move).toBeCloseTo(first?.move as number, 6);
        expect(other.joint).toBe(first?.joint);
      }
    }
  });

  test('a strip is as wide as is told, and lies within the strokes it ends in', () => {
    const layout = joined('Poppins', 'Hill');
    const feet = layout.closedUp.filter(({ kind }) => kind === 'foot');
    expect(feet.length).toBeGreaterThan(0);
    for (const { start, joint } of feet) {
      const letter = layout.letters.find((l) => l.start === start);
      const strip = letter?.drawn?.paths.at(-1) as Path;
      const box = regionBox([strip]);
      expect((box.maxY - box.minY) * layout.scale).toBeCloseTo(joint, 6);
    }
    // No white is left between strip and stroke, and none within a letter is covered.
    const holes = (l: Layout) => outlinesOf(l).filter((o) => o.depth % 2 === 1).length;
    expect(holes(layout)).toBe(0);
    const hole = (text: string) => outlinesOf(joined('Poppins', text)).filter((o) => o.depth % 2 === 1);
    const alone = Math.abs(hole('o')[0]?.area as number);
    const areas = hole('oo').map((o) => Math.abs(o.area));
    expect(areas.filter((a) => Math.abs(a - alone) < 1e-6 * alone)).toHaveLength(2);
  });

  test('no wider than a level stroke: what is told is less than what was asked', () => {
    const { closedUp } = joined('Libre Baskerville', 'Hill', { overlap: 4 });
    const strips = closedUp.filter(({ kind }) => kind === 'foot' || kind === 'tie');
    expect(strips.length).toBeGreaterThan(0);
    for (const { joint } of strips) expect(joint).toBeLessThan(4);
  });

  test('a dot stands on an upright tie no wider than itself, and its width is told', () => {
    const layout = joined('Poppins', 'i');
    expect(piecesIn(layout)).toBe(1);
    const [i] = layout.letters;
    const tie = i?.drawn?.paths.at(-1) as Path;
    const xs = tie.segments.flatMap((s) => [s.x0, s.x1]);
    const face = typeface('Poppins');
    const box = face.box(i?.glyphs[0]?.glyph as number);
    expect(new Set(xs.map((x) => x.toFixed(6))).size).toBe(2);
    expect(Math.min(...xs)).toBeGreaterThanOrEqual(box.minX);
    expect(Math.max(...xs)).toBeLessThanOrEqual(box.maxX);
    const [held] = layout.closedUp;
    expect(held?.kind).toBe('held');
    expect((Math.max(...xs) - Math.min(...xs)) * layout.scale).toBeCloseTo(held?.joint as number, 6);
  });

  test('strips run the way the outlines of their letters run, so that nothing is white where they meet', () => {
    for (const family of some) {
      const strips = joined(family, 'Hiä&').letters.flatMap(({ drawn }) => {
        const strip = drawn?.paths.at(-1);
        return drawn && strip ? [[strip, drawn.paths] as const] : [];
      });
      expect(strips.length).toBeGreaterThan(0);
      for (const [strip, paths] of strips)
        expect(Math.sign(pathArea(strip))).toBe(Math.sign(paths.reduce((sum, p) => sum + pathArea(p), 0)));
    }
  });

  test('spaces stay as they are unless asked for', () => {
    expect(piecesIn(joined('Poppins', 'Al Jo', { words: false }))).toBe(2);
    expect(piecesIn(joined('Poppins', 'Al Jo'))).toBe(1);
  });

  test('the user overrules a pair, or all like it', () => {
    const kinds = (pairs: CloseUp['pairs']) =>
      joined('Poppins', 'ililn', { pairs }).closedUp.flatMap(({ kind }) => (kind === 'held' ? [] : [kind]));
    const all = { left: 'i', right: 'l', at: null };
    const before = kinds([]);
    expect(before).toHaveLength(4);
    const tied = kinds([{ ...all, how: 'tie' }]);
    expect([tied[0], tied[2]]).toEqual(['tie', 'tie']);
    const one = kinds([
      { ...all, how: 'foot' },
      { ...all, at: 3, how: 'tie' },
    ]);
    expect([one[0], one[2]]).toEqual(['foot', 'tie']);
    // Left apart it is no joint, and the words are in pieces.
    const apart = joined('Poppins', 'ililn', { pairs: [{ ...all, at: 1, how: 'apart' }] });
    expect(apart.closedUp.filter(({ kind }) => kind !== 'held')).toHaveLength(3);
    expect(piecesIn(apart)).toBe(2);
    // What was said of a pair that is not there changes nothing.
    expect(kinds([{ left: 'x', right: 'y', at: null, how: 'tie' }])).toEqual(before);
  });

  test('the same with and without memory, at any size and units', () => {
    const face = typeface('Poppins');
    const words = spec('Mimi & Jo', { closeUp: closeUp() });
    const [held, bare] = [layoutLettering(words, face, new Memo()), layoutLettering(words, face)];
    expect(letterPaths(held)).toEqual(letterPaths(bare));
    const twice = layoutLettering(
      spec('Mimi & Jo', { size: { by: 'capital', mm: 2 * CAP }, closeUp: closeUp({ overlap: 4 }) }),
      face,
    );
    expect(twice.box.maxX).toBeCloseTo(2 * bare.box.maxX, 3);
  });

  test('nothing, spaces, one letter, letters a face has not got', () => {
    for (const text of ['', '   ', 'A', '.', '語', 'A語B'])
      expect(() => outlinesOf(joined('Poppins', text))).not.toThrow();
    expect(joined('Poppins', 'A').letters[0]?.drawn).toBeNull();
  });

  test('specks that are lower than a row of ink are left as they are', () => {
    const body = box(0, 0, 0.2, 0.7);
    const holding = { evidence: whiteWithin(0, 0), width: 0.1, slope: 0 };
    for (const speck of [box(0.05, 0.8, 0.1, 0.0004), box(0.05, 0.8, 0, 0), box(0.05, 0.8, 0.1, 0)]) {
      const held = heldLetter([body, speck], holding);
      expect(held.tieWidth).toBeNull();
      expect(held.paths).toHaveLength(2);
    }
    const dotted = heldLetter([body, box(0.05, 0.8, 0.1, 0.1)], holding);
    expect(dotted.tieWidth).toBeGreaterThan(0);
    expect(dotted.paths).toHaveLength(3);
  });

  test('signs that do not face each other are one piece too', () => {
    for (const text of ["'.", "._'", '".,', '-_', "'-."])
      expect(`${text}: ${piecesIn(joined('Poppins', text))}`).toBe(`${text}: 1`);
  });

  test('right-to-left words are joined as they are seen, each to the one on its left', async () => {
    const glyphs = ['H', 'x', 'א', 'ב', 'ג'].map((char) => ({ char, advance: 700, contours: [SQUARE] }));
    const load = await loadTypeface(fontOf({ glyphs: [{}, ...glyphs] }));
    if (!load.ok) throw new Error(load.sentence);
    const layout = layoutLettering(spec('אבג', { closeUp: closeUp() }), load.typeface);
    expect(layout.letters.map(({ text }) => text).join('')).toBe('גבא');
    expect(layout.closedUp.map(({ start }) => start)).toEqual([1, 0]);
    expect(piecesIn(layout)).toBe(1);
    // Said of a pair as it is seen: the letter on the left first.
    const pairs: CloseUp['pairs'] = [{ left: 'ג', right: 'ב', at: null, how: 'apart' }];
    expect(piecesIn(layoutLettering(spec('אבג', { closeUp: closeUp({ pairs }) }), load.typeface))).toBe(2);
  });

  test('a dot that is lowered is lowered for what is traced, too', () => {
    const held = heldLetter(
      [box(0, 0, 0.1, 0.7), box(0, 0.95, 0.1, 0.1)],
      // White between dot and stem is what makes this letter itself.
      { evidence: whiteWithin(0.7, 0.95), width: 0.1, slope: 0 },
    );
    expect(held.lowered?.by).toHaveLength(1);
    expect(held.lowered?.by[0]).toBeLessThan(0);
    expect(held.lowered?.paths).toHaveLength(2);
    // As high as it is drawn.
    const drawn = regionBox(held.paths);
    expect(regionBox(held.lowered?.paths ?? []).maxY).toBeCloseTo(drawn.maxY, 9);
    expect(drawn.maxY).toBeLessThan(1.05);
  });

  test('kept as they were set, strips and all', () => {
    const member = letteringSchema.parse({ ...lettering('Hill ä'), closeUp: closeUp() });
    const layout = layoutLettering(member, typeface('Poppins'));
    const again = layoutAsSet(JSON.parse(JSON.stringify(keepAsSet(member, layout, { x: 0, y: 0 }))));
    expect(piecesIn(again)).toBe(1);
    const [a, b] = [regionBox(letterPaths(layout)), regionBox(letterPaths(again))];
    expect(b.maxX).toBeCloseTo(a.maxX, 4);
    expect(b.minY).toBeCloseTo(a.minY, 4);
  });
});
