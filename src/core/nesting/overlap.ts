/**
 * How deep two masks lie in each other, for every offset: a table of spans, made once for each pair. Levels are added up, so that the
 * sum grows with the depth and a search can feel its way out.
 */
import type { Problem } from './problem';
import type { Mask } from './raster';

/** From so many cells of depth on a level counts, by so much. */
const LEVELS: readonly (readonly [depth: number, weight: number])[] = [
  [1, 1],
  [2, 2],
  [5, 4],
  [11, 8],
  [24, 16],
];

/** Where two masks share cells: spans [from, to, weight] of the offset across, for each offset upwards. */
type Table = {
  /** The first offset upwards. */
  readonly y0: number;
  readonly height: number;
  /** Spans of row y lie from `rows[y + 1]` to `rows[y]`: they are made from the last row on. */
  readonly rows: Int32Array;
  readonly spans: Int16Array;
};

/** A table as it is read for a pair: offsets are `cx + sign × span` and `cy + sign × row`. */
export type PairTable = { readonly table: Table; readonly sign: 1 | -1; readonly cx: number; readonly cy: number };

/** Numbers that tables take together before all of them are forgotten. */
const MOST_HELD = 100_000_000;

/** Tables of pairs of masks, made when they are first asked for. */
export class PairTables {
  private readonly tables = new Map<number, Table>();
  private held = 0;
  private scratch = new Int32Array(1 << 16);

  constructor(private readonly masks: Problem['masks']) {}

  /**
   * The table of a pair. That of (b, a) is that of (a, b) negated; that of both turned over is negated and moved: so one serves up to
   * four pairs.
   */
  of(a: number, b: number): PairTable {
    const [overA, overB] = [this.masks[a]?.over ?? a, this.masks[b]?.over ?? b];
    const key = (one: number, other: number) => Math.min(one, other) * 65_536 + Math.max(one, other);
    let [first, second, sign, cx, cy]: [number, number, 1 | -1, number, number] = [a, b, 1, 0, 0];
    if (key(overA, overB) < key(a, b)) {
      const [maskA, maskB] = [this.masks[a] as Mask, this.masks[b] as Mask];
      [first, second, sign, cx, cy] = [overA, overB, -1, maskA.width - maskB.width, maskA.height - maskB.height];
    }
    if (first > second) [first, second, sign] = [second, first, sign === 1 ? -1 : 1];
    return { table: this.table(first, second), sign, cx, cy };
  }

  private table(a: number, b: number): Table {
    const key = a * 65_536 + b;
    const known = this.tables.get(key);
    if (known) return known;
    const made = this.build(this.masks[a] as Mask, this.masks[b] as Mask);
    this.held += made.spans.length + 2 * made.rows.length;
    if (this.held > MOST_HELD) {
      this.tables.clear();
      this.held = made.spans.length + 2 * made.rows.length;
    }
    this.tables.set(key, made);
    return made;
  }

  private build(a: Mask, b: Mask): Table {
    // One free cell all around.
    const [width, height] = [a.width + b.width + 1, a.height + b.height + 1];
    if (this.scratch.length < width * height) this.scratch = new Int32Array(2 * width * height);
    const grid = this.scratch;
    grid.fill(0, 0, width * height);
    countShared(grid, a, b, width);
    distancesFromBelow(grid, width, height);
    return { y0: -b.height, height, ...spansOf(grid, width, height, b.width) };
  }

  /** How deep two placed masks lie in each other; 0 where they share no cell. */
  depth(a: number, ax: number, ay: number, b: number, bx: number, by: number): number {
    const [maskA, maskB] = [this.masks[a] as Mask, this.masks[b] as Mask];
    const [dx, dy] = [bx - ax, by - ay];
    if (dx >= maskA.width || -dx >= maskB.width || dy >= maskA.height || -dy >= maskB.height) return 0;
    const { table, sign, cx, cy } = this.of(a, b);
    const row = sign * (dy - cy) - table.y0;
    const x = sign * (dx - cx);
    const { rows, spans } = table;
    let depth = 0;
    for (let i = rows[row + 1] as number, end = rows[row] as number; i < end; i += 3)
      if (x >= (spans[i] as number) && x <= (spans[i + 1] as number)) depth += spans[i + 2] as number;
    return depth;
  }
}

/** Puts the count of shared runs into the cells of offsets, as differences along the rows. */
function countShared(grid: Int32Array, a: Mask, b: Mask, width: number): void {
  for (let ya = 0; ya < a.height; ya++)
    for (let i = 2 * (a.firstRun[ya] as number), endA = 2 * (a.firstRun[ya + 1] as number); i < endA; i += 2) {
      const [fromA, toA] = [a.runs[i] as number, a.runs[i + 1] as number];
      for (let yb = 0; yb < b.height; yb++) {
        const row = (ya - yb + b.height) * width + b.width;
        for (let k = 2 * (b.firstRun[yb] as number), endB = 2 * (b.firstRun[yb + 1] as number); k < endB; k += 2) {
          const from = row + fromA - (b.runs[k + 1] as number);
          const after = row + toA + 1 - (b.runs[k] as number);
          grid[from] = (grid[from] as number) + 1;
          grid[after] = (grid[after] as number) - 1;
        }
      }
    }
}

/** The first way of a distance to the nearest free offset, in steps across and upwards (Rosenfeld and Pfaltz 1966). */
function distancesFromBelow(grid: Int32Array, width: number, height: number): void {
  for (let y = 0, o = 0; y < height; y++) {
    let [sum, left] = [0, 0];
    for (let x = 0; x < width; x++, o++) {
      sum += grid[o] as number;
      if (sum === 0) {
        grid[o] = left = 0;
        continue;
      }
      const below = grid[o - width] as number;
      grid[o] = left = 1 + Math.min(left, below);
    }
  }
}

/** The way back of the distance, and the spans of each level at once. */
function spansOf(grid: Int32Array, width: number, height: number, zeroX: number): Pick<Table, 'rows' | 'spans'> {
  const spans: number[] = [];
  const rows = new Int32Array(height + 1);
  const open = new Int32Array(LEVELS.length);
  for (let y = height - 1; y >= 0; y--) {
    let [before, level] = [0, 0];
    for (let x = width - 1, o = y * width + x; x >= 0; x--, o--) {
      let distance = grid[o] as number;
      if (distance > 0) {
        distance = Math.min(distance, before + 1, (grid[o + width] as number) + 1);
        grid[o] = distance;
      }
      if (distance === before) continue;
      before = distance;
      while (level < LEVELS.length && distance >= (LEVELS[level] as readonly [number, number])[0]) open[level++] = x;
      while (level > 0 && distance < (LEVELS[level - 1] as readonly [number, number])[0]) {
        level--;
        spans.push(x + 1 - zeroX, (open[level] as number) - zeroX, (LEVELS[level] as readonly [number, number])[1]);
      }
    }
    rows[y] = spans.length;
  }
  return { rows, spans: Int16Array.from(spans) };
}
