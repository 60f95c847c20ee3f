/**
 * Words kept as they were set, letter by letter, with the outlines of the glyphs they use: so that a job can be cut as it is where a
 * typeface may not go along with it.
 */
import { ArcLength } from '../geometry/arc-length';
import { type Path, regionBox, transformRegion } from '../geometry/path';
import { pathData } from '../geometry/path-data';
import { type Box, EMPTY_BOX, isEmptyBox, type Matrix, scaling, uniteBoxes } from '../geometry/point';
import { pathOf } from '../geometry/read-path-data';
import type { AsSet } from '../schema/as-set';
import type { Lettering } from '../schema/lettering';
import type { Typeface } from './face';
import type { Layout, PlacedLine } from './layout';
import { letterOutlines, type PlacedLetter } from './set-letter';

/** Digits of outlines and of places: of a unit of a face of a thousand, a millionth. */
const DIGITS = 6;

/** What words are, but for where they lie and what they are to be called: what their setting hangs on. */
export function wordsKey({
  id: _id,
  role: _role,
  placement: _placement,
  insteadOf: _from,
  asSet: _kept,
  within,
  ...words
}: Lettering): string {
  // Words that were kept before they could keep within a width are the same words.
  return JSON.stringify(within ? { ...words, within } : words, sorted);
}

/** Fields by their names: in whichever order they were kept, the same words are the same. */
const sorted = (_key: string, value: unknown): unknown =>
  value !== null && typeof value === 'object' && !Array.isArray(value)
    ? Object.fromEntries(Object.entries(value).sort(([a], [b]) => (a < b ? -1 : 1)))
    : value;

/** Keep words as they are set; `shift` is how far they lie from their origin, in mm. */
export function keepAsSet(member: Lettering, layout: Layout, shift: { readonly x: number; readonly y: number }): AsSet {
  const faces = [...new Set(layout.faces)];
  const faceOf = (line: number): number => faces.indexOf(layout.faces[line] as Typeface);
  const used = faces.map(() => new Set<number>());
  for (const letter of layout.letters) for (const { glyph } of letter.glyphs) used[faceOf(letter.line)]?.add(glyph);
  return {
    of: wordsKey(member),
    scale: layout.scale,
    capHeightMm: layout.capHeightMm,
    faces: faces.map((face, i) => ({
      family: face.family.slice(0, 100),
      capHeight: face.capHeight,
      slantDeg: face.slantDeg,
      isSingleStroke: face.isSingleStroke,
      glyphs: [...(used[i] as Set<number>)].map((glyph) => ({
        glyph,
        d: pathData(face.outline(glyph), null, DIGITS),
      })),
    })),
    letters: layout.letters.map(({ text, start, end, line, x, y, own, drawn, baselineDeg, glyphs }) => ({
      text,
      start,
      end,
      line,
      x,
      y,
      own: own && [own.a, own.b, own.c, own.d, own.e, own.f],
      drawn: drawn && pathData(drawn.paths, null, DIGITS),
      baselineDeg,
      glyphs: glyphs.map((g) => [g.glyph, g.x, g.y]),
    })),
    lines: layout.lines.map(({ text, capital, x, y, track, from }) => {
      const line = layout.letters[from]?.line ?? 0;
      return {
        line,
        face: faceOf(line),
        text,
        capital,
        x,
        y,
        track: track && {
          d: pathData([track.curve.path], null, DIGITS),
          left: track.curve.left,
          from: track.from,
          to: track.to,
        },
      };
    }),
    baselines: [...layout.baselines],
    shift: [shift.x, shift.y],
  };
}

/** Whether words are still what they were when they were kept. */
export const isAsSet = (member: Lettering): boolean => member.asSet !== null && member.asSet.of === wordsKey(member);

/** What was kept of a typeface, as one: it can draw its glyphs, but set nothing. */
function excerptOf({ family, capHeight, slantDeg, isSingleStroke, glyphs }: AsSet['faces'][number]): Typeface {
  const outlines = new Map<number, readonly Path[]>(glyphs.map(({ glyph, d }) => [glyph, pathOf(d).paths]));
  const outline = (glyph: number) => outlines.get(glyph) ?? [];
  return {
    family,
    weight: 400,
    italic: false,
    isSingleStroke,
    unitsPerEm: 1000,
    ascent: capHeight,
    descent: 0,
    lineGap: 0,
    capHeight,
    slantDeg,
    shape: () => [],
    outline,
    box: (glyph) => regionBox(outline(glyph)),
    characters: () => [],
    glyphs: () => [...outlines.keys()],
    isBroken: () => false,
  };
}

/** Words as they were kept. */
export function layoutAsSet(kept: AsSet): Layout {
  const faces = kept.faces.map(excerptOf);
  const byLine: Typeface[] = kept.baselines.map(() => faces[0] as Typeface);
  for (const { line, face } of kept.lines) byLine[line] = (faces[face] ?? faces[0]) as Typeface;
  const letters = kept.letters.map(({ own, glyphs, drawn: outlines, ...letter }): PlacedLetter => {
    const [a, b, c, d, e, f] = own ?? [];
    const matrix = own ? ({ a, b, c, d, e, f } as Matrix) : null;
    const drawn = outlines === null ? null : { paths: pathOf(outlines).paths, key: outlines, lowered: null };
    const placed = { ...letter, own: matrix, drawn, glyphs: glyphs.map(([glyph, x, y]) => ({ glyph, x, y })) };
    const ink = regionBox(letterOutlines(placed, (byLine[letter.line] ?? faces[0]) as Typeface));
    return { ...placed, box: moved(ink, letter.x, letter.y) };
  });
  const lines = kept.lines.map(({ line, text, capital, x, y, track }): PlacedLine => {
    const from = letters.findIndex((l) => l.line === line);
    const own = letters.filter((l) => l.line === line);
    const on = track && pathOf(track.d).paths[0];
    return {
      text,
      face: byLine[line] as Typeface,
      capital,
      from,
      to: from + own.length,
      x,
      y,
      box: own.reduce<Box>((all, l) => uniteBoxes(all, l.box), EMPTY_BOX),
      setting: JSON.stringify(kept.letters.filter((l) => l.line === line).map((l) => [l.x, l.y, l.own, l.glyphs])),
      track: track && on ? { curve: new ArcLength(on, track.left), from: track.from, to: track.to } : null,
    };
  });
  const box = lines.reduce<Box>((all, line) => uniteBoxes(all, line.box), EMPTY_BOX);
  return {
    letters,
    lines: lines.filter((line) => line.from >= 0),
    faces: byLine,
    scale: kept.scale,
    box: isEmptyBox(box) ? EMPTY_BOX : scaled(box, kept.scale),
    missing: [],
    broken: [],
    capHeightMm: kept.capHeightMm,
    baselines: kept.baselines,
    closedUp: [],
    along: null,
  };
}

const moved = (b: Box, x: number, y: number): Box =>
  isEmptyBox(b) ? b : { minX: b.minX + x, maxX: b.maxX + x, minY: b.minY + y, maxY: b.maxY + y };

const scaled = (b: Box, by: number): Box => ({
  minX: b.minX * by,
  maxX: b.maxX * by,
  minY: b.minY * by,
  maxY: b.maxY * by,
});

/** Make words that were kept larger by a factor, in place, with the words themselves; `of` is what these are now. */
export function growAsSet(kept: AsSet, factor: number, of: string): void {
  kept.of = of;
  kept.scale *= factor;
  kept.capHeightMm *= factor;
  kept.baselines = kept.baselines.map((y) => y * factor);
  kept.shift = [kept.shift[0] * factor, kept.shift[1] * factor];
  for (const { track } of kept.lines)
    if (track) {
      track.d = pathData(transformRegion(pathOf(track.d).paths, scaling(factor)), null, DIGITS);
      track.left *= factor;
      track.from *= factor;
      track.to *= factor;
    }
}
