/** What was found out about one shape while bridging it, for the next time, when only the bridges are others. */
import type { Outline } from '../outline';
import type { Edges } from './edges';
import type { Hair } from './hairs';
import type { Island } from './islands';
import type { Candidate } from './search';

export type Ground = {
  readonly shape: readonly Outline[];
  readonly hairs: readonly Hair[];
  readonly islands: readonly Island[];
};

/** Settings tried by turns are held up to this many; then all are forgotten. */
const MOST_SETTINGS = 12;

/** For one shape and one side of it. */
export class BridgeWorkshop {
  private ground: Ground | null = null;
  private readonly edges = new Map<number, Edges>();
  private readonly usual = new Map<number, number>();
  private readonly rewired = new Map<number, { readonly key: string; readonly outlines: readonly Outline[] }>();
  private readonly pools = new Map<string, Map<string, readonly Candidate[]>>();

  groundFor(find: () => Ground): Ground {
    this.ground ??= find();
    return this.ground;
  }

  edgesFor(width: number, make: () => Edges): Edges {
    return remembered(this.edges, width, make);
  }

  usualFor(outline: number, find: () => number): number {
    return remembered(this.usual, outline, find);
  }

  /** The outlines of a void as they were last bridged; only the latest are held. */
  rewiredFor(around: number, key: string, make: () => readonly Outline[]): readonly Outline[] {
    const held = this.rewired.get(around);
    if (held?.key === key) return held.outlines;
    const outlines = make();
    this.rewired.set(around, { key, outlines });
    return outlines;
  }

  /** The good places on an island under a setting. */
  poolFor(setting: string, key: string, find: () => readonly Candidate[]): readonly Candidate[] {
    if (!this.pools.has(setting) && this.pools.size >= MOST_SETTINGS) this.pools.clear();
    return remembered(
      remembered(this.pools, setting, () => new Map()),
      key,
      find,
    );
  }
}

function remembered<K, V>(map: Map<K, V>, key: K, find: () => V): V {
  let known = map.get(key);
  if (known === undefined) {
    known = find();
    map.set(key, known);
  }
  return known;
}

/** Workshops by what they belong to. */
export class BridgeWorkshops {
  private readonly held = new WeakMap<object, BridgeWorkshop>();
  of(owner: object): BridgeWorkshop {
    let known = this.held.get(owner);
    if (!known) {
      known = new BridgeWorkshop();
      this.held.set(owner, known);
    }
    return known;
  }
}
