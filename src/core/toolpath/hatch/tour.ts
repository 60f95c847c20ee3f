/**
 * The order in which pieces are drawn, each from either end, so that little way is made between them: the nearest next, then
 * improved by turning stretches of the order round (2-opt, Croes 1958) and by moving single pieces elsewhere (Or 1976),
 * looking only at near neighbours.
 */
import Flatbush from 'flatbush';
import { floatAt, intAt, numberAt } from '../../geometry/elements';
import { NO_STROKES, StrokeBuilder, type Strokes } from '../../geometry/strokes';
import { NearestNext } from '../nearest-next';

/** Neighbours of an end that are looked at. */
const NEIGHBOURS = 8;
/** Pieces in a row that are moved elsewhere at once. */
const MOST_MOVED = 3;
/** Of more pieces than this the order is not improved: the nearest next is near enough by then. */
const MOST_IMPROVED = 20_000;
/** Places in the order that are turned round in all, so that the time is bounded. */
const MOST_TURNED = 60_000_000;
/** What is gained must be at least this, in mm. */
const WORTH_MM = 1e-6;

/** Pieces by their ends: x, y of the start and x, y of the end, four numbers a piece. */
export type Ends = Float64Array;

/** Indices of the pieces in order; those drawn from their end to their start are given as -1 - index. */
export function tourOf(ends: Ends): Int32Array {
  const order = nearestOrder(ends);
  return order.length > 3 && order.length <= MOST_IMPROVED ? improved(ends, order) : order;
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

function nearestOrder(ends: Ends): Int32Array {
  const n = ends.length / 4;
  const places = Array.from({ length: 2 * n }, (_, i) => ({ x: floatAt(ends, 2 * i), y: floatAt(ends, 2 * i + 1) }));
  const unvisited = new NearestNext(places, 0);
  const order = new Int32Array(n);
  let [x, y, k] = [0, 0, 0];
  for (let taken = unvisited.take(x, y); taken !== null; taken = unvisited.take(x, y)) {
    unvisited.drop(taken ^ 1);
    order[k++] = taken % 2 === 0 ? taken >> 1 : -1 - (taken >> 1);
    const end = places[taken ^ 1] as { x: number; y: number };
    [x, y] = [end.x, end.y];
    unvisited.goTo(x);
  }
  return order;
}

function improved(ends: Ends, order: Int32Array): Int32Array {
  const n = order.length;
  const near = neighboursOf(ends);
  const position = new Int32Array(n);
  order.forEach((o, i) => {
    position[pieceOf(o)] = i;
  });
  let turned = 0;
  /** Turns the order from i to j round: each piece is then drawn the other way. */
  const reverse = (i: number, j: number) => {
    turned += j - i + 1;
    for (let [a, b] = [i, j]; a <= b; a++, b--) {
      const [p, q] = [intAt(order, a), intAt(order, b)];
      order[a] = -1 - q;
      order[b] = -1 - p;
      position[pieceOf(q)] = a;
      position[pieceOf(p)] = b;
    }
  };
  const at = (i: number): number => intAt(order, i);
  const between = (i: number, j: number): number => (i < 0 || j >= n ? 0 : gap(ends, at(i), at(j)));
  /** Way from the end of what is at i to the end of what is at j, were the stretch between them turned round. */
  const endToEnd = (i: number, j: number): number => (i < 0 ? 0 : gap(ends, at(i), -1 - at(j)));
  const startToStart = (i: number, j: number): number => (j >= n ? 0 : gap(ends, -1 - at(i), at(j)));

  const turnRound = (i: number, j: number): boolean => {
    if (i > j || i < 0 || j >= n) return false;
    const gain = between(i - 1, i) + between(j, j + 1) - endToEnd(i - 1, j) - startToStart(i, j + 1);
    if (gain <= WORTH_MM) return false;
    reverse(i, j);
    return true;
  };
  /** Puts up to three pieces from i on between k and k + 1, either way round. */
  const move = (i: number, length: number, k: number): boolean => {
    const j = i + length - 1;
    if (j >= n || (k >= i - 1 && k <= j)) return false;
    const out = between(i - 1, i) + between(j, j + 1) - between(i - 1, j + 1) * (i > 0 && j + 1 < n ? 1 : 0);
    const into = k < 0 || k + 1 >= n ? 0 : between(k, k + 1);
    const straight = (k < 0 ? 0 : gap(ends, at(k), at(i))) + (k + 1 >= n ? 0 : gap(ends, at(j), at(k + 1)));
    const round = (k < 0 ? 0 : gap(ends, at(k), -1 - at(j))) + (k + 1 >= n ? 0 : gap(ends, -1 - at(i), at(k + 1)));
    if (out + into - Math.min(straight, round) <= WORTH_MM) return false;
    // Three turns round carry a stretch elsewhere; one of them is left out when it is turned as well.
    if (k > j) {
      reverse(i, j);
      reverse(j + 1, k);
      reverse(i, k);
      if (round < straight) reverse(k - length + 1, k);
    } else {
      reverse(k + 1, i - 1);
      reverse(i, j);
      reverse(k + 1, j);
      if (round < straight) reverse(k + 1, k + length);
    }
    return true;
  };
  const toImprove: number[] = [...order].map(pieceOf);
  const isWaiting = new Uint8Array(n).fill(1);
  const wake = (i: number) => {
    if (i < 0 || i >= n) return;
    const piece = pieceOf(at(i));
    if (isWaiting[piece]) return;
    isWaiting[piece] = 1;
    toImprove.push(piece);
  };
  /** Tries to give one side of a piece a nearer neighbour: after it, or before it. */
  const improveSide = (piece: number, after: boolean): boolean => {
    const i = intAt(position, piece);
    const now = after ? between(i, i + 1) : between(i - 1, i);
    const own = after ? endAt(at(i)) : startAt(at(i));
    const [x, y] = [floatAt(ends, own), floatAt(ends, own + 1)];
    for (let k = (own >> 1) * NEIGHBOURS, last = k + NEIGHBOURS; k < last; k++) {
      const place = intAt(near, k);
      if (place < 0) break;
      const [px, py] = [floatAt(ends, 2 * place), floatAt(ends, 2 * place + 1)];
      if (Math.hypot(px - x, py - y) >= now) break;
      const j = intAt(position, place >> 1);
      // Whether the place is where its piece begins, as it is drawn now.
      const begins = startAt(at(j)) === 2 * place;
      const [lo, hi] = [Math.min(i, j), Math.max(i, j)];
      const touched = [lo - 1, lo, lo + 1, hi - 1, hi, hi + 1];
      let done = after ? !begins && j > i && turnRound(i + 1, j) : begins && j < i && turnRound(j, i - 1);
      for (let length = 1; !done && length <= MOST_MOVED; length++) {
        const from = begins === after ? j : j - length + 1;
        done = from >= 0 && move(from, length, after ? i : i - 1);
      }
      if (!done) continue;
      for (const t of touched) wake(t);
      wake(intAt(position, piece));
      return true;
    }
    return false;
  };
  const improve = (piece: number): boolean => improveSide(piece, true) || improveSide(piece, false);
  for (let head = 0; head < toImprove.length && turned < MOST_TURNED; head++) {
    const piece = numberAt(toImprove, head);
    isWaiting[piece] = 0;
    while (turned < MOST_TURNED && improve(piece)) {
      // As long as something is gained.
    }
  }
  return order;
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
