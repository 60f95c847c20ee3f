/**
 * Joining the letters of a line into one piece that is still read: each pair by what costs the word least, free parts of letters held
 * to these. In the units of the line.
 */
import { columnsOf } from '../../geometry/ink-rows';
import { type Path, pathArea, regionBox, transformRegion } from '../../geometry/path';
import { compose, IDENTITY, invert, type Matrix, type Point, scaling } from '../../geometry/point';
import type { Memory, Stage } from '../../memo';
import { CLOSING, letterInk } from '../close-letters';
import { PLAIN_SHAPING, type Typeface } from '../face';
import {
  type DrawnLetter,
  glyphNames,
  glyphsKey,
  type LetterJoint,
  type LineCloseUp,
  letterOutlines,
  type SetLetter,
  shiftBox,
  spaceBetween,
} from '../set-letter';
import { JOIN_LETTER, type JoinLetter, smallHeight } from './letter';
import { type Neighbours, type PairInput, pairOf, type Way } from './neighbours';
import { STEP } from './profile';
import { stripPath } from './strip-path';
import { joinWord } from './word';

/** Joints are at least this share of what is asked, where strokes are no thicker; and thinner than a level stroke by a row. */
const LEAST_SHARE = 0.75;
/** Letters farther apart than this share of a capital do not touch; they are joined by strips. */
const FARTHEST = 0.6;
/** How far from the end of an L its foot is measured, in capital heights. */
const FOOT = 0.12;

/** What the letters of a line are joined by. */
export type JoinInput = {
  readonly text: string;
  readonly face: Typeface;
  readonly closeUp: LineCloseUp;
  readonly memory: Memory;
};

/** The height of a face's small letters, and how thick its level strokes are: both in capital heights. */
const measuresOf = (face: Typeface, memory: Memory): { readonly small: number; readonly bar: number } =>
  memory.of(face, 'joint measures', () => {
    const [glyph] = face.shape('L', 'ltr', PLAIN_SHAPING);
    const outlines = glyph && glyph.glyph !== 0 ? face.outline(glyph.glyph) : [];
    const paths = transformRegion(outlines, scaling(1 / face.capHeight));
    const bar = paths.length === 0 ? 0 : inkAt(paths, regionBox(paths).maxX - FOOT);
    return { small: smallHeight(face), bar: bar > 0 ? bar : Infinity };
  });

/** How much ink a plumb line at a place meets. */
function inkAt(paths: readonly Path[], x: number): number {
  const { first, rows } = columnsOf(paths, STEP);
  const column = rows[Math.floor(x / STEP) - first] ?? [];
  return column.reduce((sum, y, i) => sum + (i % 2 === 0 ? -y : y), 0);
}

/** A letter made ready, a name for it, and what is drawn of it with its parts held; null for its glyphs. */
export type Joined = { readonly letter: JoinLetter; readonly key: string; readonly drawn: DrawnLetter | null };

type PairStageInput = Omit<PairInput, 'left' | 'right'> & {
  readonly face: Typeface;
  readonly capital: number;
  readonly left: Joined;
  readonly right: Joined;
};

const PAIR: Stage<PairStageInput, Neighbours> = {
  name: 'pair to join',
  key: ({ face, capital, left, right, apart, width, touch, space }, idOf) =>
    `${idOf(face)}|${capital}|${width}|${apart}|${space}|${touch?.slide}|${left.key}|${right.key}`,
  run: ({ left, right, face: _face, capital: _capital, ...pair }) =>
    pairOf({ ...pair, left: left.letter, right: right.letter }),
  weigh: ({ ways }) => 24 * ways.length,
};

const rounded = (value: number): number => Math.round(value * 1e5) / 1e5;

/** Each letter joined to the one before it in its word, and all after it moved along with it; free parts of letters held to these. */
export function joinNeighbours(
  letters: readonly SetLetter[],
  input: JoinInput,
): { letters: SetLetter[]; joints: LetterJoint[] } {
  const { made, ways } = waysToJoin(letters, input);
  return placed(letters, made, ways, input.closeUp.capital);
}

/** Letters with their free parts held, and the way in which each is joined to the one before it; null where it is not. */
export function waysToJoin(
  letters: readonly SetLetter[],
  { text, face, closeUp: { overlap, words, capital, pairs: answers }, memory }: JoinInput,
): { readonly made: readonly Joined[]; readonly ways: readonly (Way | null)[] } {
  const { small, bar } = measuresOf(face, memory);
  const asked = overlap / capital;
  const width = Math.max(LEAST_SHARE * asked, Math.min(asked, bar - STEP));
  const made = letters.map(({ letter }): Joined => {
    const key = glyphsKey(letter);
    const outlines = () => letterOutlines(letter, face);
    const shape = isAsFaceHasIt(letter, face, capital) ? glyphNames(letter.glyphs) : `${key}|${capital}`;
    const made = memory.get(JOIN_LETTER, { face, text: letter.text, outlines, drawn: key, shape, capital, width });
    return {
      key,
      letter: made,
      drawn: memory.of(made, 'drawn', () => drawnLetter(made, key, letter.own, null, capital)),
    };
  });
  const between = letters.slice(1).map((right, i): Neighbours | null => {
    const left = letters[i] as SetLetter;
    const isSpace = spaceBetween(left.letter, right.letter, text);
    if (isSpace && !words) return null;
    const said = answers.filter((a) => a.left === left.letter.text && a.right === right.letter.text);
    const answer = said.find((a) => a.at === right.letter.start) ?? said.find((a) => a.at === null);
    const apart = rounded((right.letter.x - left.letter.x) / capital);
    const ink = (k: number) =>
      letterInk({ ...(letters[k] as SetLetter).letter, drawn: (made[k] as Joined).drawn }, face, capital, memory);
    const closing = memory.get(CLOSING, {
      face,
      overlap,
      capital,
      farthest: FARTHEST,
      ink: ink(i + 1),
      fixed: [{ ink: ink(i), x: rounded(left.letter.x - right.letter.x) }],
    }).made;
    const pair = memory.get(PAIR, {
      face,
      capital,
      left: made[i] as Joined,
      right: made[i + 1] as Joined,
      apart,
      width,
      small,
      touch: closing && { slide: closing.move / capital, width: closing.joint / capital },
      space: isSpace ? rounded(Math.max(LEAST_SPACE, apart - left.advance / capital)) : 0,
    });
    // It stays one of the word, whose rhythm hangs on all its pairs.
    if (answer?.how === 'apart') return { ...pair, ways: [] };
    const wanted = pair.ways.filter(
      ({ kind }) => kind === answer?.how || (answer?.how === 'touch' && kind === 'as is'),
    );
    return wanted.length > 0 ? { ...pair, ways: wanted } : pair;
  });
  const ways = wordsOf(between).flatMap((word) =>
    word.length === 1 && word[0] === null ? [null] : joinWord(word as readonly Neighbours[], small, width),
  );
  return { made, ways: [null, ...ways] };
}

/** Whether a letter is drawn as its face has it, but for the size of its line. */
function isAsFaceHasIt({ own }: SetLetter['letter'], face: Typeface, capital: number): boolean {
  const size = capital / face.capHeight;
  const { a, b, c, d } = own ?? IDENTITY;
  return b === 0 && c === 0 && Math.abs(a - size) < SAME_SIZE && Math.abs(d - size) < SAME_SIZE;
}
const SAME_SIZE = 1e-9;

/** A space is at least so wide, in capital heights. */
const LEAST_SPACE = 0.05;

/** Runs of pairs that are joined together; what is not joined is a run by itself. */
function wordsOf(pairs: readonly (Neighbours | null)[]): (readonly (Neighbours | null)[])[] {
  const runs: (Neighbours | null)[][] = [];
  pairs.forEach((pair, i) => {
    const last = runs[runs.length - 1];
    if (i > 0 && pair && pairs[i - 1] && last) last.push(pair);
    else runs.push([pair]);
  });
  return runs;
}

/** The joint of a letter's free parts, if it has any that are held. */
export const heldJoints = (
  { start, end }: SetLetter['letter'],
  { letter: { held } }: Joined,
  capital: number,
): LetterJoint[] =>
  held.tieWidth === null ? [] : [{ start, end, move: 0, joint: held.tieWidth * capital, kind: 'held' }];

function placed(
  letters: readonly SetLetter[],
  made: readonly Joined[],
  ways: readonly (Way | null)[],
  capital: number,
): { letters: SetLetter[]; joints: LetterJoint[] } {
  const joints: LetterJoint[] = [];
  let moved = 0;
  const out = letters.map((current, i): SetLetter => {
    const { letter } = current;
    joints.push(...heldJoints(letter, made[i] as Joined, capital));
    const way = ways[i] ?? null;
    if (way) {
      moved += way.slide * capital;
      const { kind } = way;
      joints.push({
        start: letter.start,
        end: letter.end,
        move: way.slide * capital,
        joint: way.width * capital,
        kind,
      });
    }
    const x = letter.x - moved;
    // Strips are given from the letter before.
    const before = letters[i - 1]?.letter;
    const by = before && way ? before.x - letter.x + way.slide * capital : 0;
    const strip = way?.strip?.map((p): Point => ({ x: p.x * capital + by, y: p.y * capital })) ?? null;
    const { letter: joined, key, drawn: held } = made[i] as Joined;
    const drawn = strip ? drawnLetter(joined, key, letter.own, strip, capital) : held;
    const box = drawn ? shiftBox(regionBox(drawn.paths), x, 0) : shiftBox(current.box, -moved, 0);
    return { ...current, letter: { ...letter, x, drawn }, box };
  });
  return { letters: out, joints };
}

/**
 * A letter with its parts held and the strip that joins it to the one before, about its origin; null where nothing of it is changed.
 * `turned` is how it is turned along a curve: the strip is given as it lies.
 */
export function drawnLetter(
  { held }: JoinLetter,
  key: string,
  own: Matrix | null,
  strip: readonly Point[] | null,
  capital: number,
  turned: Matrix | null = null,
): DrawnLetter | null {
  if (held.tieWidth === null && !strip) return null;
  const paths = transformRegion(held.paths, compose(scaling(capital), turned ?? IDENTITY));
  const standing = turned ? `|${[turned.a, turned.b].map(rounded).join()}` : '';
  const lowered = held.lowered && {
    paths: transformRegion(held.lowered.paths, compose(scaling(capital), invert(own ?? IDENTITY))),
    name: held.lowered.by.map(rounded).join(),
  };
  if (!strip) return { paths, lowered, key: `${key}|${capital}${standing}` };
  const isClockwise = held.body.reduce((sum, p) => sum + pathArea(p), 0) < 0;
  const corners = strip.map(({ x, y }) => `${rounded(x / capital)},${rounded(y / capital)}`).join(' ');
  return { paths: [...paths, stripPath(strip, isClockwise)], lowered, key: `${key}|${capital}${standing}|${corners}` };
}
