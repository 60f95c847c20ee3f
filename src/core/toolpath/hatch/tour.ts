/**
 * The order in which lines that fill are drawn, each from either end, so that little way is made between them: that of the engine which orders
 * what operations run, begun anywhere, from several orders where there are few.
 */
import { floatAt, intAt } from '../../geometry/elements';
import type { Point } from '../../geometry/point';
import { NO_STROKES, StrokeBuilder, type Strokes } from '../../geometry/strokes';
import { finished } from '../../memo';
import { type Search, searchOrder } from '../ordering/search';
import { costInLength, type Order, type Stop } from '../ordering/stops';

/** Of more pieces than this the order is not improved: the nearest next is near enough by then. */
const MOST_IMPROVED = 20_000;
/** Of so few pieces orders begun at several places are improved: one alone may be a dead end. */
const MOST_STARTED = 150;
const STARTS = 6;
/** Of no more than so many pieces is the order shaken up as well. */
const MOST_KICKED = 1_500;
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
  if (n === 0) return [new Int32Array(0)];
  const stops = Array.from({ length: n }, (_, i): Stop => {
    const [start, end] = [0, 2].map((k) => ({ x: floatAt(ends, 4 * i + k), y: floatAt(ends, 4 * i + k + 1) }));
    const [from, to] = [start as Point, end as Point];
    return {
      isOpen: true,
      ways: [
        { from, to },
        { from: to, to: from },
      ],
    };
  });
  const nothingFirst = stops.map((): readonly number[] => []);
  const search = (more: Pick<Search, 'from' | 'how'> & { readonly begun?: Order }): Int32Array =>
    fromNearerEnd(
      ends,
      drawnAs(finished(searchOrder({ stops, first: nothingFirst }, { isFree: true, cost: costInLength, ...more }))),
    );
  const origin = { x: 0, y: 0 };
  const asGiven: Order = { order: Int32Array.from({ length: n }, (_, i) => i), ways: new Int32Array(n) };
  if (n <= MOST_STARTED)
    return [
      search({ from: origin, how: 'short' }),
      search({ from: origin, how: 'once', begun: asGiven }),
      ...placesToBegin(ends).map((from) => search({ from, how: 'once' })),
    ];
  const nearest = search({ from: origin, how: 'nearest' });
  const given = drawnAs(asGiven);
  const isGiven = travelOf(ends, given) < travelOf(ends, nearest);
  if (n > MOST_IMPROVED) return [isGiven ? given : nearest];
  const how = n <= MOST_KICKED ? 'short' : 'once';
  return [search({ from: origin, how, ...(isGiven && { begun: asGiven }) })];
}

/** An order as indices of pieces, those drawn backwards as -1 - index. */
const drawnAs = ({ order, ways }: Order): Int32Array => order.map((i) => (intAt(ways, i) === 1 ? -1 - i : i));

/** A tour from that of its ends which is nearer to the corner of the sheet: either way it is as long. */
function fromNearerEnd(ends: Ends, tour: Int32Array): Int32Array {
  const away = (at: number): number => Math.hypot(floatAt(ends, at), floatAt(ends, at + 1));
  if (away(startAt(intAt(tour, 0))) <= away(endAt(intAt(tour, tour.length - 1)))) return tour;
  return tour.map((o) => -1 - o).reverse();
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

/** Index in `ends` of the start, and of the end, of a piece as drawn. */
const startAt = (o: number): number => (o < 0 ? 4 * (-1 - o) + 2 : 4 * o);
const endAt = (o: number): number => (o < 0 ? 4 * (-1 - o) : 4 * o + 2);

function gap(ends: Ends, a: number, b: number): number {
  const [p, q] = [endAt(a), startAt(b)];
  return Math.hypot(floatAt(ends, p) - floatAt(ends, q), floatAt(ends, p + 1) - floatAt(ends, q + 1));
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
