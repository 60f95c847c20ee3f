/** How a machine goes over areas at a speed and a distance of rows, in whatever direction these lie. */
import { type Path, regionBox, transformPath } from '../geometry/path';
import { applyMatrix, boxHeight, type Point, rotation } from '../geometry/point';
import type { Machine } from '../schema/shop/machine';
import type { AreaMotion } from './area-rows';
import { alongAxes, type Motion, motionOf } from './machine-motion';

/** How areas are gone over: mm a second, mm from row to row, the direction of rows in degrees from level, how often. */
export type AreaSettings = {
  readonly speed: number;
  readonly step: number;
  readonly direction: number;
  readonly passes: number;
};

/** How a machine goes over areas by settings; null where it does not go over areas. */
export function areaMotionOf(machine: Machine, { speed, step, direction, passes }: AreaSettings): AreaMotion | null {
  if (!machine.areas) return null;
  const along = applyMatrix(rotation(-direction), { x: 1, y: 0 });
  const turned = (most: number): Motion => {
    const { axisSpeed, acceleration, ...motion } = motionOf(machine, most);
    return { ...motion, axisSpeed: turnedLimits(axisSpeed, along), acceleration: turnedLimits(acceleration, along) };
  };
  return {
    areas: machine.areas,
    working: turned(speed),
    idle: turned(machine.idleSpeed),
    step,
    standsFor: passes,
  };
}

/** Paths turned so that rows in a direction, in degrees, lie level. */
export const alongRows = (paths: readonly Path[], direction: number): Path[] =>
  paths.map((path) => transformPath(path, rotation(-direction)));

/** Going over paths where every so manieth row is looked at, so that there are no more than `most`. */
export function sampledRows(motion: AreaMotion, paths: readonly Path[], most: number): AreaMotion {
  const each = Math.max(1, Math.ceil(boxHeight(regionBox(paths)) / motion.step / most));
  return { ...motion, step: motion.step * each, standsFor: motion.standsFor * each };
}

/** What axes allow along rows and across them. */
const turnedLimits = (most: Motion['acceleration'], along: Point): Motion['acceleration'] => ({
  x: alongAxes(most, along.x, along.y),
  y: alongAxes(most, along.y, along.x),
});
