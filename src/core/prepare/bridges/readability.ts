/** How readable letters stay when they are bridged. */
import type { BridgeNotes } from './notes';

/** How well one letter can be read with its bridges, in per cent, and why. */
export type LetterReadability = {
  /** Index of the letter among the sources. */
  readonly label: number;
  /** Share of the letter's area that bridges cover. */
  readonly covered: number;
  /** Bridges with a corner of the letter nearer than their own width. */
  readonly atCorners: number;
  /** 100 as drawn, 0 unreadable. */
  readonly figure: number;
};

/** Covering two fifths of a letter makes it unreadable. */
const PER_SHARE = 250;
const PER_CORNER = 6;

/** Of every letter with islands, in order. The area of outlines that several letters share is shared out evenly. */
export function readabilityOf({ before, islands, bridges }: BridgeNotes): LetterReadability[] {
  const area = new Map<number, number>();
  for (const o of before) {
    const labels = [...new Set(o.labels.filter((l) => l >= 0))];
    for (const label of labels) area.set(label, (area.get(label) ?? 0) + o.area / labels.length);
  }
  const letters = new Map<number, { covered: number; atCorners: number }>();
  for (const island of islands) {
    if (island.label < 0) continue;
    const sum = letters.get(island.label) ?? { covered: 0, atCorners: 0 };
    for (const k of island.bridges) {
      const b = bridges[k];
      if (!b) continue;
      sum.covered += b.areaMm2 / Math.max(1e-9, Math.abs(area.get(island.label) ?? 0));
      if (b.toCornerMm < b.width) sum.atCorners++;
    }
    letters.set(island.label, sum);
  }
  return [...letters]
    .sort(([a], [b]) => a - b)
    .map(([label, { covered, atCorners }]) => ({
      label,
      covered,
      atCorners,
      figure: Math.max(0, 100 - PER_SHARE * covered - PER_CORNER * atCorners),
    }));
}

/** The mean over all letters with islands; 100 when there are none. */
export function meanReadability(notes: BridgeNotes): number {
  const letters = readabilityOf(notes);
  return letters.length === 0 ? 100 : letters.reduce((sum, l) => sum + l.figure, 0) / letters.length;
}
