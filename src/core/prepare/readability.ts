/**
 * How readable letters stay, whatever was done to them: joined, bridged, thickened. The finished shape is laid over each letter as its
 * face draws it; what is lost is the share of what makes the letter itself that is inked and was white, or is white and was inked.
 */
import { type Chords, chordsOf, type InkRows, inkRowsOf, rowsOfChords } from '../geometry/ink-rows';
import { flattenPath, transformRegion } from '../geometry/path';
import { compose, determinant, invert, type Matrix } from '../geometry/point';
import { EVIDENCE, evidenceLost } from '../lettering/evidence';
import type { Layout } from '../lettering/layout';
import { ASIDE, CELLS, COLUMNS, middleOf, paintRows, ROWS, SHOWN } from '../lettering/letter-image';
import { LIMITS } from '../limits';
import type { Memory, Stage } from '../memo';
import type { FramedGlyphs, LetterFrame } from './frames';
import type { Outline } from './outline';
import type { PreparedPart } from './prepared';

/** How well one letter can still be read. */
export type LetterReadability = {
  /** Index of the letter among the sources. */
  readonly label: number;
  /** In per cent: 100 as its face draws it, 0 nothing left of what makes it itself. */
  readonly figure: number;
};

type ReadPart = Pick<PreparedPart, 'frames' | 'sources' | 'members' | 'outlines' | 'solid' | 'bridged'>;

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

/**
 * How readable the letters of a part are, the first few hundred of them, by their labels. `left` is what a tool leaves of the part;
 * null for its outlines.
 */
export function readabilityOf(part: ReadPart, left: readonly Outline[] | null, memory: Memory): LetterReadability[] {
  const lines = linesOf(part);
  // Islands that are cut and left to drop are white no more.
  const hasDropped = part.bridged && part.bridged.small.length > 0;
  const shape = new FinishedShape(hasDropped ? part.solid : part.outlines, lines.flat());
  const finished = left ? new FinishedShape(left, lines.flat()) : shape;
  const pictures = new Pictures();
  return lines.flatMap((line) =>
    line.map((letter, i): LetterReadability => {
      const { face, text, drawn, outlines } = letter.glyphs;
      const { rows, middle } = memory.get(GLYPH_ROWS, letter.glyphs);
      const evidence = memory.get(EVIDENCE, { face, text, paths: outlines, drawn });
      const back = invert(letter.frame.matrix);
      const pictureOf = (seen: FinishedShape) =>
        pictures.after([{ rows: seen.rowsAlong(back, middle), by: back.e - middle }]);
      const own = { rows, by: -middle };
      const alone = pictures.before([own]);
      // Told before the tool: what that eats up is no hole.
      const standing = pictureOf(shape);
      const isCutOut = isHole(alone, standing);
      const after = left ? pictureOf(finished) : standing;
      const lost = isCutOut
        ? evidenceLost(evidence, alone, openedBy(alone, after))
        : evidenceLost(evidence, pictures.before([own, ...besides(line, i, back, middle, memory)]), after);
      return { label: letter.label, figure: 100 * Math.max(0, 1 - lost) };
    }),
  );
}

/** Rows of ink to each row of cells. */
const PER_CELL = 2;
const ROW = 1 / CELLS / PER_CELL;

/** A letter of a face in rows of ink, in capital heights about its origin, and where its middle lies. */
const GLYPH_ROWS: Stage<FramedGlyphs, { readonly rows: InkRows; readonly middle: number }> = {
  name: 'rows of a letter',
  key: ({ face, drawn }, idOf) => `${idOf(face)}|${drawn}`,
  run: ({ outlines }) => {
    const paths = outlines();
    return { rows: inkRowsOf(paths, ROW), middle: middleOf(paths) };
  },
  weigh: ({ rows }) => rows.rows.reduce((sum, row) => sum + row.length, 0),
};

/** The finished shape in rows along the baselines of letters. */
class FinishedShape {
  private readonly chords: Chords;
  /** How many letters stand on each baseline, and the rows along those that several stand on. */
  private readonly counts = new Map<string, number>();
  private readonly known = new Map<string, InkRows>();

  constructor(outlines: readonly Outline[], letters: readonly Read[]) {
    let least = Infinity;
    for (const { frame } of letters) {
      least = Math.min(least, scaleOf(frame.matrix));
      const key = baselineKey(invert(frame.matrix));
      this.counts.set(key, (this.counts.get(key) ?? 0) + 1);
    }
    // Flattened once, as finely as the smallest letter asks for.
    this.chords = chordsOf(letters.length === 0 ? [] : outlines.map((o) => flattenPath(o.path, (ROW * least) / 2)));
  }

  /** In rows along a letter's baseline, but for how far along it; of one that stands by itself no farther than is seen of it. */
  rowsAlong(back: Matrix, middle: number): InkRows {
    const key = baselineKey(back);
    const isShared = (this.counts.get(key) ?? 0) > 1;
    const known = isShared ? this.known.get(key) : undefined;
    if (known) return known;
    const upTo = isShared ? Infinity : middle - back.e + ASIDE;
    const rows = rowsOfChords(this.chords, { ...back, e: 0 }, { step: ROW, within: SHOWN, upTo });
    if (isShared) this.known.set(key, rows);
    return rows;
  }
}

/** The same for letters that stand alike on one baseline. */
const baselineKey = ({ a, b, c, d, f }: Matrix): string => [a, b, c, d, f].map((v) => v.toFixed(9)).join();

const scaleOf = (m: Matrix): number => Math.sqrt(Math.abs(determinant(m)));

/** Ink in rows, moved along them. */
type Inked = { readonly rows: InkRows; readonly by: number };

/** Pictures of one letter after the other: each is good until the next of its kind is made. */
class Pictures {
  private readonly ofBefore = new Float32Array(ROWS * COLUMNS);
  private readonly ofAfter = new Float32Array(ROWS * COLUMNS);

  before(inked: readonly Inked[]): Float32Array {
    return paintAll(this.ofBefore, inked);
  }

  after(inked: readonly Inked[]): Float32Array {
    return paintAll(this.ofAfter, inked);
  }
}

/** Paint ink on a picture; what lies on one another counts once. */
function paintAll(cells: Float32Array, inked: readonly Inked[]): Float32Array {
  cells.fill(0);
  for (const { rows, by } of inked) paintRows(cells, rows, by, PER_CELL);
  if (inked.length > 1) for (let i = 0; i < cells.length; i++) if ((cells[i] as number) > 1) cells[i] = 1;
  return cells;
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

/** Two letters stand alike when what leads from one to the other is hardly more than a way along the baseline. */
const ALIKE = 1e-6;

/** The neighbours of a letter where they stood before they were moved together. */
function besides(line: readonly Read[], i: number, back: Matrix, middle: number, memory: Memory): Inked[] {
  const scale = scaleOf(back);
  return [-1, 1].flatMap((way) => {
    let apart = 0;
    return Array.from({ length: BESIDE }, (_, k): Inked[] => {
      const at = i + way * (k + 1);
      const other = line[at];
      if (!other) return [];
      apart += way * (way > 0 ? other.moved : (line[at + 1] as Read).moved) * scale;
      const m = compose(other.frame.matrix, back);
      const isMoved =
        Math.max(Math.abs(m.a - 1), Math.abs(m.b), Math.abs(m.c), Math.abs(m.d - 1), Math.abs(m.f)) > ALIKE;
      const rows = isMoved
        ? inkRowsOf(transformRegion(other.glyphs.outlines(), { ...m, e: 0 }), ROW)
        : memory.get(GLYPH_ROWS, other.glyphs).rows;
      return [{ rows, by: m.e + apart - middle }];
    }).flat();
  });
}

function isHole(alone: Float32Array, after: Float32Array): boolean {
  let [ink, left] = [0, 0];
  for (let k = 0; k < alone.length; k++) {
    const v = alone[k] as number;
    if (v === 0) continue;
    ink += v;
    left += v * (after[k] as number);
  }
  return left < IS_HOLE * ink;
}

/** A letter that is a hole in the shape, as far as that leaves it open. What lies around it is stock, or beyond it. */
const openedBy = (alone: Float32Array, after: Float32Array): Float32Array =>
  alone.map((v, k) => Math.min(v, 1 - (after[k] as number)));
