/** One line of lettering: shaped, its letters adjusted one by one, closed up. In font units from its own pen start. */

import { type InkRows, inkRowsOf, moveRows, uniteRows } from '../geometry/ink-rows';
import { type Path, regionBox, transformRegion } from '../geometry/path';
import {
  type Box,
  boxCentre,
  boxWidth,
  compose,
  EMPTY_BOX,
  IDENTITY,
  isEmptyBox,
  type Matrix,
  type Point,
  rotation,
  scaling,
  translation,
  uniteBoxes,
} from '../geometry/point';
import { type Memory, NO_MEMORY, type Stage } from '../memo';
import type { LetterChange } from '../schema/lettering';
import { type Closing, closingMove } from './close-up';
import type { FeatureUse, Typeface } from './face';
import { featuresWithin, visualRuns } from './runs';

/** What one character (or what it joined with) became. */
export type PlacedLetter = {
  /** The characters it stands for, as typed. */
  readonly text: string;
  /** Range in the text, in UTF-16 units. */
  readonly start: number;
  readonly end: number;
  readonly line: number;
  /** Glyphs with their origins in font units, relative to the letter's own origin. */
  readonly glyphs: readonly { readonly glyph: number; readonly x: number; readonly y: number }[];
  /** Turn and size of its own about its origin, in font units; null for none. */
  readonly own: Matrix | null;
  /** How its baseline is turned, in degrees: with the line that the words run along; 0 on a straight one. */
  readonly baselineDeg: number;
  /** Origin of the letter in font units from the lettering's origin. */
  readonly x: number;
  readonly y: number;
  /** Bounds of its ink in font units from the lettering's origin. */
  readonly box: Box;
};

/** Where two neighbours were closed up. */
export type LetterJoint = {
  /** Ranges in the text of the letter that moved. */
  readonly start: number;
  readonly end: number;
  /** How far it moved towards those before it, and how strong the joint is, in font units. */
  readonly move: number;
  readonly joint: number;
};

/** A letter of a line with the bounds of its ink, how far it moves the pen on, and how far it was moved by itself. */
export type SetLetter = {
  readonly letter: Omit<PlacedLetter, 'box'>;
  readonly box: Box;
  readonly advance: number;
  readonly moved: Point | null;
};

/**
 * A line of lettering set: its letters, ink and joints, from its own pen start. In the units that its scale leads to: font units of
 * the lettering's own face.
 */
export type SetLine = {
  readonly letters: readonly SetLetter[];
  /** Bounds of the ink. */
  readonly box: Box;
  /** Characters the typeface lacks, and those whose glyphs it has in a way that can't be drawn. */
  readonly missing: readonly string[];
  readonly broken: readonly string[];
  readonly joints: readonly LetterJoint[];
};

/** How one line is set: spacing, size against the others, closing up, changes to letters. */
export type TextLineSettings = {
  /** Extra space between letters in font units; ligatures are off when it is not 0. */
  readonly spacing: number;
  /** Features of the typeface that are asked for; their ranges count from the start of the line. */
  readonly features: readonly FeatureUse[];
  /** From font units of its face to the lettering's. */
  readonly scale: number;
  /** Overlap wanted between neighbours, over spaces too or not, and the height of capitals; null for no closing up. */
  readonly closeUp: { readonly overlap: number; readonly words: boolean; readonly capital: number } | null;
  /** Changes to letters of this line; `at` counts from the start of the line. */
  readonly changes: readonly LetterChange[];
};

/** A letter's glyphs, matrix and bounds, in numbers. */
export const NUMBERS_PER_LETTER = 40;
const weighLine = (line: SetLine): number => NUMBERS_PER_LETTER * line.letters.length;

type LineInput = { readonly text: string; readonly face: Typeface; readonly settings: TextLineSettings };

/** A line as the typeface has it, with its spacing. */
const SHAPED: Stage<LineInput, SetLine> = {
  name: 'shaped line',
  key: ({ text, face, settings }, idOf) =>
    `${idOf(face)}|${settings.spacing}|${JSON.stringify(settings.features)}|${text}`,
  run: ({ text, face, settings }) => shapeLine(text, face, settings),
  weigh: weighLine,
};

/** A line with its letters sized, turned, nudged and closed up. */
const ARRANGED: Stage<LineInput, SetLine> = {
  name: 'arranged line',
  key: ({ text, face, settings }, idOf) => JSON.stringify([idOf(face), settings, text]),
  run: (input, memory) => arrange(memory.get(SHAPED, input), input, memory),
  weigh: weighLine,
};

const UNSEEN = /[\p{Cc}\ufeff]/gu;
/** Characters that draw nothing by themselves and are not missed when a face lacks them. */
const NOT_MISSED = /^[\s\p{Cc}\p{Default_Ignorable_Code_Point}]*$/u;

/** Set one line. Shaping and closing up are what take time, so lines that did not change are remembered. */
export function setLine(text: string, face: Typeface, settings: TextLineSettings, memory: Memory = NO_MEMORY): SetLine {
  const isPlain = settings.scale === 1 && !settings.closeUp && settings.changes.length === 0;
  return memory.get(isPlain ? SHAPED : ARRANGED, { text, face, settings });
}

function shapeLine(text: string, face: Typeface, { spacing, features }: TextLineSettings): SetLine {
  const missing = new Set<string>();
  const broken = new Set<string>();
  const clean = text.replace(/\t/g, ' ').replace(UNSEEN, '\u200b');
  const letters: SetLetter[] = [];
  let pen = 0;
  let box = EMPTY_BOX;
  const runs = visualRuns(clean);
  runs.forEach((run, r) => {
    const shaped = face.shape(clean.slice(run.start, run.end), run.direction, {
      ligatures: spacing === 0,
      features: featuresWithin(features, run),
    });
    const starts = [...new Set(shaped.map((g) => g.cluster))].sort((a, b) => a - b);
    const endOf = (cluster: number) => starts.find((s) => s > cluster) ?? run.end - run.start;
    for (let i = 0; i < shaped.length; ) {
      const cluster = (shaped[i] as { cluster: number }).cluster;
      const start = run.start + cluster;
      const end = run.start + endOf(cluster);
      const glyphs: { glyph: number; x: number; y: number }[] = [];
      const origin = pen;
      let lacks = false;
      let isBroken = false;
      let ink = EMPTY_BOX;
      for (; i < shaped.length && shaped[i]?.cluster === cluster; i++) {
        const g = shaped[i] as (typeof shaped)[number];
        if (g.glyph === 0) lacks = true;
        else {
          if (face.isBroken(g.glyph)) isBroken = true;
          const b = face.box(g.glyph);
          if (!isEmptyBox(b)) {
            const x = pen - origin + g.dx;
            glyphs.push({ glyph: g.glyph, x, y: g.dy });
            ink = uniteBoxes(ink, { minX: b.minX + x, maxX: b.maxX + x, minY: b.minY + g.dy, maxY: b.maxY + g.dy });
          }
        }
        pen += g.advance;
      }
      const chars = clean.slice(start, end);
      if (lacks && !NOT_MISSED.test(chars)) missing.add(chars);
      if (isBroken) broken.add(chars);
      const last = i >= shaped.length && r === runs.length - 1;
      const advance = pen - origin;
      if (!last) pen += spacing;
      if (glyphs.length > 0) {
        letters.push({
          letter: { text: chars, start, end, line: 0, glyphs, own: null, baselineDeg: 0, x: origin, y: 0 },
          box: shift(ink, origin, 0),
          advance,
          moved: null,
        });
        box = uniteBoxes(box, shift(ink, origin, 0));
      }
    }
  });
  return { letters, box, missing: [...missing], broken: [...broken], joints: [] };
}

const shift = (b: Box, x: number, y: number): Box => ({
  minX: b.minX + x,
  maxX: b.maxX + x,
  minY: b.minY + y,
  maxY: b.maxY + y,
});

/** The outlines of a letter in font units about its origin, its own turn and size applied. */
export function letterOutlines(letter: Pick<PlacedLetter, 'glyphs' | 'own'>, face: Typeface): readonly Path[] {
  return letter.glyphs.flatMap((g) =>
    transformRegion(face.outline(g.glyph), compose(translation(g.x, g.y), letter.own ?? IDENTITY)),
  );
}

const UNCHANGED: LetterChange = { at: -1, dx: 0, dy: 0, turn: 0, scale: 1, form: null };

/** Sizes, turns and nudges of letters, the size of the line, and closing up, in this order. */
function arrange(bare: SetLine, { text, face, settings: s }: LineInput, memory: Memory): SetLine {
  const changeOf = (letter: SetLetter['letter']) =>
    s.changes.find((c) => c.at >= letter.start && c.at < letter.end) ?? UNCHANGED;
  // Sizes first: what follows a larger letter moves on by what it has grown.
  let grown = 0;
  const sized = bare.letters.map(({ letter, box, advance: bareAdvance }, i): SetLetter => {
    const { scale, turn } = changeOf(letter);
    const x = (letter.x + grown) * s.scale;
    const next = bare.letters[i + 1];
    const advance = next ? next.letter.x - letter.x - s.spacing : box.maxX - letter.x;
    grown += (scale - 1) * advance;
    const size = scale * s.scale;
    const own = { advance: bareAdvance * size, moved: null };
    if (size === 1 && turn === 0) return { letter: { ...letter, x }, box: shift(box, x - letter.x, 0), ...own };
    const middle = boxCentre(shift(box, -letter.x, 0));
    const about = translation(-middle.x * size, -middle.y * size);
    const back = translation(middle.x * size, middle.y * size);
    const matrix = compose(scaling(size), turn === 0 ? IDENTITY : compose(compose(about, rotation(turn)), back));
    const changed = { ...letter, own: matrix, x };
    return { letter: changed, box: shift(regionBox(letterOutlines(changed, face)), x, 0), ...own };
  });
  const { letters, joints } = s.closeUp
    ? closeLetters(sized, { text, face, closeUp: s.closeUp, memory })
    : { letters: sized, joints: [] };
  const placedLetters = letters.map((set): SetLetter => {
    const { letter, box } = set;
    const { dx, dy } = changeOf(letter);
    const [mx, my] = [dx * face.capHeight * s.scale, dy * face.capHeight * s.scale];
    const moved = mx === 0 && my === 0 ? null : { x: mx, y: my };
    return { ...set, letter: { ...letter, x: letter.x + mx, y: my }, box: shift(box, mx, my), moved };
  });
  return {
    letters: placedLetters,
    box: placedLetters.reduce<Box>((all, l) => uniteBoxes(all, l.box), EMPTY_BOX),
    missing: bare.missing,
    broken: bare.broken,
    joints,
  };
}

/** Rows a capital is cut into for closing up. */
const ROWS_PER_CAPITAL = 1000;
/** Letters before a letter that it is closed up with. */
const LETTERS_BEFORE = 3;
/** A letter is closed up when what is before it is nearer than this share of the capital height. */
const FARTHEST = 0.45;

const rowStep = (capital: number): number => capital / ROWS_PER_CAPITAL;

/** The ink of a letter about its origin, and a name for it. */
type LetterInk = { readonly key: string; readonly rows: InkRows };

type InkInput = { readonly letter: SetLetter['letter']; readonly face: Typeface; readonly step: number };

/** Tells letters of a face apart by their glyphs, and their own turn and size. */
export const glyphsKey = ({ glyphs, own }: SetLetter['letter']): string =>
  `${glyphs.map((g) => `${g.glyph}@${g.x},${g.y}`).join('+')}|${own ? Object.values(own).join() : ''}`;

/** The rows of ink of a letter about its origin. */
const INK: Stage<InkInput, InkRows> = {
  name: 'ink',
  key: ({ letter, face, step }, idOf) => `${idOf(face)}|${step}|${glyphsKey(letter)}`,
  run: ({ letter, face, step }) => inkRowsOf(letterOutlines(letter, face), step),
  weigh: ({ rows }) => rows.reduce((sum, row) => sum + row.length, 0),
};

const letterInk = (letter: SetLetter['letter'], face: Typeface, step: number, memory: Memory): LetterInk => ({
  key: glyphsKey(letter),
  rows: memory.get(INK, { letter, face, step }),
});

type ClosingInput = {
  readonly face: Typeface;
  readonly overlap: number;
  readonly capital: number;
  readonly ink: LetterInk;
  /** Letters before it, each with how far to the right of it that letter's origin lies. */
  readonly fixed: readonly { readonly ink: LetterInk; readonly x: number }[];
};

/** The move of a letter towards those before it; in an object of its own, since there may be none. */
const CLOSING: Stage<ClosingInput, { readonly made: Closing | null }> = {
  name: 'closing',
  key: ({ face, overlap, capital, ink, fixed }, idOf) =>
    `${idOf(face)}|${overlap}|${capital}|${ink.key}|${fixed.map((f) => `${f.x}:${f.ink.key}`).join('|')}`,
  run: ({ overlap, capital, ink, fixed }) => ({
    made: closingMove(uniteRows(fixed.map((f) => moveRows(f.ink.rows, f.x))), ink.rows, {
      wanted: overlap,
      farthest: FARTHEST * capital,
      step: rowStep(capital),
    }),
  }),
  weigh: () => 1,
};

/** Each letter moved towards those before it in its word, and all after it along with it. */
function closeLetters(
  letters: readonly SetLetter[],
  {
    text,
    face,
    closeUp: { overlap, words, capital },
    memory,
  }: {
    readonly text: string;
    readonly face: Typeface;
    readonly closeUp: NonNullable<TextLineSettings['closeUp']>;
    readonly memory: Memory;
  },
): { letters: SetLetter[]; joints: LetterJoint[] } {
  const out: SetLetter[] = [];
  const joints: LetterJoint[] = [];
  let word: { readonly ink: LetterInk; readonly x: number }[] = [];
  let moved = 0;
  letters.forEach((current, i) => {
    const before = letters[i - 1]?.letter;
    const { letter } = current;
    if (before && !words && spaceBetween(before, letter, text)) word = [];
    const ink = letterInk(letter, face, rowStep(capital), memory);
    if (word.length > 0) {
      const from = (x: number) => Math.round((x - letter.x + moved) * 1e3) / 1e3;
      const fixed = word.slice(-LETTERS_BEFORE).map((f) => ({ ink: f.ink, x: from(f.x) }));
      const closing = memory.get(CLOSING, { face, overlap, capital, ink, fixed }).made;
      if (closing) {
        moved += closing.move;
        joints.push({ start: letter.start, end: letter.end, ...closing });
      }
    }
    const x = letter.x - moved;
    word.push({ ink, x });
    out.push({ ...current, letter: { ...letter, x }, box: shift(current.box, -moved, 0) });
  });
  return { letters: out, joints };
}

/** Whether white space stands between two letters, in whichever direction they are read. */
export function spaceBetween(a: SetLetter['letter'], b: SetLetter['letter'], text: string): boolean {
  const from = Math.min(a.end, b.end);
  const to = Math.max(a.start, b.start);
  return to > from && /\s/.test(text.slice(from, to));
}

/** Width of what is drawn; 0 for nothing. */
export const inkWidth = (line: SetLine): number => boxWidth(line.box);
