/** What each operation draws: of every part what it is asked to work, in running order. */
import type { Job, Operation, Part, Work } from '../document/schema';
import type { ClipEngine } from '../geometry/boolean/engine';
import { type Drawable, dot, drawnLength, filledArea, polyline } from '../geometry/drawable';
import { type KnownNesting, nestMeasured } from '../geometry/nesting';
import { pathLength } from '../geometry/path';
import { type Box, boxesMeet, EMPTY_BOX, uniteBoxes } from '../geometry/point';
import { drawnByEntries, hasLettersAlone, outlinesGiven, regionGiven } from '../kinds/letters-alone';
import { NOTHING_DRAWN, type ToDraw } from '../kinds/work';
import { isCut, WORKS, workKind } from '../kinds/works';
import type { Memory, Stage } from '../memo';
import { nestAgain, type Outline } from '../prepare/outline';
import { greedyPointOrder, joinedRuns, nearestNext } from '../toolpath/runs';
import { CUT_PATHS, type CutPath, cutLength, cutsAsked, isAsked, neighbours, reachFrom } from './cut-paths';
import { type DrawnWork, type FillingOfPart, fillingsDrawn } from './fillings';
import { besideKept, halfKerf } from './kerf-side';
import type { PartResult } from './part-result';

export type { DrawnWork } from './fillings';

/** An operation with all that it draws, in running order, and its totals. */
export type OperationResult = {
  readonly operation: Operation;
  /** All that it draws, in no order: areas first, then fillings by lines, other lines, and outlines. */
  readonly drawn: readonly DrawnWork[];
  /** The same as what is run in one go each, to be put in order; told apart by `goesKey`. */
  readonly goes: readonly Go[];
  readonly goesKey: string;
  /** How outlines are cut, where more is asked than to go along them: one for each, in no order. */
  readonly cuts: readonly CutOfPart[];
  /** The outlines that it fills with lines, of parts of which it fills not all. */
  readonly filledOnly: readonly { readonly partId: string; readonly outlines: readonly Outline[] }[];
  /** Length of all that is drawn in mm. */
  readonly lengthMm: number;
  /** Area that is filled as a whole, in mm². */
  readonly fillMm2: number;
};

/** What an operation runs in one go. */
export type Go = {
  /** `areas`: all areas together, row by row; `fixed`: as it is; `line`: from either end; `closed`: begun anywhere. */
  readonly how: 'areas' | 'fixed' | 'line' | 'closed';
  readonly drawn: readonly DrawnWork[];
  /** The closed outline along which something comes off, and of these the smallest around it, by their numbers among all goes; null and -1 for none. */
  readonly outline: Outline | null;
  readonly within: number;
};

/** The parts that something run in one go is of. */
export const partsOfGo = ({ drawn }: Pick<Go, 'drawn'>): string[] => [...new Set(drawn.map((d) => d.partId))];

/** How an outline of a part is cut, with the bounds of the outline. */
export type CutOfPart = CutPath & { readonly partId: string; readonly box: Box };

/** The outlines of a part that are cut along. */
type Cut = { readonly part: Part; readonly result: PartResult; readonly outlines: readonly Outline[] };

type PartDrawnInput = {
  readonly part: Part;
  readonly result: PartResult;
  /** By which operation, and what of the part. */
  readonly by: string;
  readonly works: readonly Work[];
  /** Half the width of the cut, in mm, where it runs beside what is kept. */
  readonly half: number;
  readonly engine: ClipEngine;
};

type PartDrawn = {
  readonly areas: readonly DrawnWork[];
  readonly fillings: readonly FillingOfPart[];
  readonly polylines: readonly DrawnWork[];
  readonly outlines: readonly DrawnWork[];
  readonly along: Along;
  /** The outlines that are filled with lines, where these are not all. */
  readonly filled: readonly Outline[] | null;
  readonly lengthMm: number;
};

/** The outlines of a part that are run along, with their bounds, and how much longer they are than its own. */
type Along = { readonly outlines: readonly Outline[]; readonly box: Box; readonly moreMm: number };
const NOTHING_ALONG: Along = { outlines: [], box: EMPTY_BOX, moreMm: 0 };

function alongOf(input: PartDrawnInput, memory: Memory): Along {
  const { engine, part, result, half } = input;
  const { outlines, box } = result;
  if (half === 0) return ourOutlines({ outlines, box, moreMm: 0 }, input);
  const beside = besideKept(engine, { part, result, half }, memory);
  const own = lengthOf(ourOutlines({ outlines, box, moreMm: 0 }, input).outlines);
  const along = ourOutlines({ outlines: beside.outlines, box: beside.box, moreMm: 0 }, input);
  return { ...along, moreMm: lengthOf(along.outlines) - own };
}

const lengthOf = (outlines: readonly Outline[]): number => outlines.reduce((sum, o) => sum + pathLength(o.path), 0);

/** Of outlines that are run along those that are given to the operation. */
function ourOutlines(along: Along, { part, result, works }: PartDrawnInput): Along {
  if (!hasLettersAlone(part.work, 'outline')) return along;
  const ours = nestAgain(outlinesGiven(along.outlines, result, { work: part.work, entries: works }));
  return { ...along, outlines: ours, box: ours.reduce((box, o) => uniteBoxes(box, o.box), EMPTY_BOX) };
}

/** What of a kind of work is given to the operation, where letters are given by themselves. */
const ofEntries = (all: ToDraw, what: Work['what'], { part, result, works }: PartDrawnInput): ToDraw =>
  drawnByEntries(all, result, {
    work: part.work.filter((w) => w.what === what),
    entries: works.filter((w) => w.what === what),
  });

/** What an operation draws of one part: its lines that fill nothing in long runs, the nearest next. */
const PART_DRAWN: Stage<PartDrawnInput, PartDrawn> = {
  name: 'drawn of a part',
  key: ({ part, result, works, half }, idOf) =>
    [
      idOf(result),
      works.map((w) => w.what).join(),
      half,
      half > 0 && part.sides.length > 0 ? JSON.stringify(part.sides) : '',
      // What others are given by themselves is left out of the rest.
      part.work.some((w) => w.only) ? JSON.stringify([works, part.work]) : '',
    ].join('|'),
  slot: ({ part, by }) => `${part.id}|${by}`,
  run(input, memory) {
    const { result, part } = input;
    const whats = WHATS.filter((what) => input.works.some((w) => w.what === what));
    const made = whats.map((what) => {
      const all = { ...NOTHING_DRAWN, ...workKind(what).toDraw(result, part.steps, memory) };
      return { what, ...(hasLettersAlone(part.work, what) ? ofEntries(all, what, input) : all) };
    });
    const drawn = (what: Work['what'], drawable: Drawable): DrawnWork => ({ partId: result.id, what, drawable });
    // Told as what a step draws unless nothing but open lines of the outline are among them.
    const bySteps = made.find((m) => workKind(m.what).draws !== null && m.polylines.length + m.dots.length > 0);
    const what = bySteps?.what ?? 'outline';
    const along = made.some((m) => m.outlines.length > 0) ? alongOf(input, memory) : NOTHING_ALONG;
    return {
      areas: made.flatMap((m) => m.areas.map((area) => drawn(m.what, area))),
      fillings: made.flatMap((m) => m.fillings.map((hatch) => ({ partId: result.id, what: m.what, hatch }))),
      polylines: [
        ...nearestNext(joinedRuns(made.flatMap((m) => m.polylines))).map((path) => drawn(what, polyline(path))),
        ...greedyPointOrder(made.flatMap((m) => m.dots)).map((at) => drawn(what, dot(at, at.r))),
      ],
      outlines: along.outlines.map(({ path, box }) => drawn('outline', { kind: 'outline', path, box })),
      along,
      filled:
        hasLettersAlone(part.work, 'hatch') && whats.includes('hatch')
          ? regionGiven(result, { work: part.work, entries: input.works }, 'hatch')
          : null,
      lengthMm: made.reduce((sum, m) => sum + m.lengthMm, 0) + along.moreMm,
    };
  },
  weigh: ({ areas, polylines: lines, outlines }) => 12 * (areas.length + lines.length + outlines.length),
};

const WHATS = WORKS.map((w) => w.what);

/** What an operation comes to over all parts that it works on. */
export function operationResult(
  operation: Operation,
  job: Job,
  results: ReadonlyMap<string, PartResult>,
  { engine, memory }: { readonly engine: ClipEngine; readonly memory: Memory },
): OperationResult {
  const { parts, sheet } = job;
  const areas: DrawnWork[] = [];
  const fillings: FillingOfPart[] = [];
  const lines: DrawnWork[] = [];
  const outlines: DrawnWork[] = [];
  const filledOnly: OperationResult['filledOnly'][number][] = [];
  const along: Along[] = [];
  const cuts: Cut[] = [];
  const keys: string[] = [];
  const half = halfKerf(operation, sheet);
  let lengthMm = 0;
  for (const part of parts) {
    const result = results.get(part.id);
    if (!result) continue;
    const works = part.work.filter((w) => w.operation === operation.id);
    if (works.length === 0) continue;
    const drawn = memory.get(PART_DRAWN, { part, result, by: operation.id, works, half, engine });
    keys.push(String(memory.idOf(drawn)));
    for (const d of drawn.areas) areas.push(d);
    for (const f of drawn.fillings) fillings.push(f);
    if (drawn.filled) filledOnly.push({ partId: part.id, outlines: drawn.filled });
    for (const d of drawn.polylines) lines.push(d);
    for (const d of drawn.outlines) outlines.push(d);
    if (drawn.outlines.length > 0) {
      along.push(drawn.along);
      cuts.push({ part, result, outlines: drawn.along.outlines });
    }
    lengthMm += drawn.lengthMm;
  }
  const filled = fillingsDrawn(operation.id, fillings, memory);
  const asAsked = cutsOf(operation, cuts, { job, results, half, memory, keys });
  const around = parentsOver(along);
  const first = (areas.length > 0 ? 1 : 0) + byPart(filled).length + lines.length;
  // A cut that found no room for its lead-in begins on the outline, which is found.
  const cutAlong = (outline: DrawnWork, i: number): Pick<Go, 'how' | 'drawn'> => {
    const cut = asAsked[i];
    if (!cut) return { how: 'closed', drawn: [outline] };
    if (cut.paths) return { how: 'fixed', drawn: cut.paths.map((path) => ({ ...outline, drawable: polyline(path) })) };
    const drawn = [{ ...outline, drawable: { ...outline.drawable, path: cut.outline } as Drawable }];
    return { how: cut.start?.byHand == null ? 'closed' : 'fixed', drawn };
  };
  const loose = { outline: null, within: -1 };
  const flat = along.flatMap((a) => a.outlines);
  const goes: Go[] = [
    ...(areas.length > 0 ? [{ ...loose, how: 'areas' as const, drawn: areas }] : []),
    ...byPart(filled).map((drawn) => ({ ...loose, how: 'fixed' as const, drawn })),
    ...lines.map((line) => ({
      ...loose,
      how: line.drawable.kind === 'dot' ? ('fixed' as const) : ('line' as const),
      drawn: [line],
    })),
    ...outlines.map((outline, i) => ({
      ...cutAlong(outline, i),
      outline: flat[i] ?? null,
      within: (around[i] ?? -1) < 0 ? -1 : first + (around[i] ?? 0),
    })),
  ];
  const drawn = goes.flatMap((go) => go.drawn);
  return {
    operation,
    drawn,
    goes,
    goesKey: keys.join('|'),
    cuts: asAsked,
    filledOnly,
    lengthMm:
      lengthMm +
      asAsked.reduce((sum, cut, i) => sum + cutLength(cut) - drawnLength((outlines[i] as DrawnWork).drawable), 0),
    fillMm2: areas.reduce((sum, d) => sum + filledArea(d.drawable), 0),
  };
}

/** What is drawn part by part: what comes one after the other of the same part together. */
function byPart(drawn: readonly DrawnWork[]): DrawnWork[][] {
  const parts = new Set(drawn.map((d) => d.partId));
  const groups = [...parts].map((id) => drawn.filter((d) => d.partId === id));
  // Several parts in one order are one.
  return groups.every((group) => contiguous(drawn, group)) ? groups : [[...drawn]];
}

const contiguous = (all: readonly DrawnWork[], group: readonly DrawnWork[]): boolean =>
  all.indexOf(group[group.length - 1] as DrawnWork) - all.indexOf(group[0] as DrawnWork) === group.length - 1;

/** How an operation cuts each outline, one part after the other; empty where nothing is asked but to go along them. */
function cutsOf(
  operation: Operation,
  cuts: readonly Cut[],
  {
    job,
    results,
    half,
    memory,
    keys,
  }: {
    readonly job: Job;
    readonly results: ReadonlyMap<string, PartResult>;
    readonly half: number;
    readonly memory: Memory;
    /** What tells how parts are cut apart is put in here. */
    readonly keys: string[];
  },
): CutOfPart[] {
  const { sheet } = job;
  const asked = cutsAsked(operation, sheet, half);
  if (operation.kind !== 'cut' || (operation.kerfSide === 'line' && !cuts.some(({ part }) => isAsked(asked, part))))
    return [];
  const nearTo = neighbours(cutParts(job, results), reachFrom(asked, sheet));
  return cuts.flatMap(({ part, result, outlines }) => {
    const near = nearTo.get(result.id) ?? [];
    const made = memory.get(CUT_PATHS, { by: operation.id, part, result, outlines, near, asked, sheet });
    keys.push(String(memory.idOf(made)));
    return made.map((cut, i) => ({ ...cut, partId: part.id, box: (outlines[i] as Outline).box }));
  });
}

/** The parts that some operation cuts out. */
function cutParts({ parts, operations }: Job, results: ReadonlyMap<string, PartResult>): PartResult[] {
  const running = operations.filter((o) => o.on);
  return parts.flatMap((part) => (isCut(part.work, running) ? (results.get(part.id) ?? []) : []));
}

/** Nesting over the outlines of several parts, one after the other: how each part's lie in each other is known. */
function parentsOver(parts: readonly Along[]): readonly number[] {
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
