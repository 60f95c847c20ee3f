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

/** What a move without work costs, over dx, dy in mm: its length, or the seconds that it takes. */
export type Cost = (dx: number, dy: number) => number;

/** Seconds from rest to rest: short moves never get to speed. */
export const costInSeconds =
  (speed: number, acceleration: number): Cost =>
  (dx, dy) => {
    const d = Math.sqrt(dx * dx + dy * dy);
    return d < (speed * speed) / acceleration ? 2 * Math.sqrt(d / acceleration) : d / speed + speed / acceleration;
  };

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
