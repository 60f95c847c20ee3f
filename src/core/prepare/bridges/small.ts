/**
 * Islands that nobody would miss: no wider than the bridge that would hold them, or one too many in a letter that is decorated. They are
 * asked about rather than bridged.
 */
import { pathLength, transformRegion } from '../../geometry/path';
import { boxHeight, boxWidth, invert } from '../../geometry/point';
import { isOfCapitals } from '../../lettering/capitals';
import { imageOf } from '../../lettering/letter-image';
import type { LetterFrame } from '../frames';
import { nestAgain, type Outline } from '../outline';
import { countFor, type Island } from './islands';
import type { BridgeSettings } from './notes';
import type { LetterEvidence } from './sites';

/** An island is missed where more than this share of what makes its letter itself goes with it. */
const MISSED = 0.15;
/** What is no letter is missed where it measures more than this many bridge widths from end to end. */
const LARGE_WIDTHS = 4;
/** A Latin letter of more islands is decorated, and so is one with an island that has a hole. */
const PLAIN_ISLANDS = 2;
/** The counters that letters have in plain faces; the others of Latin words have none. */
const COUNTERS: Readonly<Record<string, number>> = {
  ...each('ADOPQRabdeopq0469#§°ªº№ÞþÐðß¶®©ə', 1),
  ...each('B8g&@%$ØøÆæŒœ', 2),
  ...each('‰', 3),
};
/** What stands over or under a letter in its decomposition, and has a counter. */
const RING = '\u030a';
const LATIN_WORDS = /^[\p{Script=Latin}\p{M}\p{N}\p{P}\p{S}]+$/u;
/** Lettering is decorated where this share of its letters with islands are. */
const DECORATED = 0.25;
/** Bridges that a letter of decorated lettering has on average, at most. */
const BRIDGES_A_LETTER = 2;

/** Which islands are small, and which have one bridge where they would have two, as indices of their outlines. */
export type SmallIslands = { readonly small: ReadonlySet<number>; readonly single: ReadonlySet<number> };

type Asked = {
  readonly step: BridgeSettings;
  /** Width of bridges in mm, and of the stock. */
  readonly asked: number;
  readonly thicknessMm: number | null;
  readonly frames: readonly LetterFrame[];
  readonly evidenceOf: (frame: LetterFrame) => LetterEvidence | null;
};

/** What is small among the islands of a shape. What somebody said something of is not. */
export function smallIslands(
  shape: readonly Outline[],
  islands: readonly Island[],
  { step, asked, thicknessMm, frames, evidenceOf }: Asked,
): SmallIslands {
  const isOwn = (island: Island): boolean =>
    step.islands.some(
      (s) => s.letter === island.letter && s.island === island.rank && (s.how !== 'auto' || s.count !== null),
    );
  const open = islands.filter((island) => !isOwn(island));
  const shares = new Map<Island, number>();
  /** The share of what makes the letter itself that goes where an island is filled. */
  const shareOf = (island: Island): number => {
    let share = shares.get(island);
    if (share === undefined) {
      share = shareFilled(shape[island.outline] as Outline, frames[island.label], evidenceOf);
      shares.set(island, share);
    }
    return share;
  };
  const counters = countersAmong(islands, frames, shareOf);
  const isThin = (island: Island): boolean => {
    const o = shape[island.outline] as Outline;
    if (meanWidth(o) >= asked || counters.has(island)) return false;
    if (frames[island.label]?.glyphs) return shareOf(island) < MISSED;
    return Math.hypot(boxWidth(o.box), boxHeight(o.box)) < LARGE_WIDTHS * asked;
  };
  const small = new Set(open.filter(isThin).map(({ outline }) => outline));
  const rest = open.filter(({ outline }) => !small.has(outline));
  if (step.count > 0 || !isDecorated(shape, islands, frames)) return { small, single: new Set() };
  // Drawings, and letters of other scripts, have as many islands as they have.
  const ofLetters = rest.filter(({ label }) => isLatin(frames[label]));
  // Those that matter most come first, so that what an island stands in comes before it.
  ofLetters.sort((a, b) => shareOf(b) - shareOf(a) || b.areaMm2 - a.areaMm2);
  const own = islands.filter((island) => isOwn(island) && isLatin(frames[island.label]));
  let left = BRIDGES_A_LETTER * lettersIn(shape, frames) - own.length;
  for (const island of ofLetters.splice(Math.max(0, left))) small.add(island.outline);
  left -= ofLetters.length;
  const single = new Set<number>();
  for (const { outline } of ofLetters)
    if (countFor(shape[outline] as Outline, asked, thicknessMm) > 1 && left-- <= 0) single.add(outline);
  return { small, single };
}

/** The islands that are counters of plain letters: of each letter as many as it has, those that count most. */
function countersAmong(
  islands: readonly Island[],
  frames: readonly LetterFrame[],
  shareOf: (island: Island) => number,
): ReadonlySet<Island> {
  const byLabel = new Map<number, Island[]>();
  for (const island of islands) byLabel.set(island.label, [...(byLabel.get(island.label) ?? []), island]);
  return new Set(
    [...byLabel].flatMap(([label, own]) => {
      const count = countersOf(frames[label]);
      return own.length <= count ? own : own.sort((a, b) => shareOf(b) - shareOf(a)).slice(0, count);
    }),
  );
}

/** How many counters a letter has in plain faces; any number for one of another script. */
function countersOf(frame: LetterFrame | undefined): number {
  const text = frame?.glyphs?.text ?? '';
  if (text !== '' && !LATIN_WORDS.test(text)) return Infinity;
  const small = [...text.normalize('NFD')];
  const capitals = small.map((c) => c.toUpperCase());
  const drawn = frame?.glyphs && countersIn(small) !== countersIn(capitals) && isOfCapitals(frame.glyphs.face);
  return countersIn(drawn ? capitals : small);
}

const countersIn = (characters: readonly string[]): number =>
  characters.reduce((sum, c) => sum + (c === RING ? 1 : (COUNTERS[c] ?? 0)), 0);

const isLatin = (frame: LetterFrame | undefined): boolean =>
  frame?.glyphs !== null && frame?.glyphs !== undefined && LATIN_WORDS.test(frame.glyphs.text);

function each(characters: string, count: number): Record<string, number> {
  return Object.fromEntries([...characters].map((c) => [c, count]));
}

/** How wide an island is on the whole, in mm. */
export const meanWidth = (o: Outline): number => (2 * Math.abs(o.area)) / Math.max(1e-9, pathLength(o.path));

function shareFilled(
  { path }: Outline,
  frame: LetterFrame | undefined,
  evidenceOf: (frame: LetterFrame) => LetterEvidence | null,
): number {
  const known = frame ? evidenceOf(frame) : null;
  if (!frame || !known) return 0;
  const { cells } = imageOf(transformRegion([path], invert(frame.matrix)), known.middle);
  return known.evidence.white.reduce((sum, white, i) => sum + white * (cells[i] as number), 0);
}

/** Whether many Latin letters have more islands than letters have, or islands with holes. */
function isDecorated(shape: readonly Outline[], islands: readonly Island[], frames: readonly LetterFrame[]): boolean {
  const holed = new Set(shape.map(({ parent }) => parent));
  const counts = new Map<number, number>();
  const decorated = new Set<number>();
  for (const { label, outline } of islands) {
    const frame = frames[label];
    if (!isLatin(frame)) continue;
    const count = (counts.get(label) ?? 0) + 1;
    counts.set(label, count);
    const plain = Math.max(PLAIN_ISLANDS, countersOf(frame));
    if (count > plain || holed.has(outline)) decorated.add(label);
  }
  return decorated.size > DECORATED * counts.size;
}

/** Latin letters that outlines of a shape run along. */
const lettersIn = (shape: readonly Outline[], frames: readonly LetterFrame[]): number =>
  new Set(shape.flatMap(({ labels }) => labels.filter((label) => isLatin(frames[label])))).size;

/** A shape without some outlines and all that lies in them, and what was taken out. */
export function withoutOutlines(
  shape: readonly Outline[],
  out: ReadonlySet<number>,
): { readonly shape: readonly Outline[]; readonly taken: readonly Outline[] } {
  const isOut = (i: number): boolean => i >= 0 && (out.has(i) || isOut((shape[i] as Outline).parent));
  return { shape: nestAgain(shape.filter((_, i) => !isOut(i))), taken: shape.filter((_, i) => isOut(i)) };
}
