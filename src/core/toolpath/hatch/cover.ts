/**
 * What a round tip really covers when it goes along lines: row by row, each stroke covers one interval of the row exactly, and
 * what of the letter lies in none of them is missed. Rows are close, and between their ends nothing is rounded, so that even
 * a hair is seen as long as a row meets it.
 */
import { floatAt, intAt, numberAt } from '../../geometry/elements';
import type { Polygons } from './polygons';
import { type Scanlines, scanlinesOf } from './scanlines';

/** A place that is not covered though the tip could get there. In the turned frame of the rows, mm and mm². */
export type MissedPlace = {
  readonly area: number;
  readonly minX: number;
  readonly maxX: number;
  readonly minY: number;
  readonly maxY: number;
  /** Its rows: height, left and right end, three numbers a row. */
  readonly rows: readonly number[];
};

/** What a tip covers along its lines, what it misses within its reach, and what it covers outside; areas in mm². */
export type Cover = {
  /** All in mm²: the letter, what of it is covered, what is not though the tip could get there, and what is covered around it. */
  readonly area: number;
  readonly covered: number;
  readonly missed: number;
  readonly spilled: number;
  /** The largest first; those under the least area asked for are only counted in `missed`. */
  readonly places: readonly MissedPlace[];
};

/** Segments of strokes in the turned frame: x0, y0, x1, y1, four numbers each. */
export type CoverStrokes = Float64Array;

/** Strokes that just touch leave gaps by rounding; those up to this share of half the tip are none. */
const ROUNDING = 1e-4;
/** Rows that are looked at in one go. */
const BAND = 512;

/** What cover is asked of: the lines, the tip's width, the letters, and what can be reached. */
export type CoverAsk = {
  /** The letter. */
  readonly region: Polygons;
  /** Its area in mm²: rows beside level edges take a little too much or too little, which is put right by it. */
  readonly areaMm2: number;
  /** What of it the tip could cover at all. */
  readonly reach: Polygons;
  readonly strokes: CoverStrokes;
  /** Half the width of the tip in mm. */
  readonly radius: number;
  /** Height of a row in mm. */
  readonly step: number;
  /** Places smaller than this are not told one by one, in mm². */
  readonly least: number;
};

/** Looks at all rows, in bands; yields the share done. */
export function* coverOf(ask: CoverAsk): Generator<number, Cover> {
  const { region, areaMm2, reach, strokes, radius, step, least } = ask;
  const sweep = new Sweep(strokes, radius);
  const places = new Places(step);
  yield 0;
  let [low, high] = [Infinity, -Infinity];
  const see = (y: number) => {
    if (y < low) low = y;
    if (y > high) high = y;
  };
  for (const y of region.y) see(y);
  for (let i = 1; i < strokes.length; i += 2) see(floatAt(strokes, i));
  low -= radius;
  high += radius;
  const first = Math.floor(low / step);
  const end = Math.ceil(high / step) + 1;
  const sum = { area: 0, covered: 0, missed: 0, spilled: 0 };
  for (let from = first; from < end; from += BAND) {
    const within = { first: from, count: Math.min(BAND, end - from) };
    const shape = scanlinesOf(region, step, step / 2, within);
    const open = scanlinesOf(reach, step, step / 2, within);
    for (let k = 0; k < within.count; k++) {
      const y = step / 2 + (from + k) * step;
      const tip = sweep.row(y);
      const row = rowMeasure(shape, k, {
        open,
        tip,
        count: sweep.count,
        miss: (lo, hi) => places.add(from + k, y, lo, hi),
      });
      sum.area += row.area * step;
      sum.covered += row.covered * step;
      sum.spilled += row.spilled * step;
      sum.missed += row.missed * step;
    }
    yield Math.min(1, (from + BAND - first) / (end - first));
  }
  const k = sum.area > 0 ? areaMm2 / sum.area : 1;
  return {
    area: areaMm2,
    covered: k * sum.covered,
    missed: k * sum.missed,
    spilled: sum.spilled,
    places: places.found(least / k).map((p) => ({ ...p, area: k * p.area })),
  };
}

/** Strokes met by a level line that moves upwards. */
class Sweep {
  private readonly order: Uint32Array;
  private readonly bottom: Float64Array;
  private next = 0;
  private active: Int32Array = new Int32Array(256);
  private lo = new Float64Array(256);
  private hi = new Float64Array(256);
  private entriesHeld = 0;
  /** Ends of what the stroke that is looked at covers. */
  private left = 0;
  private right = 0;
  private readonly rounding: number;
  /** United intervals: left and right ends, in pairs. */
  private united = new Float64Array(512);
  count = 0;

  constructor(
    private readonly strokes: CoverStrokes,
    private readonly radius: number,
  ) {
    const n = strokes.length / 4;
    this.rounding = ROUNDING * radius;
    this.bottom = new Float64Array(n);
    for (let i = 0; i < n; i++)
      this.bottom[i] = Math.min(floatAt(strokes, 4 * i + 1), floatAt(strokes, 4 * i + 3)) - radius;
    this.order = new Uint32Array(n).map((_, i) => i);
    this.order.sort((a, b) => floatAt(this.bottom, a) - floatAt(this.bottom, b));
  }

  /** What is covered at a height, as left and right ends; `count` numbers of it. Heights must rise. */
  row(y: number): Float64Array {
    for (; this.next < this.order.length; this.next++) {
      const i = this.order[this.next] as number;
      if (floatAt(this.bottom, i) >= y) break;
      this.hold(i);
    }
    let kept = 0;
    for (let a = 0; a < this.entriesHeld; a++) {
      const i = intAt(this.active, a);
      if (this.meet(i, y)) this.insert(i, kept++);
    }
    this.entriesHeld = kept;
    this.unite();
    return this.united;
  }

  /** Sets `left` and `right` to the ends of what a stroke covers at a height; false where it lies below, and is done with. */
  private meet(i: number, y: number): boolean {
    const { strokes, radius } = this;
    const at = 4 * i;
    const [x0, y0] = [floatAt(strokes, at), floatAt(strokes, at + 1)];
    const [x1, y1] = [floatAt(strokes, at + 2), floatAt(strokes, at + 3)];
    if (Math.max(y0, y1) + radius <= y) return false;
    [this.left, this.right] = [Infinity, -Infinity];
    this.meetTip(x0, y - y0);
    this.meetTip(x1, y - y1);
    if (y0 === y1) return true;
    // The two long sides, half a tip to either side of the line.
    const [ex, ey] = [x1 - x0, y1 - y0];
    const k = radius / Math.hypot(ex, ey);
    for (const way of [k, -k]) {
      const u = (y - y0 + way * ex) / ey;
      if (u >= 0 && u <= 1) this.widen(x0 + u * ex + way * ey);
    }
    return true;
  }

  /** The round end of a stroke, whose middle lies `d` below the height. */
  private meetTip(x: number, d: number): void {
    const { radius } = this;
    if (d >= radius || d <= -radius) return;
    const half = Math.sqrt(radius * radius - d * d);
    this.widen(x - half);
    this.widen(x + half);
  }

  private widen(x: number): void {
    if (x < this.left) this.left = x;
    if (x > this.right) this.right = x;
  }

  /** Puts `left` and `right` among the first `kept`, in order of their left ends: from row to row little changes. */
  private insert(i: number, kept: number): void {
    let b = kept - 1;
    while (b >= 0 && floatAt(this.lo, b) > this.left) {
      this.lo[b + 1] = floatAt(this.lo, b);
      this.hi[b + 1] = floatAt(this.hi, b);
      this.active[b + 1] = intAt(this.active, b);
      b--;
    }
    this.lo[b + 1] = this.left;
    this.hi[b + 1] = this.right;
    this.active[b + 1] = i;
  }

  /** Puts intervals that overlap together, rounding aside. */
  private unite(): void {
    this.count = 0;
    for (let a = 0; a < this.entriesHeld; a++) {
      const [lo, hi] = [floatAt(this.lo, a), floatAt(this.hi, a)];
      if (!(hi > lo)) continue;
      if (this.count > 0 && lo <= floatAt(this.united, this.count - 1) + this.rounding) {
        if (hi > floatAt(this.united, this.count - 1)) this.united[this.count - 1] = hi;
        continue;
      }
      if (this.count + 2 > this.united.length) this.united = grown(this.united);
      this.united[this.count++] = lo;
      this.united[this.count++] = hi;
    }
  }

  private hold(i: number): void {
    if (this.entriesHeld === this.active.length) {
      const active = new Int32Array(2 * this.entriesHeld);
      active.set(this.active);
      this.active = active;
      this.lo = grown(this.lo);
      this.hi = grown(this.hi);
    }
    this.active[this.entriesHeld++] = i;
  }
}

function grown(a: Float64Array): Float64Array<ArrayBuffer> {
  const out = new Float64Array(2 * a.length);
  out.set(a);
  return out;
}

/** One row: lengths of the letter, covered, spilled and missed; stretches that are missed though in reach are told. */
function rowMeasure(
  shape: Scanlines,
  k: number,
  {
    open,
    tip,
    count,
    miss,
  }: {
    readonly open: Scanlines;
    readonly tip: Float64Array;
    readonly count: number;
    readonly miss: (lo: number, hi: number) => void;
  },
): { area: number; covered: number; spilled: number; missed: number } {
  const [sa, sb] = [intAt(shape.start, k), intAt(shape.start, k + 1)];
  const [oa, ob] = [intAt(open.start, k), intAt(open.start, k + 1)];
  let [area, covered, tipLength, missed] = [0, 0, 0, 0];
  for (let t = 0; t < count; t += 2) tipLength += floatAt(tip, t + 1) - floatAt(tip, t);
  let t = 0;
  let o = oa;
  for (let s = sa; s + 1 < sb; s += 2) {
    const [left, right] = [floatAt(shape.x, s), floatAt(shape.x, s + 1)];
    area += right - left;
    let at = left;
    while (t < count && floatAt(tip, t + 1) <= left) t += 2;
    for (let u = t; at < right; u += 2) {
      const [lo, hi] = u < count ? [floatAt(tip, u), floatAt(tip, u + 1)] : [Infinity, Infinity];
      const gapEnd = Math.min(right, lo);
      if (gapEnd > at) {
        // Not covered from here to there; told where the tip could get.
        while (o + 1 < ob && floatAt(open.x, o + 1) <= at) o += 2;
        for (let q = o; q + 1 < ob && floatAt(open.x, q) < gapEnd; q += 2) {
          const from = Math.max(at, floatAt(open.x, q));
          const to = Math.min(gapEnd, floatAt(open.x, q + 1));
          if (to <= from) continue;
          missed += to - from;
          miss(from, to);
        }
      }
      if (lo >= right) break;
      covered += Math.min(right, hi) - Math.max(at, lo);
      at = Math.max(at, hi);
    }
  }
  return { area, covered, spilled: Math.max(0, tipLength - covered), missed };
}

/** Missed stretches put together to places: those of neighbouring rows that overlap are one. */
class Places {
  private readonly parent: number[] = [];
  private readonly y: number[] = [];
  private readonly lo: number[] = [];
  private readonly hi: number[] = [];
  private row = -Infinity;
  private before: readonly [number, number] = [0, 0];
  private begins = 0;
  private seek = 0;

  constructor(private readonly step: number) {}

  add(row: number, y: number, lo: number, hi: number): void {
    const n = this.y.length;
    if (row !== this.row) {
      this.before = row === this.row + 1 ? [this.begins, n] : [n, n];
      this.begins = n;
      this.seek = this.before[0];
      this.row = row;
    }
    this.parent.push(n);
    this.y.push(y);
    this.lo.push(lo);
    this.hi.push(hi);
    while (this.seek < this.before[1] && numberAt(this.hi, this.seek) < lo) this.seek++;
    for (let i = this.seek; i < this.before[1] && numberAt(this.lo, i) <= hi; i++) this.unite(i, n);
  }

  private top(i: number): number {
    let at = i;
    while (this.parent[at] !== at) {
      this.parent[at] = numberAt(this.parent, numberAt(this.parent, at));
      at = numberAt(this.parent, at);
    }
    return at;
  }

  private unite(a: number, b: number): void {
    const [p, q] = [this.top(a), this.top(b)];
    this.parent[Math.max(p, q)] = Math.min(p, q);
  }

  /** Places of at least an area, the largest first. */
  found(least: number): MissedPlace[] {
    type Growing = { area: number; minX: number; maxX: number; minY: number; maxY: number; rows: number[] };
    const areas = new Map<number, number>();
    this.y.forEach((_, i) => {
      const top = this.top(i);
      areas.set(top, (areas.get(top) ?? 0) + (numberAt(this.hi, i) - numberAt(this.lo, i)) * this.step);
    });
    const made = new Map<number, Growing>();
    this.y.forEach((y, i) => {
      const top = this.top(i);
      const area = areas.get(top) as number;
      if (area < least) return;
      const [lo, hi] = [numberAt(this.lo, i), numberAt(this.hi, i)];
      let place = made.get(top);
      if (!place) {
        place = { area, minX: lo, maxX: hi, minY: y - this.step / 2, maxY: y + this.step / 2, rows: [] };
        made.set(top, place);
      }
      place.minX = Math.min(place.minX, lo);
      place.maxX = Math.max(place.maxX, hi);
      place.maxY = y + this.step / 2;
      place.rows.push(y, lo, hi);
    });
    return [...made.values()].sort((a, b) => b.area - a.area);
  }
}
