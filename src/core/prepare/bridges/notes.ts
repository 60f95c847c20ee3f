/** What bridging was asked, and what it did. Lengths in mm. */
import type { Path } from '../../geometry/path';
import type { Point } from '../../geometry/point';
import type { LetterFrame } from '../frames';
import type { Outline } from '../outline';
import type { Hair } from './hairs';

/** What is said of an island. */
export type IslandSetting = {
  readonly letter: string;
  readonly island: number;
  /** Placed anew each time, only as placed by hand, or none. */
  readonly how: 'auto' | 'hand' | 'leave';
  /** 0: as is best; null: as is said for all. */
  readonly count: number | null;
};

/** A bridge placed by hand: where it starts and its direction in its letter, in capital heights and degrees. */
export type PinnedBridge = {
  readonly letter: string;
  readonly island: number | null;
  readonly x: number;
  readonly y: number;
  readonly turn: number | null;
  /** In mm; null: as is said for all. */
  readonly width: number | null;
};

/** Islands that nobody would miss are bridged like others, asked about, not cut at all, or cut and left to drop. */
export type SmallAnswer = 'bridge' | 'ask' | 'fill' | 'drop';

/** How bridges are to be. Lengths in mm. */
export type BridgeSettings = {
  readonly width: number;
  readonly direction: 'any' | 'upright' | 'level' | 'stroke';
  readonly count: number;
  readonly sides: 'straight' | 'waisted';
  readonly joints: 'square' | 'filleted';
  readonly slanted: boolean;
  readonly alike: boolean;
  readonly level: boolean;
  /** Whether bridges keep off what makes letters themselves. */
  readonly reads: boolean;
  /** What becomes of islands that nobody would miss. */
  readonly small: SmallAnswer;
  readonly islands: readonly IslandSetting[];
  readonly pinned: readonly PinnedBridge[];
};

/** A bridge as it was placed. */
export type Bridge = {
  /** The letter it is known by, and which island of it it holds; null for one that holds none. */
  readonly letter: string;
  readonly island: number | null;
  /** Where it starts and ends, in the middle. */
  readonly from: Point;
  readonly to: Point;
  readonly width: number;
  /** Whether there was no room for the width asked for. */
  readonly isNarrowed: boolean;
  /** Which of the step's bridges placed by hand it is; null when it was placed automatically. */
  readonly pinnedIndex: number | null;
  /** Place and direction in its letter: capital heights and degrees. */
  readonly own: { readonly x: number; readonly y: number; readonly turn: number };
  /** Area of the letter it takes, in mm², and the nearest corner of an edge, in mm. */
  readonly areaMm2: number;
  readonly toCornerMm: number;
};

/** Why an island has fewer bridges than were asked for. */
export type IslandTrouble =
  /** It is itself narrower than the least safe width. */
  | 'too small'
  /** No straight strip of the least width reaches from it to firm stock. */
  | 'no way';

/** An island with what holds it. */
export type BridgedIsland = {
  readonly letter: string;
  readonly rank: number;
  /** Index of its letter among the sources; -1 for none. */
  readonly label: number;
  /** Its outline before it was bridged. */
  readonly outline: Outline;
  readonly how: 'auto' | 'hand' | 'leave';
  /** Bridges it was to have, and indices of those it has. */
  readonly asked: number;
  /** Whether that number was set, for all or for this one. */
  readonly isCountAsked: boolean;
  readonly bridges: readonly number[];
  /** Whether it hangs on the rest by them. */
  readonly hangs: boolean;
  readonly trouble: IslandTrouble | null;
};

/** An island that nobody would miss: its letter, its outline, how wide it is on the whole in mm, and whether it is still cut. */
export type SmallIsland = {
  readonly letter: string;
  readonly rank: number;
  readonly label: number;
  readonly outline: Outline;
  readonly widthMm: number;
  readonly isCut: boolean;
};

/** What bridging has to say: its bridges, islands, hairs, and what was placed by hand and has no place any more. */
export type BridgeNotes = {
  /** Whether bridges were looked for. */
  readonly isOn: boolean;
  /** The shape before it was bridged. */
  readonly before: readonly Outline[];
  readonly islands: readonly BridgedIsland[];
  readonly bridges: readonly Bridge[];
  /** Width asked for, never under the least safe width, and the narrowest that bridges are made. */
  readonly askedMm: number;
  readonly leastMm: number;
  /** Where islands hung on next to nothing and were cut free. */
  readonly hairs: readonly Hair[];
  /** Bridges placed by hand that there is no place for, as indices of the step's. */
  readonly unplaced: readonly number[];
  /** Islands that nobody would miss and that are not bridged. */
  readonly small: readonly SmallIsland[];
  /** Islands that are too many to be bridged; 0 when they were. */
  readonly tooMany: number;
};

/** What a shape is bridged in. */
export type BridgeGround = {
  /** Whether the shape is what stays, or what is cut away. */
  readonly stockInside: boolean;
  readonly frames: readonly LetterFrame[];
  /** The least safe width; null when not given. */
  readonly leastMm: number | null;
  readonly thicknessMm: number | null;
  /** Other edges that stock ends at, such as the rim of the sheet. */
  readonly rims: readonly Path[];
};

/** What a shape is bridged by: the ground it lies on, and the step. */
export type BridgeSetting = BridgeGround & { readonly step: BridgeSettings };
