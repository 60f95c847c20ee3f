/**
 * The forms a face has for a letter: each feature is asked for over that letter alone, with the text around it as it is, and what comes
 * out differently is a form.
 */
import { LIMITS } from '../limits';
import type { FaceAbout } from '../schema/face-about';
import type { FeatureUse, Typeface } from './face';
import { featuresWithin, visualRuns } from './runs';

/** A form of a letter: the feature that gives it and which of its values; '' for the usual form. */
export type LetterForm = { readonly tag: string; readonly value: number; readonly name: string };

/** A letter by where it begins in a text, and the features that hold for all of that. */
export type LetterIn = {
  readonly text: string;
  readonly at: number;
  readonly features: Readonly<Record<string, number>>;
};

/** Features that give no form of a letter: they are about pairs, or about the words as a whole. */
const NO_FORM: ReadonlySet<string> = new Set(['kern', 'liga', 'cpsp']);

/** Glyphs of a run with features, as one string. */
function glyphsOf(face: Typeface, text: string, features: readonly FeatureUse[]): string {
  return visualRuns(text)
    .map((run) =>
      face
        .shape(text.slice(run.start, run.end), run.direction, {
          ligatures: true,
          features: featuresWithin(features, run),
        })
        .map((g) => g.glyph)
        .join(),
    )
    .join('|');
}

/** The forms of the letter that begins at a place of a line, the usual one first; those that look alike once. */
export function letterForms(
  face: Typeface,
  { text, at, features }: LetterIn,
  known: FaceAbout['features'],
): LetterForm[] {
  const everywhere = Object.entries(features).map(([tag, value]): FeatureUse => ({ tag, value }));
  const length = text.codePointAt(at) === undefined ? 0 : String.fromCodePoint(text.codePointAt(at) as number).length;
  const seen = new Set([glyphsOf(face, text, everywhere)]);
  const forms: LetterForm[] = [{ tag: '', value: 0, name: 'Usual' }];
  if (length === 0) return forms;
  for (const { tag, name, forms: names } of known) {
    if (NO_FORM.has(tag)) continue;
    for (let value = 1; value <= LIMITS.faceForms; value++) {
      const use = { tag, value, from: at, to: at + length };
      const glyphs = glyphsOf(face, text, [...everywhere, use]);
      if (seen.has(glyphs)) {
        // A feature of one form gives the same for every value.
        if (value > 1 || glyphs === glyphsOf(face, text, everywhere)) break;
        continue;
      }
      seen.add(glyphs);
      forms.push({ tag, value, name: names[value - 1] ?? (value > 1 ? `${name} ${value}` : name) });
    }
  }
  return forms;
}
