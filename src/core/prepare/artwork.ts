/** Brought-in artwork made ready: the groups wanted, at its size about its middle, its loose lines closed. */
import type { Artwork } from '../document/schema';
import type { Found } from '../formats/found';
import type { ClipEngine } from '../geometry/boolean/engine';
import { type Path, regionBox, transformPath } from '../geometry/path';
import { boxCentre, compose, isEmptyBox, scaling, translation } from '../geometry/point';
import type { ResultCache } from '../result-cache';
import { type Closed, closeLines, type LooseLine } from './closing/closing';
import { refitPath } from './closing/refit';
import { type Area, regionOf } from './closing/region';
import { measureOutlines, type Outline } from './outline';

/** A drawing that was brought in, by the id a job names it with. `serial` tells drawings apart. */
export type KeptDrawing = { readonly drawing: Pick<Found, 'shapes' | 'groups'>; readonly serial: number };
export type ArtworkAnswer = KeptDrawing | { readonly sentence: string };
export type ArtworkLookup = (id: string) => ArtworkAnswer;

/** About the middle of the whole drawing, in mm. */
export type PreparedArtwork = {
  readonly outlines: readonly Outline[];
  /** Lines that do not close. */
  readonly lines: readonly Path[];
  readonly closing: Pick<Closed, 'gaps' | 'doubled' | 'specks' | 'tees'>;
};

export type ArtworkCache = ResultCache<PreparedArtwork>;

export function prepareArtwork(
  engine: ClipEngine,
  { drawing, serial }: KeptDrawing,
  member: Pick<Artwork, 'groups' | 'scale' | 'close'>,
  cache: ArtworkCache,
): PreparedArtwork {
  const { groups, scale, close } = member;
  return cache.get(JSON.stringify([serial, groups, scale, close]), () => {
    const bounds = regionBox(drawing.shapes.flatMap((shape) => shape.paths));
    const middle = isEmptyBox(bounds) ? { x: 0, y: 0 } : boxCentre(bounds);
    const m = compose(translation(-middle.x, -middle.y), scaling(scale));
    const areas: Area[] = [];
    const loose: LooseLine[] = [];
    drawing.shapes.forEach((shape, i) => {
      if (groups && !groups.includes(shape.group)) return;
      const paths = shape.paths.map((path) => transformPath(path, m));
      if (shape.fill) areas.push({ paths: paths.map(shut), rule: shape.fill.rule });
      else for (const [k, path] of paths.entries()) loose.push({ key: `${i}.${k}`, path });
    });
    const closed = closeLines(loose, close);
    const { refit } = close;
    const smooth = (path: Path): Path => (refit === null ? path : refitPath(path, refit));
    for (const loop of closed.loops) areas.push({ paths: [loop], rule: 'nonzero' });
    const fitted = areas.map(({ paths, rule }): Area => ({ paths: paths.map(smooth), rule }));
    const region = regionOf(engine, fitted);
    return {
      outlines: measureOutlines(region.map((path) => ({ path, labels: path.segments.map(() => 0) }))),
      lines: closed.open.map(smooth),
      closing: { gaps: closed.gaps, doubled: closed.doubled, specks: closed.specks, tees: closed.tees },
    };
  });
}

/** What is filled is closed by a straight line. */
function shut(path: Path): Path {
  const [first, last] = [path.segments[0], path.segments[path.segments.length - 1]];
  if (path.closed || !first || !last) return path;
  if (first.x0 === last.x1 && first.y0 === last.y1) return { ...path, closed: true };
  const back = { kind: 'line' as const, x0: last.x1, y0: last.y1, x1: first.x0, y1: first.y0 };
  return { closed: true, segments: [...path.segments, back] };
}
