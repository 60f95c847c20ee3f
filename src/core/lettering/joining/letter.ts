/** A letter as others are joined to it: its sides row by row, its picture and what makes it itself. Lengths in capital heights. */
import type { Path, Region } from '../../geometry/path';
import { regionBox, transformRegion } from '../../geometry/path';
import { scaling } from '../../geometry/point';
import type { Stage } from '../../memo';
import { EVIDENCE, type Evidence } from '../evidence';
import type { Typeface } from '../face';
import { COLUMNS, imageOf, type LetterImage, middleOf, ROWS } from '../letter-image';
import { type HeldLetter, heldLetter } from './held-parts';
import {
  clumpsOf,
  HEIGHTS,
  inkHeights,
  type LetterSides,
  letterSidesOf,
  rowsOfLetter,
  rowsOver,
  STEP,
  uprightRows,
} from './profile';

/** A letter made ready for joining; its origin is the letter's own. */
export type JoinLetter = {
  /** Where its middle lies, which its picture is about. */
  readonly middle: number;
  readonly held: HeldLetter;
  /** Its picture with its parts held, and what each cell of it counts. */
  readonly image: LetterImage;
  readonly evidence: Evidence;
  /** The sides of its greatest part, which others are joined to, and those of all of it. */
  readonly body: LetterSides;
  readonly whole: LetterSides;
  readonly leftUpright: readonly boolean[];
  readonly rightUpright: readonly boolean[];
  /** Heights that a strip may begin at and lie within a level stroke. */
  readonly levels: readonly number[];
  readonly bottom: number;
  readonly top: number;
};

/** What a letter is made ready from: outlines in the line's units, the height of capitals in these, and the width of its joints. */
export type JoinLetterInput = {
  readonly face: Typeface;
  readonly text: string;
  readonly outlines: () => readonly Path[];
  /** Tells how it is drawn in the line's units; and in capital heights: where that is as its face draws it, by its glyphs alone. */
  readonly drawn: string;
  readonly shape: string;
  readonly capital: number;
  /** In capital heights. */
  readonly width: number;
};

/** How far a face leans: x by y. */
const slopeOf = ({ slantDeg }: Pick<Typeface, 'slantDeg'>): number => Math.tan((slantDeg * Math.PI) / 180);

/** A letter made ready for joining. */
export const JOIN_LETTER: Stage<JoinLetterInput, JoinLetter> = {
  name: 'letter to join',
  key: ({ face, text, drawn, capital, width }, idOf) => `${idOf(face)}|${capital}|${width}|${drawn}|${text}`,
  run: ({ face, text, outlines, shape, capital, width }, memory) => {
    const paths = transformRegion(outlines(), scaling(1 / capital));
    const evidence = memory.get(EVIDENCE, { face, text, paths: () => paths, drawn: shape });
    return joinLetter(paths, evidence, width, slopeOf(face));
  },
  weigh: () => (3 * ROWS * COLUMNS) / 2 + 10 * HEIGHTS,
};

/** Make a letter ready from its outlines in capital heights. */
function joinLetter(paths: Region, evidence: Evidence, width: number, slope: number): JoinLetter {
  const held = heldLetter(paths, { evidence, width, slope });
  const middle = middleOf(paths);
  const bodyClumps = clumpsOf(rowsOfLetter(held.body));
  const body = letterSidesOf(bodyClumps);
  const [bottom, top] = inkHeights(bodyClumps);
  return {
    middle,
    held,
    image: imageOf(held.paths, middle),
    evidence,
    body,
    whole: letterSidesOf(clumpsOf(rowsOfLetter(held.paths))),
    leftUpright: uprightRows(body.left, slope),
    rightUpright: uprightRows(body.right, slope),
    levels: levelsOf(held.body, width),
    bottom,
    top,
  };
}

/** Edges at least so long, and so level, count. */
const LONG = 0.07;
const LEVEL = 0.03;

/** Heights at which a strip lies within a level stroke: at the lower edges of these, and a strip below the upper ones. */
function levelsOf(paths: readonly Path[], width: number): number[] {
  const rows = rowsOfLetter(paths);
  const found = new Set<number>();
  for (const path of paths)
    for (const { x0, y0, x1, y1 } of path.segments) {
      if (Math.abs(x1 - x0) < LONG || Math.abs(y1 - y0) > LEVEL * Math.abs(x1 - x0)) continue;
      const row = rows.rows[Math.floor((y0 + 1.5 * STEP) / STEP) - rows.first] ?? [];
      const middle = (x0 + x1) / 2;
      const isLower = row.some((x, i) => i % 2 === 0 && x < middle && (row[i + 1] as number) > middle);
      found.add(Math.round((isLower ? y0 : y0 - width) / STEP) * STEP);
    }
  return [...found];
}

/** The ink between two rows of a letter's sides, as far in as its strokes there go; null where a row has none. */
export function sideOver(
  sides: LetterSides,
  which: 'left' | 'right',
  y: number,
  height: number,
): { readonly near: number; readonly far: number; readonly inner: number } | null {
  const [edge, inner] = which === 'right' ? [sides.right, sides.lastStart] : [sides.left, sides.firstEnd];
  let [least, most, deep] = [Infinity, -Infinity, which === 'right' ? -Infinity : Infinity];
  const [from, to] = rowsOver(y, height);
  for (let row = from; row < to; row++) {
    const x = edge[row] as number;
    if (Number.isNaN(x)) return null;
    least = Math.min(least, x);
    most = Math.max(most, x);
    deep = which === 'right' ? Math.max(deep, inner[row] as number) : Math.min(deep, inner[row] as number);
  }
  return which === 'right' ? { near: most, far: least, inner: deep } : { near: least, far: most, inner: deep };
}

/** The height of the small letters of a face, in capital heights. */
export function smallHeight(face: Typeface): number {
  const [glyph] = face.shape('x', 'ltr', { ligatures: false, features: [] });
  if (!glyph || glyph.glyph === 0) return USUAL_SMALL;
  const { maxY } = regionBox(face.outline(glyph.glyph));
  const height = maxY / face.capHeight;
  return height > 0.2 && height <= 1 ? height : USUAL_SMALL;
}
const USUAL_SMALL = 0.7;
