/** What a user does to bridges at the bench: the commands with what is chosen and what was computed. */
import {
  type BridgesSeen,
  bridgeAll as bridgeAllIn,
  bridgeIsland,
  copyBridgesToSame,
  type IslandKey,
  leaveIsland as leaveIslandIn,
  type PinnedDraft,
  pinBridges,
  placeBridge as placeBridgeIn,
  putInBridge,
  setIslandCount as setIslandCountIn,
  takeOutBridge,
  unpinBridges,
} from '@/core/commands/bridges';
import type { Job } from '@/core/document/schema';
import { applyMatrix, invert, type Point } from '@/core/geometry/point';
import type { BridgeView } from '@/worker/bridge-view';
import { computing } from '@/worker/client';
import type { PartView } from '@/worker/view';
import type { AtIsland } from './at';
import { measureOf, partView } from './seen';
import { chooseIsland, dispatch, select, setPointing, useBench } from './store';

/** What is seen of the bridges of a part; what was seen of them when a drag began, where that is given. */
export function bridgesSeen(job: Job, partId: string, bridges?: readonly BridgeView[]): BridgesSeen {
  const view = partView(partId);
  return {
    bridges: bridges ?? view?.bridges.bridges ?? [],
    keys: view?.bridges.keys ?? [],
    measure: measureOf(job, view),
  };
}

const sameIsland = (a: { letter: string; island: number | null }, b: { letter: string; island: number | null }) =>
  a.letter === b.letter && a.island === b.island;

/** Bridge every island of a part. */
export const bridgeAll = (partId: string): void =>
  dispatch((job) => bridgeAllIn(job, partId, bridgesSeen(job, partId)));

/** Bridge one island. */
export const bridgeOne = (partId: string, key: IslandKey): void =>
  dispatch((job) => bridgeIsland(job, partId, key, bridgesSeen(job, partId)));

/** Let an island drop out. */
export const leaveIsland = (partId: string, key: IslandKey): void =>
  dispatch((job) => leaveIslandIn(job, partId, key, bridgesSeen(job, partId)));

/** Say how many bridges an island gets; null: as the step says. */
export const setIslandCount = (partId: string, key: IslandKey, count: number | null): void =>
  dispatch((job) => setIslandCountIn(job, partId, { key, count, seen: bridgesSeen(job, partId) }));

/** Keep the bridges of an island where they lie on their letter. */
export const pin = (partId: string, key: IslandKey): void =>
  dispatch((job) => pinBridges(job, partId, key, bridgesSeen(job, partId)));

/** Let the bridges of an island be placed anew. */
export const unpin = (partId: string, key: IslandKey): void =>
  dispatch((job) => unpinBridges(job, partId, key, bridgesSeen(job, partId)));

/** Give the bridges of an island to the same letters elsewhere in the part. */
export const copyToSameLetters = (partId: string, key: IslandKey): void =>
  dispatch((job) => copyBridgesToSame(job, partId, key, bridgesSeen(job, partId)));

/** Change a bridge, one of those given as they lay on the sheet when it was taken hold of. */
export const placeBridge = (
  partId: string,
  bridge: BridgeView,
  bridges: readonly BridgeView[],
  recipe: (pinned: PinnedDraft) => void,
  merge: string,
): void =>
  dispatch(
    (job) => placeBridgeIn(job, partId, { bridge, seen: bridgesSeen(job, partId, bridges), recipe }),
    `${merge}:${partId}`,
  );

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
  const bridge = chosenBridge(partView(partId), atIsland);
  if (!bridge) return true;
  dispatch((job) => takeOutBridge(job, partId, bridge, bridgesSeen(job, partId)));
  chooseIsland(atIsland.island === null ? null : { ...atIsland, nth: null });
  return true;
}

/** Moves the chosen bridge by mm on the sheet, as far as its edge lets it; whether there was one. */
export function nudgeChosenBridge(dx: number, dy: number): boolean {
  const { atIsland, selection, station } = useBench.getState();
  const { partId } = selection;
  if (station !== 'hold' || !partId) return false;
  const view = partView(partId);
  const bridge = chosenBridge(view, atIsland);
  if (!bridge || !view) return false;
  const own = applyMatrix(invert(bridge.matrix), { x: bridge.from.x + dx, y: bridge.from.y + dy });
  placeBridge(
    partId,
    bridge,
    view.bridges.bridges,
    (pinned) => {
      pinned.x = Math.round(own.x * 1e5) / 1e5;
      pinned.y = Math.round(own.y * 1e5) / 1e5;
    },
    'nudge',
  );
  return true;
}

/** Puts a bridge in where the sheet was pressed, in the selected part; a press beside every gap is waited out. */
export async function addBridgeAt(at: Point): Promise<void> {
  const { job, selection } = useBench.getState();
  const { partId } = selection;
  if (!partId) return setPointing(null);
  // What keeps the worker from answering is said by the evaluation of the document.
  const pinned = await computing()
    .bridgeThrough(job, partId, at)
    .catch(() => null);
  if (!pinned || useBench.getState().selection.partId !== partId) return;
  setPointing(null);
  const bridges = partView(partId)?.bridges.bridges ?? [];
  dispatch((now) => putInBridge(now, partId, pinned, bridgesSeen(now, partId)));
  const nth = pinned.island === null ? null : bridges.filter((b) => sameIsland(b, pinned)).length;
  if (nth !== null) chooseIsland({ letter: pinned.letter, island: pinned.island, nth });
}

/** Select a part and one of its bridges. */
export function chooseBridge(partId: string, bridge: BridgeView): void {
  const bridges = partView(partId)?.bridges.bridges ?? [];
  if (useBench.getState().selection.partId !== partId) select(partId);
  const nth = bridges.filter((b) => sameIsland(b, bridge)).indexOf(bridge);
  chooseIsland({ letter: bridge.letter, island: bridge.island, nth });
}
