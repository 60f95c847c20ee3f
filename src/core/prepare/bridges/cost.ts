/**
 * What a bridge costs: the written measure by which one place is better than another. Costs are plain numbers; 1 is what
 * the length of the usual way across costs. A good bridge is short, meets both edges square, keeps off corners and
 * joints, has stock behind both edges, holds the island about its middle and lies as the letter lies.
 */
import { numberAt } from '../../geometry/elements';
import type { Point } from '../../geometry/point';
import type { Landing, Span } from './span';

/** Which way bridges run: as is best, upright or level in the letter, or square across the stroke. */
export type Direction = 'any' | 'upright' | 'level' | 'stroke';

const WEIGHTS = {
  length: 1,
  /** All four cuts at 90° to the edges: 0; along them: this. */
  slope: 0.8,
  /** A cut right beside a corner; falls to nothing two widths away. */
  nearCorner: 0.35,
  /** Each corner of the outline that the bridge swallows. */
  cornerCut: 0.8,
  /** An edge with nothing behind it; nothing when there is a width of stock. */
  thinBehind: 0.75,
  /** At all askew in the letter, and more up to 45°. */
  askew: 0.08,
  slant: 0.15,
  /** At the end of the island. */
  offCentre: 0.35,
  /** Sides of which one is twice as long as the mean. */
  uneven: 0.3,
  /** Landing on another island, which has to be held itself. */
  onIsland: 0.3,
  /** Level rather than upright: a bowl opened at its side is read as another letter, the more so at its right. */
  level: 0.36,
  right: 0.16,
  /** All of what makes a letter itself. */
  evidence: 6,
  /** Lower rather than upper: only settles what is otherwise equal. */
  lower: 0.03,
} as const;

/** What is off by less counts as upright or level: the sine of the angle. */
const STRAIGHT = 1e-3;

/** What the cost of a span is measured against. */
export type Standard = {
  /** The usual way from the island across the void, in mm. */
  readonly usual: number;
  /** Stock wanted behind an edge, in mm. */
  readonly behind: number;
  /** Middle and half the reach of the island. */
  readonly middle: Point;
  readonly reach: number;
  /** The letter's own way up, slanted with it if asked: unit vectors on the sheet. */
  readonly up: Point;
  readonly along: Point;
  readonly direction: Direction;
  /** The share of what makes the letter itself that a span takes; null where that is not asked. */
  readonly evidence: ((span: Span) => number) | null;
  /** Whether an outline is an island rather than what lies around the void. */
  readonly isIsland: (outline: number) => boolean;
};

const nearness = (distance: number, width: number): number => Math.max(0, 1 - distance / (2 * width));

const landingCost = (landing: Landing, width: number, behind: number): number => {
  const [back, ahead] = landing.toCorners;
  return (
    WEIGHTS.nearCorner * (nearness(back, width) + nearness(ahead, width)) +
    WEIGHTS.cornerCut * landing.cornersCut +
    WEIGHTS.thinBehind * Math.max(0, 1 - landing.depth / behind)
  );
};

/** What a span costs by the weights above: its length against the usual way across, slopes, corners, place and direction. */
export function costOf(span: Span, standard: Standard): number {
  const { from, to, way, width } = span;
  const mean = (span.sides[0] + span.sides[1]) / 2;
  const slopes = (from.slopes[0] + from.slopes[1] + to.slopes[0] + to.slopes[1]) / 4;
  const upright = Math.abs(way.x * standard.up.x + way.y * standard.up.y);
  const level = Math.abs(way.x * standard.along.x + way.y * standard.along.y);
  // Where the line of the bridge passes the middle of the island, against its reach across.
  const dx = from.middle.x - standard.middle.x;
  const dy = from.middle.y - standard.middle.y;
  const aside = Math.abs(dx * way.y - dy * way.x);
  const isLower = way.x * standard.up.x + way.y * standard.up.y < -0.5;
  const rightwards = way.x * standard.along.x + way.y * standard.along.y;
  // 0 upright or level, 1 half way between.
  const off = Math.min(upright, level);
  const slant = off < STRAIGHT ? 0 : WEIGHTS.askew + WEIGHTS.slant * Math.min(1, Math.SQRT2 * off);
  return (
    WEIGHTS.length * (mean / standard.usual) +
    WEIGHTS.slope * slopes * (standard.direction === 'stroke' ? 2 : 1) +
    landingCost(from, width, standard.behind) +
    landingCost(to, width, standard.behind) +
    (standard.direction === 'any' ? slant : 0) +
    WEIGHTS.offCentre * Math.min(1, aside / standard.reach) +
    WEIGHTS.uneven * Math.min(1, Math.abs(span.sides[0] - span.sides[1]) / mean) +
    (standard.isIsland(to.outline) ? WEIGHTS.onIsland : 0) +
    (standard.evidence ? WEIGHTS.evidence * standard.evidence(span) : 0) +
    WEIGHTS.level * level * level +
    WEIGHTS.right * Math.max(0, rightwards) ** 2 +
    (isLower ? WEIGHTS.lower : 0)
  );
}

/** How long a bridge may be in the middle, in mm, to cost no more than this: its sides may be a little shorter. */
export const longestAt = (cost: number, standard: Standard): number => (cost * standard.usual) / (0.6 * WEIGHTS.length);

const TOGETHER = {
  /** Bridges on the same side of the island, rather than spread around it. */
  bunched: 1.2,
  /** A pair whose directions are square to each other, rather than in one line or each other's mirror image. */
  turned: 0.9,
  /** A pair off by a width from that. */
  offset: 0.3,
} as const;

const angleAbout = (p: Point, middle: Point): number => Math.atan2(p.y - middle.y, p.x - middle.x);

/**
 * What several bridges of one island cost besides what each does: they are to hold it evenly; a pair is to lie in one line,
 * or mirrored about the letter's own way up.
 */
export function costTogether(spans: readonly Span[], { middle, up, along }: Standard): number {
  const n = spans.length;
  if (n < 2) return 0;
  const angles = spans.map((s) => angleAbout(s.from.middle, middle)).sort((a, b) => a - b);
  const even = (2 * Math.PI) / n;
  let narrowest = Infinity;
  angles.forEach((angle, i) => {
    const next = i + 1 < n ? numberAt(angles, i + 1) : numberAt(angles, 0) + 2 * Math.PI;
    narrowest = Math.min(narrowest, next - angle);
  });
  let cost = TOGETHER.bunched * (n - 1) * Math.max(0, 1 - narrowest / even);
  const [a, b] = spans;
  if (n === 2 && a && b) {
    const dx = b.from.middle.x - a.from.middle.x;
    const dy = b.from.middle.y - a.from.middle.y;
    const inLine =
      TOGETHER.turned * Math.abs(a.way.x * b.way.y - a.way.y * b.way.x) +
      TOGETHER.offset * Math.min(1, Math.abs(dx * a.way.y - dy * a.way.x) / a.width);
    const dot = (p: Point, q: Point) => p.x * q.x + p.y * q.y;
    const [au, av, bu, bv] = [dot(a.way, along), dot(a.way, up), dot(b.way, along), dot(b.way, up)];
    const mirrored =
      TOGETHER.turned * Math.min(1, Math.hypot(au + bu, av - bv)) +
      TOGETHER.offset * Math.min(1, Math.abs(dx * up.x + dy * up.y) / a.width);
    cost += Math.min(inLine, mirrored);
  }
  return cost;
}
