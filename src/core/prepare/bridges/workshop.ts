/** What is found out about one shape while bridging it, remembered for when only the bridges are others. */
import type { Memory, Stage } from '../../memo';
import { type Outline, weighOutlines } from '../outline';
import type { VoidEdges } from './edges';
import type { Hair } from './hairs';
import type { Island } from './islands';
import type { Candidate } from './search';

/** What bridges of one shape are searched on, kept from one edit to the next. */
export type Ground = {
  readonly shape: readonly Outline[];
  readonly hairs: readonly Hair[];
  readonly islands: readonly Island[];
};

type Asked<T> = { readonly of: object; readonly key: string; readonly find: () => T };

const REWIRED: Stage<Asked<readonly Outline[]> & { readonly around: number }, readonly Outline[]> = {
  name: 'rewired',
  key: ({ key }) => key,
  slot: ({ of, around }, idOf) => `${idOf(of)}|${around}`,
  run: ({ find }) => find(),
  weigh: weighOutlines,
};

/** Numbers a good place for a bridge takes. */
const NUMBERS_PER_CANDIDATE = 60;

const POOL: Stage<Asked<readonly Candidate[]>, readonly Candidate[]> = {
  name: 'good places for bridges',
  key: ({ of, key }, idOf) => `${idOf(of)}|${key}`,
  run: ({ find }) => find(),
  weigh: (candidates) => NUMBERS_PER_CANDIDATE * candidates.length,
};

/** For one shape, and the side of it that is stock; `owner` stands for both. */
export class BridgeWorkshop {
  constructor(
    private readonly memory: Memory,
    private readonly owner: object,
  ) {}

  groundFor(find: () => Ground): Ground {
    return this.memory.of(this.owner, 'ground for bridges', find);
  }

  edgesFor(width: number, make: () => VoidEdges): VoidEdges {
    return this.memory.of(this.owner, `edges for bridges ${width}`, make);
  }

  usualFor(outline: number, find: () => number): number {
    return this.memory.of(this.owner, `usual way across ${outline}`, find);
  }

  /** The outlines of a void as they were last bridged. */
  rewiredFor(around: number, key: string, find: () => readonly Outline[]): readonly Outline[] {
    return this.memory.get(REWIRED, { of: this.owner, around, key, find });
  }

  /** The good places on an island under a setting. */
  poolFor(setting: string, key: string, find: () => readonly Candidate[]): readonly Candidate[] {
    return this.memory.get(POOL, { of: this.owner, key: `${setting}|${key}`, find });
  }
}
