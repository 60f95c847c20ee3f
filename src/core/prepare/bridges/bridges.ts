/**
 * Bridges: islands that a cut would let fall are held by strips of stock left standing. Each void of a shape is by itself;
 * when all its islands hang on what lies around it, everything is one piece.
 */
import { LIMITS } from '../../limits';
import { Memo, type Memory } from '../../memo';
import type { Outline } from '../outline';
import { BridgeMemory } from './bridge-memory';
import { Bridging } from './bridging';
import { type BridgedShape, groundOf, withSmall } from './ground';
import { islandsOf, voidsOf } from './islands';
import type { BridgeGround, BridgeNotes, BridgeSetting } from './notes';
import { leastBridge } from './sites';

/** The islands of a shape that is not bridged; null when there are none. */
export function unbridgedIslands(shape: readonly Outline[], setting: BridgeGround): BridgeNotes | null {
  const islands = islandsOf(shape, voidsOf(shape, setting.stockInside), setting.frames);
  if (islands.length === 0) return null;
  return {
    isOn: false,
    before: shape,
    islands: islands.map((island) => ({
      letter: island.letter,
      rank: island.rank,
      label: island.label,
      outline: shape[island.outline] as Outline,
      how: 'leave',
      asked: 0,
      isCountAsked: false,
      bridges: [],
      hangs: false,
      trouble: null,
    })),
    bridges: [],
    askedMm: 0,
    leastMm: 0,
    hairs: [],
    unplaced: [],
    small: [],
    tooMany: 0,
  };
}

/**
 * Bridge a clean shape. Nothing but the outlines that bridges start and end on is changed. `owner` stands in the memory for
 * the shape, the side of it that is stock, and the rims there are.
 */
export function bridgeIslands(
  given: readonly Outline[],
  setting: BridgeSetting,
  memory: Memory = new Memo(),
  owner: object = given,
): BridgedShape {
  const { step, leastMm } = setting;
  const remembered = new BridgeMemory(memory, owner);
  const askedMm = Math.max(step.width, leastMm ?? 0);
  const ground = groundOf(given, setting, askedMm, remembered);
  const { shape, hairs, islands } = ground;
  const nothing: BridgeNotes = {
    isOn: true,
    before: shape,
    islands: [],
    bridges: [],
    askedMm,
    leastMm: leastBridge(askedMm, leastMm),
    hairs,
    unplaced: [],
    small: ground.small.map((island) => ({ ...island, isCut: step.small !== 'fill' })),
    tooMany: 0,
  };
  if (islands.length > LIMITS.islands) return { shape, cut: shape, notes: { ...nothing, tooMany: islands.length } };
  if (islands.length === 0 && step.pinned.length === 0) return withSmall({ shape, notes: nothing, strips: [] }, ground);
  const work = new Bridging(ground, setting, remembered.on(ground), nothing);
  work.placeByHand();
  work.placeAutomatically();
  return withSmall(work.result(), ground);
}
