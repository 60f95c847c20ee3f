/**
 * Lettering set in lines: text → letters with their outlines at true size. Everything is in mm with the origin on the
 * first baseline, at the left end, middle or right end of the lines as they are aligned.
 */

import { type Box, EMPTY_BOX, isEmptyBox, uniteBoxes } from '../geometry/point';
import { ResultCache } from '../result-cache';
import { visualRuns } from './runs';
import type { Typeface } from './typeface';

export type Alignment = 'left' | 'centre' | 'right';

export type LetteringSpec = {
  readonly text: string;
  /** By capital height, or by the width of the widest line as drawn; in mm. */
  readonly size: { readonly by: 'capital' | 'width'; readonly mm: number };
  /** Extra space between letters as a share of the capital height; ligatures are off when it is not 0. */
  readonly letterSpacing: number;
  /** Distance between baselines as a multiple of the typeface's own. */
  readonly lineSpacing: number;
  readonly align: Alignment;
};

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
  /** Origin of the letter in font units from the lettering's origin. */
  readonly x: number;
  readonly y: number;
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
};

export type Layout = {
  readonly letters: readonly PlacedLetter[];
  /** Lines that have letters. */
  readonly lines: readonly PlacedLine[];
  /** Extra space between letters in font units. */
  readonly spacing: number;
  /** Millimetres per font unit. */
  readonly scale: number;
  /** Bounds of the ink in mm; empty when nothing is drawn. */
  readonly box: Box;
  /** Characters the typeface lacks, each once, in the order met. */
  readonly missing: readonly string[];
  readonly capHeightMm: number;
  /** Baselines in mm from the origin, one a line, downwards negative. */
  readonly baselines: readonly number[];
};

/** A line by itself, from its own pen start; letters count from the start of the line. */
type DraftLine = {
  readonly letters: readonly { readonly letter: PlacedLetter; readonly box: Box }[];
  readonly box: Box;
  readonly missing: readonly string[];
};

const LINES_HELD = 500;
const linesHeld = new WeakMap<Typeface, ResultCache<DraftLine>>();

const UNSEEN = /[\p{Cc}\ufeff]/gu;
/** Characters that draw nothing by themselves and are not missed when a face lacks them. */
const NOT_MISSED = /^[\s\p{Cc}\p{Default_Ignorable_Code_Point}]*$/u;

export const linesOf = (text: string): string[] => text.replace(/\r\n?/g, '\n').split('\n');

/** Shaping is what takes time in setting, so lines that did not change are held. */
function setLine(text: string, face: Typeface, spacing: number): DraftLine {
  let held = linesHeld.get(face);
  if (!held) {
    held = new ResultCache(LINES_HELD);
    linesHeld.set(face, held);
  }
  return held.get(`${spacing}|${text}`, () => shapeLine(text, face, spacing));
}

function shapeLine(text: string, face: Typeface, spacing: number): DraftLine {
  const missing = new Set<string>();
  const clean = text.replace(/\t/g, ' ').replace(UNSEEN, '\u200b');
  const letters: { letter: PlacedLetter; box: Box }[] = [];
  let pen = 0;
  let box = EMPTY_BOX;
  const runs = visualRuns(clean);
  runs.forEach((run, r) => {
    const shaped = face.shape(clean.slice(run.start, run.end), run.direction, spacing === 0);
    const starts = [...new Set(shaped.map((g) => g.cluster))].sort((a, b) => a - b);
    const endOf = (cluster: number) => starts.find((s) => s > cluster) ?? run.end - run.start;
    for (let i = 0; i < shaped.length; ) {
      const cluster = (shaped[i] as { cluster: number }).cluster;
      const start = run.start + cluster;
      const end = run.start + endOf(cluster);
      const glyphs: { glyph: number; x: number; y: number }[] = [];
      const origin = pen;
      let lacks = false;
      let ink = EMPTY_BOX;
      for (; i < shaped.length && shaped[i]?.cluster === cluster; i++) {
        const g = shaped[i] as (typeof shaped)[number];
        if (g.glyph === 0) lacks = true;
        else {
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
      const last = i >= shaped.length && r === runs.length - 1;
      if (!last) pen += spacing;
      if (glyphs.length > 0) {
        letters.push({
          letter: { text: chars, start, end, line: 0, glyphs, x: origin, y: 0 },
          box: ink,
        });
        box = uniteBoxes(box, { ...ink, minX: ink.minX + origin, maxX: ink.maxX + origin });
      }
    }
  });
  return { letters, box, missing: [...missing] };
}

/** Set the text. Lines align by what is drawn, not by side bearings, so that cut edges line up. */
export function layoutLettering(spec: LetteringSpec, face: Typeface): Layout {
  const missing = new Set<string>();
  const lines = linesOf(spec.text);
  const spacing = spec.letterSpacing * face.capHeight;
  const advance = (face.ascent - face.descent + face.lineGap) * spec.lineSpacing;
  const drafts = lines.map((line) => setLine(line, face, spacing));
  for (const draft of drafts) for (const characters of draft.missing) missing.add(characters);
  const widest = Math.max(0, ...drafts.map((d) => (isEmptyBox(d.box) ? 0 : d.box.maxX - d.box.minX)));
  const scale = spec.size.by === 'width' && widest > 0 ? spec.size.mm / widest : spec.size.mm / face.capHeight;
  let box = EMPTY_BOX;
  let nextOffset = 0;
  const letters: PlacedLetter[] = [];
  const placedLines: PlacedLine[] = [];
  drafts.forEach((draft, i) => {
    const text = lines[i] as string;
    const offset = nextOffset;
    nextOffset += text.length + 1;
    if (isEmptyBox(draft.box)) return;
    const y = i === 0 ? 0 : -i * advance;
    const anchor = { left: draft.box.minX, centre: (draft.box.minX + draft.box.maxX) / 2, right: draft.box.maxX };
    const shift = -anchor[spec.align];
    const { minX, maxX, minY, maxY } = draft.box;
    const lineBox = { minX: minX + shift, maxX: maxX + shift, minY: minY + y, maxY: maxY + y };
    box = uniteBoxes(box, lineBox);
    const from = letters.length;
    for (const { letter } of draft.letters)
      letters.push({
        ...letter,
        start: letter.start + offset,
        end: letter.end + offset,
        line: i,
        x: letter.x + shift,
        y,
      });
    placedLines.push({ text, from, to: letters.length, x: shift, y, box: lineBox });
  });
  return {
    letters,
    lines: placedLines,
    spacing,
    scale,
    box: isEmptyBox(box)
      ? EMPTY_BOX
      : { minX: box.minX * scale, maxX: box.maxX * scale, minY: box.minY * scale, maxY: box.maxY * scale },
    missing: [...missing],
    capHeightMm: face.capHeight * scale,
    baselines: lines.map((_, i) => (i === 0 ? 0 : -i * advance * scale)),
  };
}
