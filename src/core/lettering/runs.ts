/** A line of text cut into runs of one direction and one script, in visual order (Unicode Annexes 9 and 24). */
import createBidi from 'bidi-js';
import type { FeatureUse } from './face';
import { scriptOf } from './scripts';

/** A stretch of text in one direction, by its range in UTF-16 units. */
export type TextRun = { readonly start: number; readonly end: number; readonly direction: 'ltr' | 'rtl' };

const bidi = createBidi();

function splitByScript(text: string, start: number, end: number): [number, number][] {
  const pieces: [number, number][] = [];
  let from = start;
  let current: string | null = null;
  for (let i = start; i < end; ) {
    const char = String.fromCodePoint(text.codePointAt(i) as number);
    const script = scriptOf(char);
    if (script && current && script !== current) {
      pieces.push([from, i]);
      from = i;
    }
    current = script ?? current;
    i += char.length;
  }
  pieces.push([from, end]);
  return pieces;
}

/** Runs of a line from left to right as they stand on the sheet. Indices are UTF-16 units of `text`. */
export function visualRuns(text: string): TextRun[] {
  if (text === '') return [];
  const { levels, paragraphs } = bidi.getEmbeddingLevels(text);
  const base = paragraphs[0]?.level ?? 0;
  const logical: { start: number; end: number; level: number }[] = [];
  for (let i = 0; i < text.length; i++) {
    const level = levels[i] ?? base;
    const last = logical[logical.length - 1];
    if (last && last.level === level) last.end = i + 1;
    else logical.push({ start: i, end: i + 1, level });
  }
  const runs = logical.flatMap((run) =>
    splitByScript(text, run.start, run.end).map(([start, end]) => ({ start, end, level: run.level })),
  );
  // Rule L2: from the highest level down to the lowest odd one, reverse every stretch at or above it.
  const highest = Math.max(...runs.map((r) => r.level));
  for (let level = highest; level >= 1; level--) {
    for (let i = 0; i < runs.length; ) {
      if ((runs[i] as { level: number }).level < level) {
        i++;
        continue;
      }
      let j = i;
      while (j < runs.length && (runs[j] as { level: number }).level >= level) j++;
      const stretch = runs.slice(i, j).reverse();
      runs.splice(i, j - i, ...stretch);
      i = j;
    }
  }
  return runs.map((r) => ({ start: r.start, end: r.end, direction: r.level % 2 === 1 ? 'rtl' : 'ltr' }));
}

/** The features that hold for a run of a line, their ranges counted from its start. */
export const featuresWithin = (features: readonly FeatureUse[], run: Pick<TextRun, 'start' | 'end'>): FeatureUse[] =>
  features.flatMap((feature) => {
    const [from, to] = [feature.from ?? run.start, feature.to ?? run.end];
    if (to <= run.start || from >= run.end) return [];
    return { ...feature, from: Math.max(from, run.start) - run.start, to: Math.min(to, run.end) - run.start };
  });
