/**
 * Closing up letters along a curve: each is moved back along it until its true outline, where it stands and as it is turned there,
 * joins those before it. The joint is found row by row as on a straight line, in rows along the curve at the letter's place; since
 * a letter turns as it moves, it is looked at again from where it has come to.
 */
import type { Pose } from '../geometry/arc-length';
import { type InkRows, inkRowsOf, uniteRows } from '../geometry/ink-rows';
import { transformRegion } from '../geometry/path';
import { compose, invert, type Matrix, rotation, translation } from '../geometry/point';
import type { Memory, Stage } from '../memo';
import { type Closing, closingMove } from './close-up';
import type { Typeface } from './face';
import {
  glyphsKey,
  type JointKind,
  type LetterJoint,
  letterOutlines,
  type SetLetter,
  spaceBetween,
} from './set-letter';

/** Rows a capital is cut into. */
const ROWS_PER_CAPITAL = 500;
/** Letters before a letter that it is closed up with. */
const LETTERS_BEFORE = 2;
/** A letter is closed up when what is before it is nearer than this share of the capital height; one that is to touch, than that. */
const FARTHEST = 0.45;
const FARTHEST_TO_TOUCH = 0.6;
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
  readonly memory: Memory;
};

/** How a letter is joined to the one before it: moved until they touch where it stands, or moved so far for a strip. */
export type JoinAs = 'touch' | { readonly move: number; readonly joint: number; readonly kind: JointKind };

/** A letter as it lies in rows along the curve. */
type Lying = { readonly letter: SetLetter['letter']; readonly matrix: Matrix };

type InkInput = Lying & { readonly face: Typeface; readonly step: number };
type LookInput = {
  readonly face: Typeface;
  readonly overlap: number;
  readonly capital: number;
  /** What is farther away is left there, in capital heights. */
  readonly farthest: number;
  /** Those that stay, and last the one that is moved. */
  readonly lying: readonly Lying[];
};

/** Where a letter lies to a thousandth of a unit and a millionth of a turn: it is looked at there, so that those alike to that are alike. */
const steady = ({ a, b, c, d, e, f }: Matrix): Matrix => {
  const [turn, unit] = [(v: number) => Math.round(v * 1e6) / 1e6, (v: number) => Math.round(v * 1e3) / 1e3];
  return { a: turn(a), b: turn(b), c: turn(c), d: turn(d), e: unit(e), f: unit(f) };
};

const lyingKey = ({ letter, matrix: { a, b, c, d, e, f } }: Lying): string =>
  `${glyphsKey(letter)}@${[a, b, c, d, e, f].join()}`;

/** The rows of ink of a letter as it lies. */
const LYING_INK: Stage<InkInput, InkRows> = {
  name: 'lying ink',
  key: ({ face, step, ...lying }, idOf) => `${idOf(face)}|${step}|${lyingKey(lying)}`,
  run: ({ face, step, letter, matrix }) => inkRowsOf(transformRegion(letterOutlines(letter, face), matrix), step),
  weigh: ({ rows }) => rows.reduce((sum, row) => sum + row.length, 0),
};

/** The move of a letter towards those before it from where it stands; in an object of its own, since there may be none. */
const LOOK: Stage<LookInput, { readonly made: Closing | null }> = {
  name: 'closing along',
  key: ({ face, overlap, capital, farthest, lying }, idOf) =>
    `${idOf(face)}|${overlap}|${capital}|${farthest}|${lying.map(lyingKey).join('|')}`,
  run({ face, overlap, capital, farthest, lying }, memory) {
    const step = capital / ROWS_PER_CAPITAL;
    const rows = lying.map((l) => memory.get(LYING_INK, { ...l, face, step }));
    const moving = rows.pop() as InkRows;
    return { made: closingMove(uniteRows(rows), moving, { wanted: overlap, farthest: farthest * capital, step }) };
  },
  weigh: () => 1,
};

/**
 * How far each letter is moved back, and the joints that makes; lengths in the lettering's units. `joinAs` says how each is joined to
 * the one before it, null where it is not; without it they are closed up with those before them.
 */
export function closeAlong(
  letters: readonly SetLetter[],
  input: AlongInput,
  joinAs: readonly (JoinAs | null)[] | null = null,
): { moves: number[]; joints: LetterJoint[] } {
  const { text, face, overlap, words, capital, standing, memory } = input;
  const moves: number[] = [];
  const joints: LetterJoint[] = [];
  let word: { readonly letter: SetLetter['letter']; readonly matrix: Matrix }[] = [];
  let moved = 0;
  letters.forEach(({ letter, advance, moved: nudge }, i) => {
    const last = letters[i - 1]?.letter;
    if (last && !words && spaceBetween(last, letter, text)) word = [];
    const middle = letter.x - (nudge?.x ?? 0) + advance / 2;
    const as = joinAs ? (joinAs[i] ?? null) : 'touch';
    let back = moved;
    let joint: number | null = null;
    if (as && as !== 'touch') {
      back += as.move;
      joints.push({ start: letter.start, end: letter.end, ...as });
    }
    const [before, farthest] = joinAs ? [1, FARTHEST_TO_TOUCH] : [LETTERS_BEFORE, FARTHEST];
    for (const share of as === 'touch' && word.length > 0 ? WAYS : []) {
      const at = standing(middle - back, advance);
      const frame = rowsFrame(at);
      const lying = [...word.slice(-before), { letter, matrix: at.matrix }].map(
        (l): Lying => ({ letter: l.letter, matrix: steady(compose(l.matrix, frame)) }),
      );
      const closing = memory.get(LOOK, { face, overlap, capital, farthest, lying }).made;
      if (!closing) break;
      joint = closing.joint;
      back += share * closing.move;
    }
    if (joint !== null)
      joints.push({
        start: letter.start,
        end: letter.end,
        move: back - moved,
        joint,
        kind: back > moved ? 'touch' : 'as is',
      });
    moved = back;
    moves.push(back);
    word.push({ letter, matrix: standing(middle - back, advance).matrix });
  });
  return { moves, joints };
}

/** From the lettering's coordinates to those of a letter that stands somehow, its rows along the curve. */
const rowsFrame = ({ matrix, alongDeg }: Standing): Matrix =>
  invert(compose(rotation(alongDeg), translation(matrix.e, matrix.f)));
