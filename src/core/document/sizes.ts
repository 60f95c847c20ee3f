/**
 * What sizing sizes. When a part or a member is made larger by a factor, some of its lengths grow along and some stay as they
 * were set: a sign twice as large has letters, margins and holes twice as large, but is cut by the same beam, filled by the
 * same tip and held by bridges as strong as before. Everything grows where that is asked for. Measures that are shares of
 * something, such as the places of moved letters, go with it by themselves.
 */

import { growAll, kindOf } from '../kinds/steps';
import { growAsSet, isAsSet, wordsKey } from '../lettering/as-set';
import { LIMITS } from '../limits';
import type { Along } from '../schema/along';
import type { Fit } from '../schema/fit';
import { madeFrom } from '../schema/members';
import type { Within } from '../schema/within';
import type { Member, Part } from './schema';
import { SHAPE_LENGTHS } from './shapes';

/** Sizes are kept to a nanometre, so that what is sized and sized back is as it was. */
const PER_MM = 1e6;
const steady = (mm: number): number => Math.round(mm * PER_MM) / PER_MM + 0;
/** No length gets less than this by being sized. */
const LEAST_MM = 1e-3;

const times = (mm: number, factor: number): number => (mm === 0 ? 0 : steady(mm * factor));

function growSteps(part: Part, factor: number, everything: boolean): void {
  const timesFactor = (mm: number) => times(mm, factor);
  for (const step of part.steps) {
    const { grows, stays } = kindOf(step).lengths;
    const lengths = step as unknown as Record<string, number | null>;
    for (const key of everything ? [...grows, ...stays] : grows) {
      const mm = lengths[key];
      if (typeof mm === 'number') lengths[key] = timesFactor(mm);
    }
    if (everything) growAll(step, timesFactor);
  }
}

/** The line that words run along, larger with them; another part's outline is larger only where that part is. */
function growAlong(along: Along, factor: number, isLineSized: boolean): void {
  const { line } = along;
  const grown = (mm: number) => Math.max(LEAST_MM, times(mm, factor));
  if (line.kind === 'arc') line.mm = grown(line.mm);
  if (line.kind === 'circle') line.radius = grown(line.radius);
  if (line.kind === 'wave') {
    line.length = grown(line.length);
    line.height = grown(line.height);
  }
  if (line.kind === 'path') line.scale = line.scale * factor;
  along.distance = times(along.distance, factor);
  if (line.kind !== 'outline' || isLineSized) along.start = times(along.start, factor);
}

/** What words are fitted into, larger with them; another part's panel is larger only where that part is. */
function growFit(fit: Fit, factor: number, isPanelSized: boolean): void {
  if (fit.to === 'box') {
    fit.width = Math.max(LEAST_MM, times(fit.width, factor));
    fit.height = Math.max(LEAST_MM, times(fit.height, factor));
  }
  if (fit.to === 'box' || isPanelSized) fit.margin = times(fit.margin, factor);
}

/** The width that words keep within, larger with them. */
function growWithin(within: Within, factor: number): void {
  const grown = (mm: number) => Math.max(LEAST_MM, times(mm, factor));
  within.width = grown(within.width);
  if (within.least !== null) within.least = grown(within.least);
  if (within.greatest !== null) within.greatest = grown(within.greatest);
}

/**
 * Make all a member measures larger by a factor, in place, about its own origin. `isCopySized`: whether what it copies, or runs
 * along, is made larger too, so that it grows by that.
 */
export function growMember(member: Member, factor: number, everything: boolean, isCopySized = false): void {
  switch (member.kind) {
    case 'copy':
      if (!isCopySized) member.scale = member.scale * factor;
      return;
    case 'path':
      member.scale = member.scale * factor;
      return;
    case 'artwork': {
      member.scale = member.scale * factor;
      // Gaps grow with the drawing: what is closed stays closed.
      const { close } = member;
      const most = (mm: number) => Math.min(LIMITS.gapMostMm, times(mm, factor));
      close.gap = most(close.gap);
      close.findUpTo = Math.max(0.01, most(close.findUpTo));
      close.doubles = Math.min(1, times(close.doubles, factor));
      close.specks = most(close.specks);
      if (close.refit !== null) close.refit = Math.max(LEAST_MM, most(close.refit));
      return;
    }
    case 'trace':
      // What is too small to keep grows too: the same is kept.
      member.scale = member.scale * factor;
      member.least = Math.min(LIMITS.offsetMostMm, times(member.least, factor));
      if (member.follow !== null)
        member.follow = Math.min(LIMITS.gapMostMm, Math.max(LEAST_MM, times(member.follow, factor)));
      return;
    case 'lettering': {
      const wasAsSet = isAsSet(member);
      const before = member.size.mm;
      member.size.mm = Math.max(LEAST_MM, times(member.size.mm, factor));
      if (member.along) growAlong(member.along, factor, isCopySized);
      if (member.fit) growFit(member.fit, factor, isCopySized);
      if (member.within) growWithin(member.within, factor);
      if (everything && member.closeUp) member.closeUp.overlap = times(member.closeUp.overlap, factor);
      if (wasAsSet && member.asSet) growAsSet(member.asSet, member.size.mm / before, wordsKey(member));
      return;
    }
    default: {
      const lengths = member as unknown as Record<string, number>;
      for (const key of SHAPE_LENGTHS[member.kind]) {
        const mm = lengths[key] as number;
        lengths[key] = mm === 0 ? 0 : Math.max(LEAST_MM, times(mm, factor));
      }
    }
  }
}

/**
 * Make all that a part is made of larger by a factor, in place, about the part's own origin: members, the distances between
 * them, and those lengths of its steps that grow along. `isSized` tells which other parts are made larger as well.
 */
export function growPart(part: Part, factor: number, everything: boolean, isSized = (_: string) => false): void {
  for (const member of part.members) {
    growMember(member, factor, everything, madeFrom(member).some(isSized));
    member.placement.x = steady(member.placement.x * factor);
    member.placement.y = steady(member.placement.y * factor);
  }
  if (part.overallWidth !== null) part.overallWidth = Math.max(LEAST_MM, times(part.overallWidth, factor));
  growSteps(part, factor, everything);
}

/** What sizing sizes, in words: for the help and the page about the format. */
export const SIZED_ALONG: readonly string[] = [
  'letters, shapes with their corner radii, drawings, traces of pictures, live copies',
  'arcs, circles, waves and drawn lines that words run along, how far from them, and where on them',
  'boxes that words are fitted into, with their margins, and widths that they keep within',
  'nodes by hand, moved letters, lines and dots by hand',
  'distances between the things of a part',
  'margins, corners and holes of a plate; height and overhang of a bar',
  'gaps that are closed in a drawing, and how far it may stray when its short lines become curves',
];

/** What stays as it was set when a part is sized, in words, for the user. */
export const STAYS_AS_SET: readonly string[] = [
  'widths of bridges and ties, how far ties and bars reach into letters',
  'thickening, kerf, holes that are kept open',
  'distance of a border, its rounding and the gaps it bridges',
  'strength of letters that are closed up',
  'tips and rows of hatch lines, dots: width, depth, spacing',
];
