/** What stays after cutting, as connected pieces: one is the main piece, every other is an island or loose. */
import type { Box } from '../geometry/point';
import type { Outline } from './outline';
import type { Source } from './source';

/** What a piece is: the main one, an island in a hole of another, or loose. */
export type PieceKind = 'main' | 'island' | 'loose';

/** A connected piece of what is kept, by the index of its outline. */
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
export const DUST_MM2 = 1e-3;

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

/**
 * Names for pieces that outlast an edit elsewhere: member, where its first letter stands in the text and, when several
 * pieces share that letter, which of them (0 the largest, then in order).
 */
export function pieceKeys(pieces: readonly Piece[], sources: readonly Source[]): string[] {
  const ranks = new Map<number, number>();
  return pieces.map((piece) => {
    const label = piece.labels[0];
    const source = label === undefined ? undefined : sources[label];
    if (label === undefined || !source) return 'sheet';
    const sharers = pieces.filter((p) => p.labels.includes(label));
    const largest = sharers.reduce((a, b) => (b.area > a.area ? b : a), piece);
    const rank = piece === largest ? 0 : (ranks.get(label) ?? 0) + 1;
    if (rank > 0) ranks.set(label, rank);
    return `${source.memberId}:${source.start}${rank > 0 ? `/${rank}` : ''}`;
  });
}

/** Labels that name a source, each once, ascending. */
function distinct(labels: readonly number[]): number[] {
  const [first] = labels;
  if (first !== undefined && first >= 0 && labels.every((label) => label === first)) return [first];
  return [...new Set(labels.filter((label) => label >= 0))].sort((a, b) => a - b);
}

const firstSource = (piece: Piece): number => piece.labels[0] ?? Number.MAX_SAFE_INTEGER;
