/**
 * Two neighbours and the ways of joining them: moved together until they touch, a foot along a line that letters stand or hang from, a
 * tie at another height or aslant. What each costs is told by what makes the letters themselves, by how stems crowd each other, by the
 * ink it adds and by where it lies. Lengths in capital heights; the origin is that of the left letter.
 */
import type { Point } from '../../geometry/point';
import { between, CELLS, COLUMNS, columnAt, ROWS, rowAt } from '../letter-image';
import type { JointKind } from '../set-letter';
import { type JoinLetter, sideOver } from './letter';
import { HEIGHTS, heightAtRow, rowFrom, rowsOver, STEP } from './profile';
import { barCorners, rectangle } from './strip-path';

/** A way of joining two neighbours. */
export type Way = {
  readonly kind: JointKind;
  /** How far the right one moves to the left. */
  readonly slide: number;
  /** Corners of a strip; null for none. */
  readonly strip: readonly Point[] | null;
  /** Height of the strip's lower edge; null for none, and for one aslant. */
  readonly level: number | null;
  /** The width of what holds the two together. */
  readonly width: number;
  /** Cost of all but what hangs on the word: rhythm and the height its strips share. */
  readonly cost: number;
};

/** Two neighbours and the ways of joining them. */
export type Neighbours = {
  readonly ways: readonly Way[];
  /** White between the two, as far as it is seen, and the height it is seen over. */
  readonly white: number;
  readonly height: number;
  /** The least distance between the two, Infinity where they do not face each other; and the slide at which they touch as strongly as asked. */
  readonly first: number;
  readonly touch: number | null;
  readonly isSpace: boolean;
};

/** What the ways of joining two neighbours hang on. */
export type PairInput = {
  readonly left: JoinLetter;
  readonly right: JoinLetter;
  /** From the origin of the left one to that of the right one. */
  readonly apart: number;
  /** Width of a joint that is asked for, in capital heights. */
  readonly width: number;
  /** Height of small letters. */
  readonly small: number;
  /** The slide that makes them touch as strongly as asked, and how strong that is; null where none does. */
  readonly touch: { readonly slide: number; readonly width: number } | null;
  /** The space between them, where they are two words; 0 where they are not. */
  readonly space: number;
};

/** White narrower than this between two stems is read as black; from the other on stems crowd each other. */
const SLIT = 0.05;
const NEAR = 0.15;
/** Share of the small letters' height over which stems may stand flush. */
const SHARED_STEMS = 0.25;
/** White beyond this is not seen as belonging to a pair. */
const SEEN = 0.35;
/** How far a strip goes into the ink, and how uneven the side may be that it ends in. */
const INTO = 0.03;
const UNEVEN = 0.3;
/** How far spaces are closed before a strip goes over them: until letters stand so far apart, and no more than half of the space. */
const OVER_SPACE = 0.22;

const COSTS = {
  evidence: 5,
  stems: 1,
  ink: 1.8,
  /** A strip along the baseline, an edge that both letters have, the small letters' height, that of capitals, elsewhere, aslant. */
  baseline: 0,
  /** A foot a step higher. */
  raised: 0.03,
  edge: 0.02,
  small: 0.08,
  capital: 0.1,
  free: 0.3,
  aslant: 0.5,
  /** Beyond where either letter has ink. */
  beyond: 1,
  /** Across stems, and in a crotch where sides run away from each other. */
  across: 0.35,
  crotch: 0.7,
};

/** Where letters touch in less than this share of the width asked for, they are not joined by that. */
const LEAST_TOUCH = 0.75;

/** Slides tried between where the letters stand and where they first touch. */
const SLIDES = 6;
/** Heights tried for feet along the baseline. */
const FEET = [0, 0.03, 0.06];

/** Heights tried for ties. */
const TIES = { from: -0.2, to: 1.2, step: 0.06 };

/** The ways of joining two neighbours. */
export function pairOf(input: PairInput): Neighbours {
  const { left, right, apart, small, touch, space } = input;
  const gap = new Float64Array(HEIGHTS);
  let first = Infinity;
  for (let i = 0; i < HEIGHTS; i++) {
    gap[i] = apart + (right.body.left[i] as number) - (left.body.right[i] as number);
    const whole = apart + (right.whole.left[i] as number) - (left.whole.right[i] as number);
    if (whole < first) first = whole;
  }
  const height = Math.min(left.top, right.top) > 1.3 * small ? 1 : small;
  let white = 0;
  for (let i = rowFrom(0); heightAtRow(i) < height; i++) {
    const g = gap[i] as number;
    white += STEP * (Number.isNaN(g) ? SEEN : Math.min(SEEN, Math.max(0, g)));
  }
  const all = new PairWays(input, gap, Number.isFinite(first) ? first : 0);
  return {
    ways: all.ways(),
    white,
    height,
    first,
    touch: touch?.slide ?? null,
    isSpace: space > 0,
  };
}

class PairWays {
  private readonly found: Way[] = [];
  private readonly covers = new Map<number, readonly [Cover, Cover]>();

  constructor(
    private readonly input: PairInput,
    private readonly gap: Float64Array,
    private readonly first: number,
  ) {}

  ways(): readonly Way[] {
    const { touch, space } = this.input;
    const isStrong = touch !== null && touch.width >= LEAST_TOUCH * this.input.width;
    if (space === 0 && isStrong && (touch.slide <= 0 || this.stems(touch.slide, SLIT) <= SHARED_STEMS))
      this.add({ kind: touch.slide > 0 ? 'touch' : 'as is', slide: Math.max(0, touch.slide), width: touch.width });
    const slides = this.slides();
    for (const [level, { kind, cost }] of this.levels()) this.strips(level, kind, cost, slides);
    // Over a space a bar is level wherever both words have ink at its height, though it reach through thin strokes.
    if (space > 0 && this.found.length === 0)
      for (const [level, { kind, cost }] of this.levels()) this.strips(level, kind, cost, slides, true);
    if (space === 0 || this.found.length === 0)
      for (const slide of space > 0 ? slides : slides.filter((_, i) => i % 2 === 0)) this.aslant(slide);
    return this.found;
  }

  private slides(): number[] {
    const { space } = this.input;
    if (space > 0) return [Math.min(Math.max(0, this.first - OVER_SPACE), space / 2)];
    const most = Math.max(0, this.first);
    return most === 0 ? [0] : Array.from({ length: SLIDES + 1 }, (_, i) => (most * i) / SLIDES);
  }

  /** Height over which stems stand nearer than `near`, in heights of small letters; by how near, where that is asked. */
  private stems(slide: number, near: number, isSoft = false): number {
    const { left, right, small, apart } = this.input;
    let sum = 0;
    for (let i = 0; i < HEIGHTS; i++) {
      if (!left.rightUpright[i] || !right.leftUpright[i]) continue;
      const g = apart - slide + (right.whole.left[i] as number) - (left.whole.right[i] as number);
      sum += isSoft ? Math.max(0, Math.min(1, 1 - g / near)) : g < near ? 1 : 0;
    }
    return (sum * STEP) / small;
  }

  /** Heights that a strip may begin at, with what its place costs. */
  private levels(): Map<number, { readonly kind: 'foot' | 'tie'; readonly cost: number }> {
    const { left, right, width, small } = this.input;
    const levels = new Map<number, { readonly kind: 'foot' | 'tie'; readonly cost: number }>();
    // Strokes that taper or are rounded off carry a foot a little above the baseline.
    FEET.forEach((y, k) => {
      levels.set(y, { kind: 'foot', cost: COSTS.baseline + k * COSTS.raised });
    });
    for (const [height, cost] of [
      [small, COSTS.small],
      [1, COSTS.capital],
    ] as const)
      if ([left.top, right.top].some((top) => Math.abs(top - height) < 0.07))
        levels.set(height - width, { kind: 'foot', cost });
    const has = (letter: JoinLetter, y: number) => letter.levels.some((l) => Math.abs(l - y) < 0.03);
    for (const y of [...left.levels, ...right.levels])
      if (has(left, y) && has(right, y) && ![...levels.keys()].some((k) => Math.abs(k - y) < 1e-6))
        levels.set(y, { kind: 'foot', cost: COSTS.edge });
    for (let y = TIES.from; y < TIES.to; y += TIES.step)
      if ([...levels.keys()].every((k) => Math.abs(k - y) > 0.03)) levels.set(y, { kind: 'tie', cost: COSTS.free });
    return levels;
  }

  /** Level strips that begin at a height, for every slide; also those that reach through the strokes they end in, where that is asked. */
  private strips(
    y: number,
    kind: 'foot' | 'tie',
    cost: number,
    slides: readonly number[],
    reachesThrough = false,
  ): void {
    const { left, right, apart, width } = this.input;
    const a = sideOver(left.body, 'right', y, width);
    const b = sideOver(right.body, 'left', y, width);
    if (!a || !b) return;
    const [unevenA, unevenB] = [a.near - a.far, b.far - b.near];
    if (!reachesThrough && (unevenA > UNEVEN || unevenB > UNEVEN)) return;
    // A strip ends within the strokes it joins: it never reaches through one into the white behind.
    const from = a.far - INTO;
    const to = b.far + INTO;
    if (!reachesThrough && (from < a.inner || to > b.inner)) return;
    const end = (low: number, high: number) => Math.min(Math.abs(y - low), Math.abs(y + width - high));
    const isAtEnd = Math.min(end(left.bottom, left.top), end(right.bottom, right.top)) <= 0.06;
    let across = 0;
    const [low, high] = rowsOver(y, width);
    for (let i = low; i < high; i++) if (left.rightUpright[i] && right.leftUpright[i]) across++;
    for (const slide of slides) {
      let ink = 0;
      for (let i = low; i < high; i++) ink += Math.max(0, (this.gap[i] as number) - slide) * STEP;
      this.add({
        kind,
        slide,
        width,
        strip: rectangle(from, y, apart - slide + to, y + width),
        level: y,
        ink,
        place: cost + (isAtEnd ? 0 : (COSTS.across * across) / (high - low)) + COSTS.crotch * (unevenA + unevenB),
      });
    }
  }

  /** A bar between the nearest places of the two. */
  private aslant(slide: number): void {
    const { left, right, apart, width } = this.input;
    let best = { distance: Infinity, i: 0, j: 0 };
    for (let i = 0; i < HEIGHTS; i += 2) {
      const a = left.whole.right[i] as number;
      if (Number.isNaN(a)) continue;
      // Rows farther away than the nearest so far are not nearer.
      const reach = Math.min(HEIGHTS, Math.ceil(best.distance / STEP));
      for (let j = Math.max(i % 2, i - reach); j < Math.min(HEIGHTS, i + reach + 1); j++) {
        const dx = apart - slide + (right.whole.left[j] as number) - a;
        const distance = Math.sqrt(dx * dx + (j - i) * (j - i) * STEP * STEP);
        if (distance < best.distance) best = { distance, i, j };
      }
    }
    if (!Number.isFinite(best.distance)) return;
    const from = { x: left.whole.right[best.i] as number, y: heightAtRow(best.i) };
    const to = { x: apart - slide + (right.whole.left[best.j] as number), y: heightAtRow(best.j) };
    this.add({
      kind: 'tie',
      slide,
      width,
      strip: barCorners(from, to, width, INTO + width / 2),
      ink: best.distance * width,
      place: COSTS.aslant + COSTS.beyond * this.beyond(from.y, to.y),
    });
  }

  /** The share of a bar's height over which neither letter has ink. */
  private beyond(y0: number, y1: number): number {
    const { left, right, width } = this.input;
    const [low, high] = rowsOver(Math.min(y0, y1) - width / 2, Math.abs(y1 - y0) + width);
    let bare = 0;
    for (let i = low; i < high; i++) if (!hasInk(left, i) && !hasInk(right, i)) bare++;
    return bare / (high - low);
  }

  private add({
    kind,
    slide,
    width,
    strip = null,
    level = null,
    ink = 0,
    place = 0,
  }: Pick<Way, 'kind' | 'slide' | 'width'> &
    Partial<Pick<Way, 'strip' | 'level'>> & { ink?: number; place?: number }): void {
    const lost = this.lost(slide, strip);
    const cost =
      COSTS.evidence * (lost[0] + lost[1]) +
      COSTS.stems * this.stems(slide, NEAR, true) +
      (COSTS.ink * ink) / this.input.width +
      place;
    this.found.push({ kind, slide, strip, level, width, cost });
  }

  /** What of each letter is lost: by the other one as it is moved over it, and by a strip. */
  private lost(slide: number, strip: readonly Point[] | null): readonly [number, number] {
    const { left, right, apart } = this.input;
    let covers = this.covers.get(slide);
    if (!covers) {
      const moved = apart - slide;
      covers = [coverOf(left, right, apart, moved), coverOf(right, left, -apart, -moved)];
      this.covers.set(slide, covers);
    }
    if (!strip) return [covers[0].lost, covers[1].lost];
    return [
      covers[0].lost + lostUnder(left, covers[0], strip, 0),
      covers[1].lost + lostUnder(right, covers[1], strip, slide - apart),
    ];
  }
}

/** What is newly covered of a letter's picture by a neighbour that moves, between two columns, and what it loses by that. */
type Cover = { readonly cells: Float32Array; readonly from: number; readonly to: number; readonly lost: number };

/** `before` and `after`: from the letter's origin to the other's. */
function coverOf(letter: JoinLetter, other: JoinLetter, before: number, after: number): Cover {
  const shift = (apart: number) => (apart + other.middle - letter.middle) * CELLS;
  const [was, is] = [shift(before), shift(after)];
  const { white, ink } = letter.evidence;
  const { cells: inked } = other.image;
  const from = Math.max(0, Math.floor(other.image.from + Math.min(was, is)) - 1);
  const to = Math.max(from, Math.min(COLUMNS, Math.ceil(other.image.to + Math.max(was, is)) + 1));
  const cells = new Float32Array(ROWS * (to - from));
  let lost = 0;
  for (let r = 0; r < ROWS; r++) {
    const at = r * COLUMNS;
    for (let c = from; c < to; c++) {
      const more = between(inked, at, c - is) - between(inked, at, c - was);
      if (more <= 0) continue;
      cells[r * (to - from) + c - from] = more;
      lost += more * ((white[at + c] as number) + (ink[at + c] as number));
    }
  }
  return { cells, from, to, lost };
}

/** What a letter loses under a strip, where it had no ink and no neighbour covers it; `by` leads from the pair's origin to its own. */
function lostUnder({ evidence, image, middle }: JoinLetter, cover: Cover, strip: readonly Point[], by: number): number {
  const xs = strip.map((p) => columnAt(p.x + by - middle));
  const ys = strip.map((p) => rowAt(p.y));
  const [left, right, low, high] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  const isLevel = ys.every((y) => y === low || y === high) && xs.every((x) => x === left || x === right);
  const [x0, x1] = [Math.max(0, Math.floor(left)), Math.min(COLUMNS, Math.ceil(right))];
  const [y0, y1] = [Math.max(0, Math.floor(low)), Math.min(ROWS, Math.ceil(high))];
  let lost = 0;
  for (let r = y0; r < y1; r++) {
    const tall = Math.min(r + 1, high) - Math.max(r, low);
    for (let c = x0; c < x1; c++) {
      const at = r * COLUMNS + c;
      const counts = (evidence.white[at] as number) + (evidence.ink[at] as number);
      if (counts === 0) continue;
      const isCovered = c >= cover.from && c < cover.to;
      const covered = isCovered ? (cover.cells[r * (cover.to - cover.from) + c - cover.from] as number) : 0;
      const free = 1 - (image.cells[at] as number) - covered;
      if (free <= 0) continue;
      const share = isLevel ? tall * (Math.min(c + 1, right) - Math.max(c, left)) : coveredShare(xs, ys, c, r);
      lost += share * free * counts;
    }
  }
  return lost;
}

/** The share of a cell that a convex shape covers, by four places of it. */
function coveredShare(xs: readonly number[], ys: readonly number[], column: number, row: number): number {
  let count = 0;
  for (let k = 0; k < 4; k++) {
    const x = column + (k & 1 ? 0.75 : 0.25);
    const y = row + (k & 2 ? 0.75 : 0.25);
    let isInside = true;
    for (let i = 0; i < xs.length && isInside; i++) {
      const j = (i + 1) % xs.length;
      const [px, py] = [xs[i] as number, ys[i] as number];
      isInside = ((xs[j] as number) - px) * (y - py) - ((ys[j] as number) - py) * (x - px) >= 0;
    }
    if (isInside) count++;
  }
  return count / 4;
}

const hasInk = ({ whole }: JoinLetter, row: number): boolean => !Number.isNaN(whole.left[row] ?? Number.NaN);
