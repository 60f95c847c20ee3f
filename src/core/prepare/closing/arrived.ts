/**
 * Whether what was read of a drawing is on the sheet: places of each of its paths are looked for on the outlines and lines that came
 * of it, or inside them where outlines were welded. It shares nothing with how they are closed, so that a slip there is told.
 */
import { indexChords } from '../../geometry/chord-index';
import { numberAt } from '../../geometry/elements';
import { flattenPath, type Path, pathBox, pathLength } from '../../geometry/path';
import { type Box, EMPTY_BOX, type Point, uniteBoxes } from '../../geometry/point';
import { pointAt, type Segment } from '../../geometry/segment';
import { segmentLength } from '../../geometry/segment-measures';
import { windingAt } from '../../geometry/winding';

/** Paths that did not arrive whole: how many, how long together, and where. */
export type Missing = { readonly paths: number; readonly mm: number; readonly box: Box };

const NOTHING_MISSING: Missing = { paths: 0, mm: 0, box: EMPTY_BOX };

/** What came of a drawing. */
type Arrived = { readonly outlines: readonly Path[]; readonly openPaths: readonly Path[] };

/** Chords of what arrived stray from it by this, in mm. */
const CHORDS_MM = 0.005;
/** Places that are looked for of each path. */
const PLACES = 3;

/**
 * Paths of a drawing that did not arrive, or not all of them. A place counts as arrived within `within` mm of a line; segments shorter than
 * `least` mm may be cut away where ends are joined, and are not looked for.
 */
export function missingOf(paths: readonly Path[], arrived: Arrived, within: number, least: number): Missing {
  const isOn = onLines([...arrived.outlines, ...arrived.openPaths], within + CHORDS_MM);
  const isInside = ({ x, y }: Point) => arrived.outlines.reduce((sum, path) => sum + windingAt(path, x, y), 0) !== 0;
  let missing = NOTHING_MISSING;
  for (const path of paths) {
    const places = placesOf(path, least);
    if (places.every((p) => isOn(p) || isInside(p))) continue;
    missing = {
      paths: missing.paths + 1,
      mm: missing.mm + pathLength(path),
      box: uniteBoxes(missing.box, pathBox(path)),
    };
  }
  return missing;
}

/** Middles of a few segments of a path. */
function placesOf({ segments }: Path, least: number): Point[] {
  const long = segments.filter((s) => segmentLength(s) >= least);
  const step = Math.max(1, Math.floor(long.length / PLACES));
  return Array.from({ length: Math.min(PLACES, long.length) }, (_, i) => pointAt(long[i * step] as Segment, 0.5));
}

/** Whether a point lies on one of several lines. */
function onLines(paths: readonly Path[], within: number): (p: Point) => boolean {
  const xy: number[] = [];
  for (const path of paths) {
    const points = flattenPath(path, CHORDS_MM);
    const [first] = points;
    if (path.closed && first) points.push(first);
    for (let i = 1; i < points.length; i++) {
      const [p, q] = [points[i - 1] as Point, points[i] as Point];
      xy.push(p.x, p.y, q.x, q.y);
    }
  }
  const index = indexChords(xy.length / 4, (i, put) =>
    put(numberAt(xy, 4 * i), numberAt(xy, 4 * i + 1), numberAt(xy, 4 * i + 2), numberAt(xy, 4 * i + 3)),
  );
  return ({ x, y }) =>
    index.search(x - within, y - within, x + within, y + within).some((i) => {
      const [ax, ay] = [numberAt(xy, 4 * i), numberAt(xy, 4 * i + 1)];
      const [dx, dy] = [numberAt(xy, 4 * i + 2) - ax, numberAt(xy, 4 * i + 3) - ay];
      const square = dx * dx + dy * dy;
      const t = square === 0 ? 0 : Math.min(1, Math.max(0, ((x - ax) * dx + (y - ay) * dy) / square));
      return Math.hypot(ax + t * dx - x, ay + t * dy - y) <= within;
    });
}
