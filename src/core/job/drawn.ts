/** What each operation draws: of every part what it is asked to work, in running order. */
import type { Job, Operation, Part, StepOf, Work } from '../document/schema';
import { stepIn } from '../document/steps';
import { type AreaDrawable, type Drawable, dot, filledArea, polyline, polylines } from '../geometry/drawable';
import { type KnownNesting, nestMeasured } from '../geometry/nesting';
import { type Path, pathLength } from '../geometry/path';
import { boxesMeet, EMPTY_BOX, type Point, uniteBoxes } from '../geometry/point';
import type { Memory, Stage } from '../memo';
import type { Outline } from '../prepare/outline';
import type { PreparedPart } from '../prepare/prepared';
import type { PartFill } from '../toolpath/fill/part-fill';
import { insideFirst } from '../toolpath/order';
import { joinedRuns, nearestNext, nearestPoints } from '../toolpath/runs';
import type { PartResult } from './part-result';

/** A drawable with the part, and the kind of work on it, that it comes from. */
export type Drawn = { readonly partId: string; readonly what: Work['what']; readonly drawable: Drawable };

export type OperationResult = {
  readonly operation: Operation;
  /** In running order: areas first, then lines, then outlines, inside before outside. */
  readonly drawn: readonly Drawn[];
  /** Length of all that is drawn in mm. */
  readonly lengthMm: number;
  /** Area that is filled as a whole, in mm². */
  readonly fillMm2: number;
};

/** A dot to be set: a circle, or where `r` is null a point. */
type Dot = Point & { readonly r: number | null };

/** What works on a part come to, before it is brought into an order. */
type ToDraw = {
  readonly areas: readonly Drawn[];
  /** In the order it is to be drawn in. */
  readonly ordered: readonly Drawn[];
  /** Lines that are joined where they meet, and dots. */
  readonly lines: readonly Path[];
  readonly dots: readonly Dot[];
  readonly outlines: readonly Drawn[];
  /** Of all lines, outlines and dots together. */
  readonly lengthMm: number;
};

const areaOf = (outlines: readonly Outline[]): AreaDrawable => ({
  kind: 'area',
  paths: outlines.map((o) => o.path),
  box: outlines.reduce((box, o) => uniteBoxes(box, o.box), EMPTY_BOX),
  areaMm2: outlines.reduce((sum, o) => sum + o.area, 0),
});

/** Length of a part's outlines and open lines: the same wherever it lies, so that it is measured once. */
const lengthOf = (own: PreparedPart, memory: Memory): number =>
  memory.of(own, 'length', () =>
    [...own.outlines.map((o) => o.path), ...own.lines].reduce((sum, path) => sum + pathLength(path), 0),
  );

/** The lines that fill a part in the order they are drawn: the pass along the edge first or last. */
function fillDrawables(fill: PartFill, step: StepOf<'hatch'> | undefined): Drawable[] {
  // Closed, it could be taken for the rim of an area.
  const edge = nearestNext(fill.edge).map(({ segments }) => polyline({ segments, closed: false }));
  const isFirst = step?.outline === 'first';
  return [
    ...(isFirst ? edge : []),
    ...polylines(fill.strokes),
    ...fill.rings.map(polyline),
    ...polylines(fill.rest),
    ...(isFirst ? [] : edge),
  ];
}

type PartDrawnInput = {
  readonly part: Part;
  readonly result: PartResult;
  /** By which operation, and what of the part. */
  readonly by: string;
  readonly whats: readonly Work['what'][];
};

type PartDrawn = {
  readonly areas: readonly Drawn[];
  readonly lines: readonly Drawn[];
  readonly outlines: readonly Drawn[];
  readonly lengthMm: number;
};

const NOTHING: ToDraw = { areas: [], ordered: [], lines: [], dots: [], outlines: [], lengthMm: 0 };

/** What each kind of work draws of a part. */
const DRAWS: Readonly<Record<Work['what'], (input: PartDrawnInput, memory: Memory) => Partial<ToDraw>>> = {
  outline: ({ result }, memory) => ({
    lines: result.lines,
    outlines: result.outlines.map(
      ({ path, box }): Drawn => ({ partId: result.id, what: 'outline', drawable: { kind: 'outline', path, box } }),
    ),
    lengthMm: lengthOf(result.own, memory),
  }),
  fill: ({ result }) =>
    result.outlines.length > 0
      ? { areas: [{ partId: result.id, what: 'fill', drawable: areaOf(result.outlines) }] }
      : {},
  hatch: ({ part, result }) => {
    const { fill } = result.linework;
    return fill
      ? {
          ordered: fillDrawables(fill, stepIn(part, 'hatch')).map(
            (drawable): Drawn => ({ partId: result.id, what: 'hatch', drawable }),
          ),
          lengthMm: fill.drawnMm,
        }
      : {};
  },
  centerline: ({ part, result: { linework } }) => {
    const { lines } = linework;
    if (!lines) return {};
    const asPoints = stepIn(part, 'centerline')?.dots === 'point';
    const dots = lines.dots.map(({ x, y, r }) => ({ x, y, r: asPoints ? null : r / 2 }));
    return { lines: lines.lines, dots, lengthMm: lines.lengthMm + around(dots) };
  },
  dots: ({ part, result: { linework } }) => {
    const step = stepIn(part, 'dots');
    const r = step?.as === 'point' ? null : (step?.diameter ?? 0) / 2;
    const dots = linework.dots?.dots.map(({ x, y }) => ({ x, y, r })) ?? [];
    return { dots, lengthMm: around(dots) };
  },
};

/** Length of line around dots that are circles. */
const around = (dots: readonly Dot[]): number => dots.reduce((sum, { r }) => sum + 2 * Math.PI * (r ?? 0), 0);

/** What an operation draws of one part: its lines in long runs, the nearest next. */
const PART_DRAWN: Stage<PartDrawnInput, PartDrawn> = {
  name: 'drawn of a part',
  key: ({ result, whats }, idOf) => `${idOf(result)}|${whats.join()}`,
  slot: ({ part, by }) => `${part.id}|${by}`,
  run(input, memory) {
    const made = input.whats.map((what): ToDraw => ({ ...NOTHING, ...DRAWS[what](input, memory) }));
    const { id } = input.result;
    // Told as lines down the middle unless nothing but open lines of the outline are among them.
    const what = input.whats.find((w) => w === 'centerline' || w === 'dots') ?? 'outline';
    const drawn = (drawable: Drawable): Drawn => ({ partId: id, what, drawable });
    return {
      areas: made.flatMap((m) => m.areas),
      lines: [
        ...made.flatMap((m) => m.ordered),
        ...nearestNext(joinedRuns(made.flatMap((m) => m.lines))).map((path) => drawn(polyline(path))),
        ...nearestPoints(made.flatMap((m) => m.dots)).map((at) => drawn(dot(at, at.r))),
      ],
      outlines: made.flatMap((m) => m.outlines),
      lengthMm: made.reduce((sum, m) => sum + m.lengthMm, 0),
    };
  },
  weigh: ({ areas, lines, outlines }) => 12 * (areas.length + lines.length + outlines.length),
};

/** Kinds of work in the order their lines are put together. */
const ORDER: readonly Work['what'][] = ['outline', 'fill', 'hatch', 'centerline', 'dots'];

type OrderInput = { readonly by: string; readonly results: readonly PartResult[] };

/** Indices of the outlines of several parts, one after the other, in running order. */
const RUNNING_ORDER: Stage<OrderInput, readonly number[]> = {
  name: 'running order',
  key: ({ results }, idOf) => results.map((r) => idOf(r)).join(),
  slot: ({ by }) => by,
  run: ({ results }) =>
    insideFirst(
      results.flatMap((r) => r.outlines),
      parentsOver(results),
    ),
  weigh: (order) => order.length,
};

/** What an operation comes to over all parts that it works on. */
export function operationResult(
  operation: Operation,
  { parts }: Job,
  results: ReadonlyMap<string, PartResult>,
  memory: Memory,
): OperationResult {
  const areas: Drawn[] = [];
  const lines: Drawn[] = [];
  const outlines: Drawn[] = [];
  const outlined: PartResult[] = [];
  let lengthMm = 0;
  for (const part of parts) {
    const result = results.get(part.id);
    if (!result) continue;
    const whats = ORDER.filter((what) => part.work.some((w) => w.what === what && w.operation === operation.id));
    if (whats.length === 0) continue;
    const drawn = memory.get(PART_DRAWN, { part, result, by: operation.id, whats });
    for (const d of drawn.areas) areas.push(d);
    for (const d of drawn.lines) lines.push(d);
    for (const d of drawn.outlines) outlines.push(d);
    if (drawn.outlines.length > 0) outlined.push(result);
    lengthMm += drawn.lengthMm;
  }
  const order = outlined.length > 0 ? memory.get(RUNNING_ORDER, { by: operation.id, results: outlined }) : [];
  // Open lines come off nothing, so they are worked before anything is cut free.
  const drawn = [...areas, ...lines, ...order.map((i) => outlines[i] as Drawn)];
  return {
    operation,
    drawn,
    lengthMm,
    fillMm2: areas.reduce((sum, d) => sum + filledArea(d.drawable), 0),
  };
}

/** Nesting over the outlines of several parts, one after the other: how each part's lie in each other is known. */
function parentsOver(parts: readonly PreparedPart[]): readonly number[] {
  const known: KnownNesting[] = [];
  parts.forEach((part, group) => {
    const first = known.length;
    for (const o of part.outlines) known.push({ group, parent: o.parent < 0 ? -1 : o.parent + first });
  });
  const apart = parts.every((a, i) => parts.every((b, j) => j <= i || !boxesMeet(a.box, b.box)));
  if (apart) return known.map((o) => o.parent);
  return nestMeasured(
    parts.flatMap((part) => part.outlines),
    known,
  ).parent;
}
