/**
 * What makes a letter itself: which ink and which white tell it from the other letters of its face. Every other letter is laid over it
 * on the baseline where it fits best; a place counts by the share of what the two differ in that lies there, and the more the nearer
 * the other letter is. An O hangs on its right side (C, G), an e on its bar, a B on its waist.
 */
import { type Path, transformRegion } from '../geometry/path';
import { type Point, scaling } from '../geometry/point';
import type { Stage } from '../memo';
import { PLAIN_SHAPING, type Typeface } from './face';
import {
  CELLS,
  COLUMNS,
  cellAt,
  differenceOf,
  imageOf,
  type LetterImage,
  leastDifference,
  leastDifferenceAt,
  middleOf,
  ROWS,
  valueAt,
} from './letter-image';
import { scriptOf } from './scripts';

/** What makes a letter itself: how much each cell of its picture counts, as ink that has to be there and as white that has to. */
export type Evidence = { readonly ink: Float32Array; readonly white: Float32Array };

/** Letters beside the letter that are looked at: the nearest of its face. */
const NEAREST = 6;
/** How much farther than the nearest another may be, as a share of the letter's ink, to count about a third as much. */
const FARTHER = 0.15;
/** What differs by less, as a share of the letter's ink, is the same letter to the eye: a capital I and a small l in some faces. */
const SAME = 0.04;
/** How far a letter is moved to fit best over another, in cells to both sides. */
const SHIFTS = 5;

/** Letters that Latin words are told apart by, beside the figures. */
const LATIN = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz&';
const FIGURES = '0123456789';
/** Letters of other scripts that are looked at. */
const MOST_LETTERS = 64;

type AlphabetInput = { readonly face: Typeface; readonly script: string };

/** The letters that a script's words are told apart by, as far as a face has them. */
function alphabetOf({ face, script }: AlphabetInput): string[] {
  const known = new Set(face.characters());
  const letters =
    script === 'Latin'
      ? [...LATIN]
      : [...known]
          .sort((a, b) => a - b)
          .map((code) => String.fromCodePoint(code))
          .filter((c) => /\p{L}/u.test(c) && scriptOf(c) === script)
          .slice(0, MOST_LETTERS);
  return [...letters, ...FIGURES].filter((c) => known.has(c.codePointAt(0) as number));
}

/** Pictures of the letters of a script in a face, in capital heights of the face. */
const ALPHABET: Stage<AlphabetInput, readonly LetterImage[]> = {
  name: 'alphabet',
  key: ({ face, script }, idOf) => `${idOf(face)}|${script}`,
  run: (input) =>
    alphabetOf(input).flatMap((c) => {
      const paths = setAlone(input.face, c);
      return paths.length === 0 ? [] : [imageOf(paths, middleOf(paths))];
    }),
  weigh: (images) => (images.length * ROWS * COLUMNS) / 2,
};

function setAlone(face: Typeface, character: string): readonly Path[] {
  const shaped = face.shape(character, 'ltr', PLAIN_SHAPING);
  const paths = shaped.flatMap(({ glyph }) => (glyph === 0 ? [] : face.outline(glyph)));
  return transformRegion(paths, scaling(1 / face.capHeight));
}

/** A letter whose evidence is asked for: its outlines in capital heights, what it stands for, and a name for how it is drawn. */
export type EvidenceInput = {
  readonly face: Typeface;
  readonly text: string;
  readonly paths: () => readonly Path[];
  readonly drawn: string;
};

/** The share of what makes a letter itself that is lost where its picture changes: white that is inked, and ink that is gone. */
export function evidenceLost({ ink, white }: Evidence, before: Float32Array, after: Float32Array): number {
  let lost = 0;
  for (let i = 0; i < before.length; i++) {
    const more = (after[i] as number) - (before[i] as number);
    if (more !== 0) lost += more > 0 ? (white[i] as number) * more : -(ink[i] as number) * more;
  }
  return lost;
}

/** Places looked at along a strip and across it. */
const ALONG = 8;
const ACROSS = 4;

/**
 * The share of what makes a letter itself that lies in its ink under a straight strip, in capital heights about the letter's middle:
 * from the middle of one end to that of the other, so wide.
 */
export function inkUnder({ ink }: Pick<Evidence, 'ink'>, from: Point, to: Point, width: number): number {
  const [dx, dy] = [to.x - from.x, to.y - from.y];
  const length = Math.hypot(dx, dy);
  if (length === 0) return 0;
  const [nx, ny] = [(-dy / length) * width, (dx / length) * width];
  let sum = 0;
  for (let i = 0; i < ALONG; i++) {
    const t = (i + 0.5) / ALONG;
    for (let k = 0; k < ACROSS; k++) {
      const u = (k + 0.5) / ACROSS - 0.5;
      sum += valueAt(ink, from.x + t * dx + u * nx, from.y + t * dy + u * ny);
    }
  }
  return (sum / (ALONG * ACROSS)) * length * width * CELLS * CELLS;
}

/** The evidence of a letter as it is drawn. All of it together counts 1. */
export const EVIDENCE: Stage<EvidenceInput, Evidence> = {
  name: 'evidence',
  key: ({ face, text, drawn }, idOf) => `${idOf(face)}|${scriptIn(text)}|${drawn}`,
  run: ({ face, text, paths }, memory) => {
    const own = paths();
    return evidenceAgainst(imageOf(own, middleOf(own)), memory.get(ALPHABET, { face, script: scriptIn(text) }));
  },
  weigh: () => ROWS * COLUMNS,
};

const scriptIn = (text: string): string => scriptOf([...text][0] ?? '') ?? 'Latin';

/** What tells a letter from others, the nearest counting most; those that look the same are left out. */
function evidenceAgainst(letter: LetterImage, others: readonly LetterImage[]): Evidence {
  const ink = new Float32Array(ROWS * COLUMNS);
  const white = new Float32Array(ROWS * COLUMNS);
  const near = nearestTo(letter, others);
  const [first] = near;
  for (const { image, shift, apart } of near) {
    const weight = Math.exp(-(apart - (first as Near).apart) / FARTHER) / (apart * letter.ink);
    // Where neither has ink, nothing differs.
    const from = Math.max(0, Math.min(letter.from, image.from + shift));
    const to = Math.min(COLUMNS, Math.max(letter.to, image.to + shift));
    for (let r = 0; r < ROWS; r++)
      for (let c = from; c < to; c++) {
        const at = r * COLUMNS + c;
        const more = (letter.cells[at] as number) - cellAt(image.cells, r * COLUMNS, c - shift);
        if (more > 0) ink[at] = (ink[at] as number) + weight * more;
        else white[at] = (white[at] as number) - weight * more;
      }
  }
  // A letter that nothing is near counts everywhere alike.
  if (near.length === 0) ink.set(letter.cells);
  return normalised(softened(ink), softened(white));
}

type Near = { readonly image: LetterImage; readonly shift: number; readonly apart: number };

function nearestTo(letter: LetterImage, others: readonly LetterImage[]): Near[] {
  if (letter.ink === 0) return [];
  const near: Near[] = [];
  const bounded = others.map((image) => ({ image, least: leastDifference(letter, image) }));
  bounded.sort((a, b) => a.least - b.least);
  for (const { image, least } of bounded) {
    // What is farther than the nearest so far counts nothing, and neither does any after it.
    const farthest = near.length < NEAREST ? Infinity : (near[NEAREST - 1] as Near).apart * letter.ink;
    if (least >= farthest) break;
    let best = { shift: 0, sum: farthest };
    // From the middle outwards, so that what comes later is given up early.
    for (let k = 0; k <= 2 * SHIFTS; k++) {
      const shift = k % 2 === 0 ? k / 2 : -(k + 1) / 2;
      if (leastDifferenceAt(letter, image, shift, best.sum) >= best.sum) continue;
      const sum = differenceOf(letter, image, shift, best.sum);
      if (sum < best.sum) best = { shift, sum };
    }
    const apart = best.sum / letter.ink;
    if (apart <= SAME || best.sum >= farthest) continue;
    near.push({ image, shift: best.shift, apart });
    near.sort((a, b) => a.apart - b.apart);
    near.length = Math.min(near.length, NEAREST);
  }
  return near;
}

/** Each cell mixed with its neighbours, so that an edge a hair off still counts. */
function softened(cells: Float32Array): Float32Array {
  return mixedWith(mixedWith(cells, 1), COLUMNS);
}

/** Each cell half itself and half those so many before and after it; nothing beyond the ends. */
function mixedWith(from: Float32Array, step: number): Float32Array {
  const out = new Float32Array(from.length);
  for (let i = 0; i < from.length; i++) {
    const before = i >= step ? (from[i - step] as number) : 0;
    const after = i + step < from.length ? (from[i + step] as number) : 0;
    out[i] = (from[i] as number) / 2 + (before + after) / 4;
  }
  return out;
}

/** Ink and white as shares of all of it; in place. */
function normalised(ink: Float32Array, white: Float32Array): Evidence {
  let sum = 0;
  for (let i = 0; i < ink.length; i++) sum += ink[i] as number;
  for (let i = 0; i < white.length; i++) sum += white[i] as number;
  const share = sum === 0 ? 0 : 1 / sum;
  for (let i = 0; i < ink.length; i++) {
    ink[i] = (ink[i] as number) * share;
    white[i] = (white[i] as number) * share;
  }
  return { ink, white };
}
