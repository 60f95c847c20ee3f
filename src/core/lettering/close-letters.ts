/** Closing up the letters of a line: each is moved towards those before it until they overlap as much as asked. In font units. */
import { type InkRows, inkRowsOf, uniteRows } from '../geometry/ink-rows';
import type { Memory, Stage } from '../memo';
import { type Closing, closingMove, inkReach } from './close-up';
import type { Typeface } from './face';
import {
  glyphsKey,
  type LetterJoint,
  type LineCloseUp,
  letterOutlines,
  type SetLetter,
  shiftBox,
  spaceBetween,
} from './set-letter';

/** Rows a capital is cut into for closing up. */
const ROWS_PER_CAPITAL = 1000;
/** Letters before a letter that it is closed up with. */
const LETTERS_BEFORE = 3;
/** A letter is closed up when what is before it is nearer than this share of the capital height. */
const FARTHEST = 0.45;

/** Height of a row of ink where capitals are so high. */
const rowStep = (capital: number): number => capital / ROWS_PER_CAPITAL;

/** The ink of a letter about its origin, and a name for it. */
type LetterInk = { readonly key: string; readonly rows: InkRows };

type InkInput = { readonly letter: SetLetter['letter']; readonly face: Typeface; readonly step: number };

/** The rows of ink of a letter about its origin. */
const INK: Stage<InkInput, InkRows> = {
  name: 'ink',
  key: ({ letter, face, step }, idOf) => `${idOf(face)}|${step}|${glyphsKey(letter)}`,
  run: ({ letter, face, step }) => inkRowsOf(letterOutlines(letter, face), step),
  weigh: ({ rows }) => rows.reduce((sum, row) => sum + row.length, 0),
};

/** The rows of ink of a letter about its origin, where capitals are so high. */
export const letterInk = (letter: SetLetter['letter'], face: Typeface, capital: number, memory: Memory): LetterInk => ({
  key: glyphsKey(letter),
  rows: memory.get(INK, { letter, face, step: rowStep(capital) }),
});

type ClosingInput = {
  readonly face: Typeface;
  readonly overlap: number;
  readonly capital: number;
  /** What is farther away is left there, in capital heights. */
  readonly farthest: number;
  readonly ink: LetterInk;
  /** Letters before it, each with how far to the right of it that letter's origin lies. */
  readonly fixed: readonly { readonly ink: LetterInk; readonly x: number }[];
};

/** The move of a letter towards those before it; in an object of its own, since there may be none. */
export const CLOSING: Stage<ClosingInput, { readonly made: Closing | null }> = {
  name: 'closing',
  key: ({ face, overlap, capital, farthest, ink, fixed }, idOf) =>
    `${idOf(face)}|${overlap}|${capital}|${farthest}|${ink.key}|${fixed.map((f) => `${f.x}:${f.ink.key}`).join('|')}`,
  run: ({ overlap, capital, farthest, ink, fixed }) => ({
    made: closingMove(
      uniteRows(
        fixed.map((f) => f.ink.rows),
        fixed.map((f) => f.x),
      ),
      ink.rows,
      { wanted: overlap, farthest: farthest * capital, step: rowStep(capital) },
    ),
  }),
  weigh: () => 1,
};

/** Each letter moved towards those before it in its word, and all after it along with it. */
export function closeLetters(
  letters: readonly SetLetter[],
  {
    text,
    face,
    closeUp: { overlap, words, capital },
    memory,
  }: {
    readonly text: string;
    readonly face: Typeface;
    readonly closeUp: LineCloseUp;
    readonly memory: Memory;
  },
): { letters: SetLetter[]; joints: LetterJoint[] } {
  const out: SetLetter[] = [];
  const joints: LetterJoint[] = [];
  const reach = inkReach(overlap, FARTHEST * capital);
  let word: { readonly ink: LetterInk; readonly x: number; readonly right: number }[] = [];
  let moved = 0;
  letters.forEach((current, i) => {
    const before = letters[i - 1]?.letter;
    const { letter } = current;
    if (before && !words && spaceBetween(before, letter, text)) word = [];
    const ink = letterInk(letter, face, capital, memory);
    const near = word.slice(-LETTERS_BEFORE).filter((f) => f.right >= current.box.minX - moved - reach);
    if (near.length > 0) {
      const from = (x: number) => Math.round((x - letter.x + moved) * 1e3) / 1e3;
      const fixed = near.map((f) => ({ ink: f.ink, x: from(f.x) }));
      const closing = memory.get(CLOSING, { face, overlap, capital, farthest: FARTHEST, ink, fixed }).made;
      if (closing) {
        moved += closing.move;
        joints.push({ start: letter.start, end: letter.end, ...closing, kind: closing.move > 0 ? 'touch' : 'as is' });
      }
    }
    const x = letter.x - moved;
    word.push({ ink, x, right: current.box.maxX - moved });
    out.push({ ...current, letter: { ...letter, x }, box: shiftBox(current.box, -moved, 0) });
  });
  return { letters: out, joints };
}
