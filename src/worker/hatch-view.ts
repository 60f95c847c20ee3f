/** What the bench shows of a filled part. */
import type { Path } from '../core/geometry/path';
import { type Box, EMPTY_BOX, uniteBoxes } from '../core/geometry/point';
import { segmentBox } from '../core/geometry/segment-measures';
import { countStrokes } from '../core/geometry/strokes';
import type { PreparedPart } from '../core/prepare/prepared';
import { liftsOf } from '../core/toolpath/hatch/hatch-lines';
import type { PartHatch } from '../core/toolpath/hatch/part-hatch';

/** The lines that fill a part, what they cover and what the tool cannot get to. */
export type HatchView = {
  readonly widthMm: number;
  readonly spacingMm: number;
  /** Polylines: x, y pairs, those of polyline i from start[i] to start[i + 1]; those of the rest of it likewise. */
  readonly xy: Float32Array;
  readonly start: Int32Array;
  readonly restXy: Float32Array;
  readonly restStart: Int32Array;
  /** Rings and the pass along the edge. */
  readonly pathsD: string;
  /** What the tool leaves once it has been everywhere it can be. */
  readonly reachedD: string;
  readonly lineCount: number;
  readonly lifts: number;
  readonly strips: number;
  readonly drawnMm: number;
  readonly travelMm: number;
  /** Shares of the area: covered; missed though within reach; out of reach. */
  readonly covered: number;
  readonly missed: number;
  readonly beyond: number;
  readonly places: number;
  readonly restStrokes: number;
  readonly tooMany: boolean;
  /** Letters by what of them is out of reach, the most first. */
  readonly letters: readonly { readonly text: string; readonly beyond: number; readonly box: Box }[];
};

/** Letters told by what is out of reach, at most. */
const MOST_LETTERS = 200;

/** Bounds of what is left of each letter or shape in the outlines. */
function letterBoxes({ outlines }: PreparedPart): Map<number, Box> {
  const boxes = new Map<number, Box>();
  for (const { path, labels } of outlines)
    path.segments.forEach((s, i) => {
      const source = labels[i] ?? -1;
      boxes.set(source, uniteBoxes(boxes.get(source) ?? EMPTY_BOX, segmentBox(s)));
    });
  return boxes;
}

/** What the bench shows of the hatch lines of a part. `print` gives the path data of one path. */
export function hatchView(part: PreparedPart, hatch: PartHatch, print: (path: Path) => string): HatchView {
  const { strokes, overMissed, cover, reach } = hatch;
  const area = Math.max(cover.area, 1e-9);
  const boxes = letterBoxes(part);
  return {
    widthMm: hatch.widthMm,
    spacingMm: hatch.spacingMm,
    xy: Float32Array.from(strokes.xy),
    start: strokes.start,
    restXy: Float32Array.from(overMissed.xy),
    restStart: overMissed.start,
    pathsD: [...hatch.rings, ...hatch.edge].map(print).join(''),
    reachedD: hatch.reached.map((o) => print(o.path)).join(''),
    lineCount: hatch.lineCount,
    lifts: liftsOf(hatch) + countStrokes(overMissed),
    strips: hatch.strips,
    drawnMm: hatch.drawnMm,
    travelMm: hatch.travelMm,
    covered: cover.covered / area,
    missed: cover.missed / area,
    beyond: reach.missedMm2 / Math.max(reach.areaMm2, 1e-9),
    places: cover.places.length,
    restStrokes: countStrokes(overMissed),
    tooMany: hatch.tooMany !== null,
    letters: reach.letters
      .filter((l) => l.areaMm2 > 0)
      .map((l) => ({
        text: part.sources[l.source]?.text ?? '',
        beyond: Math.min(1, l.missedMm2 / l.areaMm2),
        box: boxes.get(l.source) ?? part.box,
      }))
      .sort((a, b) => b.beyond - a.beyond)
      .slice(0, MOST_LETTERS),
  };
}
