/** Clipper2 in TypeScript behind the engine's interface. */
import { Clipper64, ClipType, EndType, FillRule, inflatePaths, JoinType, type Path64 } from 'clipper2-ts';
import { floatAt } from '../elements';
import { type ClipEngine, type ClipOperation, GRID_PER_MM, type TaggedPolygon, type WindingRule } from './engine';

const TYPES: Readonly<Record<ClipOperation, ClipType>> = {
  union: ClipType.Union,
  difference: ClipType.Difference,
  intersection: ClipType.Intersection,
};

const RULES: Readonly<Record<WindingRule, FillRule>> = {
  nonzero: FillRule.NonZero,
  positive: FillRule.Positive,
  evenodd: FillRule.EvenOdd,
};

function toGrid(polygon: TaggedPolygon): Path64 {
  const path: Path64 = [];
  for (let i = 0; i < polygon.length; i += 3) {
    path.push({
      x: Math.round(floatAt(polygon, i) * GRID_PER_MM),
      y: Math.round(floatAt(polygon, i + 1) * GRID_PER_MM),
      z: floatAt(polygon, i + 2),
    });
  }
  return path;
}

function fromGrid(path: Path64): TaggedPolygon {
  const polygon = new Float64Array(path.length * 3);
  path.forEach((p, i) => {
    polygon[3 * i] = p.x / GRID_PER_MM;
    polygon[3 * i + 1] = p.y / GRID_PER_MM;
    polygon[3 * i + 2] = p.z ?? 0;
  });
  return polygon;
}

/** Asked for by the clipper, and used by no round corner. */
const MITRE = 2;

/** Clipper2 in TypeScript: for where WebAssembly does not load, and to hold the other against. */
export const scriptEngine: ClipEngine = {
  name: 'clipper2-ts',
  clip(operation, subject, clip, rule) {
    const clipper = new Clipper64();
    clipper.preserveCollinear = true;
    clipper.zCallback = (_b1, _t1, _b2, _t2, point) => {
      point.z = 0;
    };
    clipper.addSubject(subject.map(toGrid));
    if (clip.length > 0) clipper.addClip(clip.map(toGrid));
    const solution: Path64[] = [];
    clipper.execute(TYPES[operation], RULES[rule], solution);
    return solution.map(fromGrid);
  },
  inflate(polygons, by, withinMm) {
    const [paths, delta, within] = [polygons.map(toGrid), by * GRID_PER_MM, withinMm * GRID_PER_MM];
    return inflatePaths(paths, delta, JoinType.Round, EndType.Polygon, MITRE, within).map(fromGrid);
  },
};
