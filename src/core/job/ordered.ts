/** What an operation runs, in order: each thing begun and directed as the order says, what lies in a piece before the piece is cut free. */
import Flatbush from 'flatbush';
import type { Operation } from '../document/schema';
import { type Drawable, drawnPaths, endsOfAll } from '../geometry/drawable';
import { intAt } from '../geometry/elements';
import { type Laid, laid, lyingTo, ON_MM } from '../geometry/lying';
import { type Path, reversePath } from '../geometry/path';
import type { Point } from '../geometry/point';
import { line } from '../geometry/segment';
import { LIMITS } from '../limits';
import type { LongStage } from '../memo';
import type { FoundOrder } from '../schema/operations';
import { byRows, spreadOut } from '../toolpath/ordering/patterns';
import { type Search, searchOrder } from '../toolpath/ordering/search';
import {
  fingerprint,
  isOrderOf,
  type Order,
  type Stop,
  type ToOrder,
  tourCost,
  type WayToRun,
  withoutCircles,
} from '../toolpath/ordering/stops';
import { type DrawnWork, type Go, partsOfGo } from './drawn';

/** A thing that is run in one go, as it is run: from where to where. */
export type OrderedGo = {
  readonly go: Go;
  /** Which of its ways it is run in. */
  readonly way: number;
  readonly drawn: readonly DrawnWork[];
  readonly from: Point;
  readonly to: Point;
};

/** What an operation runs, in order, and whether that is the order that is kept of it. */
export type Ordered = { readonly goes: readonly OrderedGo[]; readonly isKept: boolean };

/** Of a closed path so many nodes at most may be where it begins. */
const MOST_BEGUN_AT = 24;

/** How the goes of an operation are put in order. */
export type OrderInput = {
  readonly operation: Pick<Operation, 'kind' | 'order'>;
  readonly goes: readonly Go[];
  /** Tells the goes apart from others. */
  readonly goesKey: string;
  readonly from: Point;
  readonly cost: Search['cost'];
  readonly costKey: string;
  readonly how: Search['how'];
};

/** What an operation runs, in order; yields the share done. */
export const ORDERED: LongStage<OrderInput, Ordered> = {
  name: 'order',
  key: ({ operation, goesKey, from, costKey, how }) =>
    `${goesKey}|${from.x},${from.y}|${costKey}|${how}|${operation.kind === 'cut'}|${JSON.stringify(operation.order)}`,
  run: function* (input) {
    const { operation, from } = input;
    const { sequence, all } = toOrder(input);
    const kept = keptOrder(operation.order, all);
    const made: OrderedGo[] = [];
    let at = from;
    for (const group of groupsOf(all, sequence, operation.order.pinned)) {
      const part = within(all, group);
      const order = kept ? orderWithin(kept, group) : yield* orderOf(part, { ...input, from: at });
      for (const k of order.order) {
        const go = sequence[group[k] as number] as Go;
        const way = intAt(order.ways, k);
        const run = part.stops[k]?.ways[way];
        if (!run) continue;
        made.push({ go, way, drawn: runAs(go, way), from: run.from, to: run.to });
        at = run.to;
      }
    }
    return { goes: made, isKept: kept !== null };
  },
  weigh: ({ goes }) => 16 * goes.length,
};

/** What is put in order, with what must come first. */
function toOrder({ goes, operation }: Pick<OrderInput, 'goes' | 'operation'>) {
  const { goes: sequence, first } = gathered(sequenceOf(goes, operation.kind === 'cut'));
  const all: ToOrder = { stops: sequence.map(stopOf), first: withoutCircles(first) };
  return { sequence, all };
}

/** The order that is kept, where it is of just this, and does what must come first; else null. */
function keptOrder({ by, found }: Operation['order'], all: ToOrder): Order | null {
  if (!found || by !== 'way' || found.of !== fingerprint(all)) return null;
  const order: Order = { order: Int32Array.from(found.order), ways: Int32Array.from(found.ways) };
  return isOrderOf(all, order) ? order : null;
}

/** An order of all as one of some of them, by their numbers among these. */
function orderWithin({ order, ways }: Order, group: readonly number[]): Order {
  const number = new Map(group.map((i, k) => [i, k]));
  return {
    order: order.filter((i) => number.has(i)).map((i) => number.get(i) ?? 0),
    ways: Int32Array.from(group, (i) => intAt(ways, i)),
  };
}

/** How far a search by hand has come: what the moves between cost in the order it found, and in the one it began with. */
export type SearchedSoFar = {
  readonly share: number;
  readonly found: FoundOrder;
  readonly before: number;
  readonly after: number;
};

/** Searches longer for the order of an operation, from the one it is run in; whenever it is stopped, the order found by then may be kept. */
export function* searchLonger(
  input: Pick<OrderInput, 'operation' | 'goes' | 'from' | 'cost'>,
  run: readonly OrderedGo[],
): Generator<SearchedSoFar, void> {
  const { from, cost, operation } = input;
  const { sequence, all } = toOrder(input);
  const numbers = new Map(sequence.map((go, i) => [go, i]));
  const begun: Order = {
    order: Int32Array.from(run, ({ go }) => numbers.get(go) ?? 0),
    ways: new Int32Array(sequence.length),
  };
  for (const { go, way } of run) begun.ways[numbers.get(go) ?? 0] = way;
  const before = tourCost(all, begun, from, cost);
  const now: Order = { order: begun.order.slice(), ways: begun.ways.slice() };
  const groups = groupsOf(all, sequence, operation.order.pinned);
  let at = 0;
  for (const [n, group] of groups.entries()) {
    const part = within(all, group);
    const prior = at > 0 ? intAt(now.order, at - 1) : -1;
    const start = prior < 0 ? from : (all.stops[prior]?.ways[intAt(now.ways, prior)]?.to ?? from);
    const search = searchOrder(part, { from: start, cost, how: 'long', begun: orderWithin(now, group) });
    for (let step = search.next(); ; step = search.next()) {
      const { order, ways } = step.done ? step.value : step.value.order;
      order.forEach((k, i) => {
        now.order[at + i] = group[k] as number;
      });
      group.forEach((i, k) => {
        now.ways[i] = intAt(ways, k);
      });
      yield {
        share: (n + (step.done ? 1 : step.value.share)) / groups.length,
        found: { of: fingerprint(all), order: [...now.order], ways: [...now.ways] },
        before,
        after: tourCost(all, now, from, cost),
      };
      if (step.done) break;
    }
    at += group.length;
  }
}

function* orderOf(part: ToOrder, { operation, from, cost, how }: OrderInput): Generator<number, Order> {
  const { by } = operation.order;
  if (by === 'rows') return byRows(part, from, cost);
  if (by === 'spread') return spreadOut(part, from, cost);
  const search = searchOrder(part, { from, cost, how });
  let step = search.next();
  for (; !step.done; step = search.next()) yield step.value.share;
  return step.value;
}

/** Goes, and what must be done before each, by number. */
type Sequence = { readonly goes: readonly Go[]; readonly first: readonly (readonly number[])[] };

/** What must be done before what: in a cut, before an outline comes whatever lies in it, since it comes off with that. */
function sequenceOf(goes: readonly Go[], isCut: boolean): Sequence {
  const first: number[][] = goes.map(() => []);
  if (!isCut) return { goes, first };
  goes.forEach(({ within }, i) => {
    first[within]?.push(i);
  });
  const pieces = goes.flatMap(({ outline }, i) => (outline ? [{ i, outline }] : []));
  const loose = goes.flatMap((go, i) => (go.outline ? [] : [{ i, go }]));
  if (pieces.length === 0 || loose.length === 0) return { goes, first };
  const index = new Flatbush(pieces.length);
  for (const { outline } of pieces) index.add(outline.box.minX, outline.box.minY, outline.box.maxX, outline.box.maxY);
  index.finish();
  const regions = new Map<number, Laid>();
  for (const { i, go } of loose) {
    const lines = laid(go.drawn.flatMap((d) => pathsToLay(d.drawable)));
    const { minX, minY, maxX, maxY } = lines.box;
    for (const k of index.search(minX, minY, maxX, maxY)) {
      const piece = pieces[k];
      if (!piece) continue;
      const region = regions.get(k) ?? laid([piece.outline.path]);
      regions.set(k, region);
      // Also what only crosses it is cut while it still lies firm.
      if (lyingTo(lines, region).how !== 'apart') first[piece.i]?.push(i);
    }
  }
  return { goes, first };
}

/** The paths of a drawable, to tell where it lies; of a dot a line as short as nothing. */
function pathsToLay(d: Drawable): readonly Path[] {
  if (d.kind !== 'dot') return drawnPaths(d);
  const { x, y } = d.at;
  return [{ closed: false, segments: [line(x, y, x + ON_MM / 10, y)] }];
}

/** Of very many goes those of a part together, as they come, what lies within before what it lies in; parts as their goes. */
function gathered({ goes, first }: Sequence): Sequence {
  if (goes.length <= LIMITS.putInOrder) return { goes, first };
  const numbers = new Map<string, number>();
  const groups = goes.map((go) => {
    const key = partsOfGo(go).join();
    const known = numbers.get(key) ?? numbers.size;
    numbers.set(key, known);
    return known;
  });
  const depth = (go: Go): number => go.outline?.depth ?? Number.POSITIVE_INFINITY;
  const together = [...numbers.values()].map((n): Go => {
    const own = goes.filter((_, i) => groups[i] === n).sort((a, b) => depth(b) - depth(a));
    return { how: 'fixed', drawn: own.flatMap((go) => go.drawn), outline: null, within: -1 };
  });
  const before = together.map(() => new Set<number>());
  first.forEach((list, i) => {
    const group = groups[i] ?? -1;
    for (const j of list) if (groups[j] !== group) before[group]?.add(groups[j] ?? -1);
  });
  return { goes: together, first: before.map((set) => [...set]) };
}

/** The nodes at which a closed path may begin. */
function nodesOf({ segments }: Path): number[] {
  const step = Math.max(1, Math.ceil(segments.length / MOST_BEGUN_AT));
  return Array.from({ length: Math.ceil(segments.length / step) }, (_, k) => k * step);
}

function stopOf({ how, drawn }: Go): Stop {
  const drawable = drawn[0]?.drawable;
  if (how === 'closed' && drawable?.kind === 'outline') {
    const { segments } = drawable.path;
    const ways = nodesOf(drawable.path).map((k): WayToRun => {
      const at = { x: segments[k]?.x0 ?? 0, y: segments[k]?.y0 ?? 0 };
      return { from: at, to: at };
    });
    return { isOpen: false, ways };
  }
  const way = endsOfAll(drawn.map((d) => d.drawable));
  if (how === 'fixed') return { isOpen: false, ways: [way] };
  return { isOpen: true, ways: [way, { from: way.to, to: way.from }] };
}

/** What is drawn of a go, begun and directed as that way of it says. */
function runAs(go: Go, way: number): readonly DrawnWork[] {
  const [one] = go.drawn;
  if (!one || way === 0) return go.drawn;
  const { drawable } = one;
  if (go.how === 'closed' && drawable.kind === 'outline') {
    const at = nodesOf(drawable.path)[way] ?? 0;
    const { segments } = drawable.path;
    const path = { ...drawable.path, segments: [...segments.slice(at), ...segments.slice(0, at)] };
    return [{ ...one, drawable: { ...drawable, path } }];
  }
  if (go.how !== 'line' || drawable.kind !== 'polyline' || 'xy' in drawable.geometry) return go.drawn;
  return [{ ...one, drawable: { ...drawable, geometry: reversePath(drawable.geometry) } }];
}

/** Groups that are run one after the other: of each part that is pinned all that must be done for it, then the rest. */
function groupsOf({ first }: ToOrder, goes: readonly Go[], pinned: readonly string[]): number[][] {
  const taken = new Set<number>();
  const withFirst = (i: number, into: number[]): void => {
    if (taken.has(i)) return;
    taken.add(i);
    for (const j of first[i] ?? []) withFirst(j, into);
    into.push(i);
  };
  const groups = pinned.map((partId) => {
    const group: number[] = [];
    goes.forEach((go, i) => {
      if (go.drawn.some((d) => d.partId === partId)) withFirst(i, group);
    });
    return group;
  });
  const rest = goes.map((_, i) => i).filter((i) => !taken.has(i));
  return [...groups, rest].filter((group) => group.length > 0);
}

/** Some of what is to be ordered by itself: what comes first from elsewhere is done by then. */
function within({ stops, first }: ToOrder, group: readonly number[]): ToOrder {
  const number = new Map(group.map((i, k) => [i, k]));
  return {
    stops: group.map((i) => stops[i] as Stop),
    first: group.map((i) => (first[i] ?? []).flatMap((j) => number.get(j) ?? [])),
  };
}
