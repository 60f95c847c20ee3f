/** When a machine runs what of a file: each thing from when to when, by how the machine moves and what it is set to. */
import { inkRowsOf } from '../core/geometry/ink-rows';
import type { Path } from '../core/geometry/path';
import type { Point } from '../core/geometry/point';
import { shapeKey } from '../core/geometry/shape-key';
import { LIMITS } from '../core/limits';
import { alongRows, areaMotionOf, sampledRows } from '../core/motion/area-motion';
import { rowsRun } from '../core/motion/area-rows';
import { motionOf, straightSeconds } from '../core/motion/machine-motion';
import { pathSeconds } from '../core/motion/run-seconds';
import type { Machine } from '../core/schema/shop/machine';
import { isRound, type Program, type RunItem } from './program';
import { type LayerSet, setFor } from './set';

/** A machine as it is played: how it moves, and what it is set to. */
export type Played = { readonly machine: Machine; readonly set: readonly LayerSet[] };

/** When each thing is begun and done, in seconds from the start, and how long each operation takes; null where that is not known. */
export type Run = {
  readonly begins: Float64Array;
  readonly ends: Float64Array;
  readonly operations: readonly (number | null)[];
  /** Of those that are known. */
  readonly seconds: number;
};

/** Where no speed is set, what is run is still shown, at this one, in mm a second. */
const SHOWN_AT_MM_S = 50;

/** A program as it is run, from the lower left of what is drawn. */
export function runOf({ operations, items }: Program, { machine, set }: Played): Run {
  const begins = new Float64Array(items.length);
  const ends = new Float64Array(items.length);
  const idle = motionOf(machine, machine.idleSpeed);
  // The same letters take as long anywhere.
  const known = new Map<string, number>();
  const along = (path: Path, speed: number): number => {
    const key = `${speed}|${shapeKey(path)}`;
    const seconds = known.get(key) ?? pathSeconds(path, motionOf(machine, speed));
    known.set(key, seconds);
    return seconds;
  };
  let now = 0;
  let seconds = 0;
  let at: Point = { x: 0, y: 0 };
  let tool = '';
  const taken = operations.map((operation) => {
    const began = now;
    const own = setFor(set, operation);
    const isKnown = own?.speed != null && (!operation.isFilled || machine.areas !== null);
    if (own?.tool && tool && own.tool !== tool) now += machine.changeSeconds;
    tool = own?.tool || tool;
    const factor = machine.factors[own?.kind ?? 'cut'];
    for (let i = operation.first; i < operation.end; i++) {
      const item = items[i] as RunItem;
      now += factor * straightSeconds(item.from.x - at.x, item.from.y - at.y, idle);
      begins[i] = now;
      now += factor * itemSeconds(item, own, { machine, along });
      ends[i] = now;
      at = item.to;
    }
    if (!isKnown) return null;
    seconds += now - began;
    return now - began;
  });
  return { begins, ends, operations: taken, seconds };
}

/** How long one thing takes, its piercing and lifting counted. */
function itemSeconds(
  item: RunItem,
  set: LayerSet | null,
  {
    machine,
    along: secondsAlong,
  }: { readonly machine: Machine; readonly along: (path: Path, speed: number) => number },
): number {
  const speed = set?.speed ?? SHOWN_AT_MM_S;
  const passes = set?.passes ?? 1;
  const pierce = set?.kind === 'cut' ? machine.pierceSeconds : 0;
  if (item.kind === 'areas') return areasSeconds(item, set, machine);
  if (item.kind === 'point') return passes * (pierce + machine.liftSeconds);
  const [path] = item.paths;
  if (!path) return 0;
  const along = passes * secondsAlong(path, speed);
  if (isRound(path)) return along + pierce + machine.liftSeconds;
  // To the start of an open line the tool goes back.
  const back = straightSeconds(item.to.x - item.from.x, item.to.y - item.from.y, motionOf(machine, machine.idleSpeed));
  return along + passes * (pierce + machine.liftSeconds) + (passes - 1) * back;
}

/** How far rows are apart where nothing says it, in mm. */
const SHOWN_ROWS_MM = 0.1;

function areasSeconds({ paths }: RunItem, set: LayerSet | null, machine: Machine): number {
  const direction = set?.direction ?? 0;
  const motion = areaMotionOf(machine, {
    speed: set?.speed ?? SHOWN_AT_MM_S,
    step: set?.rowDistance ?? SHOWN_ROWS_MM,
    direction,
    passes: set?.passes ?? 1,
  });
  if (!motion) return 0;
  const turned = alongRows(paths, direction);
  const sampled = sampledRows(motion, turned, LIMITS.rowsTimed);
  return rowsRun(inkRowsOf(turned, sampled.step), sampled)?.seconds ?? 0;
}
