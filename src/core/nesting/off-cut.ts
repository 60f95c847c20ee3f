/** Off-cuts: what is left of a sheet that things were laid on, and whether things lie on one. Corners in mm, y upwards. */
import { numberAt } from '../geometry/elements';
import { closedPath, flattenPath, type Path, pathArea } from '../geometry/path';
import type { Box } from '../geometry/point';
import { line } from '../geometry/segment';
import { windingAt } from '../geometry/winding';

type Corner = readonly [number, number];
type Corners = readonly Corner[];

/** Steps of the edge of an off-cut are no narrower than this, in mm: what is left between is of no use, and would be a comb. */
const LEAST_STEP_MM = 15;
/** A rest narrower than this is none. */
const LEAST_REST_MM = 20;
const FLAT_MM = 0.05;
/** Rounding is not sticking out, in mm. */
const ROUNDING_MM = 1e-3;

/** The outline of an off-cut as a path. */
export const offCutPath = (corners: Corners): Path =>
  closedPath(
    corners.map(([x, y], i) => {
      const [nextX, nextY] = corners[(i + 1) % corners.length] as Corner;
      return line(x, y, nextX, nextY);
    }),
  );

/** The area of an off-cut, in mm². */
export const offCutArea = (corners: Corners): number => Math.abs(pathArea(offCutPath(corners)));

/** What is left of a sheet: where its lower left corner is on that, its corners about this, its bounds and its area, in mm and mm². */
export type LeftOver = {
  readonly x: number;
  readonly y: number;
  readonly corners: [number, number][];
  readonly width: number;
  readonly height: number;
  readonly mm2: number;
};

type Step = { from: number; to: number; top: number };

/** The upper edge of what lies on a sheet, from left to right. */
function edgeOf(taken: readonly Box[], width: number): Step[] {
  const at = [...new Set([0, width, ...taken.flatMap((b) => [b.minX, b.maxX])])]
    .filter((x) => x >= 0 && x <= width)
    .sort((a, b) => a - b);
  const steps: Step[] = [];
  for (let i = 0; i + 1 < at.length; i++) {
    const [from, to] = [numberAt(at, i), numberAt(at, i + 1)];
    const top = taken.reduce((most, b) => (b.minX < to && b.maxX > from ? Math.max(most, b.maxY) : most), 0);
    const last = steps.at(-1);
    if (last?.top === top) last.to = to;
    else steps.push({ from, to, top });
  }
  return steps;
}

/** The same without narrow steps: each is raised to the lower of those beside it that are higher, or put together with what is beside it. */
function coarse(steps: readonly Step[]): Step[] {
  const all = steps.map((step) => ({ ...step }));
  for (;;) {
    const narrow = all.findIndex(({ from, to }) => to - from < LEAST_STEP_MM);
    if (narrow < 0 || all.length < 2) return all;
    const step = all[narrow] as Step;
    const beside = [all[narrow - 1], all[narrow + 1]].filter((one) => one !== undefined);
    const higher = beside.filter((one) => one.top >= step.top).sort((a, b) => a.top - b.top);
    const [into] = higher.length > 0 ? higher : beside.sort((a, b) => b.top - a.top);
    if (!into) return all;
    into.top = Math.max(into.top, step.top);
    into.from = Math.min(into.from, step.from);
    into.to = Math.max(into.to, step.to);
    all.splice(narrow, 1);
  }
}

/**
 * What is left above what lies on a sheet; null where that is too little to keep. `taken`: the bounds of what lies there, with the room that is
 * kept around it.
 */
export function leftOver(
  taken: readonly Box[],
  { width, height }: { readonly width: number; readonly height: number },
): LeftOver | null {
  // Up to a whole millimetre: nobody measures an off-cut closer.
  const steps = coarse(edgeOf(taken, width)).map((step) => ({
    ...step,
    top: Math.min(height, Math.max(0, Math.ceil(step.top - ROUNDING_MM))),
  }));
  const free = steps.filter(({ top }) => height - top >= LEAST_REST_MM);
  // The widest run of steps with room above them.
  let best: Step[] = [];
  let run: Step[] = [];
  const wide = (list: readonly Step[]) => list.reduce((sum, { from, to }) => sum + to - from, 0);
  for (const step of steps) {
    run = free.includes(step) ? [...run, step] : [];
    if (wide(run) > wide(best)) best = run;
  }
  if (wide(best) < LEAST_REST_MM) return null;
  const [x0, y0] = [(best[0] as Step).from, Math.min(...best.map(({ top }) => top))];
  const corners: [number, number][] = [];
  const add = (x: number, y: number) => {
    const last = corners.at(-1);
    if (last && last[0] === x && last[1] === y) return;
    corners.push([x, y]);
  };
  for (const { from, to, top } of best) {
    add(from - x0, top - y0);
    add(to - x0, top - y0);
  }
  const right = (best.at(-1) as Step).to - x0;
  add(right, height - y0);
  add(0, height - y0);
  return { x: x0, y: y0, corners, width: right, height: height - y0, mm2: offCutArea(corners) };
}

/** Whether outlines lie on an off-cut, with all that is within them. */
export function isOnOffCut(outlines: readonly Path[], corners: Corners): boolean {
  const edge = offCutPath(corners);
  const isBeside = (x: number, y: number) =>
    corners.some(([ax, ay], i) => {
      const [bx, by] = corners[(i + 1) % corners.length] as Corner;
      const [dx, dy] = [bx - ax, by - ay];
      const t = Math.max(0, Math.min(1, ((x - ax) * dx + (y - ay) * dy) / (dx * dx + dy * dy || 1)));
      return Math.hypot(ax + t * dx - x, ay + t * dy - y) <= ROUNDING_MM;
    });
  const isIn = (x: number, y: number) => windingAt(edge, x, y) !== 0 || isBeside(x, y);
  const hasCornerIn = (path: Path) =>
    path.closed && corners.some(([x, y]) => windingAt(path, x, y) !== 0 && !isBesidePath(path, x, y));
  return outlines.every((path) => flattenPath(path, FLAT_MM).every(({ x, y }) => isIn(x, y)) && !hasCornerIn(path));
}

const isBesidePath = (path: Path, x: number, y: number): boolean =>
  flattenPath(path, FLAT_MM).some((p) => Math.hypot(p.x - x, p.y - y) <= ROUNDING_MM);
