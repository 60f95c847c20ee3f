/** What stays after cutting, as connected pieces: one is the main piece, every other is an island or loose. */
import type { Box } from '../geometry/point';
import type { Outline } from './outline';

export type PieceKind = 'main' | 'island' | 'loose';

export type Piece = {
  readonly kind: PieceKind;
  /** Index of its outer outline in the list of kept outlines. */
  readonly outline: number;
  readonly box: Box;
  /** Kept area in mm², its holes taken off. */
  readonly area: number;
  /** Sources (letters and shapes) that its outer outline runs along, ascending. */
  readonly labels: readonly number[];
};

/** Smaller than any beam or tool leaves standing: a square of 0.03 mm. */
const DUST_MM2 = 1e-3;

/**
 * Pieces of a kept region given by its clean outlines. A piece within a hole of another is an island; the largest of
 * the rest is the main piece; others are loose. The main piece comes first, then the others in reading order, as far as
 * their sources tell, larger before smaller. What is no larger than dust is no piece.
 */
export function piecesOf(kept: readonly Outline[]): Piece[] {
  const holes = new Map<number, number>();
  for (const o of kept) if (o.depth % 2 === 1) holes.set(o.parent, (holes.get(o.parent) ?? 0) + Math.abs(o.area));
  const pieces = kept.flatMap((o, i): Piece[] => {
    if (o.depth % 2 === 1) return [];
    const labels = distinct(o.labels);
    const kind = o.depth >= 2 ? 'island' : 'loose';
    return [{ kind, outline: i, box: o.box, area: Math.abs(o.area) - (holes.get(i) ?? 0), labels }];
  });
  const bySize = pieces.sort((a, b) => b.area - a.area);
  const main = bySize.find((p) => p.kind === 'loose');
  const others = bySize
    .filter((p) => p !== main && p.area >= DUST_MM2)
    .sort((a, b) => firstSource(a) - firstSource(b) || b.area - a.area);
  return main ? [{ ...main, kind: 'main' }, ...others] : others;
}

/** Labels that name a source, each once, ascending. */
function distinct(labels: readonly number[]): number[] {
  const [first] = labels;
  if (first !== undefined && first >= 0 && labels.every((label) => label === first)) return [first];
  return [...new Set(labels.filter((label) => label >= 0))].sort((a, b) => a - b);
}

const firstSource = (piece: Piece): number => piece.labels[0] ?? Number.MAX_SAFE_INTEGER;
