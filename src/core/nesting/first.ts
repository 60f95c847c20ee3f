/** A first layout: each shape as low as it can, then as far to the left, the largest first (bottom-left fill), the best of a few orders. */
import { extentOf, type Fitting, type LaidItem, type NestLayout, type Problem } from './problem';
import type { Mask } from './raster';

/**
 * A sheet as rows of bits. Of each level `k` a bit is set where any of the 2^k cells from it on is taken, so that a run of any length is
 * read by two words, for 32 places at once.
 */
class Plane {
  private readonly words: number;
  private readonly size: number;
  private bits: Int32Array;
  /** Stretches that are free, row by row: first cell, and the one after the last; and the length of the longest. */
  private free: (readonly number[])[];
  private longest: Int32Array;
  /** The lowest row that a mask may still fit in: sheets only get fuller. */
  private lowest = new Map<number, number>();

  constructor(private readonly problem: Problem) {
    this.words = ((problem.grid.width + 31) >> 5) + 2;
    this.size = problem.grid.height * this.words;
    this.bits = new Int32Array(this.size * (problem.levels + 1));
    const { width, height } = problem.grid;
    this.free = new Array(height).fill([0, width]);
    this.longest = new Int32Array(height).fill(width);
  }

  /** What is needed to undo what is put in from here on. */
  save(): () => void {
    const { free, longest, bits } = this;
    const before = { bits: bits.slice(), free: free.slice(), longest: longest.slice(), lowest: new Map(this.lowest) };
    return () => {
      Object.assign(this, before);
    };
  }

  put(mask: Mask, x: number, y: number): void {
    const { bits, words, size, problem } = this;
    const last = Math.min(mask.height, problem.grid.height - y);
    const lastWord = Math.min(words - 1, (x + mask.width - 1) >> 5);
    for (let row = 0; row < last; row++) {
      const start = (y + row) * words;
      for (let i = mask.firstRun[row] as number; i < (mask.firstRun[row + 1] as number); i++) {
        const [from, to] = [x + (mask.runs[2 * i] as number), x + (mask.runs[2 * i + 1] as number)];
        for (let w = from >> 5; w <= to >> 5; w++) {
          const low = w === from >> 5 ? -1 << (from & 31) : -1;
          const high = w === to >> 5 ? -1 >>> (31 - (to & 31)) : -1;
          bits[start + w] = (bits[start + w] as number) | (low & high);
        }
      }
      for (let k = 0; k < problem.levels; k++) {
        const [by, from] = [1 << k, size * k + start];
        const [skip, shift] = [by >> 5, by & 31];
        // Nothing changes for places whose cells end before the mask, or that come after it.
        for (let w = Math.max(0, x + 1 - 2 * by) >> 5; w <= lastWord; w++) {
          const near = w + skip < words ? (bits[from + w + skip] as number) : 0;
          const far = w + skip + 1 < words ? (bits[from + w + skip + 1] as number) : 0;
          const moved = shift ? (near >>> shift) | (far << (32 - shift)) : near;
          bits[from + size + w] = (bits[from + w] as number) | moved;
        }
      }
      const free = stretchesFree(bits, start, problem.grid.width);
      this.free[y + row] = free;
      let longest = 0;
      for (let i = 0; i < free.length; i += 2)
        longest = Math.max(longest, (free[i + 1] as number) - (free[i] as number));
      this.longest[y + row] = longest;
    }
  }

  /** Whether all runs that are looked up first find a stretch that is long enough in their rows, wherever in these. */
  private mayFit({ probes }: Fitting, y: number): boolean {
    const last = Math.min(probes.length, 4 * PROBED_BY_ROW);
    for (let i = 0; i < last; i += 4) {
      if ((this.longest[y + (probes[i] as number)] as number) < lengthOf(probes, i)) return false;
    }
    return true;
  }

  /** The lowest, then leftmost place of a mask whose upper edge lies under `top`; null where there is none. */
  find(mask: Fitting, top: number): { readonly x: number; readonly y: number } | null {
    const lastRow = Math.min(mask.mostY, top - 1 - mask.height);
    const first = this.lowest.get(mask.id) ?? 0;
    for (let y = first; y <= lastRow; y++) {
      const x = this.mayFit(mask, y) ? this.findInRow(mask, y) : -1;
      if (x < 0) continue;
      this.lowest.set(mask.id, y);
      return { x, y };
    }
    if (lastRow >= first) this.lowest.set(mask.id, lastRow + 1);
    return null;
  }

  /** The leftmost place of a mask in a row, looked for where its longest run is free; -1 where there is none. */
  private findInRow({ probes, mostX }: Fitting, y: number): number {
    const { bits, words, size } = this;
    const free = this.free[y + (probes[0] as number)] as readonly number[];
    const from = probes[1] as number;
    const length = lengthOf(probes, 0);
    let column = 0;
    for (let i = 0; i < free.length; i += 2) {
      const last = Math.min(mostX, (free[i + 1] as number) - length - from);
      if (last < 0 || (free[i + 1] as number) - (free[i] as number) < length) continue;
      for (column = Math.max(column, ((free[i] as number) - from) >> 5); column <= last >> 5; column++) {
        // Places beyond the last are taken.
        let taken = column === mostX >> 5 && (mostX & 31) < 31 ? -1 << ((mostX & 31) + 1) : 0;
        for (let k = 0; k < probes.length && taken !== -1; k += 4) {
          const row = (probes[k + 3] as number) * size + (y + (probes[k] as number)) * words;
          taken |= this.read(bits, row, (column << 5) + (probes[k + 1] as number));
          taken |= this.read(bits, row, (column << 5) + (probes[k + 2] as number));
        }
        if (taken !== -1) return (column << 5) + 31 - Math.clz32(~taken & (taken + 1));
      }
    }
    return -1;
  }

  /** 32 bits from one on. */
  private read(bits: Int32Array, row: number, bit: number): number {
    const at = row + (bit >> 5);
    const shift = bit & 31;
    return shift ? ((bits[at] as number) >>> shift) | ((bits[at + 1] as number) << (32 - shift)) : (bits[at] as number);
  }
}

/** So many of the longest runs of a mask are compared with what is free in their rows before any place in these is looked at. */
const PROBED_BY_ROW = 8;

/** Length of a run as it is looked up. */
const lengthOf = (probes: Int32Array, i: number): number =>
  (probes[i + 2] as number) + (1 << (probes[i + 3] as number)) - (probes[i + 1] as number);

/** Place of the lowest bit that is set of a word that is not nought. */
const lowestBit = (word: number): number => 31 - Math.clz32(word & -word);

/** The first bit of a row from one on that is set, or that is not; `width` where there is none before. */
function nextBit(bits: Int32Array, start: number, from: number, isSet: boolean, width: number): number {
  for (let at = from; at < width; at = (at | 31) + 1) {
    const word = bits[start + (at >> 5)] as number;
    const rest = (isSet ? word : ~word) >>> (at & 31);
    if (rest !== 0) return Math.min(width, at + lowestBit(rest));
  }
  return width;
}

/** Stretches of bits that are not set, of the first `width` of a row: the first of each, and the one after the last. */
function stretchesFree(bits: Int32Array, start: number, width: number): number[] {
  const free: number[] = [];
  for (let at = nextBit(bits, start, 0, false, width); at < width; ) {
    const end = nextBit(bits, start, at, true, width);
    free.push(at, end);
    at = nextBit(bits, start, end, false, width);
  }
  return free;
}

/** Sheets as they are filled. */
class Sheets {
  readonly places: (LaidItem | null)[];
  private readonly planes: Plane[] = [];
  private readonly tops: number[] = [];

  constructor(private readonly problem: Problem) {
    this.places = new Array(problem.items.length).fill(null);
  }

  /** A sheet with what lies there already. */
  private plane(sheet: number): Plane {
    let plane = this.planes[sheet];
    if (!plane) {
      plane = new Plane(this.problem);
      const blocked = this.problem.blocked.get(sheet);
      if (blocked) plane.put(blocked, 0, 0);
      for (const fixed of this.problem.fixed)
        if (fixed.sheet === sheet) plane.put(this.problem.masks[fixed.mask] as Fitting, fixed.x, fixed.y);
      this.planes[sheet] = plane;
    }
    return plane;
  }

  /** Lay an item on a sheet, in the turn whose upper edge comes lowest; whether there was room. */
  private lay(index: number, sheet: number): boolean {
    const { items, masks, grid } = this.problem;
    const plane = this.plane(sheet);
    let best: LaidItem | null = null;
    let top = grid.height + 2;
    for (const id of items[index]?.masks ?? []) {
      const mask = masks[id] as Fitting;
      const at = plane.find(mask, top);
      if (!at) continue;
      top = at.y + mask.height;
      best = { mask: id, sheet, ...at };
    }
    if (!best) return false;
    this.places[index] = best;
    plane.put(masks[best.mask] as Fitting, best.x, best.y);
    this.tops[sheet] = Math.max(this.tops[sheet] ?? 0, top);
    return true;
  }

  /** Lay items that belong together on the first sheet that has room for all; those of more than a sheet run over. */
  layTogether(unit: readonly number[]): void {
    const { blocked, fixed } = this.problem;
    // A sheet that something lies on already may have no room at all.
    const most = this.planes.length + blocked.size + fixed.length + 1;
    for (let sheet = 0; sheet <= most; sheet++) {
      const isFresh =
        this.planes[sheet] === undefined && !blocked.has(sheet) && !fixed.some((lies) => lies.sheet === sheet);
      const top = this.tops[sheet];
      const undo = unit.length > 1 && !isFresh ? this.plane(sheet).save() : null;
      const laid = unit.filter((index) => this.lay(index, sheet));
      if (laid.length === unit.length) return;
      if (isFresh) {
        this.runOver(
          unit.filter((index) => !laid.includes(index)),
          sheet + 1,
        );
        return;
      }
      undo?.();
      for (const index of laid) this.places[index] = null;
      if (top === undefined) delete this.tops[sheet];
      else this.tops[sheet] = top;
    }
  }

  private runOver(rest: readonly number[], from: number): void {
    for (const index of rest) {
      let sheet = from;
      while (!this.lay(index, sheet) && sheet < from + rest.length) sheet++;
    }
  }

  get laid(): NestLayout {
    const sheets = this.places.reduce((most, place) => Math.max(most, place ? place.sheet + 1 : 0), 0);
    return { places: this.places, sheets, top: this.tops[sheets - 1] ?? 0 };
  }
}

/** Items laid in an order, by their indices. Those that fit in no turn lie nowhere. */
function layInOrder(problem: Problem, order: readonly number[]): NestLayout {
  const sheets = new Sheets(problem);
  const met = new Set<string>();
  for (const index of order) {
    const item = problem.items[index];
    if (!item || item.masks.length === 0) continue;
    if (item.group === null) {
      sheets.layTogether([index]);
      continue;
    }
    if (met.has(item.group)) continue;
    met.add(item.group);
    sheets.layTogether(
      order.filter((other) => problem.items[other]?.group === item.group && problem.items[other]?.masks.length),
    );
  }
  return sheets.laid;
}

/** Orders to lay items in: by the box, the longest side, the height, the area. */
function* ordersOf({ items, masks }: Problem): Generator<number[]> {
  const maskOf = (index: number): Pick<Fitting, 'width' | 'height'> =>
    masks[items[index]?.masks[0] ?? -1] ?? { width: 0, height: 0 };
  const by = (size: (index: number) => number): number[] =>
    items.map((_, i) => i).sort((a, b) => size(b) - size(a) || a - b);
  yield by((i) => maskOf(i).width * maskOf(i).height);
  yield by((i) => Math.max(maskOf(i).width, maskOf(i).height));
  yield by((i) => maskOf(i).height * 1e4 + maskOf(i).width);
  yield by((i) => items[i]?.cells ?? 0);
}

/** The first layout: the best of a few orders. Yields the best so far after each of them: that of the first is there soonest, and nearly as good. */
export function* firstLayout(problem: Problem): Generator<NestLayout, NestLayout> {
  let best: NestLayout | null = null;
  for (const order of ordersOf(problem)) {
    const laid = layInOrder(problem, order);
    if (!best || extentOf(problem, laid) < extentOf(problem, best)) best = laid;
    yield best;
  }
  return best ?? { places: [], sheets: 0, top: 0 };
}
