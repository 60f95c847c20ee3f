/** Bridges by hand: editing the bridge step of a part, given as a draft or a copy. */
import type { IslandSetting, PlacedBridge, StepOf } from '../document/schema';
import { LIMITS } from '../limits';

type BridgeStep = StepOf<'bridge'>;

/** An island by its letter and which of that letter's it is. */
export type IslandKey = { readonly letter: string; readonly island: number };

/** A bridge as it lies now: place and direction in its letter, width in mm. */
export type BridgeNow = {
  readonly letter: string;
  readonly island: number | null;
  /** Which of the step's placed bridges it is; null for an automatic one. */
  readonly placed: number | null;
  readonly own: { readonly x: number; readonly y: number; readonly turn: number };
  readonly width: number;
  readonly isNarrowed: boolean;
};

const sameIsland = (a: { letter: string; island: number | null }, b: { letter: string; island: number | null }) =>
  a.letter === b.letter && a.island === b.island;

const rounded = (value: number, per: number): number => Math.round(value * per) / per;

/** What is said of an island, made when nothing is yet. */
export function islandSetting(step: BridgeStep, key: IslandKey): IslandSetting {
  let known = step.islands.find((s) => sameIsland(s, key));
  if (!known) {
    known = { letter: key.letter, island: key.island, how: 'auto', count: null };
    step.islands.push(known);
  }
  return known;
}

const asPlaced = (bridge: BridgeNow): PlacedBridge => ({
  letter: bridge.letter,
  island: bridge.island,
  x: rounded(bridge.own.x, 1e5),
  y: rounded(bridge.own.y, 1e5),
  turn: rounded(bridge.own.turn, 100),
  width: bridge.isNarrowed ? rounded(bridge.width, 1e3) : null,
});

/** Takes the bridges of an island in hand as they lie: they stay so on their letter until they are let go. */
export function pinIsland(step: BridgeStep, key: IslandKey, bridges: readonly BridgeNow[]): void {
  const setting = islandSetting(step, key);
  if (setting.how === 'hand') return;
  setting.how = 'hand';
  for (const bridge of bridges)
    if (sameIsland(bridge, key) && step.placed.length < LIMITS.bridgesPlaced) step.placed.push(asPlaced(bridge));
}

/**
 * The placed bridge that stands for one on the sheet, its island taken in hand first; null when there is none. `bridges`
 * are all there were when it was looked at, though its island may have been taken in hand since.
 */
export function inHand(step: BridgeStep, bridge: BridgeNow, bridges: readonly BridgeNow[]): PlacedBridge | null {
  if (bridge.placed !== null) return step.placed[bridge.placed] ?? null;
  if (bridge.island === null) return null;
  const key = { letter: bridge.letter, island: bridge.island };
  const nth = bridges.filter((b) => sameIsland(b, key)).indexOf(bridge);
  pinIsland(step, key, bridges);
  return step.placed.filter((p) => sameIsland(p, key))[nth] ?? null;
}

/** Lets an island go: its bridges are placed automatically again. */
export function letGo(step: BridgeStep, key: IslandKey): void {
  step.placed = step.placed.filter((p) => !sameIsland(p, key));
  const setting = step.islands.find((s) => sameIsland(s, key));
  if (setting) setting.how = 'auto';
  settleIslands(step);
}

/** Takes one bridge out; the others of its island stay as they lie. */
export function removeBridge(step: BridgeStep, bridge: BridgeNow, bridges: readonly BridgeNow[]): void {
  const placed = inHand(step, bridge, bridges);
  if (placed) step.placed = step.placed.filter((p) => p !== placed);
}

/** Puts a bridge in by hand; those its island has stay as they lie. */
export function addBridge(step: BridgeStep, placed: PlacedBridge, bridges: readonly BridgeNow[]): void {
  if (placed.island !== null) pinIsland(step, { letter: placed.letter, island: placed.island }, bridges);
  if (step.placed.length < LIMITS.bridgesPlaced)
    step.placed.push({ ...placed, x: rounded(placed.x, 1e5), y: rounded(placed.y, 1e5) });
}

/** Gives other islands the bridges of one, by hand: those of letters of the same kind. */
export function copyToSame(
  step: BridgeStep,
  from: IslandKey,
  to: readonly IslandKey[],
  bridges: readonly BridgeNow[],
): void {
  pinIsland(step, from, bridges);
  const own = step.placed.filter((p) => sameIsland(p, from));
  for (const { letter, island } of to) {
    const key = { letter, island };
    if (sameIsland(key, from)) continue;
    islandSetting(step, key).how = 'hand';
    step.placed = step.placed.filter((p) => !sameIsland(p, key));
    for (const placed of own) if (step.placed.length < LIMITS.bridgesPlaced) step.placed.push({ ...placed, ...key });
  }
}

/** Islands about which nothing is said any more are not kept. */
export function settleIslands(step: BridgeStep): void {
  step.islands = step.islands.filter((s) => s.how !== 'auto' || s.count !== null);
}
