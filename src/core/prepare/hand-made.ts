/** What was drawn, or worked on, by hand: path data made into clean outlines and open lines. */

import type { ClipEngine } from '../geometry/boolean/engine';
import { countSegments, type Path, pathLength, transformPath } from '../geometry/path';
import { KEPT_DIGITS, pathData } from '../geometry/path-data';
import { type Box, boxHeight, boxWidth, compose, invert, isEmptyBox, type Matrix, scaling } from '../geometry/point';
import { pathOf } from '../geometry/read-path-data';
import type { Layout } from '../lettering/layout';
import { type Memory, NO_MEMORY, type Stage } from '../memo';
import { type Area, regionOf } from './closing/region';
import { measureOutlines, type Outline, transformOutlines, weighOutlines, weighPaths } from './outline';

/** Outlines kept as path data, in a measure of their own: see `nodesFrame`. */
export type KeptOutlines = {
  readonly d: string;
  /** What the first member measured then, in mm. */
  readonly unit: number;
  /** What they stand in place of, as it was then. */
  readonly over: Amount;
};

/** How much there is of a shape, in some measure. */
export type Amount = { readonly segments: number; readonly area: number; readonly length: number };

/** Paths worked on by hand: closed ones as outlines, and the open ones. */
export type HandMade = { readonly outlines: readonly Outline[]; readonly openPaths: readonly Path[] };

type HandMadeInput = { readonly engine: ClipEngine; readonly d: string };

const HAND_MADE: Stage<HandMadeInput, HandMade> = {
  name: 'hand-made',
  key: ({ d }) => d,
  run({ engine, d }) {
    const { paths } = pathOf(d);
    const areas = paths.filter((p) => p.closed).map((path): Area => ({ paths: [path], rule: 'nonzero' }));
    const region = regionOf(engine, areas);
    return {
      outlines: measureOutlines(region.map((path) => ({ path, labels: path.segments.map(() => 0) }))),
      openPaths: paths.filter((p) => !p.closed),
    };
  },
  weigh: ({ outlines, openPaths: lines }) => weighOutlines(outlines) + weighPaths(lines),
};

/** Path data made into clean outlines and open lines, in the coordinates of the data. */
export const handMade = (engine: ClipEngine, d: string, memory: Memory = NO_MEMORY): HandMade =>
  memory.get(HAND_MADE, { engine, d });

type Framed = { readonly matrix: Matrix; readonly ownBox: Box; readonly layout: Layout | null };

/** What a member measures, in mm: its capitals, or its height; 1 where it has none. */
export const unitOf = (capHeightMm: number | null, ownBox: Box): number =>
  capHeightMm ?? (isEmptyBox(ownBox) || boxHeight(ownBox) === 0 ? 1 : boxHeight(ownBox));

/** From the coordinates of a nodes step to the sheet: it goes along with the first member, turned and sized like it. */
export const nodesFrame = (step: Pick<KeptOutlines, 'unit'>, first: Framed): Matrix =>
  compose(scaling(unitOf(first.layout?.capHeightMm ?? null, first.ownBox) / step.unit), first.matrix);

/** Hand-made paths where a similarity takes them. */
export const moveHandMade = ({ outlines, openPaths: lines }: HandMade, m: Matrix): HandMade => ({
  outlines: transformOutlines(outlines, m),
  openPaths: lines.map((path) => transformPath(path, m)),
});

/** How much of their bounds two outlines have in common, 0 to 1. */
function likeness(a: Outline, b: Outline): number {
  if (a.area * b.area < 0) return 0;
  const across = Math.min(a.box.maxX, b.box.maxX) - Math.max(a.box.minX, b.box.minX);
  const up = Math.min(a.box.maxY, b.box.maxY) - Math.max(a.box.minY, b.box.minY);
  if (across <= 0 || up <= 0) return 0;
  const size = (o: Outline) => boxWidth(o.box) * boxHeight(o.box);
  return (across * up) / (size(a) + size(b) - across * up);
}

/** Outlines with the label of the outline they most resemble, so that a letter worked on by hand keeps its name. */
export function labelledLike(outlines: readonly Outline[], before: readonly Outline[]): Outline[] {
  return outlines.map((o) => {
    let best = -1;
    let most = 0;
    for (const other of before) {
      const alike = likeness(o, other);
      if (alike <= most) continue;
      most = alike;
      best = other.labels.find((label) => label >= 0) ?? -1;
    }
    return { ...o, labels: o.labels.map(() => best) };
  });
}

/** What a shape amounts to, in a measure: enough to tell that it has changed. */
export function amountOf(outlines: readonly Outline[], unit: number): Amount {
  const paths = outlines.map((o) => o.path);
  return {
    segments: countSegments(paths),
    area: outlines.reduce((sum, o) => sum + o.area, 0) / unit ** 2,
    length: paths.reduce((sum, p) => sum + pathLength(p), 0) / unit,
  };
}

/** Amounts this close, in shares, are the same but for rounding. */
const SAME = 1e-4;

/** Whether two shapes have as many segments, and area and length alike but for rounding. */
export const sameAmount = (a: Amount, b: Amount): boolean =>
  a.segments === b.segments &&
  Math.abs(a.area - b.area) <= SAME * Math.max(Math.abs(a.area), Math.abs(b.area)) &&
  Math.abs(a.length - b.length) <= SAME * Math.max(a.length, b.length);

type Solid = {
  readonly members: readonly Framed[];
  readonly solid: readonly Outline[];
  readonly openPaths: readonly Path[];
  readonly bridged: { readonly before: readonly Outline[] } | null;
};

/** What keeps a part's outlines and lines as they are; null when it has none. */
export function takeInHand({ members, solid, openPaths: lines, bridged }: Solid): KeptOutlines | null {
  const [first] = members;
  if (!first || solid.length + lines.length === 0) return null;
  const unit = unitOf(first.layout?.capHeightMm ?? null, first.ownBox);
  const back = invert(first.matrix);
  const d = pathData(
    [...solid.map((o) => o.path), ...lines].map((path) => transformPath(path, back)),
    null,
    KEPT_DIGITS,
  );
  return { d, unit, over: amountOf(bridged?.before ?? solid, unit) };
}
