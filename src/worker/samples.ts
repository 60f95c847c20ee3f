/** The user's words set in every shipped face, for choosing one. */
import { pathData } from '../core/geometry/path-data';
import { isEmptyBox } from '../core/geometry/point';
import type { Progress } from '../core/job/evaluate';
import { SHIPPED_FACES } from '../core/lettering/catalogue';
import type { Typeface } from '../core/lettering/face';
import { layoutLettering, letterPaths, textLines } from '../core/lettering/layout';
import type { FaceAnswer } from '../core/prepare/prepared';

/** The user's words in one typeface, as path data; null where it can't be loaded. */
export type FaceSample = {
  readonly family: string;
  /** Path data with y downwards, or null when the face can't be used. */
  readonly d: string | null;
  /** Whether it is drawn as lines, not filled. */
  readonly isSingleStroke: boolean;
  readonly box: { readonly x: number; readonly y: number; readonly width: number; readonly height: number };
  readonly missing: readonly string[];
};

/** Characters of the user's words shown in each face. */
const SAMPLE_CHARACTERS = 28;

/** A sample in each shipped face, as `faces` has them in the same order. */
export function* samplesOf(text: string, faces: readonly FaceAnswer[]): Generator<Progress, FaceSample[]> {
  const first = textLines(text).find((line) => line.trim() !== '') ?? 'Lettering';
  const words = [...first.trim()].slice(0, SAMPLE_CHARACTERS).join('');
  const samples: FaceSample[] = [];
  for (const [i, { family }] of SHIPPED_FACES.entries()) {
    const answer = faces[i];
    const empty = { x: 0, y: 0, width: 1, height: 1 };
    samples.push(
      answer && 'typeface' in answer
        ? sampleOf(family, answer.typeface, words)
        : { family, d: null, isSingleStroke: false, box: empty, missing: [] },
    );
    yield { done: i + 1, of: SHIPPED_FACES.length };
  }
  return samples;
}

function sampleOf(family: string, face: Typeface, words: string): FaceSample {
  const layout = layoutLettering(
    { text: words, size: { by: 'capital', mm: 10 }, letterSpacing: 0, lineSpacing: 1, align: 'left' },
    face,
  );
  const paths = letterPaths(layout, face);
  const box = isEmptyBox(layout.box) ? { minX: 0, minY: 0, maxX: 1, maxY: 1 } : layout.box;
  return {
    family,
    d: pathData(paths, 0, 2),
    isSingleStroke: face.isSingleStroke,
    box: { x: box.minX, y: -box.maxY, width: box.maxX - box.minX, height: box.maxY - box.minY },
    missing: layout.missing,
  };
}
