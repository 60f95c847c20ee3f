/** The order of all that one operation fills by lines, over all its parts. */
import type { Work } from '../document/schema';
import { type Drawable, endsOfAll, travelThrough } from '../geometry/drawable';
import type { Path } from '../geometry/path';
import { countStrokes, lengthsOf, type Strokes } from '../geometry/strokes';
import { LIMITS } from '../limits';
import { finished, type Memory, type Stage } from '../memo';
import type { OrderedFilling } from '../toolpath/hatch/hatch-within';
import { fillingsInOrder, type OfFilling } from '../toolpath/hatch/in-order';
import { searchOrder } from '../toolpath/ordering/search';
import { costInLength } from '../toolpath/ordering/stops';

/** A drawable with the part, and the kind of work on it, that it comes from. */
export type DrawnWork = { readonly partId: string; readonly what: Work['what']; readonly drawable: Drawable };

/** A filling of a part. */
export type FillingOfPart = { readonly partId: string; readonly what: Work['what']; readonly hatch: OrderedFilling };

type OrderInput = { readonly by: string; readonly fillings: readonly OrderedFilling[] };

/** Fillings of several parts in one order. */
const ORDER_OF_FILLINGS: Stage<OrderInput, readonly OfFilling[]> = {
  name: 'order of fillings',
  key: ({ fillings }, idOf) => fillings.map(idOf).join(),
  slot: ({ by }) => by,
  run: ({ fillings }) => fillingsInOrder(fillings),
  weigh: (drawn) =>
    drawn.reduce((sum, { drawable: d }) => sum + 12 + (d.kind === 'polyline' ? weighLines(d.geometry) : 0), 0),
};

const weighLines = (lines: Path | Strokes): number => ('xy' in lines ? lines.xy.length : 10 * lines.segments.length);

/** The way through what is drawn, in mm: that within packed lines is reckoned once. */
export const wayThrough = (drawn: readonly DrawnWork[], memory: Memory): number =>
  travelThrough(
    drawn.map((d) => d.drawable),
    // Lines that are moved keep where each starts in the list, and the way between them.
    (lines) => memory.of(lines.start, 'travel', () => lengthsOf(lines).travel),
  );

/** Lines of a filling. */
const linesOf = ({ strokes, overMissed, rings }: OrderedFilling): number =>
  countStrokes(strokes) + countStrokes(overMissed) + rings.length;

/** Fillings of several parts, one after the other, with the least way between them. */
function partByPart(fillings: readonly FillingOfPart[]): DrawnWork[] {
  const all = fillings.map(({ partId, what, hatch }) => hatch.drawn.map((drawable) => ({ partId, what, drawable })));
  const stops = all.map((drawn) => ({ isOpen: false, ways: [endsOfAll(drawn.map((d) => d.drawable))] }));
  const search = searchOrder(
    { stops, first: stops.map(() => []) },
    { from: { x: 0, y: 0 }, cost: costInLength, how: 'quick' },
  );
  return [...finished(search).order].flatMap((i) => all[i] ?? []);
}

/**
 * All that an operation fills, in the shorter of two orders: one over all parts, or part by part. Of very many lines it is part by part:
 * the order over all would be waited for at every move of a part.
 */
export function fillingsDrawn(by: string, fillings: readonly FillingOfPart[], memory: Memory): DrawnWork[] {
  const apart = partByPart(fillings);
  const lines = fillings.reduce((sum, { hatch }) => sum + linesOf(hatch), 0);
  if (fillings.length < 2 || lines > LIMITS.linesOrderedOverParts) return apart;
  const together = memory
    .get(ORDER_OF_FILLINGS, { by, fillings: fillings.map((f) => f.hatch) })
    .map(({ filling, drawable }): DrawnWork => {
      const { partId, what } = fillings[filling] as FillingOfPart;
      return { partId, what, drawable };
    });
  return wayThrough(together, memory) < wayThrough(apart, memory) ? together : apart;
}
