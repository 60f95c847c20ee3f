/**
 * Passes along edges put into the tour of lines that fill: each after all lines that end on it. An edge comes back to where it is begun,
 * so that it costs no way but there; it is begun where that is least. Of few items the order is then improved as a tour is (2-opt, Croes
 * 1958, and moving single items, Or 1976), as far as no edge comes before one of its lines.
 */
import type { Point } from '../../geometry/point';

/** Where a line or an edge of the order begins and ends; of an edge both are where it is begun. */
export type Item<L> =
  | { readonly line: L; readonly start: Point; readonly end: Point }
  | { readonly edge: number; readonly start: Point; readonly end: Point };

/** What the order of edges goes by. */
export type EdgesOf<L> = {
  /** Numbers of the edges that a line ends on. */
  readonly edgesOf: (line: L) => readonly number[];
  readonly edgeCount: number;
  /** The point of an edge that is nearest to a point. */
  readonly nearest: (edge: number, to: Point) => Point;
  /** The line drawn the other way. */
  readonly turned: (line: L) => L;
};

/** So many places after the last line that ends on an edge are tried for it at first. */
const TRIED = 400;
/** Of more items than this the order is not improved. */
const MOST_IMPROVED = 800;
const ROUNDS = 6;
/** What is gained must be at least this, in mm. */
const WORTH_MM = 1e-6;

const distance = (a: Point, b: Point): number => Math.hypot(a.x - b.x, a.y - b.y);

/** The way between the items of an order, in mm. */
export const wayThroughItems = <L>(order: readonly Item<L>[]): number =>
  order.reduce((sum, item, i) => sum + (i === 0 ? 0 : distance((order[i - 1] as Item<L>).end, item.start)), 0);

/** Lines in their order with all edges among them. */
export function withEdges<L>(
  lines: readonly (Item<L> & { readonly line: L })[],
  edges: EdgesOf<L>,
): readonly Item<L>[] {
  const items = new Improving<L>(putIn(lines, edges), edges);
  items.run();
  return items.order;
}

/** Each edge after the last line that ends on it, and from there where it costs least. */
function putIn<L>(
  lines: readonly (Item<L> & { readonly line: L })[],
  { edgesOf, edgeCount, nearest }: EdgesOf<L>,
): Item<L>[] {
  const last = new Int32Array(edgeCount).fill(-1);
  lines.forEach(({ line }, i) => {
    for (const edge of edgesOf(line)) last[edge] = i;
  });
  const after = new Map<number, Item<L>[]>();
  for (let edge = 0; edge < edgeCount; edge++) {
    const own = last[edge] as number;
    const from = Math.max(0, own);
    // An edge that no line ends on is drawn wherever it is passed.
    const to = own < 0 ? lines.length : Math.min(lines.length, from + TRIED);
    let [best, least, at]: [number, number, Point] = [-1, Number.POSITIVE_INFINITY, { x: 0, y: 0 }];
    for (let i = from; i < to && least > 0; i++) {
      const found = cheapest(lines[i], lines[i + 1], (p) => nearest(edge, p));
      if (found.more < least - WORTH_MM) [best, least, at] = [i, found.more, found.at];
    }
    after.set(best, [...(after.get(best) ?? []), { edge, start: at, end: at }]);
  }
  return [...(after.get(-1) ?? []), ...lines.flatMap((line, i) => [line, ...(after.get(i) ?? [])])];
}

/** Where an edge is begun between two items, and how much way it costs there. */
function cheapest(
  before: { readonly end: Point } | undefined,
  behind: { readonly start: Point } | undefined,
  nearest: (to: Point) => Point,
): { readonly at: Point; readonly more: number } {
  const [a, b] = [before?.end, behind?.start];
  const way = a && b ? distance(a, b) : 0;
  const cost = (at: Point) => (a ? distance(a, at) : 0) + (b ? distance(at, b) : 0) - way;
  const places = [a, b].flatMap((p) => (p ? [nearest(p)] : []));
  const [first = { x: 0, y: 0 }] = places;
  const at = places.reduce((best, p) => (cost(p) < cost(best) ? p : best), first);
  return { at, more: cost(at) };
}

/** An order of lines and edges that is made shorter step by step. */
class Improving<L> {
  /** Of each edge the place of the last line that ends on it, as last looked at; -1 for none. */
  private readonly last: Int32Array;

  constructor(
    readonly order: Item<L>[],
    private readonly edges: EdgesOf<L>,
  ) {
    this.last = new Int32Array(edges.edgeCount);
  }

  run(): void {
    if (this.order.length > MOST_IMPROVED) return;
    for (let round = 0; round < ROUNDS; round++) {
      const turned = this.turnRound();
      const moved = this.moveSingles();
      this.beginAnew();
      if (!turned && !moved) return;
    }
  }

  private look(): void {
    this.last.fill(-1);
    this.order.forEach((item, i) => {
      if ('line' in item) for (const edge of this.edges.edgesOf(item.line)) this.last[edge] = i;
    });
  }

  private way(i: number, j: number): number {
    const [a, b] = [this.order[i], this.order[j]];
    return a && b ? distance(a.end, b.start) : 0;
  }

  private turned(item: Item<L>): Item<L> {
    return 'line' in item ? { line: this.edges.turned(item.line), start: item.end, end: item.start } : item;
  }

  /** 2-opt: stretches in which no edge has one of its lines are turned round where that gains anything. */
  private turnRound(): boolean {
    const { order } = this;
    let isGained = false;
    this.look();
    for (let i = 0; i < order.length; i++)
      for (let j = i; j < order.length; j++) {
        const at = order[j] as Item<L>;
        if ('edge' in at && (this.last[at.edge] as number) >= i) break;
        const [a, b, c, d] = [order[i - 1], order[i] as Item<L>, at, order[j + 1]];
        const then = (a ? distance(a.end, c.end) : 0) + (d ? distance(b.start, d.start) : 0);
        if (this.way(i - 1, i) + this.way(j, j + 1) - then <= WORTH_MM) continue;
        const stretch = order.slice(i, j + 1).map((item) => this.turned(item));
        order.splice(i, stretch.length, ...stretch.reverse());
        this.look();
        isGained = true;
      }
    return isGained;
  }

  /** Single items are moved to where they cost less. */
  private moveSingles(): boolean {
    const { order } = this;
    let isGained = false;
    for (let i = 0; i < order.length; i++) {
      const item = order[i] as Item<L>;
      const saved = this.way(i - 1, i) + this.way(i, i + 1) - this.way(i - 1, i + 1);
      order.splice(i, 1);
      const [from, to] = this.roomFor(item);
      let [best, least, placed]: [number, number, Item<L>] = [i, saved - WORTH_MM, item];
      for (let k = from; k <= to; k++) {
        const { more, as } = this.costAt(item, k);
        if (more < least) [best, least, placed] = [k, more, as];
      }
      order.splice(best, 0, placed);
      if (placed !== item || best !== i) isGained = true;
    }
    return isGained;
  }

  /** Before which items one that was taken out may stand: an edge after its lines, a line before its edges. */
  private roomFor(item: Item<L>): readonly [number, number] {
    const { order } = this;
    const { edgesOf } = this.edges;
    if ('edge' in item) {
      const last = order.findLastIndex((other) => 'line' in other && edgesOf(other.line).includes(item.edge));
      return [last + 1, order.length];
    }
    const own = edgesOf(item.line);
    const first = own.length === 0 ? -1 : order.findIndex((other) => 'edge' in other && own.includes(other.edge));
    return [0, first < 0 ? order.length : first];
  }

  private costAt(item: Item<L>, k: number): { readonly more: number; readonly as: Item<L> } {
    const [before, behind] = [this.order[k - 1], this.order[k]];
    if ('edge' in item) {
      const { at, more } = cheapest(before, behind, (p) => this.edges.nearest(item.edge, p));
      return { more, as: { edge: item.edge, start: at, end: at } };
    }
    const way = before && behind ? distance(before.end, behind.start) : 0;
    const cost = ({ start, end }: Item<L>) =>
      (before ? distance(before.end, start) : 0) + (behind ? distance(end, behind.start) : 0) - way;
    const other = this.turned(item);
    return cost(other) < cost(item) - WORTH_MM ? { more: cost(other), as: other } : { more: cost(item), as: item };
  }

  /** Edges are begun where they cost least between what stands beside them now. */
  private beginAnew(): void {
    this.order.forEach((item, i) => {
      if (!('edge' in item)) return;
      const { at } = cheapest(this.order[i - 1], this.order[i + 1], (p) => this.edges.nearest(item.edge, p));
      const now = this.way(i - 1, i) + this.way(i, i + 1);
      const placed: Item<L> = { edge: item.edge, start: at, end: at };
      this.order[i] = placed;
      if (this.way(i - 1, i) + this.way(i, i + 1) > now) this.order[i] = item;
    });
  }
}
