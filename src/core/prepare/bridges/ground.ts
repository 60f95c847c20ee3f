/** What bridges of a shape are searched on: its islands without those that nobody would miss, which are put back where they are still cut. */
import { boxContains } from '../../geometry/point';
import { LIMITS } from '../../limits';
import type { LetterFrame } from '../frames';
import { nestAgain, type Outline } from '../outline';
import type { BridgeMemory, Ground } from './bridge-memory';
import { crosses } from './conflict';
import { cutHairs } from './hairs';
import { type Island, islandsOf, voidsOf } from './islands';
import type { BridgeNotes, BridgeSetting } from './notes';
import { meanWidth, smallIslands, withoutOutlines } from './small';
import type { Span } from './span';

/** A bridged shape, the outlines that are cut to make it, and what is to be said of it. */
export type BridgedShape = {
  readonly shape: readonly Outline[];
  readonly cut: readonly Outline[];
  readonly notes: BridgeNotes;
};

/** A shape as it was bridged, what is to be said of it, and the strips that were put in. */
export type Bridged = {
  readonly shape: readonly Outline[];
  readonly notes: BridgeNotes;
  readonly strips: readonly Span[];
};

/** What is bridged: all islands, or those that somebody would miss. */
export function groundOf(
  given: readonly Outline[],
  { step, frames, stockInside, thicknessMm }: BridgeSetting,
  asked: number,
  remembered: BridgeMemory,
): Ground {
  const whole = remembered.ground('', () => {
    const { shape, hairs } = cutHairs(given, stockInside);
    const islands = islandsOf(shape, voidsOf(shape, stockInside), frames);
    return { shape, hairs, islands, single: new Set(), small: [], taken: [] };
  });
  if (step.small === 'bridge' || whole.islands.length === 0 || whole.islands.length > LIMITS.islands) return whole;
  const manner = JSON.stringify([asked, thicknessMm, step.count > 0, step.islands]);
  return remembered.ground(manner, () => {
    const evidenceOf = (frame: LetterFrame) => remembered.evidence(frame);
    const { small, single } = smallIslands(whole.shape, whole.islands, {
      step,
      asked,
      thicknessMm,
      frames,
      evidenceOf,
    });
    if (small.size === 0 && single.size === 0) return whole;
    const outlineOf = (island: Island): Outline => whole.shape[island.outline] as Outline;
    const { shape, taken } = withoutOutlines(whole.shape, small);
    const ranks = new Map(whole.islands.map((island) => [outlineOf(island).path, island]));
    // An island keeps the number it has among all of its letter.
    const islands = islandsOf(shape, voidsOf(shape, stockInside), frames).map((island) => ({
      ...island,
      rank: ranks.get((shape[island.outline] as Outline).path)?.rank ?? island.rank,
    }));
    const isSingle = (island: Island): boolean =>
      single.has(ranks.get((shape[island.outline] as Outline).path)?.outline ?? -1);
    return {
      ...whole,
      shape,
      taken,
      islands,
      single: new Set(islands.filter(isSingle).map(({ outline }) => outline)),
      small: whole.islands
        .filter(({ outline }) => small.has(outline))
        .map((island) => ({
          letter: island.letter,
          rank: island.rank,
          label: island.label,
          outline: outlineOf(island),
          widthMm: meanWidth(outlineOf(island)),
        })),
    };
  });
}

/** What is cut: the shape, with the small islands that are left to drop and that no bridge lies across. */
export function withSmall({ shape, notes, strips }: Bridged, { small, taken }: Ground): BridgedShape {
  if (small.length === 0 || notes.small.every(({ isCut }) => !isCut)) return { shape, cut: shape, notes };
  const crossed = small.filter(({ outline }) => strips.some((span) => crosses(span, outline.path)));
  const isCrossed = ({ box }: Outline): boolean => crossed.some(({ outline }) => boxContains(outline.box, box));
  return {
    shape,
    cut: nestAgain([...shape, ...taken.filter((o) => !isCrossed(o))]),
    notes: {
      ...notes,
      small: notes.small.map((s, i) => ({ ...s, isCut: !crossed.includes(small[i] as Ground['small'][number]) })),
    },
  };
}
