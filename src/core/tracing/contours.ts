/**
 * The outlines of a shape in a picture, from how much of each pixel belongs to it: marching squares over the middles of the
 * pixels (Lorensen and Cline 1987, in the plane), and then each crossing moved to where the edge truly runs.
 *
 * A pixel that an edge goes through says by its value how much of it lies inside. Between two middles the value is not a straight
 * line, so the place where it would be one half is off by up to 0.09 pixels, to and fro. The sum of a row of pixels across the edge,
 * though, is exactly as long as what lies inside, whatever the picture was smoothed with. So along a steep edge one point a row is
 * kept, along a flat one a point a column.
 */

/** How much of each pixel belongs to the shape: 0 none, 255 all of it; row by row from the top. */
export type Coverage = { readonly width: number; readonly height: number; readonly data: Uint8Array };

/**
 * A closed outline: x and y of its points in turn, in pixels from the corner of the picture at its top left, y downwards. The shape
 * lies to the right of the way they go, as it is seen.
 */
export type Ring = Float64Array;

/** Half of a pixel belongs to the shape. */
const HALF = 127.5;
/** A row is summed up to pixels that belong to it all, or not at all, but for so much. */
const SURE = 28;
/** An edge is not wider than this many pixels either way. */
const WIDEST = 4;

/** Sides of a cell between the middles of four pixels. */
const TOP = 0;
const RIGHT = 1;
const BOTTOM = 2;
const LEFT = 3;

/**
 * By the corners of a cell that lie inside (1 top left, 2 top right, 4 bottom right, 8 bottom left) and the side it is entered by, the
 * side it is left by; -1 where no outline comes in. Cells with two opposite corners are told apart by their middle: entry 16 and 17.
 */
const WAYS: Int8Array = (() => {
  const table = new Int8Array(18 * 4).fill(-1);
  const way = (corners: number, from: number, to: number) => {
    table[corners * 4 + from] = to;
  };
  way(1, TOP, LEFT);
  way(2, RIGHT, TOP);
  way(3, RIGHT, LEFT);
  way(4, BOTTOM, RIGHT);
  way(6, BOTTOM, TOP);
  way(7, BOTTOM, LEFT);
  way(8, LEFT, BOTTOM);
  way(9, TOP, BOTTOM);
  way(11, RIGHT, BOTTOM);
  way(12, LEFT, RIGHT);
  way(13, TOP, RIGHT);
  way(14, LEFT, TOP);
  // Top left and bottom right, apart; and joined through the middle.
  way(5, TOP, LEFT);
  way(5, BOTTOM, RIGHT);
  way(16, TOP, RIGHT);
  way(16, BOTTOM, LEFT);
  // Top right and bottom left.
  way(10, RIGHT, TOP);
  way(10, LEFT, BOTTOM);
  way(17, LEFT, TOP);
  way(17, RIGHT, BOTTOM);
  return table;
})();

/** The pixels with a rim of one pixel that does not belong to the shape, so that outlines close at the edge of the picture. */
function rimmed({ width, height, data }: Coverage): Uint8Array {
  const out = new Uint8Array((width + 2) * (height + 2));
  for (let y = 0; y < height; y++) out.set(data.subarray(y * width, (y + 1) * width), (y + 1) * (width + 2) + 1);
  return out;
}

const byteAt = (list: Uint8Array, i: number): number => list[i] as number;

/**
 * How far from the middle of pixel `p`, which lies inside, towards the pixel at `p + step`, which lies outside, the edge runs.
 * Where the pixels do not come to all or nothing on both sides (a stroke thinner than the blur), by the line between the two middles.
 */
function edgeBetween(v: Uint8Array, p: number, step: number): number {
  const [inside, outside] = [byteAt(v, p), byteAt(v, p + step)];
  let [sum, inner, outer, last] = [inside, 0, 1, inside];
  while (last < 255 - SURE && inner < WIDEST) {
    const next = byteAt(v, p - (inner + 1) * step);
    if (next <= last) break;
    inner++;
    sum += next;
    last = next;
  }
  const isFull = last >= 255 - SURE;
  last = outside;
  sum += outside;
  while (last > SURE && outer < WIDEST) {
    const next = byteAt(v, p + (outer + 1) * step);
    if (next >= last) break;
    outer++;
    sum += next;
    last = next;
  }
  if (!isFull || last > SURE) return (inside - HALF) / (inside - outside);
  return sum / 255 - inner - 0.5;
}

/** Fewest points that tell an outline when only those of steep rows and flat columns are kept. */
const FEWEST = 8;

/** Outlines, and how the coverage changes from one pixel to the next across them: 1 where edges are sharp. */
export type Contours = {
  readonly rings: readonly Ring[];
  /** In the middle of all. */
  readonly steepness: number;
  /** At the steepest, but for a few: what runs aslant, or is thinner than the blur, is less steep. */
  readonly steepest: number;
};

/** All but so much is less steep than the steepest. */
const STEEPEST = 0.95;

/** All closed outlines of what is more than half covered, as found row by row from the top left; those of fewer than `least` cells are left out. */
export function contoursOf(coverage: Coverage, least = 0): Contours {
  const { width, height } = coverage;
  const v = rimmed(coverage);
  const W = width + 2;
  const seen = new Uint8Array(v.length);
  const isInside = (p: number): boolean => byteAt(v, p) > HALF;
  const rings: Ring[] = [];
  const steps = new Uint32Array(256);
  let xy = new Float64Array(1 << 12);
  let kept = new Uint8Array(1 << 11);
  /** One outline, from the side between pixel `start`, inside, and its right neighbour, outside. */
  const follow = (start: number): Ring | null => {
    let n = 0;
    let cell = start;
    let from = TOP;
    do {
      const [p, q, r, s] = [cell, cell + 1, cell + W + 1, cell + W];
      let corners = (isInside(p) ? 1 : 0) | (isInside(q) ? 2 : 0) | (isInside(r) ? 4 : 0) | (isInside(s) ? 8 : 0);
      if (corners === 5 || corners === 10) {
        const middle = byteAt(v, p) + byteAt(v, q) + byteAt(v, r) + byteAt(v, s);
        if (middle > 4 * HALF) corners = corners === 5 ? 16 : 17;
      }
      const to = WAYS[corners * 4 + from] as number;
      if (2 * n + 2 > xy.length) {
        xy = grown(xy);
        const more = new Uint8Array(2 * kept.length);
        more.set(kept);
        kept = more;
      }
      // The pixel on the shape's side of the edge that is crossed, and the way to the other.
      let [inside, step] = [p, 0];
      if (to === TOP) [inside, step] = isInside(p) ? [p, 1] : [q, -1];
      else if (to === BOTTOM) [inside, step] = isInside(s) ? [s, 1] : [r, -1];
      else if (to === LEFT) [inside, step] = isInside(p) ? [p, W] : [s, -W];
      else [inside, step] = isInside(q) ? [q, W] : [r, -W];
      const side = to === TOP || to === BOTTOM ? W : 1;
      const along = byteAt(v, inside) - byteAt(v, inside + step);
      const across =
        byteAt(v, inside + side) +
        byteAt(v, inside + step + side) -
        byteAt(v, inside - side) -
        byteAt(v, inside + step - side);
      const isKept = 4 * along >= Math.abs(across);
      if (isKept) steps[along] = (steps[along] as number) + 1;
      const off = edgeBetween(v, inside, step);
      const [row, column] = [Math.floor(inside / W), inside % W];
      // The rim is one pixel; the middle of a pixel lies half a pixel from its corner.
      xy[2 * n] = column - 0.5 + (side === W ? Math.sign(step) * off : 0);
      xy[2 * n + 1] = row - 0.5 + (side === 1 ? Math.sign(step) * off : 0);
      kept[n] = isKept ? 1 : 0;
      n++;
      if (to === BOTTOM) {
        cell += W;
        if (isInside(cell)) seen[cell] = 1;
        from = TOP;
      } else if (to === TOP) {
        cell -= W;
        from = BOTTOM;
      } else if (to === LEFT) {
        cell -= 1;
        from = RIGHT;
      } else {
        cell += 1;
        from = LEFT;
      }
    } while (cell !== start || from !== TOP);
    if (n < least) return null;
    return wanted(xy, kept, n);
  };
  for (let y = 1; y <= height; y++) {
    const end = y * W + width;
    let isBefore = false;
    for (let p = y * W + 1; p <= end + 1; p++) {
      const isNow = byteAt(v, p) > HALF;
      if (isBefore && !isNow && byteAt(seen, p - 1) === 0) {
        seen[p - 1] = 1;
        const ring = follow(p - 1);
        if (ring) rings.push(ring);
      }
      isBefore = isNow;
    }
  }
  return { rings, steepness: stepAt(steps, 0.5), steepest: stepAt(steps, STEEPEST) };
}

/** The step that a share of all is not greater than, as a share of a pixel; 1 where there are none. */
function stepAt(steps: Uint32Array, share: number): number {
  const wanted = share * steps.reduce((sum, n) => sum + n, 0);
  if (wanted === 0) return 1;
  let step = 0;
  for (let sum = 0; step < 255 && sum < wanted; step++) sum += steps[step] as number;
  return step / 255;
}

function grown(list: Float64Array): Float64Array<ArrayBuffer> {
  const more = new Float64Array(2 * list.length);
  more.set(list);
  return more;
}

/** The points that are kept, or all where these are too few. */
function wanted(xy: Float64Array, kept: Uint8Array, n: number): Ring {
  let count = 0;
  for (let i = 0; i < n; i++) count += byteAt(kept, i);
  if (count < FEWEST) return xy.slice(0, 2 * n);
  const out = new Float64Array(2 * count);
  let at = 0;
  for (let i = 0; i < n; i++)
    if (byteAt(kept, i) === 1) {
      out[at++] = xy[2 * i] as number;
      out[at++] = xy[2 * i + 1] as number;
    }
  return out;
}

/** The area of an outline in square pixels; negative for a hole. */
export function ringArea(ring: Ring): number {
  let sum = 0;
  const n = ring.length;
  for (let i = 0, j = n - 2; i < n; j = i, i += 2)
    sum += (ring[j + 1] as number) * (ring[i] as number) - (ring[j] as number) * (ring[i + 1] as number);
  return -sum / 2;
}
