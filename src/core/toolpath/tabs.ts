/**
 * Tabs: small places that are left uncut so that a piece stays in its sheet. A closed cut is written as the open paths between them. They
 * are spread evenly by the length round a piece and by its size, and each is slid to where it can be filed off best: far from corners, on
 * a straight stretch, with stock on both sides of it to hold on to.
 */
import { measureLine } from '../geometry/measure';
import { nearestOnLine } from '../geometry/near-lines';
import type { Path } from '../geometry/path';
import type { Point } from '../geometry/point';
import type { Segment } from '../geometry/segment';
import { type MeasuredOutline, type OutlinePlace, placeNear, placesAlong, roundDistance } from './outline-places';

/** Tabs of a cut; lengths in mm. */
export type TabSettings = {
  /** How wide what stays uncut is. */
  readonly widthMm: number;
  /** How many each piece gets; null: as many as its size asks for. */
  readonly count: number | null;
};

/** What placing tabs on an outline is told of it; lengths in mm. */
export type TabSurroundings = {
  /** Width of the cut, which eats into a tab from both sides. */
  readonly kerf: number;
  /** Area of the piece that is held, in mm². */
  readonly areaMm2: number;
  /** Where the cut begins, which tabs keep off; null where that is not known yet. */
  readonly start: OutlinePlace | null;
  /** How far tabs keep off it. */
  readonly offStart: number;
  /** How well a tab holds at a place, 0 to 1: whether there is stock on both sides. */
  readonly holds: (place: OutlinePlace) => number;
};

/** A tab: the place in its middle. */
export type Tab = Pick<OutlinePlace, 'segment' | 'at' | 'tangent'> & { readonly widthMm: number };

/** One tab for so many mm round a piece, and for so many mm² of it and mm of its width; at least two, where there is room. */
const PER_MM = 150;
const PER_AREA = 5000;
const LEAST = 2;
const MOST = 24;
/** Tabs are so many times as far from each other as they are wide, with the cut on both sides of them. */
const APART = 3.75;
/** A tab is slid by this share of the way to the next at most. */
const SLID = 0.3;
/** Ways round to begin spreading at, of which the best is taken. */
const BEGUN = 4;
const WEIGHTS = { holds: 2, corner: 1, straight: 0.5, even: 0.4 } as const;
/** Far enough from a corner: this, in mm, and as a share of the way from tab to tab. */
const FAR_MM = 5;
const FAR_SHARE = 1 / 6;
/** Paths between tabs that are shorter are left out, in mm. */
const SHORT_MM = 0.05;

/** How wide a gap in a path is so that a tab of some width stays: the cut takes half its width at either end. */
export const gapFor = (widthMm: number, kerf: number): number => widthMm + kerf;

/** Tabs on an outline, in its direction; none where there is no room for any. */
export function tabsOn(outline: MeasuredOutline, settings: TabSettings, about: TabSurroundings): Tab[] {
  const whole = outline.lengths.reduce((sum, l) => sum + l, 0);
  const gap = gapFor(settings.widthMm, about.kerf);
  const count = Math.min(
    settings.count ?? usualCount(whole, settings, about.areaMm2),
    Math.floor(whole / (APART * gap)),
  );
  if (count < 1) return [];
  const each = whole / count;
  const { places } = placesAlong(outline, Math.max(FAR_MM, FAR_SHARE * each), FAR_MM);
  const { start, offStart } = about;
  const free = start
    ? places.filter(({ along }) => roundDistance(along, start.along, whole) >= offStart + gap / 2)
    : places;
  const plain = free.map((place) => WEIGHTS.corner * place.fromCorner + WEIGHTS.straight * place.straight);
  // Whether a place holds takes longest to tell: it is asked of those that may yet be the best, once.
  const held: (number | undefined)[] = [];
  const holds = (i: number): number => (held[i] ??= about.holds(free[i] as OutlinePlace));
  const worthAt = (i: number, target: number): number => {
    const off = roundDistance((free[i] as OutlinePlace).along, target, whole) / each;
    return off <= SLID ? (plain[i] as number) - WEIGHTS.even * (off / SLID) : Number.NEGATIVE_INFINITY;
  };
  const bestNear = (target: number): { readonly at: number; readonly worth: number } => {
    // The likeliest first: most others can't be better then, whether they hold or not.
    let likely = -1;
    let most = Number.NEGATIVE_INFINITY;
    for (let i = 0; i < free.length; i++) {
      const worth = worthAt(i, target);
      if (worth > most) [likely, most] = [i, worth];
    }
    if (likely < 0) return { at: -1, worth: -1 };
    let at = likely;
    most += WEIGHTS.holds * holds(likely);
    for (let i = 0; i < free.length; i++) {
      const worth = worthAt(i, target);
      if (worth + WEIGHTS.holds <= most) continue;
      const own = worth + WEIGHTS.holds * holds(i);
      if (own > most) [at, most] = [i, own];
    }
    return { at, worth: most };
  };
  let best: { readonly tabs: readonly OutlinePlace[]; readonly worth: number } = { tabs: [], worth: -1 };
  for (let b = 0; b < BEGUN; b++) {
    const found = Array.from({ length: count }, (_, k) =>
      bestNear(((b / BEGUN + k) * each + (start?.along ?? 0)) % whole),
    ).filter(({ at }) => at >= 0);
    const worth = found.reduce((sum, f) => sum + f.worth, 0);
    if (worth > best.worth) best = { tabs: found.map(({ at }) => free[at] as OutlinePlace), worth };
  }
  return best.tabs.map(({ segment, at, tangent }) => ({ segment, at, tangent, widthMm: settings.widthMm }));
}

/** As many tabs as a piece asks for by the length round it, and by its size. */
const usualCount = (whole: number, { widthMm }: TabSettings, areaMm2: number): number =>
  Math.min(MOST, Math.max(LEAST, Math.ceil(whole / PER_MM), Math.ceil(areaMm2 / (PER_AREA * widthMm))));

/** A tab at the place of an outline that is nearest to a point; null where the outline is empty. */
export function tabNear(outline: Path, near: Point, widthMm: number): Tab | null {
  const place = placeNear(outline, near);
  return place && { segment: place.segment, at: place.at, tangent: place.tangent, widthMm };
}

/** Whether a point lies in a tab or nearer to one than so many mm. */
export const isInTab = (
  { x, y }: Point,
  tabs: readonly Tab[],
  { kerf, more }: { kerf: number; more: number },
): boolean => tabs.some(({ at, widthMm }) => Math.hypot(at.x - x, at.y - y) <= gapFor(widthMm, kerf) / 2 + more);

/**
 * The way round an outline without its tabs: open paths in the order they are cut. `round` is the outline from where the cut begins, and
 * on beyond its start by `overMm`, or short of it where that is negative.
 */
export function betweenTabs(
  round: readonly Segment[],
  tabs: readonly Tab[],
  { kerf, overMm }: { readonly kerf: number; readonly overMm: number },
): Path[] {
  const body: Path = { segments: round, closed: false };
  const measured = measureLine(body);
  const whole = measured.length - overMm;
  const gaps = tabs
    .flatMap(({ at, widthMm }) => {
      const place = nearestOnLine(body, at, Number.POSITIVE_INFINITY);
      if (!place) return [];
      const run = measured.lengthTo(place);
      const half = gapFor(widthMm, kerf) / 2;
      // Where a cut runs on over its beginning, tabs there are left out once more.
      return [run - whole, run, run + whole].map((middle) => ({ from: middle - half, to: middle + half }));
    })
    .filter(({ from, to }) => to > 0 && from < measured.length)
    .sort((a, b) => a.from - b.from);
  const paths: Path[] = [];
  let at = 0;
  const cutTo = (end: number): void => {
    if (end - at > SHORT_MM) paths.push(measured.between(at, end));
  };
  for (const { from, to } of gaps) {
    cutTo(from);
    at = Math.max(at, to);
  }
  cutTo(measured.length);
  return paths;
}
