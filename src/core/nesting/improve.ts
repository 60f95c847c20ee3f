/**
 * A layout made better: shapes are put where they hurt least, overlaps are allowed for a while and weighed more the longer they last,
 * until there are none (guided local search; Egeblad, Nielsen and Odgaard 2007; Umetani and others 2009; Gardeyn and Vanden Berghe 2024).
 * The budget is a number of moves, so that the same problem, seed and budget give the same layout.
 */
import { type Chance, chance } from '../geometry/chance';
import { PairTables } from './overlap';
import { extentOf, type Fitting, type LaidItem, type NestLayout, type Problem } from './problem';

/** Weights of pairs, in whole numbers, so that sums along a row cancel exactly. */
const LEAST_WEIGHT = 16;
const MOST_WEIGHT = 1e9;
/** A search for one aim is given up after so many rounds without less overlap. */
const PATIENCE = 12;
/** Each aim lowers the last sheet by this share of the whole; by less when an aim was not reached. */
const FIRST_STEP = 0.03;
const SMALLER = 0.6;
/** Steps smaller than this are helped by taking out a few more. */
const FINE_STEP = 0.01;
/** Every so manieth row is looked at first, then those next to the best. */
const COARSE = 4;
/** Items with more turns than these try their own and two others. */
const MOST_TURNS = 4;
/** Share of aims that empty the last sheet, where there are several. */
const PULLED = 0.6;
/** Where an item is that lies nowhere. */
const NOWHERE = -1_000_000;

/** How far a search has come, and a better layout where one was found. */
export type Improved = { readonly moves: number; readonly better: NestLayout | null };

/** The best place found for an item. */
type Found = { value: number; ties: number; mask: number; x: number; y: number };

/** Items where they are at the moment; `y` counts through the stack of sheets. */
class Search {
  private readonly mask: Int32Array;
  private readonly x: Int32Array;
  private readonly y: Int32Array;
  private readonly weights: Float64Array;
  private readonly scratch: Float64Array;
  private readonly tables: PairTables;
  /** Items that can lie somewhere; what is fixed; and both. */
  private readonly live: readonly number[];
  private readonly fixed: readonly number[];
  private readonly all: readonly number[];
  private readonly count: number;
  private readonly flattest: number;
  private readonly random: Chance;
  moves = 0;
  /** Sheets that are used, and rows of the last that may be. */
  private sheets = 0;
  private limit = 0;
  /** Sheets that are worked on. */
  private window: number[] = [];
  best: NestLayout;

  constructor(
    private readonly problem: Problem,
    start: NestLayout,
    seed: number,
  ) {
    const { items, masks, grid } = problem;
    // What is fixed comes behind the items, and never moves.
    this.count = items.length + problem.fixed.length;
    this.fixed = problem.fixed.map((_, i) => items.length + i);
    this.mask = new Int32Array(this.count);
    this.x = new Int32Array(this.count);
    this.y = new Int32Array(this.count);
    this.weights = new Float64Array(this.count * this.count);
    this.scratch = new Float64Array((grid.width + 3) * (grid.height + 1));
    this.tables = new PairTables(masks);
    this.live = items.flatMap((_, i) => (start.places[i] ? [i] : []));
    this.all = [...this.live, ...this.fixed];
    this.flattest = Math.min(...this.live.map((i) => Math.min(...this.masksOf(i).map((id) => this.maskAt(id).height))));
    this.random = chance(seed);
    this.best = start;
  }

  get isEmpty(): boolean {
    return this.live.length === 0;
  }

  private maskAt(id: number): Fitting {
    return this.problem.masks[id] as Fitting;
  }
  private masksOf(index: number): readonly number[] {
    return this.problem.items[index]?.masks ?? [];
  }
  private sizeOf(index: number): number {
    const mask = this.maskAt(this.masksOf(index)[0] as number);
    return mask.width * mask.height;
  }
  private pick<T>(list: readonly T[]): T {
    return list[Math.floor(this.random() * list.length)] as T;
  }
  private sheetOf(index: number): number {
    return Math.floor((this.y[index] as number) / this.problem.grid.height);
  }
  private roof(sheet: number): number {
    return sheet === this.sheets - 1 ? this.limit : this.problem.grid.height;
  }
  private weightAt(a: number, b: number): number {
    return a < b ? a * this.count + b : b * this.count + a;
  }

  /** Back to the best layout, all pairs alike again. */
  private restart(): void {
    const { height } = this.problem.grid;
    for (const i of this.live) {
      const place = this.best.places[i] as LaidItem;
      this.mask[i] = place.mask;
      this.x[i] = place.x;
      this.y[i] = place.sheet * height + place.y;
    }
    this.problem.fixed.forEach((place, k) => {
      const i = this.fixed[k] as number;
      this.mask[i] = place.mask;
      this.x[i] = place.x;
      this.y[i] = place.sheet * height + place.y;
    });
    this.weights.fill(LEAST_WEIGHT);
  }

  /** How deep two items lie in each other. */
  private depth(a: number, b: number): number {
    return this.tables.depth(
      this.mask[a] as number,
      this.x[a] as number,
      this.y[a] as number,
      this.mask[b] as number,
      this.x[b] as number,
      this.y[b] as number,
    );
  }

  private overlaps(index: number): boolean {
    return this.all.some((other) => other !== index && this.depth(index, other) > 0);
  }

  private weighed(index: number): number {
    let sum = 0;
    for (const other of this.all) {
      if (other === index) continue;
      const depth = this.depth(index, other);
      if (depth > 0) sum += depth * (this.weights[this.weightAt(index, other)] as number);
    }
    return sum;
  }

  /**
   * Look at places of an item in one turn on one sheet, rows `from`, `from + by`, …: the tables of all others, weighed, are added as
   * differences, then summed along the rows. Ties are decided by chance.
   */
  private scan(index: number, id: number, sheet: number, from: number, to: number, by: number, found: Found): void {
    const mask = this.maskAt(id);
    const { height: sheetRows } = this.problem.grid;
    const fromRight = this.random() < 0.5;
    const low = Math.max(0, from);
    const high = Math.min(to, mask.mostY, this.roof(sheet) - mask.height);
    if (high < low) return;
    const across = mask.mostX + 2;
    const rows = Math.floor((high - low) / by) + 1;
    const sums = this.scratch.subarray(0, rows * across);
    sums.fill(0);
    for (const other of this.all) {
      const otherY = this.y[other] as number;
      if (other === index || otherY < sheet * sheetRows || otherY >= (sheet + 1) * sheetRows) continue;
      this.addTable(sums, index, other, id, { base: sheet * sheetRows + low, across, rows, by });
    }
    for (let row = 0; row < rows; row++) {
      const start = row * across;
      let value = sums[start] as number;
      let [least, at] = [value, 0];
      for (let x = 1; x < across - 1; x++) {
        const change = sums[start + x] as number;
        if (change === 0) continue;
        if (fromRight && value === least) at = x - 1;
        value += change;
        if (value < least) [least, at] = [value, x];
      }
      if (fromRight && value === least) at = across - 2;
      if (least < found.value) {
        found.value = least;
        found.ties = 1;
      } else if (least !== found.value || this.random() * ++found.ties >= 1) continue;
      found.mask = id;
      found.x = at;
      found.y = sheet * sheetRows + low + row * by;
    }
  }

  private addTable(
    sums: Float64Array,
    index: number,
    other: number,
    id: number,
    {
      base,
      across,
      rows,
      by,
    }: { readonly base: number; readonly across: number; readonly rows: number; readonly by: number },
  ): void {
    const { table, sign, cx, cy } = this.tables.of(this.mask[other] as number, id);
    const weight = this.weights[this.weightAt(index, other)] as number;
    const x = (this.x[other] as number) + cx;
    // Row r of the table is row `first + sign × r` of the sheet, from the first row that is looked at.
    const first = (this.y[other] as number) + cy - base + sign * table.y0;
    const { rows: tableRows, spans } = table;
    let r = Math.max(0, sign < 0 ? first - (rows - 1) * by : -first);
    r += ((((first + sign * r) * -sign) % by) + by) % by;
    for (; r < table.height; r += by) {
      const row = (first + sign * r) / by;
      if (row < 0 || row >= rows) break;
      const start = row * across;
      for (let q = tableRows[r + 1] as number, end = tableRows[r] as number; q < end; q += 3) {
        const [one, two] = [spans[q] as number, spans[q + 1] as number];
        const from = Math.max(0, sign < 0 ? x - two : x + one);
        const to = Math.min(across - 2, sign < 0 ? x - one : x + two);
        if (from > to) continue;
        const value = weight * (spans[q + 2] as number);
        sums[start + from] = (sums[start + from] as number) + value;
        sums[start + to + 1] = (sums[start + to + 1] as number) - value;
      }
    }
  }

  /** The best place of an item in some of its turns: coarsely, then next to the best. What belongs together stays on its sheet. */
  private seek(index: number, ids: readonly number[]): Found {
    const { items, grid } = this.problem;
    const found: Found = { value: Infinity, ties: 0, mask: 0, x: 0, y: NOWHERE };
    const group = items[index]?.group ?? null;
    const mate =
      group === null
        ? undefined
        : this.live.find((other) => other !== index && items[other]?.group === group && (this.y[other] as number) >= 0);
    const sheets = mate === undefined ? this.window : [this.sheetOf(mate)];
    for (const id of ids)
      for (const sheet of sheets)
        this.scan(index, id, sheet, Math.floor(this.random() * COARSE), grid.height, COARSE, found);
    if (found.ties > 0) {
      const sheet = Math.floor(found.y / grid.height);
      const y = found.y - sheet * grid.height;
      found.ties = 1;
      this.scan(index, found.mask, sheet, y - COARSE + 1, y + COARSE - 1, 1, found);
    }
    return found;
  }

  private putAt(index: number, { mask, x, y }: Found): void {
    this.mask[index] = mask;
    this.x[index] = x;
    this.y[index] = y;
  }

  /** Set a new aim: one item pulled from the last sheet into another, or the last sheet lowered; what is in the way is taken out. */
  private aim(step: number): { readonly isPull: boolean; readonly out: readonly number[] } {
    const { items, grid } = this.problem;
    const { best } = this;
    if (best.sheets > 1 && this.random() < PULLED) {
      const last = this.live
        .filter((i) => this.sheetOf(i) === best.sheets - 1)
        .sort((a, b) => this.sizeOf(a) - this.sizeOf(b));
      // Rather a small one.
      const pulled = last[Math.floor(this.random() ** 2 * last.length)] as number;
      const group = items[pulled]?.group ?? null;
      this.sheets = best.sheets - 1;
      this.limit = grid.height;
      this.window = [Math.floor(this.random() * this.sheets)];
      return { isPull: true, out: group === null ? [pulled] : this.live.filter((i) => items[i]?.group === group) };
    }
    const total = extentOf(this.problem, best);
    const wanted = total - Math.max(1, Math.round(total * step));
    this.sheets = Math.max(1, Math.ceil(wanted / grid.height));
    this.limit = wanted - (this.sheets - 1) * grid.height;
    if (this.sheets > 1 && this.limit < this.flattest) {
      this.sheets--;
      this.limit = grid.height;
    }
    this.window = Array.from({ length: this.sheets }, (_, i) => i);
    // Of many sheets two are worked on at a time.
    if (this.sheets > 2 && this.sheets === best.sheets)
      this.window = [this.sheets - 1, Math.floor(this.random() * (this.sheets - 1))];
    const out = new Set(
      this.live.filter((i) => {
        const sheet = this.sheetOf(i);
        const y = (this.y[i] as number) - sheet * grid.height;
        return sheet >= this.sheets || y + this.maskAt(this.mask[i] as number).height > this.roof(sheet);
      }),
    );
    if (step < FINE_STEP) this.stir(out);
    return { isPull: false, out: [...out] };
  }

  /** Take out a few more, alike in width, so that they may change places. */
  private stir(out: Set<number>): void {
    const near = this.live.filter((i) => this.window.includes(this.sheetOf(i)));
    if (near.length === 0) return;
    const widthOf = (i: number) => this.maskAt(this.mask[i] as number).width;
    for (let k = 0; k < 2; k++) {
      const one = this.pick(near);
      out.add(one);
      for (let n = 0; n < 3; n++) {
        const other = this.pick(near);
        if (Math.abs(widthOf(other) - widthOf(one)) < 40) out.add(other);
      }
    }
  }

  /** Weigh pairs that still overlap more, by how deep, and others less again; the depth of all overlaps. */
  private reweigh(): number {
    let [total, worst] = [0, 0];
    const hit: { readonly at: number; readonly depth: number }[] = [];
    const { live, all } = this;
    for (let i = 0; i < live.length; i++)
      for (let k = i + 1; k < all.length; k++) {
        const [a, b] = [live[i] as number, all[k] as number];
        const depth = this.depth(a, b);
        const at = this.weightAt(a, b);
        if (depth > 0) {
          total += depth;
          worst = Math.max(worst, depth);
          hit.push({ at, depth });
        } else if ((this.weights[at] as number) > LEAST_WEIGHT)
          this.weights[at] = Math.max(LEAST_WEIGHT, Math.round((this.weights[at] as number) * 0.95));
      }
    for (const { at, depth } of hit)
      this.weights[at] = Math.min(
        MOST_WEIGHT,
        Math.round((this.weights[at] as number) * (1.2 + (0.8 * depth) / worst)),
      );
    return total;
  }

  /** The layout as it is, where nothing overlaps. */
  private now(): NestLayout {
    const { height } = this.problem.grid;
    const places: (LaidItem | null)[] = new Array(this.problem.items.length).fill(null);
    const tops: number[] = [];
    for (const i of this.live) {
      const sheet = this.sheetOf(i);
      const y = (this.y[i] as number) - sheet * height;
      places[i] = { mask: this.mask[i] as number, sheet, x: this.x[i] as number, y };
      tops[sheet] = Math.max(tops[sheet] ?? 0, y + this.maskAt(this.mask[i] as number).height);
    }
    return { places, sheets: tops.length, top: tops[tops.length - 1] ?? 0 };
  }

  /** Layouts by what they take; of two with as many sheets the one is better that has less on the last. */
  private rank(laid: NestLayout): number {
    if (laid.sheets <= 1) return extentOf(this.problem, laid);
    let onLast = 0;
    for (const i of this.live) if (laid.places[i]?.sheet === laid.sheets - 1) onLast += this.sizeOf(i);
    return extentOf(this.problem, laid) + (2 * onLast) / this.problem.grid.width;
  }

  /** Search for one aim; yields after each move. Whether it was reached. */
  private *reach(out: readonly number[]): Generator<void, boolean> {
    for (const i of out) this.y[i] = NOWHERE;
    for (const i of out) {
      const found = this.seek(i, this.masksOf(i));
      if (found.value < Infinity) this.putAt(i, found);
      this.moves++;
      yield;
    }
    if (out.some((i) => (this.y[i] as number) < 0)) return false;
    let [least, idle] = [Infinity, 0];
    while (idle <= PATIENCE) {
      const bad = this.live.filter((i) => this.overlaps(i));
      if (bad.length === 0) return true;
      for (const i of shuffled(bad, this.random)) {
        const now = this.weighed(i);
        if (now === 0) continue;
        const all = this.masksOf(i);
        const ids = all.length <= MOST_TURNS ? all : [this.mask[i] as number, this.pick(all), this.pick(all)];
        const found = this.seek(i, ids);
        if (found.value <= now) this.putAt(i, found);
        this.moves++;
        yield;
      }
      const total = this.reweigh();
      if (total < least) [least, idle] = [total, 0];
      else idle++;
    }
    return false;
  }

  /** Better layouts, one after the other, without an end. */
  *steps(): Generator<Improved, never> {
    let step = FIRST_STEP;
    for (;;) {
      this.restart();
      const { isPull, out } = this.aim(step);
      const trying = this.reach(out);
      let turn = trying.next();
      for (; !turn.done; turn = trying.next()) yield { moves: this.moves, better: null };
      // An aim for which nothing had to be moved is none.
      if (out.length === 0) this.moves++;
      if (turn.value) {
        const laid = this.now();
        if (this.rank(laid) < this.rank(this.best)) {
          this.best = laid;
          yield { moves: this.moves, better: laid };
          continue;
        }
      }
      if (!isPull) step = Math.max(step * SMALLER, 1e-9);
      yield { moves: this.moves, better: null };
    }
  }
}

function shuffled(list: readonly number[], random: Chance): number[] {
  const out = [...list];
  for (let i = out.length - 1; i > 0; i--) {
    const k = Math.floor(random() * (i + 1));
    [out[i], out[k]] = [out[k] as number, out[i] as number];
  }
  return out;
}

/** Make a layout better, within a number of moves; yields on the way. A layout on an off-cut is left as it was laid at first. */
export function* improved(
  problem: Problem,
  start: NestLayout,
  { moves, seed }: { readonly moves: number; readonly seed: number },
): Generator<Improved, NestLayout> {
  if (problem.blocked.size > 0) return start;
  const search = new Search(problem, start, seed);
  if (search.isEmpty) return start;
  for (const step of search.steps()) {
    yield step;
    if (step.moves >= moves) break;
  }
  return search.best;
}
