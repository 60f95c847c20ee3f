/** What is found out about one shape while bridging it, remembered for when only the bridges are others. */
import { EVIDENCE } from '../../lettering/evidence';
import { middleOf } from '../../lettering/letter-image';
import type { Memory, Stage } from '../../memo';
import type { LetterFrame } from '../frames';
import { type Outline, weighOutlines } from '../outline';
import type { VoidEdges } from './edges';
import type { Hair } from './hairs';
import type { Island } from './islands';
import type { SmallIsland } from './notes';
import type { Candidate } from './search';
import type { LetterEvidence } from './sites';

/** What bridges of one shape are searched on, kept from one edit to the next. */
export type Ground = {
  readonly shape: readonly Outline[];
  readonly hairs: readonly Hair[];
  readonly islands: readonly Island[];
  /** Islands that have one bridge where they would have two. */
  readonly single: ReadonlySet<number>;
  /** Islands that are not bridged because nobody would miss them; they and what lies in them are not in the shape. */
  readonly small: readonly Omit<SmallIsland, 'isCut'>[];
  readonly taken: readonly Outline[];
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

/** What is remembered of bridging one shape with stock on one side of it; `owner` stands for both in the memory. */
export class BridgeMemory {
  constructor(
    private readonly memory: Memory,
    private readonly owner: object,
  ) {}

  ground(manner: string, find: () => Ground): Ground {
    return this.memory.of(this.owner, `ground for bridges ${manner}`, find);
  }

  /** What is remembered of one ground, where there are several. */
  on(ground: Ground): BridgeMemory {
    return ground.small.length === 0 && ground.single.size === 0 ? this : new BridgeMemory(this.memory, ground);
  }

  edges(width: number, make: () => VoidEdges): VoidEdges {
    return this.memory.of(this.owner, `edges for bridges ${width}`, make);
  }

  /** What makes a letter itself; null for what is no letter. */
  evidence({ glyphs }: LetterFrame): LetterEvidence | null {
    if (!glyphs) return null;
    const { face, text, drawn, outlines } = glyphs;
    return {
      evidence: this.memory.get(EVIDENCE, { face, text, paths: outlines, drawn }),
      middle: middleOf(outlines()),
    };
  }

  usualWay(outline: number, find: () => number): number {
    return this.memory.of(this.owner, `usual way across ${outline}`, find);
  }

  /** The outlines of a void as they were last bridged. */
  rewired(around: number, key: string, find: () => readonly Outline[]): readonly Outline[] {
    return this.memory.get(REWIRED, { of: this.owner, around, key, find });
  }

  /** The good places on an island under a setting. */
  candidates(setting: string, key: string, find: () => readonly Candidate[]): readonly Candidate[] {
    return this.memory.get(POOL, { of: this.owner, key: `${setting}|${key}`, find });
  }
}
