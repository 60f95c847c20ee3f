/** Bridges by hand: each command changes the bridge step of a part, which gets one if it has none and is not locked. */
import type { Job, StepOf } from '../document/schema';
import type { Measure } from '../kinds/step';
import { stepIn } from '../kinds/steps';
import { LIMITS } from '../limits';
import type { PinnedBridge } from '../prepare/bridges/notes';
import { partOf } from './changed';
import { editStep } from './steps';

type BridgeStep = StepOf<'bridge'>;

/** A bridge placed by hand, in a step that may be changed. */
export type PinnedDraft = BridgeStep['pinned'][number];

/** An island by its letter and which of that letter's it is. */
export type IslandKey = { readonly letter: string; readonly island: number };

/** A bridge as it lies now: place and direction in its letter, width in mm. */
export type BridgeNow = {
  readonly letter: string;
  readonly island: number | null;
  /** Which of the step's placed bridges it is; null for an automatic one. */
  readonly pinnedIndex: number | null;
  readonly own: { readonly x: number; readonly y: number; readonly turn: number };
  readonly width: number;
  readonly isNarrowed: boolean;
};

const sameIsland = (a: { letter: string; island: number | null }, b: { letter: string; island: number | null }) =>
  a.letter === b.letter && a.island === b.island;

const rounded = (value: number, per: number): number => Math.round(value * per) / per;

/** What is said of an island, made when nothing is yet. */
export function islandSetting(step: BridgeStep, key: IslandKey): BridgeStep['islands'][number] {
  let known = step.islands.find((s) => sameIsland(s, key));
  if (!known) {
    known = { letter: key.letter, island: key.island, how: 'auto', count: null };
    step.islands.push(known);
  }
  return known;
}

const asPlaced = (bridge: BridgeNow): PinnedDraft => ({
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
    if (sameIsland(bridge, key) && step.pinned.length < LIMITS.bridgesPlaced) step.pinned.push(asPlaced(bridge));
}

/**
 * The placed bridge that stands for one on the sheet, its island taken in hand first; null when there is none. `bridges`
 * are all there were when it was looked at, though its island may have been taken in hand since.
 */
export function pinnedBridge(step: BridgeStep, bridge: BridgeNow, bridges: readonly BridgeNow[]): PinnedDraft | null {
  if (bridge.pinnedIndex !== null) return step.pinned[bridge.pinnedIndex] ?? null;
  if (bridge.island === null) return null;
  const key = { letter: bridge.letter, island: bridge.island };
  const nth = bridges.filter((b) => sameIsland(b, key)).indexOf(bridge);
  pinIsland(step, key, bridges);
  return step.pinned.filter((p) => sameIsland(p, key))[nth] ?? null;
}

/** Lets an island go: its bridges are placed automatically again. */
export function letGo(step: BridgeStep, key: IslandKey): void {
  step.pinned = step.pinned.filter((p) => !sameIsland(p, key));
  const setting = step.islands.find((s) => sameIsland(s, key));
  if (setting) setting.how = 'auto';
  settleIslands(step);
}

/** Takes one bridge out; the others of its island stay as they lie. */
export function removeBridge(step: BridgeStep, bridge: BridgeNow, bridges: readonly BridgeNow[]): void {
  const pinned = pinnedBridge(step, bridge, bridges);
  if (pinned) step.pinned = step.pinned.filter((p) => p !== pinned);
}

/** Puts a bridge in by hand; those its island has stay as they lie. */
export function addBridge(step: BridgeStep, pinned: PinnedBridge, bridges: readonly BridgeNow[]): void {
  if (pinned.island !== null) pinIsland(step, { letter: pinned.letter, island: pinned.island }, bridges);
  if (step.pinned.length < LIMITS.bridgesPlaced)
    step.pinned.push({ ...pinned, x: rounded(pinned.x, 1e5), y: rounded(pinned.y, 1e5) });
}

/** Gives other islands the bridges of one, by hand: those of letters of the same kind. */
export function copyToSame(
  step: BridgeStep,
  from: IslandKey,
  to: readonly IslandKey[],
  bridges: readonly BridgeNow[],
): void {
  pinIsland(step, from, bridges);
  const own = step.pinned.filter((p) => sameIsland(p, from));
  for (const { letter, island } of to) {
    const key = { letter, island };
    if (sameIsland(key, from)) continue;
    islandSetting(step, key).how = 'hand';
    step.pinned = step.pinned.filter((p) => !sameIsland(p, key));
    for (const pinned of own) if (step.pinned.length < LIMITS.bridgesPlaced) step.pinned.push({ ...pinned, ...key });
  }
}

/** Islands about which nothing is said any more are not kept. */
export function settleIslands(step: BridgeStep): void {
  step.islands = step.islands.filter((s) => s.how !== 'auto' || s.count !== null);
}

/** The bridges of a part as they were computed, its islands, and what a new step's first values are made from. */
export type BridgesSeen = {
  readonly bridges: readonly BridgeNow[];
  readonly keys: readonly (IslandKey & { readonly text: string })[];
  readonly measure: Measure;
};

/** Change the bridge step of a part that is not locked; a step that is off is switched on. */
const editBridges = (
  job: Job,
  partId: string,
  { measure }: Pick<BridgesSeen, 'measure'>,
  recipe: (step: BridgeStep) => void,
) =>
  partOf(job, partId)?.locked === false
    ? editStep(job, partId, 'bridge', measure, (step) => {
        step.on = true;
        recipe(step);
      })
    : job;

/** Bridges on every island that has none. */
export const bridgeAll = (job: Job, partId: string, seen: BridgesSeen): Job =>
  editBridges(job, partId, seen, (step) => {
    for (const s of step.islands) if (s.how === 'leave') s.how = 'auto';
    // Islands whose bridges were all taken out by hand get new ones.
    for (const s of step.islands) if (s.how === 'hand' && !step.pinned.some((p) => sameIsland(p, s))) s.how = 'auto';
    settleIslands(step);
  });

/** Where no bridges were asked for yet, none are put on any island but one. */
function onlyOn(job: Job, partId: string, key: { letter: string; island: number | null }, { keys }: BridgesSeen) {
  const part = partOf(job, partId);
  if (part && stepIn(part, 'bridge')?.on) return () => {};
  return (step: BridgeStep) => {
    step.pinned = [];
    step.islands = keys
      .filter((other) => !sameIsland(other, key))
      .slice(0, LIMITS.islands)
      .map(({ letter, island }) => ({ letter, island, how: 'leave', count: null }));
  };
}

/** Bridges on one island; the others stay as they are. */
export const bridgeIsland = (job: Job, partId: string, key: IslandKey, seen: BridgesSeen): Job =>
  editBridges(job, partId, seen, (step) => {
    onlyOn(job, partId, key, seen)(step);
    letGo(step, key);
  });

/** No bridges on an island, on purpose. */
export const leaveIsland = (job: Job, partId: string, key: IslandKey, seen: BridgesSeen): Job =>
  editBridges(job, partId, seen, (step) => {
    letGo(step, key);
    islandSetting(step, key).how = 'leave';
  });

/** How many bridges an island gets, placed anew; null: as the step says. */
export const setIslandCount = (
  job: Job,
  partId: string,
  { key, count, seen }: { readonly key: IslandKey; readonly count: number | null; readonly seen: BridgesSeen },
): Job =>
  editBridges(job, partId, seen, (step) => {
    letGo(step, key);
    islandSetting(step, key).count = count;
    settleIslands(step);
  });

/** The bridges of an island stay as they lie. */
export const pinBridges = (job: Job, partId: string, key: IslandKey, seen: BridgesSeen): Job =>
  editBridges(job, partId, seen, (step) => pinIsland(step, key, seen.bridges));

/** The bridges of an island are placed automatically again. */
export const unpinBridges = (job: Job, partId: string, key: IslandKey, seen: BridgesSeen): Job =>
  editBridges(job, partId, seen, (step) => letGo(step, key));

/** The bridges of the islands of all letters of the same text, as those of one. */
export function copyBridgesToSame(job: Job, partId: string, key: IslandKey, seen: BridgesSeen): Job {
  const own = seen.keys.find((k) => sameIsland(k, key));
  if (!own) return job;
  const same = seen.keys.filter((k) => k.text === own.text && k.island === key.island);
  return editBridges(job, partId, seen, (step) => copyToSame(step, key, same, seen.bridges));
}

const within = (capitals: number): number =>
  Math.max(-LIMITS.bridgeCapitals, Math.min(LIMITS.bridgeCapitals, capitals));

/** Change a bridge, one of those seen; its island is taken in hand first. */
export const placeBridge = (
  job: Job,
  partId: string,
  {
    bridge,
    seen,
    recipe,
  }: { readonly bridge: BridgeNow; readonly seen: BridgesSeen; readonly recipe: (pinned: PinnedDraft) => void },
): Job =>
  editBridges(job, partId, seen, (step) => {
    const pinned = pinnedBridge(step, bridge, seen.bridges);
    if (!pinned) return;
    recipe(pinned);
    // However far it was dragged, it stays where a document can hold it.
    pinned.x = within(pinned.x);
    pinned.y = within(pinned.y);
  });

/** Take a bridge out, one of those seen. */
export const takeOutBridge = (job: Job, partId: string, bridge: BridgeNow, seen: BridgesSeen): Job =>
  editBridges(job, partId, seen, (step) => removeBridge(step, bridge, seen.bridges));

/** Put a bridge in where it is placed by hand. */
export const putInBridge = (job: Job, partId: string, pinned: PinnedBridge, seen: BridgesSeen): Job =>
  editBridges(job, partId, seen, (step) => {
    onlyOn(job, partId, pinned, seen)(step);
    addBridge(step, pinned, seen.bridges);
  });
