/** What a user does to bridges: each changes the bridge step of a part, which gets one if it has none. */
import type { PlacedBridge, StepOf } from '@/core/document/schema';
import { applyMatrix, invert, type Point } from '@/core/geometry/point';
import {
  addBridge,
  copyToSame,
  type IslandKey,
  inHand,
  islandSetting,
  letGo,
  pinIsland,
  removeBridge,
  settleIslands,
} from '@/core/job/bridges';
import { stepIn } from '@/core/job/steps';
import { LIMITS } from '@/core/limits';
import type { BridgeView } from '@/worker/bridge-view';
import { computing } from '@/worker/client';
import type { PartView } from '@/worker/view';
import { editStep, measureOf } from './edits';
import { type AtIsland, change, chooseIsland, pointAt, select, useBench } from './store';

type BridgeStep = StepOf<'bridge'>;

const viewOfPart = (partId: string): PartView | undefined =>
  useBench.getState().view?.parts.find((p) => p.id === partId);

/** Change the bridge step of a part that is not locked; a step that is off is switched on. */
function editBridges(partId: string, recipe: (step: BridgeStep) => void, merge: string | null = null): void {
  const view = viewOfPart(partId);
  change((job) => {
    const part = job.parts.find((p) => p.id === partId);
    if (!part || part.locked) return;
    editStep(job, partId, 'bridge', measureOf(job, view), (step) => {
      step.on = true;
      recipe(step);
    });
  }, merge && `${merge}:${partId}`);
}

const isBridged = (partId: string): boolean => {
  const part = useBench.getState().job.parts.find((p) => p.id === partId);
  return part !== undefined && stepIn(part, 'bridge')?.on === true;
};

const sameIsland = (a: { letter: string; island: number | null }, b: { letter: string; island: number | null }) =>
  a.letter === b.letter && a.island === b.island;

/** Bridges on every island that has none. */
export const bridgeAll = (partId: string): void =>
  editBridges(partId, (step) => {
    for (const s of step.islands) if (s.how === 'leave') s.how = 'auto';
    // Islands whose bridges were all taken out by hand get new ones.
    for (const s of step.islands) if (s.how === 'hand' && !step.placed.some((p) => sameIsland(p, s))) s.how = 'auto';
    settleIslands(step);
  });

/** Where no bridges were asked for yet, none are put on any island but this one. */
function onlyOn(partId: string, key: { letter: string; island: number | null }): (step: BridgeStep) => void {
  if (isBridged(partId)) return () => {};
  const others = (viewOfPart(partId)?.bridges.keys ?? []).filter((other) => !sameIsland(other, key));
  return (step) => {
    step.placed = [];
    step.islands = others
      .slice(0, LIMITS.islands)
      .map(({ letter, island }) => ({ letter, island, how: 'leave', count: null }));
  };
}

/** Bridges on one island; the others stay as they are. */
export function bridgeOne(partId: string, key: IslandKey): void {
  const start = onlyOn(partId, key);
  editBridges(partId, (step) => {
    start(step);
    letGo(step, key);
  });
}

/** No bridges on an island, on purpose. */
export const leaveIsland = (partId: string, key: IslandKey): void =>
  editBridges(partId, (step) => {
    letGo(step, key);
    islandSetting(step, key).how = 'leave';
  });

export const setIslandCount = (partId: string, key: IslandKey, count: number | null): void =>
  editBridges(partId, (step) => {
    letGo(step, key);
    islandSetting(step, key).count = count;
    settleIslands(step);
  });

export const pin = (partId: string, key: IslandKey): void =>
  editBridges(partId, (step) => pinIsland(step, key, viewOfPart(partId)?.bridges.bridges ?? []));

export const unpin = (partId: string, key: IslandKey): void => editBridges(partId, (step) => letGo(step, key));

/** The bridges of the islands of all letters of the same text, as those of one. */
export function copyToSameLetters(partId: string, key: IslandKey): void {
  const view = viewOfPart(partId)?.bridges;
  const own = view?.keys.find((k) => sameIsland(k, key));
  if (!view || !own) return;
  const same = view.keys.filter((k) => k.text === own.text && k.island === key.island);
  editBridges(partId, (step) => copyToSame(step, key, same, view.bridges));
}

const within = (capitals: number): number =>
  Math.max(-LIMITS.bridgeCapitals, Math.min(LIMITS.bridgeCapitals, capitals));

/** Change a bridge, one of those given as they lay on the sheet; its island is taken in hand first. */
export function placeBridge(
  partId: string,
  bridge: BridgeView,
  bridges: readonly BridgeView[],
  recipe: (placed: PlacedBridge) => void,
  merge: string,
): void {
  editBridges(
    partId,
    (step) => {
      const placed = inHand(step, bridge, bridges);
      if (!placed) return;
      recipe(placed);
      // However far it was dragged, it stays where a document can hold it.
      placed.x = within(placed.x);
      placed.y = within(placed.y);
    },
    merge,
  );
}

/** The bridge that is chosen, if there is one. */
export function chosenBridge(view: PartView | undefined, at: AtIsland | null): BridgeView | null {
  if (!view || at?.nth == null) return null;
  return view.bridges.bridges.filter((b) => sameIsland(b, at))[at.nth] ?? null;
}

/** Takes the chosen bridge out; whether an island is chosen: then nothing else is taken out either. */
export function removeChosenBridge(): boolean {
  const { atIsland, selection, station } = useBench.getState();
  const { partId } = selection;
  if (station !== 'hold' || !partId || !atIsland) return false;
  const view = viewOfPart(partId);
  const bridge = chosenBridge(view, atIsland);
  if (!bridge || !view) return true;
  editBridges(partId, (step) => removeBridge(step, bridge, view.bridges.bridges));
  chooseIsland(atIsland.island === null ? null : { ...atIsland, nth: null });
  return true;
}

/** Moves the chosen bridge by mm on the sheet, as far as its edge lets it; whether there was one. */
export function nudgeChosenBridge(dx: number, dy: number): boolean {
  const { atIsland, selection, station } = useBench.getState();
  const { partId } = selection;
  if (station !== 'hold' || !partId) return false;
  const view = viewOfPart(partId);
  const bridge = chosenBridge(view, atIsland);
  if (!bridge || !view) return false;
  const own = applyMatrix(invert(bridge.matrix), { x: bridge.from.x + dx, y: bridge.from.y + dy });
  placeBridge(
    partId,
    bridge,
    view.bridges.bridges,
    (placed) => {
      placed.x = Math.round(own.x * 1e5) / 1e5;
      placed.y = Math.round(own.y * 1e5) / 1e5;
    },
    'nudge',
  );
  return true;
}

/** Puts a bridge in where the sheet was pressed, in the selected part; a press beside every gap is waited out. */
export async function addBridgeAt(at: Point): Promise<void> {
  const { job, selection } = useBench.getState();
  const { partId } = selection;
  if (!partId) return pointAt(null);
  // What keeps the worker from answering is said by the evaluation of the document.
  const placed = await computing()
    .bridgeThrough(job, partId, at)
    .catch(() => null);
  if (!placed || useBench.getState().selection.partId !== partId) return;
  pointAt(null);
  const bridges = viewOfPart(partId)?.bridges.bridges ?? [];
  const start = onlyOn(partId, placed);
  editBridges(partId, (step) => {
    start(step);
    addBridge(step, placed, bridges);
  });
  const nth = placed.island === null ? null : bridges.filter((b) => sameIsland(b, placed)).length;
  if (nth !== null) chooseIsland({ letter: placed.letter, island: placed.island, nth });
}

/** Select a part and one of its bridges. */
export function chooseBridge(partId: string, bridge: BridgeView): void {
  const bridges = viewOfPart(partId)?.bridges.bridges ?? [];
  if (useBench.getState().selection.partId !== partId) select(partId);
  const nth = bridges.filter((b) => sameIsland(b, bridge)).indexOf(bridge);
  chooseIsland({ letter: bridge.letter, island: bridge.island, nth });
}
