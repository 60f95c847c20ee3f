/** Names of a list laid on sheets of the job's stock: by their true shapes, or in rows and columns. */
import type { Job, Roster } from '../document/schema';
import { type Box, growBox, transformedBox, translation } from '../geometry/point';
import { LIMITS } from '../limits';
import { finished } from '../memo';
import { firstLayout } from '../nesting/first';
import { improved } from '../nesting/improve';
import { type LeftOver, leftOver } from '../nesting/off-cut';
import { type NestLayout, type NestShape, type Problem, placeInMm, prepareNesting } from '../nesting/problem';
import { boundsOfAreas, flatRing, turned } from '../nesting/raster';
import { rowsAndColumns } from '../nesting/rows-columns';
import { type LayPlace, type RowLayout, turnsOf } from '../schema/layout';
import { sheetArea } from './price';
import { type RowShape, shapeId } from './row-shapes';

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
  places.flatMap(({ row, parts, turn, x, y }) => {
    const bounds = boundsOfAreas((shapes.get(shapeId(row, parts))?.areas ?? []).map((area) => turned(area, turn)));
    return bounds ? [growBox(transformedBox(bounds, translation(x, y)), roomMm)] : [];
  });

/** Height of what lies on a sheet, in mm. */
function heightOf(places: readonly LayPlace[], shapes: ReadonlyMap<string, RowShape>): number {
  let [low, high] = [Infinity, -Infinity];
  for (const { row, parts, turn, y } of places) {
    const bounds = boundsOfAreas((shapes.get(shapeId(row, parts))?.areas ?? []).map((area) => turned(area, turn)));
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
    const byId = new Map(free.map((shape) => [shape.id, shape]));
    const mm2 = places.reduce((sum, { row, parts }) => sum + (byId.get(shapeId(row, parts))?.mm2 ?? 0), 0);
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
      takesSheet: [...new Set(shapes.filter((shape) => shape.takesSheet).map((shape) => shape.rowId))],
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
        return place && box
          ? [{ row: box.row, copy: box.copy, parts: [], scale: 1, turn: 0, ...place, locked: false }]
          : [];
      }),
      tooLarge.map((i) => boxes[i]?.row ?? ''),
    );
  }
  const shapeOf = new Map(free.map((shape) => [shape.id, shape]));
  // Which parts are one piece may have changed since it was locked.
  const locked = layout.places.flatMap((place) => {
    const shape = place.locked && place.copy < copies(place.row) && shapeOf.get(shapeId(place.row, place.parts));
    return shape ? [{ ...place, parts: [...shape.parts] }] : [];
  });
  const things = thingsOf(free, { locked, copies, apart: layout.apart });
  const problem = prepareNesting(
    things.map((thing) => thing.nested),
    {
      width: sheet.width,
      height: sheet.height,
      spacing: layout.spacing,
      margin: layout.margin,
      turns: turnsOf(layout),
      usesHoles: layout.holes,
      offCut: sheet.offCut && [flatRing(sheet.offCut.map(([x, y]) => ({ x, y })))],
      lying: locked.map((place) => ({
        shape: things.findIndex((thing) => thing.shape.id === shapeId(place.row, place.parts)),
        sheet: place.sheet,
        turnDeg: place.turn,
        x: place.x,
        y: place.y,
      })),
    },
  );
  const now = (laid: NestLayout): LaidRows => {
    const laidAnew = placesOf(problem, laid, things);
    const notLaid = notLaidOf(problem, laid, things);
    if (!sheet.offCut) return say([...locked, ...laidAnew], notLaid);
    // There is one of an off-cut.
    const beyond = laidAnew.filter((place) => place.sheet > 0);
    const on = laidAnew.filter((place) => place.sheet === 0);
    return say([...locked, ...on], [...notLaid, ...beyond.map((place) => place.row)]);
  };
  const first = firstLayout(problem);
  let step = first.next();
  let shown: NestLayout | null = null;
  for (; !step.done; step = first.next()) {
    yield { share: 0, laid: step.value === shown ? null : now(step.value) };
    shown = step.value;
  }
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

/** What is laid by itself: a shape with its copies, or one copy of it where several come to one sheet. */
type Thing = { readonly shape: RowShape; readonly copies: readonly number[]; readonly nested: NestShape };

/** What there is to lay beside what is locked. */
function thingsOf(
  shapes: readonly RowShape[],
  {
    locked,
    copies,
    apart,
  }: {
    readonly locked: readonly LayPlace[];
    readonly copies: (rowId: string) => number;
    readonly apart: RowLayout['apart'];
  },
): Thing[] {
  return shapes.flatMap((shape) => {
    const { id, rowId, areas } = shape;
    const taken = new Set(locked.filter((p) => shapeId(p.row, p.parts) === id).map((p) => p.copy));
    const free = Array.from({ length: copies(rowId) }, (_, copy) => copy).filter((copy) => !taken.has(copy));
    const isGrouped = shape.parts.length > 0 && (apart === 'same-sheet' || shape.isLinked);
    const nested = (count: number, group: string | null): NestShape => ({ id, areas, copies: count, group });
    // What is locked everywhere is still told where it lies.
    if (!isGrouped || free.length === 0) return [{ shape, copies: free, nested: nested(free.length, null) }];
    return free.map((copy) => ({ shape, copies: [copy], nested: nested(1, `${rowId} ${copy}`) }));
  });
}

const placesOf = (problem: Problem, laid: NestLayout, things: readonly Thing[]): LayPlace[] =>
  problem.items.flatMap((item, i) => {
    const place = laid.places[i];
    const thing = things[item.shape];
    if (!place || !thing) return [];
    const { rowId, parts } = thing.shape;
    const { sheet, turnDeg, x, y } = placeInMm(problem, place);
    const copy = thing.copies[item.copy] ?? item.copy;
    return [
      { row: rowId, copy, parts: [...parts], sheet, scale: 1, turn: turnDeg, x: round(x), y: round(y), locked: false },
    ];
  });

const notLaidOf = (problem: Problem, laid: NestLayout, things: readonly Thing[]): string[] =>
  problem.items.flatMap((item, i) => (laid.places[i] ? [] : [things[item.shape]?.shape.rowId ?? '']));

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
