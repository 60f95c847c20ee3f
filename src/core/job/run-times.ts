/** How long it takes to run an operation on the machine of a job. */
import type { Job, Operation } from '../document/schema';
import { type AreaDrawable, type Drawable, endsOf, setDowns } from '../geometry/drawable';
import { floatAt, intAt } from '../geometry/elements';
import { inkRowsOf } from '../geometry/ink-rows';
import type { Path } from '../geometry/path';
import type { Point } from '../geometry/point';
import { line } from '../geometry/segment';
import { shapeKey } from '../geometry/shape-key';
import type { Strokes } from '../geometry/strokes';
import { LIMITS } from '../limits';
import type { Memory, Stage } from '../memo';
import { alongRows, areaMotionOf, sampledRows } from '../motion/area-motion';
import { type AreaMotion, rowsRun } from '../motion/area-rows';
import { type Motion, motionOf, straightSeconds } from '../motion/machine-motion';
import { pathSeconds, runSeconds } from '../motion/run-seconds';
import type { Settings } from '../schema/shop/settings';
import type { DrawnWork } from './drawn';
import type { OrderedGo } from './ordered';

/** What an operation takes, in seconds. */
export type OperationTimes = {
  readonly working: number;
  /** Moves without working, piercing, lifting and setting down, and changing the tool before it. */
  readonly idle: number;
  readonly piercing: number;
  readonly lifting: number;
  readonly changing: number;
  /** All together, by the factor that was measured. */
  readonly seconds: number;
  readonly factor: number;
  /** How often it goes through the stock to begin a cut. */
  readonly pierces: number;
};

/** Where the tool is lifted and set down again within what is run in one go. */
function* gapsWithin(drawn: readonly Drawable[]): Generator<readonly [Point, Point]> {
  let at: Point | null = null;
  for (const d of drawn) {
    const ends = endsOf(d);
    if (!ends) continue;
    if (at) yield [at, ends.from];
    if (d.kind === 'polyline' && 'xy' in d.geometry) yield* gapsBetween(d.geometry);
    at = ends.to;
  }
}

function* gapsBetween({ xy, start }: Strokes): Generator<readonly [Point, Point]> {
  for (let k = 1; k + 1 < start.length; k++) {
    const i = 2 * intAt(start, k);
    yield [
      { x: floatAt(xy, i - 2), y: floatAt(xy, i - 1) },
      { x: floatAt(xy, i), y: floatAt(xy, i + 1) },
    ];
  }
}

type TimeContext = {
  readonly job: Job;
  readonly operation: Operation;
  readonly settings: Settings;
  readonly from: Point;
  readonly isChanged: boolean;
  readonly memory: Memory;
};

/** What the goes of an operation take on the machine; null where its speed is not known, or the machine does not go over areas. */
export function timesOf(goes: readonly OrderedGo[], context: TimeContext): OperationTimes | null {
  const { job, operation, settings, from, isChanged, memory } = context;
  const { machine } = job;
  if (!machine || settings.speed === null) return null;
  const motion = motionOf(machine, settings.speed);
  const idleMotion = motionOf(machine, machine.idleSpeed);
  const passes = settings.passes;
  let [working, idle, downs] = [0, 0, 0];
  let at = from;
  const key = JSON.stringify(motion);
  for (const { go, way, drawn, from: begin, to } of goes) {
    idle += straightSeconds(begin.x - at.x, begin.y - at.y, idleMotion);
    at = to;
    if (go.how === 'areas') {
      const seconds = areaSeconds(go.drawn, { operation, settings, job, memory });
      if (seconds === null) return null;
      working += seconds;
      continue;
    }
    const drawables = drawn.map((d) => d.drawable);
    for (const [n, d] of drawables.entries()) {
      // What is begun elsewhere is another object each time; what it was made from is not.
      const owner = go.drawn[n]?.drawable ?? d;
      working += passes * memory.of(owner, `seconds ${way} ${key}`, () => drawnSeconds(d, motion, memory));
      // A closed line is gone round again at once; to an open one the tool goes back.
      const isClosed = d.kind === 'outline' || d.kind === 'dot';
      const ends = endsOf(d);
      downs += setDowns(d) * (isClosed ? 1 : passes);
      if (!isClosed && ends)
        idle += (passes - 1) * straightSeconds(ends.to.x - ends.from.x, ends.to.y - ends.from.y, idleMotion);
    }
    for (const [p, q] of gapsWithin(drawables)) idle += straightSeconds(q.x - p.x, q.y - p.y, idleMotion);
  }
  const pierces = operation.kind === 'cut' ? downs : 0;
  const piercing = pierces * machine.pierceSeconds;
  const lifting = downs * machine.liftSeconds;
  const changing = isChanged ? machine.changeSeconds : 0;
  const factor = machine.factors[operation.kind];
  const seconds = factor * (working + idle + piercing + lifting) + changing;
  return { working, idle, piercing, lifting, changing, seconds, factor, pierces };
}

type ShapeInput = { readonly path: Path; readonly motion: Motion };

/** Seconds of a path from rest to rest. */
const PATH_SECONDS: Stage<ShapeInput, number> = {
  name: 'seconds of a path',
  key: ({ path, motion }) => `${JSON.stringify(motion)}|${shapeKey(path)}`,
  run: ({ path, motion }) => pathSeconds(path, motion),
  // The key is much longer than the result.
  weigh: (_seconds, { path }) => 8 * path.segments.length,
};

/** Seconds of what is drawn without a lift between: of each line by itself. */
function drawnSeconds(d: Drawable, motion: Motion, memory: Memory): number {
  switch (d.kind) {
    case 'outline':
      return memory.get(PATH_SECONDS, { path: d.path, motion });
    case 'dot': {
      // Round once, as fast as the slower axis allows across.
      const r = d.r ?? 0;
      const a = Math.min(motion.acceleration.x, motion.acceleration.y);
      const speed = Math.min(motion.speed, Math.sqrt(a * r));
      return r > 0 ? (2 * Math.PI * r) / speed + speed / a : 0;
    }
    case 'polyline':
      return 'xy' in d.geometry
        ? strokesSeconds(d.geometry, motion)
        : memory.get(PATH_SECONDS, { path: d.geometry, motion });
    case 'area':
      return 0;
  }
}

function strokesSeconds({ xy, start }: Strokes, motion: Motion): number {
  let seconds = 0;
  for (let k = 0; k + 1 < start.length; k++) {
    const segments = [];
    for (let i = intAt(start, k) + 1; i < intAt(start, k + 1); i++)
      segments.push(line(floatAt(xy, 2 * i - 2), floatAt(xy, 2 * i - 1), floatAt(xy, 2 * i), floatAt(xy, 2 * i + 1)));
    seconds += runSeconds(segments, motion);
  }
  return seconds;
}

type AreasInput = { readonly areas: readonly AreaDrawable[]; readonly direction: number; readonly motion: AreaMotion };

/** Seconds of going over areas together. Of very many rows every so manieth is looked at, and stands for those between. */
const AREA_SECONDS: Stage<AreasInput, number> = {
  name: 'seconds of areas',
  key: ({ areas, direction, motion }, idOf) => `${areas.map(idOf).join()}|${direction}|${JSON.stringify(motion)}`,
  run({ areas, direction, motion }) {
    const paths = areas.flatMap((area) => alongRows(area.paths, direction));
    const sampled = sampledRows(motion, paths, LIMITS.rowsTimed);
    return rowsRun(inkRowsOf(paths, sampled.step), sampled)?.seconds ?? 0;
  },
  weigh: () => 8,
};

/** Seconds of going over areas together, row by row; null where the machine does not, or the distance of rows is not known. */
function areaSeconds(
  drawn: readonly DrawnWork[],
  { operation, settings, job, memory }: Pick<TimeContext, 'operation' | 'settings' | 'job' | 'memory'>,
): number | null {
  const motion = areaMotion(job, operation, settings);
  if (!motion) return null;
  const areas = drawn.flatMap(({ drawable }) => (drawable.kind === 'area' ? [drawable] : []));
  return memory.get(AREA_SECONDS, { areas, direction: operation.scan?.direction ?? 0, motion });
}

/** How the machine of a job goes over areas in an operation; null where it does not, or its speed or the distance of rows is not known. */
export function areaMotion(
  { machine }: Pick<Job, 'machine'>,
  { scan }: Operation,
  settings: Settings,
): AreaMotion | null {
  const step = settings.rowDistance ?? scan?.interval ?? null;
  if (!machine || step === null || settings.speed === null) return null;
  const { speed, passes } = settings;
  return areaMotionOf(machine, { speed, step, passes, direction: scan?.direction ?? 0 });
}
