/**
 * What is put in order: things that are each run in one go, from one of the places where it may begin to where it then ends. Closed paths end
 * where they begin; an open line may be run either way; a lead-in can only be run as it is.
 */
import type { Point } from '../../geometry/point';

/** A way to run a thing: where it begins, and where it then ends. */
export type WayToRun = { readonly from: Point; readonly to: Point };

/** A thing that is run in one go. */
export type Stop = {
  /** The ways it may be run, one at least; those of an open line, in one direction and the other. */
  readonly ways: readonly WayToRun[];
  /** Whether its two ways are each the other backwards. */
  readonly isOpen: boolean;
};

/** What is put in order. `first[i]`: what must be done before i, by index; there must be no circle in it. */
export type ToOrder = { readonly stops: readonly Stop[]; readonly first: readonly (readonly number[])[] };

/** An order: indices of stops, and of each which way it is run. */
export type Order = { readonly order: Int32Array; readonly ways: Int32Array };

/** Where an order begins: near a place, and whether the way from there to the first costs nothing. */
export type Start = { readonly at: Point; readonly isFree: boolean };

/** What a move without work costs, over dx, dy in mm: its length, or the seconds that it takes. */
export type Cost = (dx: number, dy: number) => number;

/** Seconds from rest to rest: short moves never get to speed. */
export function costInSeconds(speed: number, acceleration: number): Cost {
  const toSpeed = (speed * speed) / acceleration;
  const [short, each, more] = [2 / Math.sqrt(acceleration), 1 / speed, speed / acceleration];
  return (dx, dy) => {
    const d = Math.sqrt(dx * dx + dy * dy);
    return d < toSpeed ? short * Math.sqrt(d) : each * d + more;
  };
}

/** The length of a move. */
export const costInLength: Cost = (dx, dy) => Math.sqrt(dx * dx + dy * dy);

/** What it costs to go through an order from a place: all moves between, and that to the first. */
export function tourCost({ stops }: ToOrder, { order, ways }: Order, from: Point, cost: Cost): number {
  let sum = 0;
  let at = from;
  for (const i of order) {
    const way = stops[i]?.ways[ways[i] ?? 0];
    if (!way) continue;
    sum += cost(way.from.x - at.x, way.from.y - at.y);
    at = way.to;
  }
  return sum;
}

/** What must come first without what would make a circle: of things that lie on each other the first found. */
export function withoutCircles(first: readonly (readonly number[])[]): number[][] {
  const state = new Uint8Array(first.length);
  const kept: number[][] = first.map(() => []);
  const visit = (i: number): void => {
    state[i] = 1;
    for (const j of first[i] ?? []) {
      if (state[j] === 1) continue;
      if (state[j] === 0) visit(j);
      kept[i]?.push(j);
    }
    state[i] = 2;
  };
  first.forEach((_, i) => {
    if (state[i] === 0) visit(i);
  });
  return kept;
}

/** Whether an order has each of the stops once, in a way it may be run, and does what must come first. */
export function isOrderOf({ stops, first }: ToOrder, { order, ways }: Order): boolean {
  if (order.length !== stops.length || ways.length !== stops.length) return false;
  const done = new Uint8Array(stops.length);
  for (const i of order) {
    const stop = stops[i];
    if (!stop || done[i] === 1 || !stop.ways[ways[i] ?? -1] || (first[i] ?? []).some((j) => done[j] !== 1))
      return false;
    done[i] = 1;
  }
  return true;
}

/** Coordinates are told apart by so many to a mm. */
const PER_MM = 1e6;

/** Tells what is put in order apart from anything else, as sixteen hexadecimal digits: by two sums of all its numbers (FNV-1a, Fowler, Noll and Vo). */
export function fingerprint({ stops, first }: ToOrder): string {
  let [a, b] = [0x811c9dc5, 0x01000193];
  const add = (value: number): void => {
    // Both halves of what does not fit 32 bits.
    for (const half of [value | 0, Math.floor(value / 2 ** 32) | 0]) {
      a = Math.imul(a ^ half, 0x01000193);
      b = Math.imul(b ^ half ^ (a >>> 13), 0x85ebca6b);
    }
  };
  stops.forEach(({ ways, isOpen }, i) => {
    add(isOpen ? -1 : -2);
    add(ways.length);
    for (const { from, to } of ways) for (const mm of [from.x, from.y, to.x, to.y]) add(Math.round(PER_MM * mm));
    for (const j of first[i] ?? []) add(j);
  });
  return [a, b].map((half) => (half >>> 0).toString(16).padStart(8, '0')).join('');
}
