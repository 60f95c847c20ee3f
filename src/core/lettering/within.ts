/** Words kept within a width: by their letter spacing first where that is asked for, then by their size; or grown up to it. */
import { boxWidth, isEmptyBox } from '../geometry/point';
import type { Within } from '../schema/within';
import type { Layout } from './layout';
import type { LetteringSpec } from './spec';

/** How nearly the width is met, in mm, and in how many rounds: overlaps do not grow along with the size. */
const MET_MM = 1e-6;
const ROUNDS = 40;

type SetWords = (spec: LetteringSpec) => Layout;

/** How far words are wider than they are to be is told from this on, in mm. */
export const OVER_WIDTH_MM = 0.01;

/** Words set so that they keep within a width. What they can't keep within stays wider. */
export function setWithin<S extends LetteringSpec>(spec: S, within: Within, set: SetWords): Layout {
  const { width, least, greatest, tightest } = within;
  const natural = set(spec);
  if (isEmptyBox(natural.box)) return natural;
  const over = boxWidth(natural.box) - width;
  if (Math.abs(over) <= MET_MM) return natural;
  if (over < 0) {
    const isToGrow = greatest !== null && greatest > natural.capHeightMm;
    return isToGrow ? sized(spec, natural, { width, from: natural.capHeightMm, to: greatest }, set) : natural;
  }
  const capital = { by: 'capital', mm: natural.capHeightMm } as const;
  if (tightest === null || tightest >= spec.letterSpacing)
    return sized(spec, natural, { width, from: least ?? 0, to: natural.capHeightMm }, set);
  const tight = { ...spec, size: capital, letterSpacing: tightest };
  const closest = set(tight);
  if (boxWidth(closest.box) > width + MET_MM)
    return sized(tight, closest, { width, from: least ?? 0, to: natural.capHeightMm }, set);
  return spaced({ ...spec, size: capital }, { tight: tightest, wide: spec.letterSpacing, width }, set, closest);
}

type Bounds = { readonly width: number; readonly from: number; readonly to: number };

/** Words as large as a width, their capitals within bounds. */
function sized(spec: LetteringSpec, first: Layout, { width, from, to }: Bounds, set: SetWords): Layout {
  const clamp = (mm: number) => Math.min(Math.max(mm, from), Math.max(from, to));
  let layout = first;
  for (let round = 0; round < ROUNDS; round++) {
    const wide = boxWidth(layout.box);
    if (!(wide > 0) || (round > 0 && Math.abs(wide - width) <= MET_MM)) break;
    const mm = clamp((layout.capHeightMm * width) / wide);
    if (round > 0 && mm === layout.capHeightMm) break;
    layout = set({ ...spec, size: { by: 'capital', mm } });
    if (mm === from || mm === to) break;
  }
  return layout;
}

/** Words whose letter spacing makes them as wide as a width: between a spacing that is too tight and one that is too wide. */
function spaced(
  spec: LetteringSpec,
  { tight, wide, width }: { readonly tight: number; readonly wide: number; readonly width: number },
  set: SetWords,
  closest: Layout,
): Layout {
  let [lo, hi] = [tight, wide];
  let best = closest;
  for (let round = 0; round < ROUNDS && boxWidth(best.box) < width - MET_MM; round++) {
    const letterSpacing = (lo + hi) / 2;
    const layout = set({ ...spec, letterSpacing });
    if (boxWidth(layout.box) > width + MET_MM) hi = letterSpacing;
    else {
      lo = letterSpacing;
      best = layout;
    }
  }
  return best;
}
