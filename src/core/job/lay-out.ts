/** Names of a list laid on sheets of the job's stock: by their true shapes, or in rows and columns. */
import type { Job, Roster } from '../document/schema';
import { drawnPaths } from '../geometry/drawable';
import { flattenPath, type Path } from '../geometry/path';
import { type Box, growBox, type Point, transformedBox, translation } from '../geometry/point';
import { LIMITS } from '../limits';
import { finished } from '../memo';
import { firstLayout } from '../nesting/first';
import { improved } from '../nesting/improve';
import { type LeftOver, leftOver } from '../nesting/off-cut';
import { type NestLayout, type NestShape, type Problem, placeInMm, prepareNesting, STRAY_MM } from '../nesting/problem';
import { boundsOfAreas, flatRing, type RingArea, turned } from '../nesting/raster';
import { rowsAndColumns } from '../nesting/rows-columns';
import type { FaceLookup } from '../prepare/prepared';
import type { FilledWith } from '../roster/fields';
import { type LayPlace, type RowLayout, turnsOf } from '../schema/layout';
import type { Evaluator, JobResult, Progress } from './evaluate';
import { sheetArea } from './price';
import { rowSteps } from './rows';

/** A row as it is laid: its shape where its own job has it on the sheet. */
export type RowShape = {
  readonly rowId: string;
  readonly areas: readonly RingArea[];
  /** Area of what is worked of it, holes taken off, in mm². */
  readonly mm2: number;
  /** Whether it is cut out of the sheet itself, so that nothing else can lie on that. */
  readonly takesSheet: boolean;
};

/** Lines that have no inside, gone along there and back. */
const asLine = (points: readonly Point[]): Float64Array => flatRing([...points, ...[...points].reverse()]);

const flat = (path: Path): Point[] => flattenPath(path, STRAY_MM / 2);

/** The shape of what a job comes to: its outlines, and all lines that are drawn beside them. */
function shapeOfResult(job: Job, result: JobResult): Pick<RowShape, 'areas' | 'mm2' | 'takesSheet'> {
  const areas: RingArea[] = [];
  let mm2 = 0;
  const own = new Set<Path>();
  // What is shown for reference only is not there.
  const references = new Set(job.parts.flatMap((part) => (part.reference ? [part.id] : [])));
  const parts = result.parts.filter((part) => !references.has(part.id));
  for (const part of parts) {
    for (const outline of part.outlines) own.add(outline.path);
    areas.push(part.outlines.map((outline) => flatRing(flat(outline.path))));
    mm2 += part.outlines.reduce((sum, outline) => sum + outline.area, 0);
  }
  for (const { operation, drawn } of result.operations) {
    if (!operation.on) continue;
    for (const { what, drawable } of drawn) {
      // What fills outlines lies in them.
      if (what === 'hatch' || drawable.kind === 'area') continue;
      if (drawable.kind === 'dot')
        areas.push([asLine([drawable.at, { x: drawable.at.x + (drawable.r ?? 0), y: drawable.at.y }])]);
      else for (const path of drawnPaths(drawable)) if (!own.has(path)) areas.push([asLine(flat(path))]);
    }
  }
  return {
    areas: areas.filter((area) => area.length > 0),
    mm2,
    takesSheet: parts.some((part) => part.keep === 'outside'),
  };
}

/** The shapes of all rows that are made; yields how many are done. */
export function* rowShapes(
  job: Job,
  filling: FilledWith,
  means: { readonly evaluator: Evaluator; readonly faces: FaceLookup },
): Generator<Progress, RowShape[]> {
  const made = (job.roster?.rows ?? []).flatMap((row, nth) => (row.out ? [] : [{ row, nth }]));
  const shapes: RowShape[] = [];
  for (const { row, nth } of made) {
    const steps = rowSteps(job, nth, filling, means);
    let step = steps.next();
    for (; !step.done; step = steps.next()) yield { done: shapes.length, of: made.length };
    shapes.push({ rowId: row.id, ...shapeOfResult(step.value.job, step.value.result) });
    yield { done: shapes.length, of: made.length };
  }
  return shapes;
}

/** Names laid: where they lie, and what is to be said of it. */
export type LaidRows = {
  readonly places: readonly LayPlace[];
  readonly sheets: number;
  /** Share of the sheets that is needed, 0 to 1: all but what is left of the last beyond what lies on it. */
  readonly needed: number;
  /** Share of that which becomes pieces, 0 to 1. */
  readonly pieces: number;
  /** What is left of the last sheet; null where it is too little to keep, or not looked for. */
  readonly left: LeftOver | null;
  /** Rows that fit on no sheet, and those cut out of the sheet itself. */
  readonly tooLarge: readonly string[];
  readonly takesSheet: readonly string[];
};

/** Bounds of what lies on a sheet, with room around it. */
const boxesOf = (places: readonly LayPlace[], shapes: ReadonlyMap<string, RowShape>, roomMm: number): Box[] =>
  places.flatMap(({ row, turn, x, y }) => {
    const bounds = boundsOfAreas((shapes.get(row)?.areas ?? []).map((area) => turned(area, turn)));
    return bounds ? [growBox(transformedBox(bounds, translation(x, y)), roomMm)] : [];
  });

/** Height of what lies on a sheet, in mm. */
function heightOf(places: readonly LayPlace[], shapes: ReadonlyMap<string, RowShape>): number {
  let [low, high] = [Infinity, -Infinity];
  for (const { row, turn, y } of places) {
    const bounds = boundsOfAreas((shapes.get(row)?.areas ?? []).map((area) => turned(area, turn)));
    if (!bounds) continue;
    low = Math.min(low, bounds.minY + y);
    high = Math.max(high, bounds.maxY + y);
  }
  return Math.max(0, high - low);
}

/** Moves of the search that are made where nobody says, and its seed. */
const USUAL_MOVES = 2_000;
const SEED = 1;

const copiesOf = (roster: Roster, rowId: string): number => roster.rows.find((row) => row.id === rowId)?.copies ?? 1;

/**
 * Lay names on sheets, all anew but those that are locked, which rows and columns know nothing of. Yields the share of the moves made, with the layout as it is whenever that became better. `moves`: how
 * long it is made better.
 */
export function* laidOutRows(
  job: Job,
  shapes: readonly RowShape[],
  layout: RowLayout,
  { moves = USUAL_MOVES }: { readonly moves?: number } = {},
): Generator<{ readonly share: number; readonly laid: LaidRows | null }, LaidRows> {
  const { roster, sheet } = job;
  const free = shapes.filter((shape) => !shape.takesSheet && shape.areas.length > 0);
  const say = (places: LayPlace[], notLaid: readonly string[]): LaidRows => {
    const sheets = places.reduce((most, place) => Math.max(most, place.sheet + 1), 0);
    const byId = new Map(free.map((shape) => [shape.rowId, shape]));
    const mm2 = places.reduce((sum, { row }) => sum + (byId.get(row)?.mm2 ?? 0), 0);
    const onLast = places.filter((place) => place.sheet === sheets - 1);
    const { offCut } = sheet;
    const last = Math.min(1, (heightOf(onLast, byId) + 2 * layout.margin) / sheet.height);
    // Of an off-cut nothing is kept.
    const needed = sheets === 0 ? 0 : offCut ? 1 : (sheets - 1 + last) / sheets;
    return {
      places,
      sheets,
      needed,
      pieces: sheets === 0 ? 0 : mm2 / (needed * sheets * sheetArea(sheet)),
      left: sheets === 0 || offCut ? null : leftOver(boxesOf(onLast, byId, layout.spacing), sheet),
      tooLarge: [...new Set(notLaid)],
      takesSheet: shapes.filter((shape) => shape.takesSheet).map((shape) => shape.rowId),
    };
  };
  if (!roster || free.length === 0) return say([], []);
  const copies = (rowId: string) => copiesOf(roster, rowId);
  if (layout.way === 'rows') {
    const boxes = free.flatMap((shape) => {
      const bounds = boundsOfAreas(shape.areas);
      return bounds
        ? Array.from({ length: copies(shape.rowId) }, (_, copy) => ({ row: shape.rowId, copy, bounds }))
        : [];
    });
    const { laid, tooLarge } = rowsAndColumns(
      boxes.map((b) => b.bounds),
      { ...sheet, ...layout },
    );
    return say(
      laid.flatMap((place, i) => {
        const box = boxes[i];
        return place && box ? [{ row: box.row, copy: box.copy, scale: 1, turn: 0, ...place, locked: false }] : [];
      }),
      tooLarge.map((i) => boxes[i]?.row ?? ''),
    );
  }
  const isFree = new Set(free.map((shape) => shape.rowId));
  const locked = layout.places.filter((p) => p.locked && isFree.has(p.row) && p.copy < copies(p.row));
  const freeCopies = new Map(
    free.map(({ rowId }) => {
      const taken = new Set(locked.filter((p) => p.row === rowId).map((p) => p.copy));
      return [rowId, Array.from({ length: copies(rowId) }, (_, copy) => copy).filter((copy) => !taken.has(copy))];
    }),
  );
  const nestShapes: NestShape[] = free.map(({ rowId, areas }) => ({
    id: rowId,
    areas,
    copies: freeCopies.get(rowId)?.length ?? 0,
    group: null,
  }));
  const problem = prepareNesting(nestShapes, {
    width: sheet.width,
    height: sheet.height,
    spacing: layout.spacing,
    margin: layout.margin,
    turns: turnsOf(layout),
    usesHoles: layout.holes,
    offCut: sheet.offCut && [flatRing(sheet.offCut.map(([x, y]) => ({ x, y })))],
    lying: locked.map((place) => ({
      shape: free.findIndex((shape) => shape.rowId === place.row),
      sheet: place.sheet,
      turnDeg: place.turn,
      x: place.x,
      y: place.y,
    })),
  });
  const now = (laid: NestLayout): LaidRows => {
    const laidAnew = placesOf(problem, laid, nestShapes).map((place) => ({
      ...place,
      copy: freeCopies.get(place.row)?.[place.copy] ?? place.copy,
    }));
    const notLaid = notLaidOf(problem, laid, nestShapes);
    if (!sheet.offCut) return say([...locked, ...laidAnew], notLaid);
    // There is one of an off-cut.
    const beyond = laidAnew.filter((place) => place.sheet > 0);
    const on = laidAnew.filter((place) => place.sheet === 0);
    return say([...locked, ...on], [...notLaid, ...beyond.map((place) => place.row)]);
  };
  const first = firstLayout(problem);
  let step = first.next();
  for (; !step.done; step = first.next()) yield { share: 0, laid: null };
  yield { share: 0, laid: now(step.value) };
  let best = step.value;
  const search = improved(problem, best, { moves, seed: SEED });
  for (let turn = search.next(); ; turn = search.next()) {
    if (turn.done) return now(turn.value);
    if (turn.value.better) best = turn.value.better;
    yield { share: Math.min(1, turn.value.moves / moves), laid: turn.value.better ? now(best) : null };
  }
}

/** Digits of places: a thousandth of a millimetre. */
const round = (mm: number): number => Math.round(mm * 1e3) / 1e3;

const placesOf = (problem: Problem, laid: NestLayout, shapes: readonly NestShape[]): LayPlace[] =>
  problem.items.flatMap((item, i) => {
    const place = laid.places[i];
    const shape = shapes[item.shape];
    if (!place || !shape) return [];
    const { sheet, turnDeg, x, y } = placeInMm(problem, place);
    return [
      { row: shape.id, copy: item.copy, sheet, scale: 1, turn: turnDeg, x: round(x), y: round(y), locked: false },
    ];
  });

const notLaidOf = (problem: Problem, laid: NestLayout, shapes: readonly NestShape[]): string[] =>
  problem.items.flatMap((item, i) => (laid.places[i] ? [] : [shapes[item.shape]?.id ?? '']));

/** As many copies of one row as a sheet holds: how many, and where they lie. */
export type FilledSheet = { readonly copies: number; readonly places: readonly LayPlace[] };

/** Lay as many copies of a row as go on one sheet. */
export function filledSheet(job: Job, shape: RowShape, layout: RowLayout): FilledSheet {
  const { width, height } = job.sheet;
  // No more than by their area alone.
  const most = Math.min(LIMITS.copiesOfRow, Math.max(1, Math.ceil((width * height) / Math.max(1, shape.mm2))));
  const row = job.roster?.rows.find((r) => r.id === shape.rowId);
  if (!row) return { copies: 0, places: [] };
  const many: Job = { ...job, roster: { columns: job.roster?.columns ?? [], rows: [{ ...row, copies: most }] } };
  const { places } = finished(laidOutRows(many, [shape], layout, { moves: 0 }));
  const onFirst = places.filter((place) => place.sheet === 0).map((place, copy) => ({ ...place, copy }));
  return { copies: onFirst.length, places: onFirst };
}
