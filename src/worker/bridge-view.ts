/** What the bench shows of islands and bridges. */

import type { BridgeNow } from '../core/commands/bridges';
import { type Box, boxContains, boxesMeet, growBox, type Matrix, type Point } from '../core/geometry/point';
import { islandNames } from '../core/inspect/names';
import { LIMITS } from '../core/limits';
import type { Bridge, BridgedIsland, BridgeNotes, IslandTrouble } from '../core/prepare/bridges/notes';
import type { Outline } from '../core/prepare/outline';
import type { PreparedPart } from '../core/prepare/prepared';
import { type LetterReadability, meanReadability } from '../core/prepare/readability';

/** A bridge as it is drawn and edited, on the sheet. */
export type BridgeView = BridgeNow & {
  /** Where it starts and ends in the middle, on the sheet. */
  readonly from: Point;
  readonly to: Point;
  /** From its letter's own coordinates to the sheet. */
  readonly matrix: Matrix;
};

/** An island as it is listed and drawn. */
export type IslandView = {
  readonly letter: string;
  readonly island: number;
  readonly name: string;
  /** The characters of its letter; '' for a shape. */
  readonly text: string;
  readonly box: Box;
  /** Its letter as cut: path data with y upwards, and what of it to look at. */
  readonly d: string;
  readonly letterBox: Box;
  readonly how: BridgedIsland['how'];
  /** How many bridges it has, and whether it hangs on the rest by them. */
  readonly bridgeCount: number;
  readonly hangs: boolean;
  readonly asked: number;
  readonly trouble: IslandTrouble | null;
  /** Widest and narrowest of its bridges in mm; 0 without. */
  readonly widthMm: number;
  /** How readable its letter stays, 0 to 100. */
  readonly readability: number;
};

/** The bridges and islands of a part. */
export type BridgesView = {
  /** Whether bridges are looked for. */
  readonly isOn: boolean;
  readonly bridges: readonly BridgeView[];
  /** The first of the islands; the keys of all; how many are held and left on purpose. */
  readonly islands: readonly IslandView[];
  readonly keys: readonly { readonly letter: string; readonly island: number; readonly text: string }[];
  readonly islandsHeld: number;
  readonly islandsLeft: number;
  /** Islands that nobody would miss and that are not bridged: how many, and how wide the widest is on the whole, in mm. */
  readonly small: { readonly count: number; readonly widestMm: number };
  /** Mean over the letters with islands, 0 to 100. */
  readonly readability: number;
};

const NONE: BridgesView = {
  isOn: false,
  bridges: [],
  islands: [],
  keys: [],
  islandsHeld: 0,
  islandsLeft: 0,
  small: { count: 0, widestMm: 0 },
  readability: 100,
};

/** Around an island in a word that is one outline, this share of the island's own size is shown. */
const AROUND = 0.8;

/** What the bench shows of the bridges of a part. */
export function bridgesView(
  part: PreparedPart & { readonly readability: readonly LetterReadability[] },
  print: (outlines: readonly Outline[]) => string,
): BridgesView {
  const notes = part.bridged;
  if (!notes) return NONE;
  const withIslands = new Set([...notes.islands, ...notes.small].map((i) => i.label));
  const letters = part.readability.filter(({ label }) => withIslands.has(label));
  const figures = new Map(letters.map((l) => [l.label, l.figure]));
  const shown = notes.islands.slice(0, LIMITS.piecesNamed);
  const names = islandNames(part.sources, notes.islands);
  const frames = new Map(part.frames.map((frame) => [frame.key, frame.matrix]));
  return {
    isOn: notes.isOn,
    bridges: notes.bridges.map((b) => bridgeView(b, frames)),
    islands: shown.map((island, i) => islandView(island, { name: names[i] as string, part, notes, figures, print })),
    keys: notes.islands.map((i) => ({ letter: i.letter, island: i.rank, text: part.sources[i.label]?.text ?? '' })),
    islandsHeld: notes.islands.filter((i) => i.hangs).length,
    islandsLeft: notes.isOn ? notes.islands.filter((i) => i.how === 'leave').length : 0,
    small: { count: notes.small.length, widestMm: Math.max(0, ...notes.small.map(({ widthMm }) => widthMm)) },
    readability: meanReadability(letters),
  };
}

const bridgeView = (b: Bridge, frames: ReadonlyMap<string, Matrix>): BridgeView => ({
  letter: b.letter,
  island: b.island,
  pinnedIndex: b.pinnedIndex,
  own: b.own,
  width: b.width,
  isNarrowed: b.isNarrowed,
  from: b.from,
  to: b.to,
  matrix: frames.get(b.letter) ?? { a: 1, b: 0, c: 0, d: 1, e: 0, f: 0 },
});

function islandView(
  island: BridgedIsland,
  {
    name,
    part,
    notes,
    figures,
    print,
  }: {
    readonly name: string;
    readonly part: PreparedPart;
    readonly notes: BridgeNotes;
    readonly figures: ReadonlyMap<number, number>;
    readonly print: (outlines: readonly Outline[]) => string;
  },
): IslandView {
  const { box } = island.outline;
  const around = notes.before[island.outline.parent];
  const isAlone = around !== undefined && new Set(around.labels.filter((l) => l >= 0)).size <= 1;
  const letterBox =
    isAlone && around ? around.box : growBox(box, AROUND * Math.max(box.maxX - box.minX, box.maxY - box.minY));
  const widths = island.bridges.map((k) => notes.bridges[k]?.width ?? 0);
  return {
    letter: island.letter,
    island: island.rank,
    name,
    text: part.sources[island.label]?.text ?? '',
    box,
    d: print(
      part.outlines.filter(
        (o) => o.labels.includes(island.label) && boxesMeet(o.box, letterBox) && !isStockAround(o, letterBox, part),
      ),
    ),
    letterBox,
    how: notes.isOn ? island.how : 'auto',
    bridgeCount: island.bridges.length,
    hangs: island.hangs,
    asked: island.asked,
    trouble: island.trouble,
    widthMm: Math.max(0, ...widths),
    readability: figures.get(island.label) ?? 100,
  };
}

/** The outline of the plate that a letter is cut out of is not of the letter. */
const isStockAround = (o: Outline, letterBox: Box, part: PreparedPart): boolean =>
  part.keep === 'inside' && o.depth % 2 === 0 && boxContains(o.box, letterBox);
