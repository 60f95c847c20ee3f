/**
 * What has been computed, remembered so that an edit computes only what hangs on it. A computation that is worth remembering is
 * a `Stage`: a pure function with a declared key. One `Memo` holds the results of all stages, up to a weight; nothing else in
 * the core remembers anything.
 */
import { LIMITS } from './limits';

/** A number that tells an object apart from all others, as long as it lives. */
export type IdOf = (object: object) => number;

/** A pure computation with what its result hangs on. */
export type Stage<I, O> = {
  /** Told apart from other stages by this. */
  readonly name: string;
  /** The same key means the same result: plain values by content, results of other stages by their ids. */
  readonly key: (input: I, idOf: IdOf) => string;
  readonly run: (input: I, memory: Memory) => O;
  /** How many numbers of eight bytes a result takes, about; asked once, before anything else is done with the result. */
  readonly weigh: (output: O, input: I) => number;
  /** Of results with the same slot only the newest is remembered: where a part lies now, not where it has been. */
  readonly slot?: (input: I, idOf: IdOf) => string;
};

/** A stage that takes long: it yields the share done, 0 to 1, and can be left at any of these places. */
export type LongStage<I, O> = Omit<Stage<I, O>, 'run' | 'slot'> & {
  readonly run: (input: I, memory: Memory) => Generator<number, O>;
};

/** Where results of stages are kept and asked for: what a computation is handed so that it remembers nothing itself. */
export type Memory = {
  readonly idOf: IdOf;
  /** The result of a stage: the one remembered, or computed and remembered from now on. */
  readonly get: <I, O>(stage: Stage<I, O>, input: I) => O;
  /** The same for a long stage; yields the share done. What is left before it is done leaves nothing behind. */
  readonly steps: <I, O>(stage: LongStage<I, O>, input: I) => Generator<number, O>;
  /** What belongs to an object and goes when that goes. */
  readonly of: <T>(owner: object, name: string, make: () => T) => T;
};

/** Remembers nothing: for a computation by itself. */
export const NO_MEMORY: Memory = {
  idOf: () => {
    throw new Error('nothing is remembered, so that nothing is told apart');
  },
  get: (stage, input) => stage.run(input, NO_MEMORY),
  steps: (stage, input) => stage.run(input, NO_MEMORY),
  of: (_owner, _name, make) => make(),
};

/** Where a result is kept: its place in its stage, what it hangs on, what it weighs, and who asked for it. */
type Kept = { readonly place: string; readonly key: string; readonly weigh: () => number; readonly turn: number };

type Entry = { readonly key: string; readonly result: unknown; readonly weight: number; turn: number };

/**
 * Results of stages, the least recently asked for going first once all together weigh more than `most` numbers. What the two
 * newest turns asked for stays whatever it weighs: a document's own results are held by its result anyway, and would else
 * push each other out at every edit.
 */
export class Memo implements Memory {
  private readonly entries = new Map<string, Entry>();
  private readonly ids = new WeakMap<object, number>();
  private readonly beside = new WeakMap<object, Map<string, unknown>>();
  private nextId = 1;
  private weight = 0;
  private newestTurn = 0;
  /** Whether the newest turns asked for all there is, so that nothing can go before the next: many small results are not looked through for each. */
  private allNeeded = false;

  constructor(private readonly most: number = LIMITS.numbersRemembered) {}

  readonly idOf: IdOf = (object) => {
    let id = this.ids.get(object);
    if (id === undefined) {
      id = this.nextId++;
      this.ids.set(object, id);
    }
    return id;
  };

  readonly get = <I, O>(stage: Stage<I, O>, input: I): O => this.lookUp(stage, input, 0, this);

  readonly steps = <I, O>(stage: LongStage<I, O>, input: I): Generator<number, O> =>
    this.lookUpSteps(stage, input, 0, this);

  readonly of = <T>(owner: object, name: string, make: () => T): T => {
    let all = this.beside.get(owner);
    if (!all) {
      all = new Map();
      this.beside.set(owner, all);
    }
    const known = all.get(name) as T | undefined;
    if (known !== undefined || all.has(name)) return known as T;
    const made = make();
    all.set(name, made);
    return made;
  };

  /** The same memory for one evaluation of a document: what is asked for by way of it stays until the evaluation after next. */
  turn(): Memory {
    const turn = ++this.newestTurn;
    this.allNeeded = false;
    const memory: Memory = {
      idOf: this.idOf,
      get: (stage, input) => this.lookUp(stage, input, turn, memory),
      steps: (stage, input) => this.lookUpSteps(stage, input, turn, memory),
      of: this.of,
    };
    return memory;
  }

  /** How many results are held, and what they weigh together. */
  get size(): { readonly results: number; readonly numbers: number } {
    return { results: this.entries.size, numbers: this.weight };
  }

  private lookUp<I, O>(stage: Stage<I, O>, input: I, turn: number, memory: Memory): O {
    const key = stage.key(input, this.idOf);
    const place = `${stage.name}|${stage.slot ? stage.slot(input, this.idOf) : key}`;
    const known = this.find(place, key, turn);
    if (known) return known.result as O;
    const result = stage.run(input, memory);
    return this.keep(result, { place, key, weigh: () => stage.weigh(result, input), turn });
  }

  private *lookUpSteps<I, O>(stage: LongStage<I, O>, input: I, turn: number, memory: Memory): Generator<number, O> {
    const key = stage.key(input, this.idOf);
    const place = `${stage.name}|${key}`;
    const known = this.find(place, key, turn);
    if (known) return known.result as O;
    const result = yield* stage.run(input, memory);
    return this.keep(result, { place, key, weigh: () => stage.weigh(result, input), turn });
  }

  private find(place: string, key: string, turn: number): Entry | undefined {
    const known = this.entries.get(place);
    if (known?.key !== key) return undefined;
    this.entries.delete(place);
    this.entries.set(place, known);
    known.turn = Math.max(known.turn, turn);
    return known;
  }

  private keep<O>(result: O, { place, key, weigh, turn }: Kept): O {
    // Another question may have computed the same while this one was under way.
    const known = this.find(place, key, turn);
    if (known) return known.result as O;
    this.drop(place);
    const weight = LIGHTEST + key.length / 8 + weigh();
    this.entries.set(place, { key, result, weight, turn });
    this.weight += weight;
    this.forget(place, this.isNeeded(turn));
    return result;
  }

  private drop(place: string): void {
    this.weight -= this.entries.get(place)?.weight ?? 0;
    this.entries.delete(place);
  }

  /** Let the least recently asked for go, but for the newest and what the newest turns asked for. */
  private forget(newest: string, isNeeded: boolean): void {
    if (this.weight <= this.most || (this.allNeeded && isNeeded)) return;
    for (const [place, entry] of this.entries) {
      if (this.weight <= this.most || place === newest) break;
      if (!this.isNeeded(entry.turn)) this.drop(place);
    }
    this.allNeeded = isNeeded && this.weight > this.most;
  }

  /** Whether what was asked for in a turn stays whatever it weighs. */
  private isNeeded(turn: number): boolean {
    return turn !== 0 && turn >= this.newestTurn - 1;
  }
}

/** What a result weighs with its key even when there is nothing in it, so that none stays for ever. */
const LIGHTEST = 32;

/** A value made when it is first asked for, and kept by whoever asks. */
export function once<T>(make: () => T): () => T {
  let made: { readonly value: T } | null = null;
  return () => {
    made ??= { value: make() };
    return made.value;
  };
}

/** The value of a computation in steps, all taken at once. */
export function finished<T>(steps: Generator<unknown, T>): T {
  for (;;) {
    const step = steps.next();
    if (step.done) return step.value;
  }
}

/** A computation as one stretch of a longer one: what it yields as its share done is mapped to between `from` and `to`. */
export function* shareFrom<T>(of: Generator<number, T>, from: number, to: number): Generator<number, T> {
  for (;;) {
    const next = of.next();
    if (next.done) return next.value;
    yield from + (to - from) * next.value;
  }
}
