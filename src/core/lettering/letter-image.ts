/**
 * Letters as pictures of how much of each cell their ink covers, for laying one over another. Lengths are in capital heights, the
 * origin on the baseline in the middle of the letter.
 */
import { type InkRows, inkRowsOf } from '../geometry/ink-rows';
import { type Path, regionBox } from '../geometry/path';
import { type Box, boxCentre, EMPTY_BOX, isEmptyBox } from '../geometry/point';

/** Cells along a capital height. */
export const CELLS = 32;
/** Rows of ink that each row of cells is the mean of. */
const ROWS_IN_CELL = 4;
/** What is looked at: so far below the baseline and above it, in whole cells. */
const BELOW = 20 / CELLS;
const ABOVE = 52 / CELLS;
/** How far to both sides of its middle a picture shows. */
export const ASIDE = 1.5;

/** Rows and columns of a picture. Row 0 is the lowest. */
export const ROWS = Math.round((BELOW + ABOVE) * CELLS);
/** The columns of a picture; the middle of the letter is in the middle of them. */
export const COLUMNS = Math.round(2 * ASIDE * CELLS);

/** Heights that a picture shows: from the first to the second. */
export const SHOWN: readonly [number, number] = [-BELOW, ABOVE];

/** The row that a height lies in, and the column that a place beside the middle lies in; both with their fraction. */
export const rowAt = (y: number): number => (y + BELOW) * CELLS;
/** The column that a place beside the middle lies in, with its fraction. */
export const columnAt = (x: number): number => (x + ASIDE) * CELLS;

/** A letter as a picture. */
export type LetterImage = {
  /** Share of each cell that is ink, 0 to 1, row after row from below. */
  readonly cells: Float32Array;
  /** Columns that have ink: from, and up to without it. */
  readonly from: number;
  readonly to: number;
  /** Sum of all cells, of each row, and of each column. */
  readonly ink: number;
  readonly rowInk: Float32Array;
  readonly columnInk: Float32Array;
  /** Of each band of rows the sum of all columns before one, for each column and for their end. */
  readonly bandInk: Float64Array;
};

/** Rows in a band, and columns in a block of one, by whose ink pictures are compared roughly. */
const ROWS_IN_BAND = 4;
const COLUMNS_IN_BLOCK = 8;
const BANDS = Math.ceil(ROWS / ROWS_IN_BAND);

/** Where the middle of a letter lies, whose pictures are about it. */
export const middleOf = (paths: readonly Path[]): number => {
  const box: Box = paths.length > 0 ? regionBox(paths) : EMPTY_BOX;
  return isEmptyBox(box) ? 0 : boxCentre(box).x;
};

/** The picture of closed paths filled by the non-zero rule; `middle` is where its own middle lies. What lies beyond it is left out. */
export function imageOf(paths: readonly Path[], middle: number): LetterImage {
  const step = 1 / CELLS / ROWS_IN_CELL;
  const cells = new Float32Array(ROWS * COLUMNS);
  paintRows(cells, inkRowsOf(paths, step), -middle, ROWS_IN_CELL);
  return measured(cells);
}

/**
 * Ink in rows, so many to each row of cells, painted on a picture whose middle lies at 0 after moving it by `by`. Where it is painted
 * twice it counts twice.
 */
export function paintRows(cells: Float32Array, { first, rows }: InkRows, by: number, perCell: number): void {
  const lowest = first + Math.round(BELOW * CELLS * perCell);
  const thick = 1 / perCell;
  rows.forEach((row, k) => {
    const r = Math.floor((lowest + k) / perCell);
    if (r < 0 || r >= ROWS) return;
    for (let i = startingAt(row, -ASIDE - by); i + 1 < row.length; i += 2) {
      const from = columnAt((row[i] as number) + by);
      if (from >= COLUMNS) break;
      addRun(cells, r, from, columnAt((row[i + 1] as number) + by), thick);
    }
  });
}

/** The first stretch of a row that does not end before a place. */
function startingAt(row: readonly number[], x: number): number {
  let [low, high] = [0, row.length >> 1];
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((row[2 * middle + 1] as number) < x) low = middle + 1;
    else high = middle;
  }
  return 2 * low;
}

/** Add a run of ink to a row of cells, from one column to another, as thick a share of the row as said. */
function addRun(cells: Float32Array, row: number, from: number, to: number, thick: number): void {
  const x0 = from < 0 ? 0 : from;
  const x1 = to > COLUMNS ? COLUMNS : to;
  for (let c = Math.floor(x0); c < x1; c++) {
    const at = row * COLUMNS + c;
    const end = c + 1 < x1 ? c + 1 : x1;
    cells[at] = (cells[at] as number) + thick * (end - (c > x0 ? c : x0));
  }
}

function measured(cells: Float32Array): LetterImage {
  let [from, to, ink] = [COLUMNS, 0, 0];
  const rowInk = new Float32Array(ROWS);
  const columnInk = new Float32Array(COLUMNS);
  for (let r = 0; r < ROWS; r++)
    for (let c = 0; c < COLUMNS; c++) {
      const v = cells[r * COLUMNS + c] as number;
      if (v === 0) continue;
      ink += v;
      rowInk[r] = (rowInk[r] as number) + v;
      columnInk[c] = (columnInk[c] as number) + v;
      if (c < from) from = c;
      if (c >= to) to = c + 1;
    }
  return { cells, from: Math.min(from, to), to, ink, rowInk, columnInk, bandInk: bandInkOf(cells) };
}

function bandInkOf(cells: Float32Array): Float64Array {
  const sums = new Float64Array(BANDS * (COLUMNS + 1));
  const column = new Float64Array(COLUMNS);
  for (let band = 0; band < BANDS; band++) {
    column.fill(0);
    for (let r = band * ROWS_IN_BAND; r < Math.min(ROWS, (band + 1) * ROWS_IN_BAND); r++)
      for (let c = 0; c < COLUMNS; c++) column[c] = (column[c] as number) + (cells[r * COLUMNS + c] as number);
    const at = band * (COLUMNS + 1);
    for (let c = 0; c < COLUMNS; c++) sums[at + c + 1] = (sums[at + c] as number) + (column[c] as number);
  }
  return sums;
}

/** How much two pictures differ where the second is moved by whole columns; no more than `most` is told apart. */
export function differenceOf(a: LetterImage, b: LetterImage, shift: number, most = Infinity): number {
  const from = Math.max(0, Math.min(a.from, b.from + shift));
  const to = Math.min(COLUMNS, Math.max(a.to, b.to + shift));
  let sum = 0;
  for (let r = 0; r < ROWS && sum < most; r++)
    sum = withDifference(sum, a.cells, b.cells, { at: r * COLUMNS, from, to, shift });
  return sum;
}

/** A sum with what two rows that begin `at` differ by, from one column to another; the second is moved by columns, and nothing beyond its ends. */
function withDifference(
  before: number,
  a: Float32Array,
  b: Float32Array,
  { at, from, to, shift }: { readonly at: number; readonly from: number; readonly to: number; readonly shift: number },
): number {
  // Written out in three stretches: most of what tells letters apart takes goes here.
  const low = Math.min(to, Math.max(from, shift));
  const high = Math.max(low, Math.min(to, COLUMNS + shift));
  let sum = before;
  for (let i = at + from; i < at + low; i++) sum += a[i] as number;
  for (let i = at + low; i < at + high; i++) sum += Math.abs((a[i] as number) - (b[i - shift] as number));
  for (let i = at + high; i < at + to; i++) sum += a[i] as number;
  return sum;
}

/** What two pictures differ by at least, however the second is moved: by the ink of their rows. */
export function leastDifference(a: LetterImage, b: LetterImage): number {
  let sum = 0;
  for (let r = 0; r < ROWS; r++) sum += Math.abs((a.rowInk[r] as number) - (b.rowInk[r] as number));
  return sum;
}

/** What two pictures differ by at least where the second is moved by whole columns: by the ink of these, and by that of blocks. No more than `most` is told apart. */
export function leastDifferenceAt(a: LetterImage, b: LetterImage, shift: number, most: number): number {
  const byColumns = withDifference(0, a.columnInk, b.columnInk, { at: 0, from: 0, to: COLUMNS, shift });
  return byColumns >= most ? byColumns : Math.max(byColumns, ROUNDED * blockDifference(a.bandInk, b.bandInk, shift));
}

/** Sums of ink are rounded: what is said of them is this share less. */
const ROUNDED = 1 - 1e-5;

/** What the blocks of two pictures differ by where the second is moved by whole columns. */
function blockDifference(a: Float64Array, b: Float64Array, shift: number): number {
  let sum = 0;
  for (let at = 0; at < a.length; at += COLUMNS + 1)
    for (let from = 0; from < COLUMNS; from += COLUMNS_IN_BLOCK) {
      const to = Math.min(COLUMNS, from + COLUMNS_IN_BLOCK);
      const start = Math.min(COLUMNS, Math.max(0, from - shift));
      const end = Math.min(COLUMNS, Math.max(0, to - shift));
      const own = (a[at + to] as number) - (a[at + from] as number);
      sum += Math.abs(own - (b[at + end] as number) + (b[at + start] as number));
    }
  return sum;
}

/** A cell of a row that begins `at`; nothing beyond its ends. */
export const cellAt = (cells: Float32Array, at: number, column: number): number =>
  column >= 0 && column < COLUMNS ? (cells[at + column] as number) : 0;

/** The value at a place about the middle of a letter, between the middles of the four cells around it; nothing beyond the picture. */
export function valueAt(cells: Float32Array, x: number, y: number): number {
  // Written out: bridges ask for it at every place they are tried at.
  const column = (x + ASIDE) * CELLS - 0.5;
  const row = (y + BELOW) * CELLS - 0.5;
  const c = Math.floor(column);
  const r = Math.floor(row);
  if (c < 0 || r < 0 || c >= COLUMNS - 1 || r >= ROWS - 1) return 0;
  const at = r * COLUMNS + c;
  const s = column - c;
  const t = row - r;
  const lower = (1 - s) * (cells[at] as number) + s * (cells[at + 1] as number);
  const upper = (1 - s) * (cells[at + COLUMNS] as number) + s * (cells[at + COLUMNS + 1] as number);
  return (1 - t) * lower + t * upper;
}

/** A share of a cell between two of a row: the value at a place that is not a whole column. */
export function between(cells: Float32Array, at: number, column: number): number {
  const c = Math.floor(column);
  const t = column - c;
  return (1 - t) * cellAt(cells, at, c) + (t === 0 ? 0 : t * cellAt(cells, at, c + 1));
}
