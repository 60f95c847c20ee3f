/**
 * How the letters of a face are built: by the class it gives itself, where it gives one that can be believed, else measured on its
 * outlines along horizontal lines through a few letters.
 */
import { DisjointSets } from '../geometry/disjoint-sets';
import { type InkRows, inkRowsOf } from '../geometry/ink-rows';
import { type Path, regionBox, transformRegion } from '../geometry/path';
import { translation } from '../geometry/point';
import { spanOf } from '../geometry/segment';
import type { Look } from '../schema/face-about';
import { PLAIN_SHAPING, type Typeface } from './face';
import type { Bytes } from './sfnt';

/** Where the OS/2 table keeps the class of the family and its PANOSE numbers. */
const FAMILY_CLASS = 30;
const PANOSE = 32;

/** What a face's own class makes of it; null where it says nothing. */
function classOf(os2: Bytes | undefined): 'serif' | 'slab' | 'plain' | 'written' | null {
  const family = (os2?.u16(FAMILY_CLASS) ?? 0) >> 8;
  if (family === 5) return 'slab';
  if ([1, 2, 3, 4, 7].includes(family)) return 'serif';
  if (family === 8) return 'plain';
  if (family === 10) return 'written';
  const [kind, serif] = [os2?.u8(PANOSE) ?? 0, os2?.u8(PANOSE + 1) ?? 0];
  if (kind === 3) return 'written';
  if (kind !== 2) return null;
  return serif >= 2 && serif <= 10 ? 'serif' : serif >= 11 && serif <= 15 ? 'plain' : null;
}

/** The outlines of a text as it is set, letter by letter, in font units from where it begins; of what the face lacks nothing. */
function lettersOf(face: Typeface, text: string): Path[][] {
  let pen = 0;
  return face.shape(text, 'ltr', PLAIN_SHAPING).map(({ glyph, advance, dx, dy }) => {
    const paths = glyph === 0 ? [] : transformRegion(face.outline(glyph), translation(pen + dx, dy));
    pen += advance;
    return paths as Path[];
  });
}

/** Letters are looked at along lines this share of a capital apart. */
const FINE = 1 / 400;

/** Letters that stand on upright stems, and where those are as wide as they are. */
const STEMS = 'HnhlIr';
const MIDDLE = [0.25, 0.35];

type Foot = {
  /** How many times as wide as its stem the foot is, just above its end. */
  readonly wide: number;
  /** How high the foot goes on at nearly that width, in stems. */
  readonly high: number;
};

/** The foot of a letter's first stem; null where there is none. */
function footOf(paths: readonly Path[], capital: number): Foot | null {
  const step = capital * FINE;
  const rows = inkRowsOf(paths, step);
  const bottom = regionBox(paths).minY;
  const widthAt = (y: number): number | null => {
    const row = rows.rows[Math.round((bottom + y) / step) - rows.first];
    return row && row.length >= 2 ? (row[1] as number) - (row[0] as number) : null;
  };
  const stems = MIDDLE.map((share) => widthAt(share * capital)).filter((w) => w !== null);
  if (stems.length < MIDDLE.length) return null;
  const stem = Math.min(...stems);
  const ends = [0.01, 0.02, 0.03].map((share) => widthAt(share * capital)).filter((w) => w !== null);
  if (stem <= 0 || ends.length === 0) return null;
  const foot = Math.max(...ends);
  let y = 0.01 * capital;
  while (y < 0.3 * capital && (widthAt(y) ?? 0) > 0.85 * foot) y += step;
  return { wide: (ends[0] as number) < 0.8 * stem ? (ends[0] as number) / stem : foot / stem, high: y / stem };
}

const middleOf = (values: readonly number[]): number => [...values].sort((a, b) => a - b)[values.length >> 1] ?? 0;

/** Words whose letters meet in a script, and the share of neighbours that have to. */
const JOINED = ['minimum', 'handle', 'unceasing'];
const MOST_JOINED = 0.6;

/** The share of neighbours in a few words whose ink meets. */
function joinedShare(face: Typeface): number {
  const step = face.capHeight * FINE * 2;
  let [pairs, joined] = [0, 0];
  for (const word of JOINED) {
    const letters = lettersOf(face, word).map((paths) => inkRowsOf(paths, step));
    for (let i = 1; i < letters.length; i++) {
      const [a, b] = [letters[i - 1], letters[i]] as [(typeof letters)[0], (typeof letters)[0]];
      pairs++;
      const meets = a.rows.some((row, k) => {
        const other = b.rows[k + a.first - b.first];
        return row.length > 0 && other && other.length > 0 && (row.at(-1) as number) >= (other[0] as number) - step;
      });
      if (meets) joined++;
    }
  }
  return pairs === 0 ? 0 : joined / pairs;
}

/** Letters that have an island in all but stencil faces. */
const ISLANDS = 'ABDOPQR';
/** What is enclosed over fewer lines is a nick. */
const NICK_LINES = 6;

/** Whether ink encloses what is not ink: gaps of neighbouring lines that meet, none of them open to the outside. */
function hasIsland({ rows }: InkRows): boolean {
  type Gap = { readonly from: number; readonly to: number; readonly of: number };
  const sets = new DisjointSets(0);
  const lines: number[] = [];
  const isOpen: boolean[] = [];
  let before: { readonly gaps: readonly Gap[]; readonly ends: readonly [number, number] | null } = {
    gaps: [],
    ends: null,
  };
  const meets = (gap: Gap, from: number, to: number) => gap.from < to && gap.to > from;
  const opens = (gap: Gap, ends: readonly [number, number] | null) =>
    ends === null || gap.from < ends[0] || gap.to > ends[1];
  for (const row of [...rows, []]) {
    const ends = row.length > 0 ? ([row[0] as number, row.at(-1) as number] as const) : null;
    const gaps: Gap[] = [];
    for (let i = 1; i + 1 < row.length; i += 2) {
      const gap = { from: row[i] as number, to: row[i + 1] as number, of: sets.add() };
      lines.push(1);
      isOpen.push(opens(gap, before.ends));
      for (const other of before.gaps) if (meets(other, gap.from, gap.to)) sets.join(other.of, gap.of);
      gaps.push(gap);
    }
    for (const gap of before.gaps) if (opens(gap, ends)) isOpen[gap.of] = true;
    before = { gaps, ends };
  }
  const whole = new Map<number, { lines: number; isOpen: boolean }>();
  lines.forEach((_, i) => {
    const root = sets.find(i);
    const known = whole.get(root) ?? { lines: 0, isOpen: false };
    whole.set(root, { lines: known.lines + 1, isOpen: known.isOpen || isOpen[i] === true });
  });
  return [...whole.values()].some((w) => !w.isOpen && w.lines >= NICK_LINES);
}

/** Whether letters that have islands elsewhere have none here, though they are drawn in pieces. */
function isStencil(face: Typeface): boolean {
  const letters = lettersOf(face, ISLANDS).filter((paths) => paths.length > 0);
  const isOpen = (paths: readonly Path[]) =>
    paths.length > 1 && !hasIsland(inkRowsOf(paths, face.capHeight * FINE * 2));
  return letters.length >= 4 && letters.filter(isOpen).length >= 0.7 * letters.length;
}

/** Letters of straight strokes; written by hand they are hardly ever straight. */
const STRAIGHT = 'HIEFLTlikvx';

/** The share of the outlines of straight letters that is straight, upright or not. */
function straightShare(face: Typeface): number {
  let [all, straight] = [0, 0];
  for (const paths of lettersOf(face, STRAIGHT))
    for (const { segments } of paths)
      for (const s of segments) {
        const length = spanOf(s);
        all += length;
        if (s.kind === 'line') straight += length;
      }
  return all === 0 ? 0 : straight / all;
}

/** A foot so many times as wide as its stem is a serif; one that goes on so high, in stems, is that of a slab; one so narrow is round. */
const SERIF = 1.3;
const SLAB = 0.5;
const ROUND = 0.8;
/** Straight letters of what is written are straight over less than this. */
const WRITTEN = 0.35;
/** Capitals and small letters narrower than this, in capitals, are narrow. */
const NARROW = 0.66;

/** How a face's letters are built. */
export function lookOf(face: Typeface, os2?: Bytes): Look {
  if (face.isSingleStroke) return 'one line';
  if (isStencil(face)) return 'stencil';
  const own = classOf(os2);
  const advances = (text: string) => face.shape(text, 'ltr', PLAIN_SHAPING).map((g) => g.advance);
  const [thin, wide] = [advances('i')[0] ?? 0, advances('m')[0] ?? 0];
  const isWritten = own === 'written' || (own === null && straightShare(face) < WRITTEN);
  if (joinedShare(face) > MOST_JOINED) return 'script';
  if (thin > 0 && thin === wide) return 'fixed width';
  const feet = lettersOf(face, STEMS).flatMap((paths) => footOf(paths, face.capHeight) ?? []);
  const foot = middleOf(feet.map((f) => f.wide));
  const isSerif = foot > SERIF;
  if (own === 'slab' || (isSerif && !isWritten && middleOf(feet.map((f) => f.high)) > SLAB)) return 'slab';
  if (own === 'serif' || (isSerif && !isWritten)) return 'serif';
  if (isWritten) return 'hand';
  const across = middleOf(advances('HNOUnouh')) / face.capHeight;
  if (across < NARROW) return 'narrow';
  return feet.length > 0 && foot < ROUND ? 'rounded' : 'plain';
}
