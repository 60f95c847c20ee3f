/** A drawing with no other kinds of curves than a machine reads: its curves made into arcs and lines, or into lines alone. */
import { pathToArcs } from '../geometry/arcs';
import { type Drawable, polyline } from '../geometry/drawable';
import { flattenPath, type Path } from '../geometry/path';
import { line } from '../geometry/segment';
import { circleAt, type Drawing, type Layer } from './drawing';

/** The kinds of curves a machine reads: all there are, arcs and lines, or lines. */
export type CurveKinds = 'curves' | 'arcs' | 'lines';

/** A drawing in the kinds of curves that are read; it strays from what it was by the tolerance of each layer at most. */
export const inCurveKinds = (drawing: Drawing, kinds: CurveKinds): Drawing =>
  kinds === 'curves'
    ? drawing
    : {
        ...drawing,
        layers: drawing.layers.map((layer) => ({ ...layer, drawn: layer.drawn.map(drawnIn(kinds, layer)) })),
      };

const drawnIn =
  (kinds: CurveKinds, { tolerance }: Layer) =>
  (d: Drawable): Drawable => {
    const made = (path: Path): Path => (kinds === 'arcs' ? asArcs(path, tolerance) : asLines(path, tolerance));
    switch (d.kind) {
      case 'outline':
        return { ...d, path: made(d.path) };
      case 'polyline':
        return 'xy' in d.geometry ? d : polyline(made(d.geometry));
      case 'area':
        return { ...d, paths: d.paths.map(made) };
      case 'dot':
        return kinds === 'lines' && d.r !== null
          ? { kind: 'outline', path: asLines(circleAt(d.at, d.r), tolerance), box: d.box }
          : d;
    }
  };

const asArcs = (path: Path, tolerance: number): Path => ({
  segments: pathToArcs(path, tolerance),
  closed: path.closed,
});

function asLines(path: Path, tolerance: number): Path {
  const points = flattenPath(path, tolerance);
  const [first] = points;
  const all = path.closed && first ? [...points, first] : points;
  return {
    segments: all.slice(1).flatMap((q, i) => {
      const p = all[i] as typeof q;
      return p.x === q.x && p.y === q.y ? [] : [line(p.x, p.y, q.x, q.y)];
    }),
    closed: path.closed,
  };
}
