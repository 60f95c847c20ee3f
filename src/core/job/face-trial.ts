/** What words come to in a face, before it is chosen: in how many pieces, with which islands, how thin, and what is missing. */
import type { ClipEngine } from '../geometry/boolean/engine';
import { IDENTITY } from '../geometry/point';
import { leastWidth } from '../inspect/strength';
import type { Typeface } from '../lettering/face';
import { layoutLettering } from '../lettering/layout';
import type { LetteringSpec } from '../lettering/spec';
import { piecesOf } from '../prepare/pieces';
import { weldLettering } from '../prepare/weld';

/** What words come to in a face. */
export type FaceTrial = {
  /** Pieces that the words come off in, cut as they are. */
  readonly pieces: number;
  /** Islands that would drop out, were they cut out of a plate. */
  readonly islands: number;
  /** The thinnest stroke in mm, as far as it is under what was asked about; null where it is not. */
  readonly thinnestMm: number | null;
  readonly missing: readonly string[];
  readonly broken: readonly string[];
};

/** Try words in a face. `most`: strokes are looked at up to this width, in mm; 0 for not at all. */
export function tryFace(engine: ClipEngine, face: Typeface, words: LetteringSpec, most: number): FaceTrial {
  const layout = layoutLettering(words, face);
  const [missing, broken] = [layout.missing, layout.broken].map((list) => list.map((l) => l.text)) as [
    string[],
    string[],
  ];
  if (face.isSingleStroke) return { pieces: 0, islands: 0, thinnestMm: null, missing, broken };
  const outlines = weldLettering(engine, layout, { weld: true, matrix: IDENTITY });
  return {
    pieces: piecesOf(outlines).length,
    // What lies in a hole of the words stays, when these are cut out of a plate, only as long as it is held.
    islands: outlines.filter((o) => o.depth % 2 === 1).length,
    thinnestMm: most > 0 ? leastWidth(outlines, most) : null,
    missing,
    broken,
  };
}
