/**
 * How readable letters stay, whatever was done to them: joined, bridged, thickened. The finished shape is laid over each letter as its
 * face draws it; what is lost is the share of what makes the letter itself that is inked and was white, or is white and was inked.
 */
import { type InkRows, inkRowsOf, moveRows } from '../geometry/ink-rows';
import { transformRegion } from '../geometry/path';
import { compose, determinant, invert, type Matrix, translation } from '../geometry/point';
import { EVIDENCE, evidenceLost } from '../lettering/evidence';
import type { Layout } from '../lettering/layout';
import { imageOf, imageOfRows, type LetterImage, middleOf, ROW } from '../lettering/letter-image';
import { LIMITS } from '../limits';
import type { Memory } from '../memo';
import type { FramedGlyphs, LetterFrame } from './frames';
import type { PreparedPart } from './prepared';

/** How well one letter can still be read. */
export type LetterReadability = {
  /** Index of the letter among the sources. */
  readonly label: number;
  /** In per cent: 100 as its face draws it, 0 nothing left of what makes it itself. */
  readonly figure: number;
};

type ReadPart = Pick<PreparedPart, 'frames' | 'sources' | 'members' | 'outlines'>;

/** Letters to both sides of a letter that are laid over it as they were set. */
const BESIDE = 3;
/** Where less than this share of a letter's ink is ink of the shape, it is a hole in that. */
const IS_HOLE = 0.5;

/** A letter with its frame, and its letters before and after in its line; `moved` is how far it was moved to the one before, in mm. */
type Read = {
  readonly label: number;
  readonly frame: LetterFrame;
  readonly glyphs: FramedGlyphs;
  readonly moved: number;
};

/** How readable the letters of a part are, the first few hundred of them, by their labels. */
export function readabilityOf(part: ReadPart, memory: Memory): LetterReadability[] {
  const rows = new Map<string, InkRows>();
  /** The finished shape in rows along a letter's baseline: the same for all that stand alike. */
  const rowsFor = (back: Matrix): InkRows => {
    const key = [back.a, back.b, back.c, back.d, back.f].map((v) => v.toFixed(9)).join();
    let known = rows.get(key);
    if (!known) {
      const paths = part.outlines.map((o) => o.path);
      known = inkRowsOf(transformRegion(paths, { ...back, e: 0 }), ROW);
      rows.set(key, known);
    }
    return known;
  };
  return linesOf(part).flatMap((line) =>
    line.map((letter, i): LetterReadability => {
      const { face, text, drawn } = letter.glyphs;
      const paths = letter.glyphs.outlines();
      const middle = middleOf(paths);
      const evidence = memory.get(EVIDENCE, { face, text, paths, drawn });
      const back = invert(letter.frame.matrix);
      const after = imageOfRows(moveRows(rowsFor(back), back.e - middle));
      const alone = imageOf(paths, middle);
      const before = imageOf([...paths, ...besides(line, i, back)], middle);
      const lost = isHole(alone, after)
        ? evidenceLost(evidence, alone, filled(alone, after))
        : evidenceLost(evidence, before, after);
      return { label: letter.label, figure: 100 * Math.max(0, 1 - lost) };
    }),
  );
}

/** The mean of some letters; 100 of none. */
export const meanReadability = (letters: readonly LetterReadability[]): number =>
  letters.length === 0 ? 100 : letters.reduce((sum, l) => sum + l.figure, 0) / letters.length;

/** Letters line by line, as they are seen from left to right. */
function linesOf({ frames, sources, members }: ReadPart): Read[][] {
  const lines = new Map<string, Read[]>();
  let count = 0;
  sources.forEach((source, label) => {
    const frame = frames[label];
    if (!frame?.glyphs || count >= LIMITS.lettersRead) return;
    count++;
    const layout = members.find((m) => m.id === source.memberId)?.layout ?? null;
    const read = { label, frame, glyphs: frame.glyphs, moved: layout ? movedIn(layout, source.start) : 0 };
    const line = lines.get(frame.line);
    if (line) line.push(read);
    else lines.set(frame.line, [read]);
  });
  return [...lines.values()];
}

const movedIn = ({ closedUp }: Layout, start: number): number =>
  closedUp.find((c) => c.what === 'letter' && c.kind !== 'held' && c.start === start)?.move ?? 0;

/** The neighbours of a letter where they stood before they were moved together, in its own coordinates. */
function besides(line: readonly Read[], i: number, back: Matrix) {
  const scale = Math.sqrt(Math.abs(determinant(back)));
  return [-1, 1].flatMap((way) => {
    let apart = 0;
    return Array.from({ length: BESIDE }, (_, k) => {
      const at = i + way * (k + 1);
      const other = line[at];
      if (!other) return [];
      apart += way * (way > 0 ? other.moved : (line[at + 1] as Read).moved) * scale;
      return transformRegion(
        other.glyphs.outlines(),
        compose(compose(other.frame.matrix, back), translation(apart, 0)),
      );
    }).flat();
  });
}

function isHole(alone: LetterImage, after: LetterImage): boolean {
  let inked = 0;
  alone.cells.forEach((v, k) => {
    inked += v * (after.cells[k] as number);
  });
  return inked < IS_HOLE * alone.ink;
}

/** A letter that is a hole in the shape, as far as that leaves it open. What lies around it is stock, or beyond it. */
const filled = (alone: LetterImage, after: LetterImage): LetterImage => ({
  ...alone,
  cells: alone.cells.map((v, k) => Math.min(v, 1 - (after.cells[k] as number))),
});
