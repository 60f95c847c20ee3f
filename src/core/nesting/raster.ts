/**
 * Shapes as cells: every cell that a shape grown by a distance touches. Where two such masks share no cell, the grown shapes are apart,
 * so that what is between the shapes themselves is at least twice that distance.
 */
import type { Point } from '../geometry/point';

/** What lies within some rings by the even-odd rule; a ring without an inside is a line. Flat: x, y, x, y … in mm. */
export type RingArea = readonly Float64Array[];

/** A shape in one turn, as cells. */
export type Mask = {
  readonly turnDeg: number;
  /** Cells across and upwards. */
  readonly width: number;
  readonly height: number;
  /** Where the lower left corner of its first cell lies from the origin of the shape, in mm. */
  readonly x0: number;
  readonly y0: number;
  /** True size of the grown shape, in mm. */
  readonly wideMm: number;
  readonly highMm: number;
  /** First and last cell of each run, in pairs, row by row; and the first run of each row. */
  readonly runs: Int16Array;
  readonly firstRun: Int32Array;
};

/** A ring as an area has it. */
export function flatRing(points: readonly Point[]): Float64Array {
  const ring = new Float64Array(2 * points.length);
  points.forEach(({ x, y }, i) => {
    ring[2 * i] = x;
    ring[2 * i + 1] = y;
  });
  return ring;
}

/**
 * A ring without the corners that lie within `stray` of what is left, in mm: from each corner kept, the farthest to which a straight
 * line passes all between, told by the directions that still do (sector method; Sklansky and Gonzalez 1980).
 */
export function thinned(ring: Float64Array, stray: number): Float64Array {
  const n = ring.length >> 1;
  const out = new Float64Array(ring.length);
  let kept = 0;
  for (let at = 0, next = 0; at < n; at = next) {
    const x = ring[2 * at] as number;
    const y = ring[2 * at + 1] as number;
    out[kept++] = x;
    out[kept++] = y;
    next = at + 1;
    let far = 0;
    // The sector the directions lie in, by its right and its left side; none yet.
    let isBound = false;
    let rx = 0;
    let ry = 0;
    let lx = 0;
    let ly = 0;
    for (let k = at + 1; k <= n; k++) {
      const of = k === n ? 0 : 2 * k;
      const dx = (ring[of] as number) - x;
      const dy = (ring[of + 1] as number) - y;
      const distance = Math.sqrt(dx * dx + dy * dy);
      if (distance < far) break;
      if (distance > stray) {
        if (isBound && (rx * dy < ry * dx || dx * ly < dy * lx || dx * (rx + lx) + dy * (ry + ly) < 0)) break;
        const sin = stray / distance;
        const cos = Math.sqrt(1 - sin * sin);
        const rightX = dx * cos + dy * sin;
        const rightY = dy * cos - dx * sin;
        if (!isBound || rx * rightY > ry * rightX) {
          rx = rightX;
          ry = rightY;
        }
        const leftX = dx * cos - dy * sin;
        const leftY = dy * cos + dx * sin;
        if (!isBound || leftX * ly > leftY * lx) {
          lx = leftX;
          ly = leftY;
        }
        isBound = true;
      }
      far = distance;
      next = k;
    }
  }
  return out.slice(0, kept);
}

/** An area turned about its origin, in degrees counter-clockwise; quarter turns are exact. */
export function turned(area: RingArea, deg: number): RingArea {
  const quarter = (((deg % 360) + 360) % 360) / 90;
  if (quarter === 0) return area;
  const exact = Number.isInteger(quarter);
  const angle = (deg * Math.PI) / 180;
  const cos = exact ? ([1, 0, -1, 0][quarter] as number) : Math.cos(angle);
  const sin = exact ? ([0, 1, 0, -1][quarter] as number) : Math.sin(angle);
  return area.map((ring) => {
    const out = new Float64Array(ring.length);
    for (let i = 0; i < ring.length; i += 2) {
      const x = ring[i] as number;
      const y = ring[i + 1] as number;
      out[i] = cos * x - sin * y;
      out[i + 1] = sin * x + cos * y;
    }
    return out;
  });
}

/** Cells of a box of the plane; 1 where something is. */
class Cells {
  readonly at: Uint8Array;
  constructor(
    readonly width: number,
    readonly height: number,
  ) {
    this.at = new Uint8Array(width * height);
  }

  /** Sets the cells of a row from one to another, as far as they are there. */
  set(row: number, from: number, to: number): void {
    const start = row * this.width;
    this.at.fill(1, start + Math.max(0, from), start + Math.min(this.width - 1, to) + 1);
  }
}

/** Guards against figures that lie on the border of a cell by their last digits alone. */
const ROUNDING = 1e-9;

/**
 * Sets all cells touched by what is nearer to an edge than `r`, all in cells; its first end is not above its second. Half circles about
 * its ends and the stretch between: each side is concave, so that within a row it reaches farthest where its outer end lies, or nearest
 * to that.
 */
function setAlongRising({ at, width, height }: Cells, ax: number, ay: number, bx: number, by: number, r: number): void {
  const dx = bx - ax;
  const dy = by - ay;
  const length = Math.sqrt(dx * dx + dy * dy);
  const slope = dy > 0 ? dx / dy : 0;
  // From the edge to its right side; its left side lies as far the other way.
  const nx = length > 0 ? (r * dy) / length : r;
  const ny = length > 0 ? (-r * dx) / length : 0;
  const isLeaningLeft = ax >= bx;
  const rightEnd = isLeaningLeft ? ay : by;
  const leftEnd = isLeaningLeft ? by : ay;
  const last = Math.min(height - 1, Math.floor(by + r));
  for (let row = Math.max(0, Math.floor(ay - r)); row <= last; row++) {
    const low = Math.max(row, ay - r);
    const high = Math.min(row + 1, by + r);
    const rightY = Math.min(high, Math.max(low, rightEnd));
    let right = 0;
    if (rightY <= ay + ny) right = ax + Math.sqrt(Math.max(0, r * r - (rightY - ay) * (rightY - ay)));
    else if (rightY >= by + ny) right = bx + Math.sqrt(Math.max(0, r * r - (rightY - by) * (rightY - by)));
    else right = ax + nx + (rightY - ay - ny) * slope;
    const leftY = Math.min(high, Math.max(low, leftEnd));
    let left = 0;
    if (leftY <= ay - ny) left = ax - Math.sqrt(Math.max(0, r * r - (leftY - ay) * (leftY - ay)));
    else if (leftY >= by - ny) left = bx - Math.sqrt(Math.max(0, r * r - (leftY - by) * (leftY - by)));
    else left = ax - nx + (leftY - ay + ny) * slope;
    const from = row * width + Math.max(0, Math.floor(left - ROUNDING));
    const to = row * width + Math.min(width - 1, Math.floor(right + ROUNDING));
    // A few cells: filling them one by one is quicker than asking for it.
    for (let o = from; o <= to; o++) at[o] = 1;
  }
}

/** The same for all edges of an area, which is in cells. */
function setAlong(cells: Cells, area: RingArea, r: number): void {
  for (const ring of area) {
    let ax = ring[ring.length - 2] as number;
    let ay = ring[ring.length - 1] as number;
    for (let i = 0; i < ring.length; i += 2) {
      const bx = ring[i] as number;
      const by = ring[i + 1] as number;
      if (ay <= by) setAlongRising(cells, ax, ay, bx, by, r);
      else setAlongRising(cells, bx, by, ax, ay, r);
      ax = bx;
      ay = by;
    }
  }
}

/** Sets the cells whose middle line is inside an area, which is in cells, by the even-odd rule. */
function setInside(cells: Cells, area: RingArea): void {
  const crossings: number[][] = Array.from({ length: cells.height }, () => []);
  for (const ring of area) {
    let ax = ring[ring.length - 2] as number;
    let ay = ring[ring.length - 1] as number;
    for (let i = 0; i < ring.length; i += 2) {
      const bx = ring[i] as number;
      const by = ring[i + 1] as number;
      const last = Math.min(cells.height - 1, Math.ceil(Math.max(ay, by) - 0.5) - 1);
      for (let row = Math.max(0, Math.ceil(Math.min(ay, by) - 0.5)); row <= last; row++)
        crossings[row]?.push(ax + ((bx - ax) / (by - ay)) * (row + 0.5 - ay));
      ax = bx;
      ay = by;
    }
  }
  crossings.forEach((list, row) => {
    list.sort((a, b) => a - b);
    for (let i = 0; i + 1 < list.length; i += 2)
      cells.set(row, Math.floor(list[i] as number), Math.floor(list[i + 1] as number));
  });
}

/** Bounds of areas, in mm; null where there is nothing. */
export function boundsOfAreas(
  areas: readonly RingArea[],
): { minX: number; minY: number; maxX: number; maxY: number } | null {
  let [minX, minY, maxX, maxY] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const area of areas)
    for (const ring of area)
      for (let i = 0; i < ring.length; i += 2) {
        const [x, y] = [ring[i] as number, ring[i + 1] as number];
        minX = Math.min(minX, x);
        maxX = Math.max(maxX, x);
        minY = Math.min(minY, y);
        maxY = Math.max(maxY, y);
      }
  return minX <= maxX ? { minX, minY, maxX, maxY } : null;
}

/** Fills every cell that can't be reached from outside. */
function fillHoles({ at, width, height }: Cells): void {
  const OUTSIDE = 2;
  const toVisit: number[] = [];
  for (let x = 0; x < width; x++) toVisit.push(x, (height - 1) * width + x);
  for (let y = 0; y < height; y++) toVisit.push(y * width, y * width + width - 1);
  for (let o = toVisit.pop(); o !== undefined; o = toVisit.pop()) {
    if (at[o]) continue;
    at[o] = OUTSIDE;
    const x = o % width;
    if (x > 0) toVisit.push(o - 1);
    if (x < width - 1) toVisit.push(o + 1);
    if (o >= width) toVisit.push(o - width);
    if (o < width * (height - 1)) toVisit.push(o + width);
  }
  for (let o = 0; o < at.length; o++) at[o] = at[o] === OUTSIDE ? 0 : 1;
}

/** Runs of cells, row by row. */
function runsOf({ at, width, height }: Cells): Pick<Mask, 'runs' | 'firstRun'> {
  const runs: number[] = [];
  const firstRun = new Int32Array(height + 1);
  for (let y = 0; y < height; y++) {
    const row = y * width;
    for (let x = 0; x < width; x++) {
      if (!at[row + x]) continue;
      const from = x;
      while (x + 1 < width && at[row + x + 1]) x++;
      runs.push(from, x);
    }
    firstRun[y + 1] = runs.length >> 1;
  }
  return { runs: Int16Array.from(runs), firstRun };
}

/** How a shape is made into cells. */
export type Rastering = { readonly growMm: number; readonly cellMm: number; readonly fillsHoles: boolean };

/** A shape in a turn as cells of its own, which begin at its corner; null where it has no extent. */
export function maskOf(
  areas: readonly RingArea[],
  turnDeg: number,
  { growMm, cellMm, fillsHoles }: Rastering,
): Mask | null {
  const all = areas.map((area) => turned(area, turnDeg));
  const bounds = boundsOfAreas(all);
  if (!bounds) return null;
  const [x0, y0] = [bounds.minX - growMm, bounds.minY - growMm];
  const wideMm = bounds.maxX + growMm - x0;
  const highMm = bounds.maxY + growMm - y0;
  const cells = new Cells(cellsIn(wideMm, cellMm), cellsIn(highMm, cellMm));
  draw(cells, all, { x0, y0, cellMm }, growMm);
  if (fillsHoles) fillHoles(cells);
  return { turnDeg, width: cells.width, height: cells.height, x0, y0, wideMm, highMm, ...runsOf(cells) };
}

const cellsIn = (mm: number, cellMm: number): number => Math.floor(mm / cellMm + ROUNDING) + 1;

/** Where cells lie, in mm. */
type At = Pick<SheetGrid, 'x0' | 'y0' | 'cellMm'>;

/** An area in cells. */
const inCells = (area: RingArea, { x0, y0, cellMm }: At): RingArea =>
  area.map((ring) => {
    const out = new Float64Array(ring.length);
    for (let i = 0; i < ring.length; i += 2) {
      out[i] = ((ring[i] as number) - x0) / cellMm;
      out[i + 1] = ((ring[i + 1] as number) - y0) / cellMm;
    }
    return out;
  });

function draw(cells: Cells, areas: readonly RingArea[], at: At, growMm: number): void {
  for (const area of areas) {
    const own = inCells(area, at);
    setAlong(cells, own, growMm / at.cellMm);
    setInside(cells, own);
  }
}

/** The same mask turned over by 180°, cell by cell, so that what is known of the one is known of the other. */
export function turnedOver(mask: Mask, cellMm: number): Mask {
  const { width, height } = mask;
  const runs = new Int16Array(mask.runs.length);
  const firstRun = new Int32Array(height + 1);
  let at = 0;
  for (let y = 0; y < height; y++) {
    const from = height - 1 - y;
    const [first, last] = [mask.firstRun[from] as number, mask.firstRun[from + 1] as number];
    for (let i = last - 1; i >= first; i--) {
      runs[at++] = width - 1 - (mask.runs[2 * i + 1] as number);
      runs[at++] = width - 1 - (mask.runs[2 * i] as number);
    }
    firstRun[y + 1] = at >> 1;
  }
  return {
    turnDeg: mask.turnDeg + 180,
    width,
    height,
    x0: -mask.x0 - width * cellMm,
    y0: -mask.y0 - height * cellMm,
    wideMm: width * cellMm,
    highMm: height * cellMm,
    runs,
    firstRun,
  };
}

/** Cells of a whole sheet; `x0`, `y0` is the corner of the first, in mm. */
export type SheetGrid = {
  readonly width: number;
  readonly height: number;
  readonly x0: number;
  readonly y0: number;
  readonly cellMm: number;
};

/** A mask over all of a sheet. */
const overSheet = (cells: Cells, { x0, y0, cellMm }: SheetGrid): Mask => ({
  turnDeg: 0,
  width: cells.width,
  height: cells.height,
  x0,
  y0,
  wideMm: cells.width * cellMm,
  highMm: cells.height * cellMm,
  ...runsOf(cells),
});

/** Cells of a sheet that areas take which lie there, grown. */
export function takenBy(areas: readonly RingArea[], growMm: number, grid: SheetGrid): Mask {
  const cells = new Cells(grid.width, grid.height);
  draw(cells, areas, grid, growMm);
  return overSheet(cells, grid);
}

/** Cells of a sheet that lie beside an off-cut, or nearer to its edge than `insideMm`. */
export function beside(outline: RingArea, insideMm: number, grid: SheetGrid): Mask {
  const own = inCells(outline, grid);
  const inside = new Cells(grid.width, grid.height);
  setInside(inside, own);
  const edge = new Cells(grid.width, grid.height);
  setAlong(edge, own, Math.max(0, insideMm) / grid.cellMm);
  for (let o = 0; o < edge.at.length; o++) edge.at[o] = edge.at[o] || !inside.at[o] ? 1 : 0;
  return overSheet(edge, grid);
}

/** A mask without the empty rows and columns about it, and where its first cell was; null where nothing is set. */
export function cropped(
  mask: Mask,
  cellMm: number,
): { readonly mask: Mask; readonly x: number; readonly y: number } | null {
  const { runs, firstRun, height } = mask;
  if (runs.length === 0) return null;
  let [left, right] = [Infinity, 0];
  for (let i = 0; i < runs.length; i += 2) {
    left = Math.min(left, runs[i] as number);
    right = Math.max(right, runs[i + 1] as number);
  }
  let [low, high] = [0, height - 1];
  while (firstRun[low + 1] === 0) low++;
  while (firstRun[high] === firstRun[height]) high--;
  const [width, rows] = [right - left + 1, high - low + 1];
  const own: Mask = {
    turnDeg: mask.turnDeg,
    width,
    height: rows,
    x0: mask.x0 + left * cellMm,
    y0: mask.y0 + low * cellMm,
    wideMm: width * cellMm,
    highMm: rows * cellMm,
    runs: runs.map((x) => x - left),
    firstRun: firstRun.slice(low, high + 2),
  };
  return { mask: own, x: left, y: low };
}
