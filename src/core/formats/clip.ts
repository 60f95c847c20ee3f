/** Clips of a drawing put to use: what lies outside them is cut away, exactly. */
import type { ClipEngine } from '../geometry/boolean/engine';
import { BooleanSession, FLATTEN_MM } from '../geometry/boolean/session';
import { numberAt } from '../geometry/elements';
import { type Path, pathBox, regionBox, shut } from '../geometry/path';
import { type Box, boxContains, boxesMeet, type Point } from '../geometry/point';
import { pointAt, type Segment, stepsWithin, subSegment } from '../geometry/segment';
import { crossingNear, segmentBox } from '../geometry/segment-measures';
import { windingAt } from '../geometry/winding';
import type { ReadDrawing, ReadShape } from './read-drawing';

/** A drawing that was read, with its clips carried out. */
export function withoutClips(found: ReadDrawing, engine: ClipEngine): ReadDrawing {
  if (found.clips.length === 0) return found;
  const regions = new Map<number, readonly Path[]>();
  const within = (paths: readonly Path[], rule: 'nonzero' | 'evenodd', clips: readonly number[]): Path[] => {
    const session = new BooleanSession(engine, FLATTEN_MM, true);
    let area = session.clip('union', session.add(paths.map(shut), 0), [], rule);
    for (const clip of clips) area = session.clip('intersection', area, session.add(regionOf(clip), 1));
    return session.rebuild(area).map((o) => o.path);
  };
  /** What a clip shows. Clips in clips are numbered before those that use them, so that this ends. */
  const regionOf = (clip: number): readonly Path[] => {
    const known = regions.get(clip);
    if (known) return known;
    const pieces = (found.clips[clip] ?? []).flatMap((shape) =>
      within(
        shape.paths,
        shape.rule,
        shape.clips.filter((inner) => inner < clip),
      ),
    );
    const region = within(pieces, 'nonzero', []);
    regions.set(clip, region);
    return region;
  };
  const frames = found.clips.map(frameOf);
  const shapes = found.shapes.flatMap((shape): ReadShape[] => {
    if (shape.clips.length === 0) return [shape];
    const box = regionBox(shape.paths);
    // Pages clip to their own edges; most of what is on them is not touched by that.
    const cutting = shape.clips.filter((clip) => {
      const frame = frames[clip];
      return !frame || !boxContains(frame, box);
    });
    if (cutting.length === 0) return [{ ...shape, clips: [] }];
    const clips = cutting.map(regionOf);
    const paths = shape.fill
      ? within(shape.paths, shape.fill.rule, cutting)
      : clips.reduce<readonly Path[]>(
          (clipped, region) => clipped.flatMap((path) => linesWithin(path, region)),
          shape.paths,
        );
    return paths.length === 0 ? [] : [{ ...shape, paths, clips: [] }];
  });
  return { ...found, shapes, clips: [] };
}

/** The bounds of a clip that is a level rectangle and not clipped itself; null for any other. */
function frameOf(clip: ReadDrawing['clips'][number]): Box | null {
  const [shape, ...more] = clip;
  const [path, ...others] = shape?.paths ?? [];
  if (!path || more.length > 0 || others.length > 0 || (shape?.clips.length ?? 0) > 0) return null;
  const isLevel = ({ segments }: Path) =>
    segments.length === 4 && segments.every((s) => s.kind === 'line' && (s.x0 === s.x1) !== (s.y0 === s.y1));
  return isLevel(path) ? pathBox(path) : null;
}

/** The stretches of a path within a region. A closed path that is not cut stays closed. */
export function linesWithin(path: Path, region: readonly Path[]): Path[] {
  const box = pathBox(path);
  const edges = region.filter((o) => boxesMeet(pathBox(o), box)).flatMap((o) => o.segments);
  const isInside = (p: Point) => region.reduce((sum, o) => sum + windingAt(o, p.x, p.y), 0) !== 0;
  const pieces: { segment: Segment; inside: boolean }[] = [];
  for (const s of path.segments) {
    const stops = [0, ...crossingsOf(s, edges), 1];
    for (let i = 1; i < stops.length; i++) {
      const piece = subSegment(s, numberAt(stops, i - 1), numberAt(stops, i));
      pieces.push({ segment: piece, inside: isInside(pointAt(piece, 0.5)) });
    }
  }
  if (pieces.every((p) => p.inside)) return [path];
  const runs: Segment[][] = [];
  let run: Segment[] = [];
  for (const { segment, inside } of pieces) {
    if (inside) run.push(segment);
    else if (run.length > 0) {
      runs.push(run);
      run = [];
    }
  }
  if (run.length > 0) {
    // The last run of a closed path goes on in the first.
    const goesOn = path.closed && pieces[0]?.inside && runs.length > 0;
    if (goesOn) runs[0] = [...run, ...(runs[0] as Segment[])];
    else runs.push(run);
  }
  return runs.map((segments) => ({ segments, closed: false }));
}

/** How finely curves are looked at for crossings, in mm; the crossings themselves are exact. */
const LOOK_MM = 0.05;
/** Crossings closer than this to each other, or to an end, are one, in shares of the segment. */
const APART = 1e-9;

/** Where edges cross a segment, in order. */
function crossingsOf(s: Segment, edges: readonly Segment[]): number[] {
  const box = segmentBox(s);
  const found: number[] = [];
  const n = stepsWithin(s, LOOK_MM);
  for (const edge of edges) {
    if (!boxesMeet(segmentBox(edge), box)) continue;
    const m = stepsWithin(edge, LOOK_MM);
    for (let i = 0; i < n; i++)
      for (let k = 0; k < m; k++) {
        const met = crossingNear(s, edge, (i + 0.5) / n, (k + 0.5) / m);
        if (met && met[0] > APART && met[0] < 1 - APART) found.push(met[0]);
      }
  }
  found.sort((a, b) => a - b);
  return found.filter((t, i) => i === 0 || t - numberAt(found, i - 1) > APART);
}
