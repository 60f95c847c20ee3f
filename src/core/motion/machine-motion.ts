/** How a machine moves, as far as time hangs on it. Lengths in mm, times in seconds. */
import type { Machine } from '../schema/shop/machine';

/** By axis, in mm a second, or a second squared. */
type ByAxis = { readonly x: number; readonly y: number };

/** The limits that a run along a path keeps to. */
export type Motion = {
  /** Speed that is asked for along the path. */
  readonly speed: number;
  /** Highest speed, and acceleration, of each axis. */
  readonly axisSpeed: ByAxis;
  readonly acceleration: ByAxis;
  /** How far a corner may be cut: the faster it is gone round the more. */
  readonly cornerMm: number;
};

/** The limits of a machine for a speed along the path. */
export const motionOf = (machine: Machine, speed: number): Motion => ({
  speed,
  axisSpeed: machine.speed,
  acceleration: machine.acceleration,
  cornerMm: machine.cornerMm,
});

/** The most that each axis allows in a direction: so that neither has more than its own. */
export const alongAxes = ({ x, y }: ByAxis, dx: number, dy: number): number =>
  Math.min(x / Math.max(Math.abs(dx), 1e-12), y / Math.max(Math.abs(dy), 1e-12));

/** Seconds of a straight move from rest to rest, over dx, dy in mm: up to speed, on at it, and down again. */
export function straightSeconds(dx: number, dy: number, { speed, axisSpeed, acceleration }: Motion): number {
  const length = Math.hypot(dx, dy);
  if (length < 1e-9) return 0;
  const [ux, uy] = [dx / length, dy / length];
  const top = Math.min(speed, alongAxes(axisSpeed, ux, uy));
  const a = alongAxes(acceleration, ux, uy);
  return length < (top * top) / a ? 2 * Math.sqrt(length / a) : length / top + top / a;
}
