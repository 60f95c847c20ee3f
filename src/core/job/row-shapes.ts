/** The shapes of rows as they are laid on sheets: of each row all parts as one thing, or those that are clear of each other by themselves. */
import type { Job } from '../document/schema';
import { DisjointSets } from '../geometry/disjoint-sets';
import { drawnPaths } from '../geometry/drawable';
import { flattenPath, type Path } from '../geometry/path';
import { boxesMeet, isEmptyBox, type Point } from '../geometry/point';
import { CHORD_STRAY_MM } from '../nesting/problem';
import { flatRing, type RingArea } from '../nesting/raster';
import type { FaceLookup } from '../prepare/prepared';
import type { FilledWith } from '../roster/fields';
import { madeFrom } from '../schema/members';
import type { Evaluator, JobResult, Progress } from './evaluate';
import { rowSteps } from './rows';

/** A row as it is laid, or some of its parts: its shape where its own job has it on the sheet. */
export type RowShape = {
  /** Tells it from all others. */
  readonly id: string;
  readonly rowId: string;
  /** Its parts, where those of the row are laid apart; empty: all of them. */
  readonly parts: readonly string[];
  /** Whether something of the row that is laid elsewhere is made from it, or it from that. */
  readonly isLinked: boolean;
  readonly areas: readonly RingArea[];
  /** Area of what is worked of it, holes taken off, in mm². */
  readonly mm2: number;
  /** Whether it is cut out of the sheet itself, so that nothing else can lie on that. */
  readonly takesSheet: boolean;
};

/** The id of the shape of a row, or of some of its parts. */
export const shapeId = (rowId: string, parts: readonly string[]): string =>
  parts[0] === undefined ? rowId : `${rowId} ${parts[0]}`;

/** Lines that have no inside, gone along there and back. */
const asLine = (points: readonly Point[]): Float64Array => flatRing([...points, ...[...points].reverse()]);

const flat = (path: Path): Point[] => flattenPath(path, CHORD_STRAY_MM);

/** The shape of some parts of what a job comes to: their outlines, and all lines that are drawn beside them. */
function shapeOfResult(
  { operations, parts: all }: JobResult,
  ids: ReadonlySet<string>,
): Pick<RowShape, 'areas' | 'mm2' | 'takesSheet'> {
  const areas: RingArea[] = [];
  let mm2 = 0;
  const own = new Set<Path>();
  const parts = all.filter((part) => ids.has(part.id));
  for (const part of parts) {
    for (const outline of part.outlines) own.add(outline.path);
    areas.push(part.outlines.map((outline) => flatRing(flat(outline.path))));
    mm2 += part.outlines.reduce((sum, outline) => sum + outline.area, 0);
  }
  for (const { operation, drawn } of operations) {
    if (!operation.on) continue;
    for (const { partId, what, drawable } of drawn) {
      // What fills outlines lies in them.
      if (!ids.has(partId) || what === 'hatch' || drawable.kind === 'area') continue;
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

/** Parts that are laid as one thing, each list in the order of the job: those whose bounds meet, and those that go along with another. */
function laidTogether({ parts }: Job, result: JobResult): string[][] {
  const worked = parts.filter((part) => !part.reference);
  const sets = new DisjointSets(worked.length);
  const boxes = worked.map((part) => result.parts.find((p) => p.id === part.id)?.size);
  worked.forEach((part, i) => {
    worked.slice(0, i).forEach((other, k) => {
      const [a, b] = [boxes[i], boxes[k]];
      const meets = a !== undefined && b !== undefined && !isEmptyBox(a) && !isEmptyBox(b) && boxesMeet(a, b);
      if (meets || part.along === other.id || other.along === part.id) sets.join(i, k);
    });
  });
  const pieces = new Map<number, string[]>();
  worked.forEach((part, i) => {
    const leader = sets.find(i);
    pieces.set(leader, [...(pieces.get(leader) ?? []), part.id]);
  });
  const [first, ...others] = [...pieces.values()].sort(
    (a, b) => parts.findIndex((p) => p.id === a[0]) - parts.findIndex((p) => p.id === b[0]),
  );
  // What is only shown goes with the first.
  const shown = parts.flatMap((part) => (part.reference ? [part.id] : []));
  return first ? [[...first, ...shown], ...others] : [];
}

/** Whether anything in these parts is made from what is in others, or the other way. */
const isLinkedOut = ({ parts }: Job, ids: readonly string[]): boolean =>
  parts.some((part) =>
    part.members.some((member) => madeFrom(member).some((of) => ids.includes(of) !== ids.includes(part.id))),
  );

/** The shapes of all rows that are made; yields how many are done. `isApart`: parts clear of each other by themselves. */
export function* rowShapes(
  job: Job,
  filling: FilledWith,
  means: { readonly evaluator: Evaluator; readonly faces: FaceLookup },
  isApart = false,
): Generator<Progress, RowShape[]> {
  const made = (job.roster?.rows ?? []).flatMap((row, nth) => (row.out ? [] : [{ row, nth }]));
  const shapes: RowShape[] = [];
  for (const [done, { row, nth }] of made.entries()) {
    const steps = rowSteps(job, nth, filling, means);
    let step = steps.next();
    for (; !step.done; step = steps.next()) yield { done, of: made.length };
    const { job: own, result } = step.value;
    const pieces = isApart ? laidTogether(own, result) : [];
    const worked = own.parts.flatMap((part) => (part.reference ? [] : [part.id]));
    // One piece is the row itself.
    for (const parts of pieces.length > 1 ? pieces : [[]])
      shapes.push({
        id: shapeId(row.id, parts),
        rowId: row.id,
        parts,
        isLinked: parts.length > 0 && isLinkedOut(own, parts),
        ...shapeOfResult(result, new Set(parts.length > 0 ? parts.filter((id) => worked.includes(id)) : worked)),
      });
    yield { done: done + 1, of: made.length };
  }
  return shapes;
}
