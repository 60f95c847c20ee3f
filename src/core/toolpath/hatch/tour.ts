/**
 * The order in which pieces are drawn, each from either end, so that little way is made between them: the nearest next, then
 * improved by turning stretches of the order round (2-opt, Croes 1958) and by moving single pieces elsewhere (Or 1976),
 * looking only at near neighbours.
 */
import Flatbush from 'flatbush';
import { floatAt, intAt, numberAt } from '../../geometry/elements';
import type { Point } from '../../geometry/point';
import { NO_STROKES, StrokeBuilder, type Strokes } from '../../geometry/strokes';
import { NearestNext } from '../nearest-next';

/** Neighbours of an end that are looked at. */
const NEIGHBOURS = 8;
/** Pieces in a row that are moved elsewhere at once. */
const MOST_MOVED = 3;
/** Of more pieces than this the order is not improved: the nearest next is near enough by then. */
const MOST_IMPROVED = 20_000;
/** Of so many pieces every pair is looked at, over so many rounds. */
const MOST_PAIRED = 800;
const ROUNDS = 8;
/** Of so few pieces orders begun at several places are improved: one alone may be a dead end. */
const MOST_STARTED = 150;
const STARTS = 12;
/** Places in the order that are turned round in all, so that the time is bounded. */
const MOST_TURNED = 60_000_000;
/** What is gained must be at least this, in mm. */
const WORTH_MM = 1e-6;

/** Pieces by their ends: x, y of the start and x, y of the end, four numbers a piece. */
export type Ends = Float64Array;

/**
 * Indices of the pieces in order; those drawn from their end to their start are given as -1 - index. Begun from the nearest next, or from
 * the order the pieces are given in where that is shorter; of few pieces from several.
 */
export function tourOf(ends: Ends): Int32Array {
  const tours = toursOf(ends);
  return tours.reduce((best, tour) => (travelOf(ends, tour) < travelOf(ends, best) - WORTH_MM ? tour : best));
}

/** Short tours begun from different orders; of many pieces it is one. */
export function toursOf(ends: Ends): Int32Array[] {
  const n = ends.length / 4;
  const nearest = nearestOrder(ends, { x: 0, y: 0 });
  const given = Int32Array.from({ length: n }, (_, i) => i);
  const starts =
    n > MOST_STARTED
      ? [travelOf(ends, given) < travelOf(ends, nearest) ? given : nearest]
      : [nearest, given, ...placesToBegin(ends).map((place) => nearestOrder(ends, place))];
  if (n > 3 && n <= MOST_IMPROVED) for (const order of starts) new Improving(ends, order).run();
  return starts;
}

/** Places spread over the pieces at which an order may begin. */
function placesToBegin(ends: Ends): Point[] {
  const places = Math.min(STARTS, ends.length / 2);
  return Array.from({ length: places }, (_, k) => {
    const i = 2 * Math.floor((k * ends.length) / (2 * places));
    return { x: floatAt(ends, i), y: floatAt(ends, i + 1) };
  });
}

/** Way made between the pieces of an order, in mm. */
export function travelOf(ends: Ends, order: Int32Array): number {
  let sum = 0;
  for (let i = 1; i < order.length; i++) sum += gap(ends, intAt(order, i - 1), intAt(order, i));
  return sum;
}

const pieceOf = (o: number): number => (o < 0 ? -1 - o : o);
/** Index in `ends` of the start, and of the end, of a piece as drawn. */
const startAt = (o: number): number => (o < 0 ? 4 * (-1 - o) + 2 : 4 * o);
const endAt = (o: number): number => (o < 0 ? 4 * (-1 - o) : 4 * o + 2);

function gap(ends: Ends, a: number, b: number): number {
  const [p, q] = [endAt(a), startAt(b)];
  return Math.hypot(floatAt(ends, p) - floatAt(ends, q), floatAt(ends, p + 1) - floatAt(ends, q + 1));
}

/** Always the nearest next, beginning with what is nearest to a place. */
function nearestOrder(ends: Ends, from: Point): Int32Array {
  const n = ends.length / 4;
  const places = Array.from({ length: 2 * n }, (_, i) => ({ x: floatAt(ends, 2 * i), y: floatAt(ends, 2 * i + 1) }));
  const unvisited = new NearestNext(places, from.x);
  const order = new Int32Array(n);
  let [x, y, k] = [from.x, from.y, 0];
  for (let taken = unvisited.take(x, y); taken !== null; taken = unvisited.take(x, y)) {
    unvisited.drop(taken ^ 1);
    order[k++] = taken % 2 === 0 ? taken >> 1 : -1 - (taken >> 1);
    const end = places[taken ^ 1] as { x: number; y: number };
    [x, y] = [end.x, end.y];
    unvisited.goTo(x);
  }
  return order;
}

/** An order of pieces that is made shorter step by step, in place. */
class Improving {
  private readonly count: number;
  private readonly near: Int32Array;
  /** Where in the order each piece stands. */
  private readonly position: Int32Array;
  /** Pieces that were turned round so far. */
  private turned = 0;
  /** Pieces whose neighbours have changed since they were looked at, those that wait longest first. */
  private readonly toImprove: number[];
  private readonly isWaiting: Uint8Array;

  constructor(
    private readonly ends: Ends,
    private readonly order: Int32Array,
  ) {
    this.count = order.length;
    this.near = neighboursOf(ends);
    this.position = new Int32Array(this.count);
    order.forEach((o, i) => {
      this.position[pieceOf(o)] = i;
    });
    this.toImprove = [...order].map(pieceOf);
    this.isWaiting = new Uint8Array(this.count).fill(1);
  }

  /** Improves pieces until nothing is gained any more, or too much was turned round. */
  run(): void {
    this.improveWaiting();
    // Of few pieces every pair is looked at: what neighbours do not tell is mostly at the ends of the order.
    for (let round = 0; round < ROUNDS && this.count <= MOST_PAIRED && this.turnAnyRound(); round++)
      this.improveWaiting();
  }

  /** 2-opt over all pairs; whether anything was gained. */
  private turnAnyRound(): boolean {
    let isGained = false;
    for (let i = 0; i < this.count; i++)
      for (let j = i; j < this.count && this.turned < MOST_TURNED; j++)
        if (this.turnRound(i, j)) {
          isGained = true;
          for (const touched of [i - 1, i, j, j + 1]) this.wake(touched);
        }
    return isGained;
  }

  /** Improves pieces whose neighbours have changed. */
  private improveWaiting(): void {
    for (let head = 0; head < this.toImprove.length && this.turned < MOST_TURNED; head++) {
      const piece = numberAt(this.toImprove, head);
      this.isWaiting[piece] = 0;
      while (this.turned < MOST_TURNED && (this.improveSide(piece, true) || this.improveSide(piece, false))) {
        // As long as something is gained.
      }
    }
    this.toImprove.length = 0;
  }

  /** Tries to give one side of a piece a nearer neighbour: after it, or before it. */
  private improveSide(piece: number, after: boolean): boolean {
    const { ends, near } = this;
    const i = intAt(this.position, piece);
    const now = after ? this.way(i, i + 1) : this.way(i - 1, i);
    const own = after ? endAt(this.at(i)) : startAt(this.at(i));
    const [x, y] = [floatAt(ends, own), floatAt(ends, own + 1)];
    for (let k = (own >> 1) * NEIGHBOURS, last = k + NEIGHBOURS; k < last; k++) {
      const place = intAt(near, k);
      if (place < 0) break;
      const [px, py] = [floatAt(ends, 2 * place), floatAt(ends, 2 * place + 1)];
      if (Math.hypot(px - x, py - y) >= now) break;
      const j = intAt(this.position, place >> 1);
      const [lo, hi] = [Math.min(i, j), Math.max(i, j)];
      if (!this.bringTogether(i, j, { after, begins: startAt(this.at(j)) === 2 * place })) continue;
      for (const touched of [lo - 1, lo, lo + 1, hi - 1, hi, hi + 1]) this.wake(touched);
      this.wake(intAt(this.position, piece));
      return true;
    }
    return false;
  }

  /**
   * Puts what is at j next to what is at i, after it or before it, if that gains anything: by turning the stretch between them
   * round, or by moving up to three pieces. `begins`: whether the near place is where the piece at j begins, as it is drawn now.
   */
  private bringTogether(
    i: number,
    j: number,
    { after, begins }: { readonly after: boolean; readonly begins: boolean },
  ): boolean {
    if (after ? !begins && j > i && this.turnRound(i + 1, j) : begins && j < i && this.turnRound(j, i - 1)) return true;
    for (let length = 1; length <= MOST_MOVED; length++) {
      const from = begins === after ? j : j - length + 1;
      if (from >= 0 && this.move(from, length, after ? i : i - 1)) return true;
    }
    return false;
  }

  /** 2-opt: turns the stretch from i to j round. */
  private turnRound(i: number, j: number): boolean {
    if (i > j || i < 0 || j >= this.count) return false;
    const { ends } = this;
    const before = i === 0 ? 0 : gap(ends, this.at(i - 1), -1 - this.at(j));
    const behind = j + 1 >= this.count ? 0 : gap(ends, -1 - this.at(i), this.at(j + 1));
    if (this.way(i - 1, i) + this.way(j, j + 1) - before - behind <= WORTH_MM) return false;
    this.reverse(i, j);
    return true;
  }

  /** Or-opt: puts pieces from i on between k and k + 1, either way round. */
  private move(i: number, length: number, k: number): boolean {
    const { ends, count } = this;
    const j = i + length - 1;
    if (j >= count || (k >= i - 1 && k <= j)) return false;
    const [hasBefore, hasAfter] = [k >= 0, k + 1 < count];
    const out = this.way(i - 1, i) + this.way(j, j + 1) - (i > 0 && j + 1 < count ? this.way(i - 1, j + 1) : 0);
    const into = hasBefore && hasAfter ? this.way(k, k + 1) : 0;
    const straight =
      (hasBefore ? gap(ends, this.at(k), this.at(i)) : 0) + (hasAfter ? gap(ends, this.at(j), this.at(k + 1)) : 0);
    const round =
      (hasBefore ? gap(ends, this.at(k), -1 - this.at(j)) : 0) +
      (hasAfter ? gap(ends, -1 - this.at(i), this.at(k + 1)) : 0);
    if (out + into - Math.min(straight, round) <= WORTH_MM) return false;
    // Three turns round carry a stretch elsewhere; one of them is left out when it is turned as well.
    if (k > j) {
      this.reverse(i, j);
      this.reverse(j + 1, k);
      this.reverse(i, k);
      if (round < straight) this.reverse(k - length + 1, k);
    } else {
      this.reverse(k + 1, i - 1);
      this.reverse(i, j);
      this.reverse(k + 1, j);
      if (round < straight) this.reverse(k + 1, k + length);
    }
    return true;
  }

  /** Turns the order from i to j round: each piece is then drawn the other way. */
  private reverse(i: number, j: number): void {
    const { order, position } = this;
    this.turned += j - i + 1;
    for (let [a, b] = [i, j]; a <= b; a++, b--) {
      const [p, q] = [intAt(order, a), intAt(order, b)];
      order[a] = -1 - q;
      order[b] = -1 - p;
      position[pieceOf(q)] = a;
      position[pieceOf(p)] = b;
    }
  }

  private at(i: number): number {
    return intAt(this.order, i);
  }

  /** Way from what is at i to what is at j; none beyond the ends of the order. */
  private way(i: number, j: number): number {
    return i < 0 || j >= this.count ? 0 : gap(this.ends, this.at(i), this.at(j));
  }

  private wake(i: number): void {
    if (i < 0 || i >= this.count) return;
    const piece = pieceOf(this.at(i));
    if (this.isWaiting[piece]) return;
    this.isWaiting[piece] = 1;
    this.toImprove.push(piece);
  }
}

/** Of each start and end (2 · piece, 2 · piece + 1) the nearest starts and ends of other pieces, the nearest first; -1 where there are no more. */
function neighboursOf(ends: Ends): Int32Array {
  const n = ends.length / 4;
  const index = new Flatbush(2 * n);
  for (let i = 0; i < 2 * n; i++) index.add(floatAt(ends, 2 * i), floatAt(ends, 2 * i + 1));
  index.finish();
  const out = new Int32Array(2 * NEIGHBOURS * n).fill(-1);
  for (let i = 0; i < 2 * n; i++) {
    let k = NEIGHBOURS * i;
    for (const j of index.neighbors(floatAt(ends, 2 * i), floatAt(ends, 2 * i + 1), NEIGHBOURS + 2))
      if (j >> 1 !== i >> 1 && k < NEIGHBOURS * (i + 1)) out[k++] = j;
  }
  return out;
}

/** Groups of strokes (from strips[i] to strips[i + 1]) put in the order of a short tour; whole groups are turned round. */
export function inTour({ xy, start }: Strokes, strips: Int32Array): Strokes {
  const n = strips.length - 1;
  if (n < 1) return NO_STROKES;
  const ends = new Float64Array(4 * n);
  for (let i = 0; i < n; i++) {
    const first = intAt(start, intAt(strips, i));
    const last = intAt(start, intAt(strips, i + 1)) - 1;
    ends.set(
      [floatAt(xy, 2 * first), floatAt(xy, 2 * first + 1), floatAt(xy, 2 * last), floatAt(xy, 2 * last + 1)],
      4 * i,
    );
  }
  const out = new StrokeBuilder();
  for (const o of tourOf(ends)) {
    const piece = o < 0 ? -1 - o : o;
    const [from, to] = [intAt(strips, piece), intAt(strips, piece + 1)];
    for (let k = 0; k < to - from; k++) {
      const s = o < 0 ? to - 1 - k : from + k;
      const [a, b] = [intAt(start, s), intAt(start, s + 1)];
      for (let p = 0; p < b - a; p++) {
        const at = o < 0 ? b - 1 - p : a + p;
        out.add(floatAt(xy, 2 * at), floatAt(xy, 2 * at + 1));
      }
      out.lift();
    }
  }
  return out.done();
}
