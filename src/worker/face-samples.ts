/** The user's words in a face, for choosing one, and the forms that a face has for a letter. */
import { regionBox } from '../core/geometry/path';
import { pathData } from '../core/geometry/path-data';
import { type Box, isEmptyBox } from '../core/geometry/point';
import { textLines } from '../core/lettering/draft-lines';
import type { Typeface } from '../core/lettering/face';
import { type LetterIn, letterForms } from '../core/lettering/forms';
import { layoutLettering, letterPaths } from '../core/lettering/layout';
import type { LetteringSpec } from '../core/lettering/spec';
import type { FaceAbout } from '../core/schema/face-about';

/** A few outlines as path data with y downwards, and where they lie. */
export type Shown = {
  readonly d: string;
  /** Whether they are drawn as lines, not filled. */
  readonly isSingleStroke: boolean;
  readonly box: { readonly x: number; readonly y: number; readonly width: number; readonly height: number };
};

/** The user's words in one typeface, or the sentence why it can't be used. */
export type FaceSample = (Shown & { readonly missing: readonly string[] }) | { readonly sentence: string };

/** A form that a face has for a letter: the feature that gives it, and the words with it. */
export type LetterFormView = { readonly tag: string; readonly value: number; readonly name: string } & Shown;

/** Characters of the user's words shown in each face. */
const SAMPLE_CHARACTERS = 28;

/** The words of which samples are made: the beginning of the first line that has any. */
function sampleWords(text: string): string {
  const first = textLines(text).find((line) => line.trim() !== '') ?? 'Lettering';
  return [...first.trim()].slice(0, SAMPLE_CHARACTERS).join('');
}

/** Words in a face with its features. */
export function sampleOf(face: Typeface, text: string, features: Readonly<Record<string, number>>): FaceSample {
  const layout = layoutLettering({ ...PLAIN, text: sampleWords(text), features }, face);
  return { ...shown(letterPaths(layout), layout.box, face), missing: layout.missing.map((l) => l.text) };
}

const PLAIN = {
  size: { by: 'capital', mm: 10 },
  letterSpacing: 0,
  lineSpacing: 1,
  align: 'left',
} satisfies Partial<LetteringSpec>;

function shown(paths: Parameters<typeof pathData>[0], inked: Box, { isSingleStroke }: Typeface): Shown {
  const box = isEmptyBox(inked) ? { minX: 0, minY: 0, maxX: 1, maxY: 1 } : inked;
  return {
    d: pathData(paths, 0, 2),
    isSingleStroke,
    box: { x: box.minX, y: -box.maxY, width: box.maxX - box.minX, height: box.maxY - box.minY },
  };
}

/** The forms that a face has for the letter at a place of a text, each with the line it stands in; the usual one first. */
export function formViews(
  face: Typeface,
  { text, at, features }: LetterIn,
  known: FaceAbout['features'],
): LetterFormView[] {
  const start = text.lastIndexOf('\n', at - 1) + 1;
  const end = text.indexOf('\n', at) < 0 ? text.length : text.indexOf('\n', at);
  const line = text.slice(start, end);
  return letterForms(face, { text: line, at: at - start, features }, known).map(({ tag, value, name }) => {
    const form = tag === '' ? null : { tag, value };
    const layout = layoutLettering(
      { ...PLAIN, text: line, features, letters: [{ at: at - start, dx: 0, dy: 0, turn: 0, scale: 1, form }] },
      face,
    );
    // The letter and its neighbours: what a form does to these is seen too.
    const i = layout.letters.findIndex((l) => l.start <= at - start && at - start < l.end);
    const near = layout.letters.slice(Math.max(0, i - 1), i + 2);
    const paths = letterPaths({ ...layout, letters: near });
    return { tag, value, name, ...shown(paths, regionBox(paths), face) };
  });
}
