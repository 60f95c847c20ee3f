/**
 * Closing up letters along a curve: each is moved back along it until its true outline, where it stands and as it is turned there,
 * joins those before it. The joint is found row by row as on a straight line, in rows along the curve at the letter's place; since
 * a letter turns as it moves, it is looked at again from where it has come to.
 */
import type { Pose } from '../geometry/arc-length';
import { type InkRows, inkRowsOf, uniteRows } from '../geometry/ink-rows';
import { transformRegion } from '../geometry/path';
import { compose, invert, type Matrix, rotation, translation } from '../geometry/point';
import { closingMove } from './close-up';
import type { Typeface } from './face';
import { type LetterJoint, letterOutlines, type SetLetter, spaceBetween } from './line';

/** Rows a capital is cut into. */
const ROWS_PER_CAPITAL = 500;
/** Letters before a letter that it is closed up with. */
const LETTERS_BEFORE = 2;
/** A letter is closed up when what is before it is nearer than this share of the capital height. */
const FARTHEST = 0.45;
/** Shares of the way that are gone before it is looked at again; the last goes all of it. */
const WAYS = [0.8, 0.8, 1];

/**
 * How a letter stands on a curve: from its own coordinates to the lettering's, how its baseline is turned, and which way the curve
 * runs there, in degrees.
 */
export type Standing = { readonly matrix: Matrix; readonly turnedDeg: number; readonly alongDeg: number };

/** From a letter's own coordinates to where a pose puts the middle of its advance. */
export function standingAt(pose: Pose, advance: number, isUpright: boolean): Standing {
  const alongDeg = (pose.angle * 180) / Math.PI;
  const turnedDeg = isUpright ? 0 : alongDeg;
  return {
    matrix: compose(compose(translation(-advance / 2, 0), rotation(turnedDeg)), translation(pose.x, pose.y)),
    turnedDeg,
    alongDeg,
  };
}

/** What is closed up, and along what. */
export type AlongInput = {
  readonly text: string;
  readonly face: Typeface;
  readonly overlap: number;
  readonly words: boolean;
  /** Height of capitals. */
  readonly capital: number;
  /** How a letter stands whose middle has come so far. */
  readonly standing: (middle: number, advance: number) => Standing;
};

/** How far each letter is moved back, and the joints that makes; lengths in the lettering's units. */
export function closeAlong(
  letters: readonly SetLetter[],
  input: AlongInput,
): { moves: number[]; joints: LetterJoint[] } {
  const { text, face, overlap, words, capital, standing } = input;
  const step = capital / ROWS_PER_CAPITAL;
  const moves: number[] = [];
  const joints: LetterJoint[] = [];
  let word: { readonly letter: SetLetter['letter']; readonly matrix: Matrix }[] = [];
  let moved = 0;
  /** Ink as it lies in rows along the curve at a letter that stands somehow. */
  const rowsAt = (letter: SetLetter['letter'], matrix: Matrix, at: Standing): InkRows =>
    inkRowsOf(transformRegion(letterOutlines(letter, face), compose(matrix, rowsFrame(at))), step);
  letters.forEach(({ letter, advance, moved: nudge }, i) => {
    const before = letters[i - 1]?.letter;
    if (before && !words && spaceBetween(before, letter, text)) word = [];
    const middle = letter.x - (nudge?.x ?? 0) + advance / 2;
    let back = moved;
    let joint: number | null = null;
    for (const share of word.length > 0 ? WAYS : []) {
      const at = standing(middle - back, advance);
      const fixed = word.slice(-LETTERS_BEFORE).map((f) => rowsAt(f.letter, f.matrix, at));
      const closing = closingMove(uniteRows(fixed), rowsAt(letter, at.matrix, at), {
        wanted: overlap,
        farthest: FARTHEST * capital,
        step,
      });
      if (!closing) break;
      joint = closing.joint;
      back += share * closing.move;
    }
    if (joint !== null) joints.push({ start: letter.start, end: letter.end, move: back - moved, joint });
    moved = back;
    moves.push(back);
    word.push({ letter, matrix: standing(middle - back, advance).matrix });
  });
  return { moves, joints };
}

/** From the lettering's coordinates to those of a letter that stands somehow, its rows along the curve. */
const rowsFrame = ({ matrix, alongDeg }: Standing): Matrix =>
  invert(compose(rotation(alongDeg), translation(matrix.e, matrix.f)));
