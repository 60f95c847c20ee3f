/**
 * What a part hangs by: a hole in it, or a ring that stands on its edge. Over the middle of its weight it hangs level: a body that
 * hangs free turns until its middle of weight is straight beneath where it is held.
 */
import type { ClipEngine } from '../geometry/boolean/engine';
import { BooleanSession, FLATTEN_MM } from '../geometry/boolean/session';
import { weightOf } from '../geometry/centroid';
import { isIn, type Laid, laid, roomWithin } from '../geometry/lying';
import { transformPath } from '../geometry/path';
import { type Box, boxHeight, boxWidth, type Point, translation } from '../geometry/point';
import { boundsOf, measureOutlines, type Outline } from './outline';
import { ellipsePath } from './shape';

/** How a part is hung; lengths in mm. */
export type HangerSettings = {
  readonly by: 'hole' | 'ring';
  /** Diameter of the hole. */
  readonly width: number;
  /** Stock around the hole. */
  readonly edge: number;
  /** Where, in shares of the bounds from their lower left corner; null: over the middle of weight. */
  readonly x: number | null;
  readonly y: number | null;
};

/** Where a part hangs, in its own coordinates. */
export type Hanger = {
  /** Middle of the hole; null where there is no place for it. */
  readonly at: Point | null;
  /** Middle of weight of the part as it hangs. */
  readonly weight: Point;
  /** Bounds of the part without it, in its own coordinates wherever it lies: places by hand are shares of these. */
  readonly ownBox: Box;
  /** Whether a place by hand lies off the part, so that nothing hangs by it. */
  readonly isOff: boolean;
  /** How far it turns when it hangs free, clockwise, in degrees from -180 to 180; 0 where there is no place. */
  readonly turnDeg: number;
};

const CHORD_MM = 0.002;
/** Places are tried so many times finer than the room that is asked for, and no finer than this share of the bounds. */
const FINER = 4;
const SHARE = 1 / 240;
/** How much of its wall a ring sinks into what it stands on. */
const SINKS = 0.75;
const BISECTIONS = 30;

/** The outlines with a hole, or a ring, to hang them by, and how they hang. Material counter-clockwise; y is up. */
export function hung(
  engine: ClipEngine,
  shape: readonly Outline[],
  step: HangerSettings,
): { readonly shape: readonly Outline[]; readonly hanger: Hanger } {
  const box = boundsOf(shape);
  const before = weightOf(
    shape.map((o) => o.path),
    CHORD_MM,
  );
  const region = laid(
    shape.map((o) => o.path),
    CHORD_MM,
  );
  const at = placeFor(region, step, { box, weight: before });
  const none = { at: null, weight: { x: before.x, y: before.y }, ownBox: box, isOff: false, turnDeg: 0 };
  if (!at) return { shape, hanger: none };
  const isMet =
    isIn(at, region) || (step.by === 'ring' && roomWithin(at, region, outerRadius(step)) < outerRadius(step));
  if (!isMet) return { shape, hanger: { ...none, isOff: true } };
  const made = withHanger(engine, shape, step, at);
  const weight = weightOf(
    made.map((o) => o.path),
    CHORD_MM,
  );
  const turnDeg = (Math.atan2(weight.x - at.x, at.y - weight.y) * 180) / Math.PI;
  return { shape: made, hanger: { at, weight: { x: weight.x, y: weight.y }, ownBox: box, isOff: false, turnDeg } };
}

function withHanger(
  engine: ClipEngine,
  shape: readonly Outline[],
  { by, width, edge }: HangerSettings,
  { x, y }: Point,
): readonly Outline[] {
  const session = new BooleanSession(engine, FLATTEN_MM, true);
  const disc = (across: number) => {
    const path = transformPath(ellipsePath(across, across), translation(x, y));
    return session.addLabelled([{ path, labels: path.segments.map(() => -1) }]);
  };
  const solid = session.addLabelled(shape);
  const held = by === 'ring' ? session.clip('union', [...solid, ...disc(width + 2 * edge)]) : solid;
  return measureOutlines(session.rebuild(session.clip('difference', held, disc(width))));
}

/** Radius of a ring outside. */
const outerRadius = ({ width, edge }: HangerSettings): number => width / 2 + edge;

type Body = { readonly box: Box; readonly weight: Point };

/** The middle of the hole: where it is said, else straight over the middle of weight, else as near to that as there is a place. */
function placeFor(region: Laid, step: HangerSettings, { box, weight }: Body): Point | null {
  const { by, edge, x, y } = step;
  if (x !== null && y !== null) return { x: box.minX + x * boxWidth(box), y: box.minY + y * boxHeight(box) };
  const radius = outerRadius(step);
  const by1 = Math.max(radius / FINER, SHARE * Math.max(boxWidth(box), boxHeight(box)));
  const placeAt = (at: number): number | null =>
    by === 'hole'
      ? highestRoom(region, at, { radius, step: by1, from: Math.max(weight.y, box.minY), to: box.maxY })
      : restingOn(region, at, radius, SINKS * edge);
  const farthest = boxWidth(box) / 2;
  for (let away = 0; away <= farthest; away += by1)
    for (const at of away === 0 ? [weight.x] : [weight.x - away, weight.x + away]) {
      const high = placeAt(at);
      // What is held below the middle of its weight turns over.
      if (high !== null && high > weight.y) return { x: at, y: high };
    }
  return null;
}

/** The highest place on an upright line where a disc lies within a region; null where none does. */
function highestRoom(
  region: Laid,
  x: number,
  {
    radius,
    step,
    from,
    to,
  }: { readonly radius: number; readonly step: number; readonly from: number; readonly to: number },
): number | null {
  const room = (y: number): number => (isIn({ x, y }, region) ? roomWithin({ x, y }, region, radius) : 0);
  const enough = radius - 1e-6;
  for (let y = to - radius; y >= from; y -= step) {
    const top = mostRoom(room, y - step / 2, y + step / 2);
    if (room(top) < enough) continue;
    // Up to where the room ends.
    let [good, bad] = [top, top + step];
    for (let i = 0; i < BISECTIONS; i++) {
      const middle = (good + bad) / 2;
      if (room(middle) >= enough) good = middle;
      else bad = middle;
    }
    return good;
  }
  return null;
}

/** Where there is most room between two heights, by thirds: beside a place with room there is less of it on either side. */
function mostRoom(room: (y: number) => number, low: number, high: number): number {
  const middle = (low + high) / 2;
  // Far from any room there is nothing to climb.
  if (room(middle) === 0 && room(low) === 0 && room(high) === 0) return middle;
  let [a, b] = [low, high];
  for (let i = 0; i < BISECTIONS; i++) {
    const [p, q] = [a + (b - a) / 3, b - (b - a) / 3];
    if (room(p) < room(q)) a = p;
    else b = q;
  }
  return (a + b) / 2;
}

/** How high a disc comes to rest that is let down along an upright line, and then sinks in; null where it meets nothing. */
function restingOn({ index, chords, box }: Laid, x: number, radius: number, sinks: number): number | null {
  let highest = Number.NEGATIVE_INFINITY;
  for (const i of index.search(x - radius, box.minY, x + radius, box.maxY)) {
    const chord = chords[i];
    if (!chord) continue;
    for (const y of restsOf(chord, x, radius)) highest = Math.max(highest, y);
  }
  return highest === Number.NEGATIVE_INFINITY ? null : highest - sinks;
}

/** Heights at which a disc let down along an upright line touches a chord from above: at its ends, or along it. */
function restsOf([p, q]: readonly [Point, Point], x: number, radius: number): number[] {
  const overEnds = [p, q].flatMap((end) => {
    const dx = Math.abs(end.x - x);
    return dx <= radius ? [end.y + Math.sqrt(radius * radius - dx * dx)] : [];
  });
  const [dx, dy] = [q.x - p.x, q.y - p.y];
  const length = Math.hypot(dx, dy);
  if (length === 0 || dx === 0) return overEnds;
  // The foot of the radius that stands square on the chord, upwards.
  const up = Math.sign(dx);
  const foot = x - radius * ((-dy / length) * up);
  const t = (foot - p.x) / dx;
  return t >= 0 && t <= 1 ? [...overEnds, p.y + t * dy + radius * ((dx / length) * up)] : overEnds;
}
