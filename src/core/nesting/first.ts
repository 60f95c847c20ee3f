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
  /** The lowest row that a mask may still fit in: sheets only get fuller. */
  private lowest = new Map<number, number>();

  constructor(private readonly problem: Problem) {
    this.words = ((problem.grid.width + 31) >> 5) + 2;
    this.size = problem.grid.height * this.words;
    this.bits = new Int32Array(this.size * (problem.levels + 1));
  }

  /** What is needed to undo what is put in from here on. */
  save(): () => void {
    const [bits, lowest] = [this.bits.slice(), new Map(this.lowest)];
    return () => {
      this.bits = bits;
      this.lowest = lowest;
    };
  }

  put(mask: Mask, x: number, y: number): void {
    const { bits, words, size } = this;
    const last = Math.min(mask.height, this.problem.grid.height - y);
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
      for (let k = 0; k < this.problem.levels; k++) {
        const [by, from] = [1 << k, size * k + start];
        const [skip, shift] = [by >> 5, by & 31];
        for (let w = 0; w < words; w++) {
          const near = w + skip < words ? (bits[from + w + skip] as number) : 0;
          const far = w + skip + 1 < words ? (bits[from + w + skip + 1] as number) : 0;
          const moved = shift ? (near >>> shift) | (far << (32 - shift)) : near;
          bits[from + size + w] = (bits[from + w] as number) | moved;
        }
      }
    }
  }

  /** The lowest, then leftmost place of a mask whose upper edge lies under `top`; null where there is none. */
  find(mask: Fitting, top: number): { readonly x: number; readonly y: number } | null {
    const { bits, words, size } = this;
    const { probes } = mask;
    const columns = (mask.mostX >> 5) + 1;
    const lastRow = Math.min(mask.mostY, top - 1 - mask.height);
    const first = this.lowest.get(mask.id) ?? 0;
    for (let y = first; y <= lastRow; y++)
      for (let column = 0; column < columns; column++) {
        // Places beyond the last are taken.
        let taken = column === columns - 1 && (mask.mostX & 31) < 31 ? -1 << ((mask.mostX & 31) + 1) : 0;
        for (let i = 0; i < probes.length && taken !== -1; i += 4) {
          const row = (probes[i + 3] as number) * size + (y + (probes[i] as number)) * words;
          taken |= this.read(bits, row, (column << 5) + (probes[i + 1] as number));
          taken |= this.read(bits, row, (column << 5) + (probes[i + 2] as number));
        }
        if (taken === -1) continue;
        this.lowest.set(mask.id, y);
        return { x: (column << 5) + 31 - Math.clz32(~taken & (taken + 1)), y };
      }
    if (lastRow >= first) this.lowest.set(mask.id, lastRow + 1);
    return null;
  }

  /** 32 bits from one on. */
  private read(bits: Int32Array, row: number, bit: number): number {
    const at = row + (bit >> 5);
    const shift = bit & 31;
    return shift ? ((bits[at] as number) >>> shift) | ((bits[at + 1] as number) << (32 - shift)) : (bits[at] as number);
  }
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
