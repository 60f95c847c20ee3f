/**
 * Lettering set in lines: text → letters with their outlines at true size. Everything is in mm with the origin on the
 * first baseline, at the left end, middle or right end of the lines as they are aligned.
 */

import { numberAt } from '../geometry/elements';
import { columnsOf, type InkRows, moveRows, uniteRows } from '../geometry/ink-rows';
import { type Path, transformRegion } from '../geometry/path';
import {
  type Box,
  compose,
  EMPTY_BOX,
  IDENTITY,
  isEmptyBox,
  type Matrix,
  scaling,
  translation,
  uniteBoxes,
} from '../geometry/point';
import { type Memory, NO_MEMORY, type Stage } from '../memo';
import type { CloseUp, LetterChange } from '../schema/lettering';
import { closingMove } from './close-up';
import type { FeatureUse, Typeface } from './face';
import { inkWidth, letterOutlines, NUMBERS_PER_LETTER, type PlacedLetter, type SetLine, setLine } from './line';

export type { PlacedLetter } from './line';

/** Where the lines of lettering stand: at their left ends, middles or right ends. */
export type Alignment = 'left' | 'centre' | 'right';

/** How lines are made equally wide. */
export type EvenLines = 'no' | 'spacing' | 'size' | 'both';

/** What lettering is set by: its words, size, spacing, alignment, closing up and changes to single letters. */
export type LetteringSpec = {
  readonly text: string;
  /** By capital height, or by the width of the widest line as drawn; in mm. */
  readonly size: { readonly by: 'capital' | 'width'; readonly mm: number };
  /** Extra space between letters as a share of the capital height; ligatures are off when it is not 0. */
  readonly letterSpacing: number;
  /** Distance between baselines as a multiple of the typeface's own. */
  readonly lineSpacing: number;
  readonly align: Alignment;
  readonly evenLines?: EvenLines;
  readonly closeUp?: CloseUp | null;
  /** Changes to single letters; `at` counts in the whole text. */
  readonly letters?: readonly LetterChange[];
  /** Features of the typeface that are asked for, by their tags: 0 off, 1 on, or which of several. */
  readonly features?: Readonly<Record<string, number>>;
};

/** One line as set. Two lines of the same text in the same face and spacing have the same letters. */
export type PlacedLine = {
  readonly text: string;
  /** Range in the list of letters. */
  readonly from: number;
  readonly to: number;
  /** Where its pen starts, in font units from the lettering's origin. */
  readonly x: number;
  readonly y: number;
  /** Bounds of its ink in font units from the lettering's origin. */
  readonly box: Box;
  /** Tells lines of the same text apart that are set differently. */
  readonly setting: string;
};

/** What closing up did to a letter or a line. */
export type ClosedUp = {
  /** Range in the text of what moved. */
  readonly start: number;
  readonly end: number;
  readonly what: 'letter' | 'line';
  /** In mm. */
  readonly move: number;
  readonly joint: number;
};

/** Lettering set: its lines with their letters in place, its size in mm, and characters the typeface lacks. */
export type Layout = {
  readonly letters: readonly PlacedLetter[];
  /** Lines that have letters. */
  readonly lines: readonly PlacedLine[];
  /** Millimetres per font unit. */
  readonly scale: number;
  /** Bounds of the ink in mm; empty when nothing is drawn. */
  readonly box: Box;
  /** Characters the typeface lacks, each once, in the order met. */
  readonly missing: readonly string[];
  /** Characters whose glyphs the typeface has in a way that can't be drawn. */
  readonly broken: readonly string[];
  readonly capHeightMm: number;
  /** How far its uprights lean to the right, in degrees. */
  readonly slantDeg: number;
  /** Baselines in mm from the origin, one a line, downwards negative. */
  readonly baselines: readonly number[];
  readonly closedUp: readonly ClosedUp[];
};

/** The lines of a text, whichever way its lines end. */
export const textLines = (text: string): string[] => text.replace(/\r\n?/g, '\n').split('\n');

/** The outlines of every letter as drawn, overlaps and all, where `matrix` puts the lettering. */
export const letterPaths = (layout: Layout, face: Typeface, matrix: Matrix = IDENTITY): Path[] =>
  layout.letters.flatMap((letter) =>
    transformRegion(
      letterOutlines(letter, face),
      compose(compose(translation(letter.x, letter.y), scaling(layout.scale)), matrix),
    ),
  );

/** One line with how it was set. */
type Draft = {
  readonly text: string;
  /** Where it starts in the text. */
  readonly offset: number;
  readonly set: SetLine;
  readonly scale: number;
  readonly setting: string;
};

/** Rounds of setting until the scale is settled: overlaps are in mm, the scale may hang on the width. */
const ROUNDS = 8;
const SETTLED = 1e-7;
const SCALE_SETTLED = 1e-4;
/** Overlaps are at most this share of the capital height. */
const MOST_OVERLAP = 0.5;

/** Set the text. Lines align by what is drawn, not by side bearings, so that cut edges line up. */
export function layoutLettering(asked: LetteringSpec, face: Typeface, memory: Memory = NO_MEMORY): Layout {
  // Lines have no ink to overlap with.
  const spec = face.isSingleStroke ? { ...asked, closeUp: null } : asked;
  let scale = spec.size.mm / face.capHeight;
  let drafts = draftLines(spec, face, scale, memory);
  if (spec.size.by === 'width')
    for (let round = 0; round < ROUNDS; round++) {
      const widest = Math.max(0, ...drafts.map((d) => inkWidth(d.set)));
      const next = widest > 0 ? spec.size.mm / widest : scale;
      // The width is met whatever the overlap; only that is off by this share.
      const settled = Math.abs(next / scale - 1) < SCALE_SETTLED;
      scale = next;
      if (settled || !spec.closeUp) break;
      drafts = draftLines(spec, face, scale, memory);
    }
  return place(spec, face, { drafts, scale, memory });
}

/** The overlap asked for, in font units. */
const overlapIn = (closeUp: CloseUp, face: Typeface, scale: number): number =>
  Math.min(closeUp.overlap / scale, MOST_OVERLAP * face.capHeight);

function draftLines(spec: LetteringSpec, face: Typeface, scale: number, memory: Memory): Draft[] {
  const spacing = spec.letterSpacing * face.capHeight;
  const closeUp = spec.closeUp ? { overlap: overlapIn(spec.closeUp, face, scale), words: spec.closeUp.words } : null;
  const everywhere = Object.entries(spec.features ?? {}).map(([tag, value]): FeatureUse => ({ tag, value }));
  let offset = 0;
  const bare = textLines(spec.text).map((text) => {
    const start = offset;
    offset += text.length + 1;
    const changes = (spec.letters ?? [])
      .filter((c) => c.at >= start && c.at < start + text.length)
      .map((c) => ({ ...c, at: c.at - start }));
    const features = [...everywhere, ...formsOf(changes)];
    const make = (own: number, extra: number): Draft => {
      const settings = { spacing: spacing + extra, scale: own, closeUp, changes, features };
      const plain = own === 1 && extra === 0 && !closeUp && changes.length === 0 && features.length === 0;
      return {
        text,
        offset: start,
        set: setLine(text, face, settings, memory),
        scale: own,
        setting: plain ? `${spacing}` : JSON.stringify(settings),
      };
    };
    return { make, draft: make(1, 0) };
  });
  const even = spec.evenLines ?? 'no';
  if (even === 'no') return bare.map((b) => b.draft);
  const target = Math.max(0, ...bare.map((b) => inkWidth(b.draft.set)));
  return bare.map(({ make, draft }) => widened(make, draft, target, closeUp ? 'size' : even));
}

/** The other forms that single letters are set in. */
const formsOf = (changes: readonly LetterChange[]): FeatureUse[] =>
  changes.flatMap(({ at, form }) => (form ? { tag: form.tag, value: form.value, from: at, to: at + 1 } : []));

/** A line made as wide as asked, by its size, by its spacing, or half by each. */
function widened(
  make: (scale: number, extra: number) => Draft,
  draft: Draft,
  target: number,
  by: Exclude<EvenLines, 'no'>,
): Draft {
  const width = inkWidth(draft.set);
  const gaps = draft.set.letters.length - 1;
  if (width === 0 || width >= target * (1 - SETTLED)) return draft;
  const ratio = target / width;
  const scale = by === 'spacing' && gaps > 0 ? 1 : by === 'both' && gaps > 0 ? Math.sqrt(ratio) : ratio;
  let made = make(scale, 0);
  let extra = 0;
  // Spacing switches ligatures off, which changes the width once more.
  for (let round = 0; round < ROUNDS; round++) {
    const missing = target - inkWidth(made.set);
    const letters = made.set.letters.length - 1;
    if (Math.abs(missing) < SETTLED * target) break;
    if (by === 'size' || letters <= 0) {
      made = make((made.scale * target) / inkWidth(made.set), 0);
      continue;
    }
    extra += missing / letters / made.scale;
    made = make(scale, extra);
  }
  return made;
}

/** Space of a line above its baseline, as a share of the typeface's line height. */
const ABOVE = 0.8;

function place(
  spec: LetteringSpec,
  face: Typeface,
  { drafts, scale, memory }: { readonly drafts: readonly Draft[]; readonly scale: number; readonly memory: Memory },
): Layout {
  const advance = (face.ascent - face.descent + face.lineGap) * spec.lineSpacing;
  const missing = new Set<string>();
  const broken = new Set<string>();
  const baselines: number[] = [];
  let y = 0;
  drafts.forEach((d, i) => {
    for (const characters of d.set.missing) missing.add(characters);
    for (const characters of d.set.broken) broken.add(characters);
    const before = drafts[i - 1];
    if (before) y -= advance * (ABOVE * d.scale + (1 - ABOVE) * before.scale);
    baselines.push(y);
  });
  const shifts = drafts.map(({ set: { box } }) => {
    if (isEmptyBox(box)) return 0;
    return -{ left: box.minX, centre: (box.minX + box.maxX) / 2, right: box.maxX }[spec.align];
  });
  const closedLines = spec.closeUp?.lines
    ? closeLines(drafts, { shifts, baselines, overlap: overlapIn(spec.closeUp, face, scale), face })
    : [];
  let box = EMPTY_BOX;
  const letters: PlacedLetter[] = [];
  const lines: PlacedLine[] = [];
  const closedUp: ClosedUp[] = closedLines.map((c) => ({
    ...c,
    what: 'line',
    move: c.move * scale,
    joint: c.joint * scale,
  }));
  drafts.forEach(({ text, offset, set, setting }, i) => {
    if (isEmptyBox(set.box)) return;
    const x = numberAt(shifts, i);
    const baseline = numberAt(baselines, i);
    const { minX, maxX, minY, maxY } = set.box;
    const lineBox = { minX: minX + x, maxX: maxX + x, minY: minY + baseline, maxY: maxY + baseline };
    box = uniteBoxes(box, lineBox);
    const from = letters.length;
    for (const letter of memory.get(PLACED_LETTERS, { set, line: i, offset, x, y: baseline })) letters.push(letter);
    for (const j of set.joints)
      closedUp.push({
        what: 'letter',
        start: j.start + offset,
        end: j.end + offset,
        move: j.move * scale,
        joint: j.joint * scale,
      });
    lines.push({ text, from, to: letters.length, x, y: baseline, box: lineBox, setting });
  });
  return {
    letters,
    lines,
    scale,
    box: isEmptyBox(box)
      ? EMPTY_BOX
      : { minX: box.minX * scale, maxX: box.maxX * scale, minY: box.minY * scale, maxY: box.maxY * scale },
    missing: [...missing],
    broken: [...broken],
    capHeightMm: face.capHeight * scale,
    slantDeg: face.slantDeg,
    baselines: baselines.map((b) => b * scale),
    closedUp,
  };
}

type PlacedAt = {
  readonly set: SetLine;
  readonly line: number;
  readonly offset: number;
  readonly x: number;
  readonly y: number;
};

/** Letters of a line where they are placed: most lines stay as they are from one edit to the next. */
const PLACED_LETTERS: Stage<PlacedAt, readonly PlacedLetter[]> = {
  name: 'placed letters',
  key: ({ set, line, offset, x, y }, idOf) => `${idOf(set)}|${line}|${offset}|${x}|${y}`,
  run: placedLetters,
  weigh: (letters) => NUMBERS_PER_LETTER * letters.length,
};

function placedLetters({ set, line, offset, x, y }: PlacedAt): readonly PlacedLetter[] {
  return set.letters.map(
    ({ letter, box }): PlacedLetter => ({
      text: letter.text,
      start: letter.start + offset,
      end: letter.end + offset,
      line,
      glyphs: letter.glyphs,
      own: letter.own,
      x: letter.x + x,
      y: letter.y + y,
      box: { minX: box.minX + x, maxX: box.maxX + x, minY: box.minY + y, maxY: box.maxY + y },
    }),
  );
}

/** Columns a capital is cut into for closing lines. */
const COLUMNS_PER_CAPITAL = 200;
/** Lines above a line that it is closed up with. */
const LINES_ABOVE = 2;
/** Lines farther apart than this many capital heights stay as they are. */
const FARTHEST_LINE = 3;

/** Moves every line up to those above it, and all below along with it; changes `baselines`. */
function closeLines(
  drafts: readonly Draft[],
  {
    shifts,
    baselines,
    overlap,
    face,
  }: {
    readonly shifts: readonly number[];
    readonly baselines: number[];
    readonly overlap: number;
    readonly face: Typeface;
  },
): { start: number; end: number; move: number; joint: number }[] {
  const step = face.capHeight / COLUMNS_PER_CAPITAL;
  const out: { start: number; end: number; move: number; joint: number }[] = [];
  const above: InkRows[] = [];
  let moved = 0;
  drafts.forEach((draft, i) => {
    baselines[i] = numberAt(baselines, i) + moved;
    const paths = draft.set.letters.flatMap(({ letter }) =>
      transformRegion(letterOutlines(letter, face), translation(letter.x + numberAt(shifts, i), letter.y)),
    );
    // Columns run downwards, so that moving up is moving towards lower values.
    const own = flipped(columnsOf(paths, step));
    if (own.rows.length === 0) return;
    const movedRows = moveRows(own, -numberAt(baselines, i));
    const closing =
      above.length > 0
        ? closingMove(uniteRows(above.slice(-LINES_ABOVE)), movedRows, {
            wanted: overlap,
            farthest: FARTHEST_LINE * face.capHeight,
            step,
          })
        : null;
    if (closing) {
      moved += closing.move;
      baselines[i] = numberAt(baselines, i) + closing.move;
      out.push({ start: draft.offset, end: draft.offset + draft.text.length, ...closing });
    }
    above.push(moveRows(own, -numberAt(baselines, i)));
  });
  return out;
}

const flipped = (r: InkRows): InkRows => ({ first: r.first, rows: r.rows.map((row) => row.map((y) => -y).reverse()) });
