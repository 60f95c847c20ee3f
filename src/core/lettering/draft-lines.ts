/** The lines of lettering, each set by itself: in its own typeface, size and spacing, and made as wide as the widest. */
import type { Memory } from '../memo';
import type { LetterChange } from '../schema/lettering';
import type { FeatureUse, Typeface } from './face';
import { setLine } from './line';
import { inkWidth, type SetLine } from './set-letter';
import type { EvenLines, LetteringSpec } from './spec';

/** One line with how it was set. Its units are those of the lettering: font units of the lettering's own face. */
export type DraftLine = {
  readonly text: string;
  /** Where it starts in the text. */
  readonly offset: number;
  readonly face: Typeface;
  readonly set: SetLine;
  /** Height of its capitals, and of a line of its face. */
  readonly capital: number;
  readonly height: number;
  /** Distance to the line above, as a multiple of what the typefaces have. */
  readonly lineSpacing: number;
  /** Tells lines of the same text apart that are set differently. */
  readonly setting: string;
};

/** What lines are set with: the lettering's own face, that of each line, and mm per unit. */
export type LineFaces = { readonly face: Typeface; readonly ofLine: (line: number) => Typeface };

/** Rounds of setting until the width is settled, and how well. */
const ROUNDS = 8;
const SETTLED = 1e-7;
/** Overlaps are at most this share of the capital height. */
const MOST_OVERLAP = 0.5;

/** The lines of a text, whichever way its lines end. */
export const textLines = (text: string): string[] => text.replace(/\r\n?/g, '\n').split('\n');

/** The overlap asked for between letters whose capitals are so high, in the lettering's units. */
export const overlapIn = (overlapMm: number, capital: number, scale: number): number =>
  Math.min(overlapMm / scale, MOST_OVERLAP * capital);

/** How wide a line is set, against what its own size and spacing give. */
type Widening = { readonly size: number; readonly extra: number };
type Make = (widening: Widening) => DraftLine & { readonly widening: Widening };

/** Set the lines, not yet one under the other. `scale`: mm per font unit of the lettering's own face. */
export function draftLines(spec: LetteringSpec, faces: LineFaces, scale: number, memory: Memory): DraftLine[] {
  const everywhere = featuresOf(spec.features);
  let offset = 0;
  const bare = textLines(spec.text).map((text, line) => {
    const start = offset;
    offset += text.length + 1;
    const make = maker(spec, faces, { text, line, start, everywhere, scale, memory });
    return { make, draft: make({ size: 1, extra: 0 }) };
  });
  const even = spec.evenLines ?? 'no';
  if (even === 'no') return bare.map((b) => b.draft);
  const target = Math.max(0, ...bare.map((b) => inkWidth(b.draft.set)));
  return bare.map(({ make, draft }) => widened(make, draft, target, spec.closeUp ? 'size' : even));
}

function maker(
  spec: LetteringSpec,
  faces: LineFaces,
  {
    text,
    line,
    start,
    everywhere,
    scale,
    memory,
  }: {
    readonly text: string;
    readonly line: number;
    readonly start: number;
    readonly everywhere: readonly FeatureUse[];
    readonly scale: number;
    readonly memory: Memory;
  },
): Make {
  const own = spec.lines?.find((l) => l.line === line);
  const face = faces.ofLine(line);
  // Capitals of the same size are equally high, whatever units their faces are drawn in.
  const factor = ((own?.scale ?? 1) * faces.face.capHeight) / face.capHeight;
  const capital = factor * face.capHeight;
  const changes = (spec.letters ?? [])
    .filter((c) => c.at >= start && c.at < start + text.length)
    .map((c) => ({ ...c, at: c.at - start }));
  const features = [...(own?.face ? featuresOf(own.face.features) : everywhere), ...formsOf(changes)];
  const spacing = (own?.letterSpacing ?? spec.letterSpacing) * face.capHeight;
  // Lines have no ink to overlap with.
  const closeUp =
    spec.closeUp && !face.isSingleStroke
      ? {
          overlap: overlapIn(spec.closeUp.overlap, capital, scale),
          words: spec.closeUp.words,
          capital,
          joints: spec.closeUp.joints ?? 'overlap',
          pairs: (spec.closeUp.pairs ?? []).map((p) => (p.at === null ? p : { ...p, at: p.at - start })),
        }
      : null;
  return (widening) => {
    const settings = { spacing: spacing + widening.extra, scale: widening.size * factor, closeUp, changes, features };
    const isPlain = settings.scale === 1 && widening.extra === 0 && !closeUp;
    return {
      text,
      offset: start,
      face,
      set: setLine(text, face, settings, memory),
      capital: capital * widening.size,
      height: (face.ascent - face.descent + face.lineGap) * factor * widening.size,
      lineSpacing: own?.lineSpacing ?? spec.lineSpacing,
      widening,
      setting: isPlain && changes.length === 0 && features.length === 0 ? `${spacing}` : JSON.stringify(settings),
    };
  };
}

const featuresOf = (features: LetteringSpec['features']): FeatureUse[] =>
  Object.entries(features ?? {}).map(([tag, value]) => ({ tag, value }));

/** The other forms that single letters are set in. */
const formsOf = (changes: readonly LetterChange[]): FeatureUse[] =>
  changes.flatMap(({ at, form }) => (form ? { tag: form.tag, value: form.value, from: at, to: at + 1 } : []));

/** A line made as wide as asked, by its size, by its spacing, or half by each. */
function widened(make: Make, draft: DraftLine, target: number, by: Exclude<EvenLines, 'no'>): DraftLine {
  const width = inkWidth(draft.set);
  const gaps = draft.set.letters.length - 1;
  if (width === 0 || width >= target * (1 - SETTLED)) return draft;
  const ratio = target / width;
  const size = by === 'spacing' && gaps > 0 ? 1 : by === 'both' && gaps > 0 ? Math.sqrt(ratio) : ratio;
  let made = make({ size, extra: 0 });
  let extra = 0;
  const factor = draft.capital / draft.face.capHeight;
  // Spacing switches ligatures off, which changes the width once more.
  for (let round = 0; round < ROUNDS; round++) {
    const missing = target - inkWidth(made.set);
    const letters = made.set.letters.length - 1;
    if (Math.abs(missing) < SETTLED * target) break;
    if (by === 'size' || letters <= 0) {
      made = make({ size: (made.widening.size * target) / inkWidth(made.set), extra: 0 });
      continue;
    }
    extra += missing / letters / made.widening.size / factor;
    made = make({ size, extra });
  }
  return made;
}
