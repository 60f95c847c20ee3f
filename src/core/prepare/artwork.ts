/** Brought-in artwork made ready: the groups wanted, at its size about its middle, its loose lines closed. */
import type { ReadDrawing } from '../formats/read-drawing';
import type { ClipEngine } from '../geometry/boolean/engine';
import { repeatsAmong } from '../geometry/doubles';
import { type Path, pathLength, regionBox, shut, transformPath } from '../geometry/path';
import { boxCentre, compose, isEmptyBox, scaling, translation } from '../geometry/point';
import { type Memory, NO_MEMORY, type Stage } from '../memo';
import type { Artwork } from '../schema/artwork';
import { type Missing, missingOf } from './closing/arrived';
import { EXACT_MM } from './closing/chains';
import { type Closed, closeLines, type LooseLine } from './closing/closing';
import { refitPath } from './closing/refit';
import { type Area, regionOf } from './closing/region';
import { measureOutlines, type Outline, weighOutlines, weighPaths } from './outline';

/** A drawing that was brought in, as a job's id names it. */
export type KeptDrawing = Pick<ReadDrawing, 'shapes' | 'groups'>;

/** A drawing that is kept, or a sentence why there is none. */
export type ArtworkAnswer = { readonly drawing: KeptDrawing } | { readonly sentence: string };

/** How kept drawings are asked for, by their ids. */
export type ArtworkLookup = (id: string) => ArtworkAnswer;

/** About the middle of the whole drawing, in mm. */
export type PreparedArtwork = {
  readonly outlines: readonly Outline[];
  /** Lines that do not close. */
  readonly openPaths: readonly Path[];
  readonly closing: Pick<Closed, 'gaps' | 'doubled' | 'specks' | 'tees'> & {
    /** Outlines that were drawn again, and are left out. */
    readonly repeated: number;
    /** Edges that two outlines have in common. */
    readonly shared: number;
    /** What was read and is not there. */
    readonly missing: Missing;
  };
};

/** What arrives lies this near to what was read, in mm: flattening and rounding. */
const NEAR_MM = 0.02;

type ArtworkInput = {
  readonly engine: ClipEngine;
  readonly drawing: KeptDrawing;
  readonly member: Pick<Artwork, 'groups' | 'scale' | 'close'>;
};

const ARTWORK: Stage<ArtworkInput, PreparedArtwork> = {
  name: 'artwork',
  key: ({ drawing, member: { groups, scale, close } }, idOf) => JSON.stringify([idOf(drawing), groups, scale, close]),
  run({ engine, drawing, member: { groups, scale, close } }) {
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
    // The same shape drawn twice would be a hole in itself.
    const { again, shared } = repeatsAmong(
      areas.map((area) => area.paths),
      close.doubles || EXACT_MM,
    );
    const fitted = areas.flatMap(({ paths, rule }, i): Area[] =>
      again.has(i) ? [] : [{ paths: paths.map(smooth), rule }],
    );
    const region = regionOf(engine, fitted);
    const outlines = measureOutlines(region.map((path) => ({ path, labels: path.segments.map(() => 0) })));
    const openPaths = closed.open.map(smooth);
    const read = [
      ...areas.slice(0, areas.length - closed.loops.length).flatMap((a) => a.paths),
      ...loose.map((l) => l.path),
    ];
    const arrived = { outlines: outlines.map((o) => o.path), openPaths };
    return {
      outlines,
      openPaths,
      closing: {
        gaps: closed.gaps,
        doubled: closed.doubled,
        specks: closed.specks,
        tees: closed.tees,
        repeated: again.size,
        shared,
        missing: missingOf(
          read.filter((path) => pathLength(path) > close.specks),
          arrived,
          NEAR_MM + close.doubles + (refit ?? 0),
          Math.max(close.gap, close.specks),
        ),
      },
    };
  },
  weigh: ({ outlines, openPaths: lines }) => weighOutlines(outlines) + weighPaths(lines),
};

/** A drawing with its loose lines closed, at its size about its middle. */
export const prepareArtwork = (
  engine: ClipEngine,
  drawing: KeptDrawing,
  member: Pick<Artwork, 'groups' | 'scale' | 'close'>,
  memory: Memory = NO_MEMORY,
): PreparedArtwork => memory.get(ARTWORK, { engine, drawing, member });
