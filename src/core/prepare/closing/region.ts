/**
 * Outlines put together into one clean shape. Each group is an area by itself; groups that cross are welded; one that
 * lies in another is a hole in it, and in that hole stock again.
 */
import type Flatbush from 'flatbush';
import type { ClipEngine, WindingRule } from '../../geometry/boolean/engine';
import { BooleanSession, FLATTEN_MM } from '../../geometry/boolean/session';
import { indexChords } from '../../geometry/chord-index';
import { DisjointSets } from '../../geometry/disjoint-sets';
import { numberAt } from '../../geometry/elements';
import { nestPaths } from '../../geometry/nesting';
import { flattenPath, type Path, pathArea, reversePath } from '../../geometry/path';

/** Closed paths that enclose an area together. */
export type Area = { readonly paths: readonly Path[]; readonly rule: 'nonzero' | 'evenodd' };

/** The clean region of areas as files fill them, each by its own winding rule. */
export function regionOf(engine: ClipEngine, areas: readonly Area[]): Path[] {
  const clean = areas.flatMap((area) => cleanArea(engine, area)).filter((paths) => paths.length > 0);
  const welded = weldCrossing(engine, clean);
  return layered(welded);
}

/** One area without crossings, outlines counter-clockwise, holes clockwise; a simple loop stays as it is. */
function cleanArea(engine: ClipEngine, { paths, rule }: Area): Path[][] {
  const [only] = paths;
  if (paths.length === 1 && only && !crossesItself(only)) return [[pathArea(only) < 0 ? reversePath(only) : only]];
  return [united(engine, paths, rule)];
}

function united(engine: ClipEngine, paths: readonly Path[], rule: WindingRule): Path[] {
  const session = new BooleanSession(engine, FLATTEN_MM, true);
  const polygons = session.add(paths, 0);
  return session.rebuild(session.clip('union', polygons, [], rule)).map((o) => o.path);
}

type Chord = readonly [ax: number, ay: number, bx: number, by: number];

const CHORDS_MM = 0.02;

function chordsOf(path: Path): Chord[] {
  const points = flattenPath(path, CHORDS_MM);
  return points.map((p, i) => {
    const q = points[(i + 1) % points.length] as { x: number; y: number };
    return [p.x, p.y, q.x, q.y] as const;
  });
}

const side = (ax: number, ay: number, bx: number, by: number, px: number, py: number): number =>
  (bx - ax) * (py - ay) - (by - ay) * (px - ax);

/** Whether two chords cross, not merely touch. */
const cross = ([ax, ay, bx, by]: Chord, [cx, cy, dx, dy]: Chord): boolean =>
  side(ax, ay, bx, by, cx, cy) * side(ax, ay, bx, by, dx, dy) < 0 &&
  side(cx, cy, dx, dy, ax, ay) * side(cx, cy, dx, dy, bx, by) < 0;

const indexed = (chords: readonly Chord[]): Flatbush =>
  indexChords(chords.length, (i, put) => put(...(chords[i] as Chord)));

const near = (index: Flatbush, [ax, ay, bx, by]: Chord): number[] =>
  index.search(Math.min(ax, bx), Math.min(ay, by), Math.max(ax, bx), Math.max(ay, by));

function crossesItself(path: Path): boolean {
  const chords = chordsOf(path);
  const index = indexed(chords);
  return chords.some((chord, i) => near(index, chord).some((j) => j > i + 1 && cross(chord, chords[j] as Chord)));
}

/** Areas whose edges cross are one. */
function weldCrossing(engine: ClipEngine, areas: readonly Path[][]): Path[][] {
  const chords: Chord[] = [];
  const owner: number[] = [];
  areas.forEach((paths, i) => {
    for (const chord of paths.flatMap(chordsOf)) {
      chords.push(chord);
      owner.push(i);
    }
  });
  const index = indexed(chords);
  const sets = new DisjointSets(areas.length);
  chords.forEach((chord, i) => {
    for (const j of near(index, chord)) {
      const [a, b] = [numberAt(owner, i), numberAt(owner, j)];
      if (j > i && !sets.areJoined(a, b) && cross(chord, chords[j] as Chord)) sets.join(b, a);
    }
  });
  return sets
    .gather(areas)
    .map((group) => (group.length === 1 ? (group[0] as Path[]) : united(engine, group.flat(), 'nonzero')));
}

/** Areas that lie in areas are taken out of them and added again by turns. */
function layered(areas: readonly Path[][]): Path[] {
  const paths = areas.flat();
  const owner = areas.flatMap((area, i) => area.map(() => i));
  const { parent } = nestPaths(paths);
  // How many other areas' outlines lie around a path, their holes counted off.
  const inside = (i: number): number => {
    let depth = 0;
    for (let at = numberAt(parent, i); at >= 0; at = numberAt(parent, at))
      if (owner[at] !== owner[i]) depth += pathArea(paths[at] as Path) > 0 ? 1 : -1;
    return depth;
  };
  return paths.map((path, i) => (inside(i) % 2 === 0 ? path : reversePath(path)));
}
