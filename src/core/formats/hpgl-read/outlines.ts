/** What commands of plotter files draw at once: arcs, circles, rectangles, slices of circles, in the file’s own numbers. */
import { joinedExactly, type Path } from '../../geometry/path';
import { distance, type Point } from '../../geometry/point';
import { arcAbout, line, type Segment } from '../../geometry/segment';

/** Ends nearer than this are one, in mm: less than a step, more than what reckoning leaves. */
const SAME_MM = 1e-4;
/** Three places farther from a line than this share of their distance have a circle. */
const IN_LINE = 1e-9;

const radians = (degrees: number): number => (degrees * Math.PI) / 180;
/** Once round at most, either way. */
const upToWhole = (degrees: number): number => Math.max(-360, Math.min(360, degrees));

/** An arc in pieces of no more than half a turn; radians. */
function arcsFrom(centre: Point, radius: number, from: number, sweep: number): Segment[] {
  const pieces = Math.max(1, Math.ceil(Math.abs(sweep) / Math.PI - 1e-9));
  return Array.from({ length: pieces }, (_, i) =>
    arcAbout(centre.x, centre.y, radius, from + (sweep * i) / pieces, sweep / pieces),
  );
}

const angleAbout = (centre: Point, p: Point): number => Math.atan2(p.y - centre.y, p.x - centre.x);

/** An arc about a place from another, in degrees, counter-clockwise positive; nothing where it has no size. */
export function arcsAbout(centre: Point, from: Point, degrees: number): Segment[] {
  const radius = distance(from, centre);
  if (radius === 0 || !Number.isFinite(degrees) || degrees === 0) return [];
  return arcsFrom(centre, radius, angleAbout(centre, from), radians(upToWhole(degrees)));
}

/** An arc from a place through another to a third; straight where they are in line. */
export function arcsThrough(from: Point, through: Point, end: Point): Segment[] {
  const [bx, by, cx, cy] = [through.x - from.x, through.y - from.y, end.x - from.x, end.y - from.y];
  const d = 2 * (bx * cy - by * cx);
  const [b, c] = [bx * bx + by * by, cx * cx + cy * cy];
  const centre = { x: from.x + (cy * b - by * c) / d, y: from.y + (bx * c - cx * b) / d };
  if (!(Math.abs(d) > IN_LINE * Math.max(b, c)) || !Number.isFinite(centre.x + centre.y))
    return [line(from.x, from.y, through.x, through.y), line(through.x, through.y, end.x, end.y)];
  const start = angleAbout(centre, from);
  const turned = (to: Point) => (angleAbout(centre, to) - start + 4 * Math.PI) % (2 * Math.PI);
  // Counter-clockwise where the place between comes before the end that way round.
  const sweep = turned(through) <= turned(end) ? turned(end) : turned(end) - 2 * Math.PI;
  return arcsFrom(centre, distance(from, centre), start, sweep);
}

/** A circle from its right. */
export const circleOutline = (centre: Point, radius: number): Segment[] => arcsFrom(centre, radius, 0, 2 * Math.PI);

/** A rectangle from one corner to the opposite one. */
export const rectangleOutline = (from: Point, to: Point): Segment[] => [
  line(from.x, from.y, to.x, from.y),
  line(to.x, from.y, to.x, to.y),
  line(to.x, to.y, from.x, to.y),
  line(from.x, to.y, from.x, from.y),
];

/** A slice of a circle; degrees, from the other side where the radius is negative. Null where it has no size. */
export function wedgeOutline(
  centre: Point,
  reach: number,
  { start, sweep }: { readonly start: number; readonly sweep: number },
): Segment[] | null {
  const radius = Math.abs(reach);
  if (!(radius > 0) || !Number.isFinite(start + sweep) || sweep === 0) return null;
  const arcs = arcsFrom(centre, radius, radians(start + (reach < 0 ? 180 : 0)), radians(upToWhole(sweep)));
  if (Math.abs(sweep) >= 360) return arcs;
  const [first, last] = [arcs[0], arcs.at(-1)] as [Segment, Segment];
  return [line(centre.x, centre.y, first.x0, first.y0), ...arcs, line(last.x1, last.y1, centre.x, centre.y)];
}

/** Segments in mm as one path, closed where they end where they start. */
export function asPath(segments: readonly Segment[]): Path {
  const [first, last] = [segments[0], segments.at(-1)] as [Segment, Segment];
  const isClosed =
    Math.hypot(last.x1 - first.x0, last.y1 - first.y0) <= SAME_MM &&
    (segments.length > 2 || segments.some((s) => s.kind !== 'line'));
  return joinedExactly({ segments, closed: isClosed }, SAME_MM);
}
