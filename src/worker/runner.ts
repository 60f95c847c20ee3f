/**
 * Questions to the core, answered in turns: of each kind the newest wins, progress is told, and whoever asks meanwhile gets a
 * turn after a few milliseconds.
 */

import type { Progress } from '../core/job/evaluate';

/** Hears how far an answer has come. */
export type OnProgress = (done: number, of: number) => void;

/** What a question asks of the runner. */
export type Question = {
  /** Of questions of the same kind only the newest is answered; null: every one is. */
  readonly kind: string | null;
  /** Whether it waits while others are under way: nobody looks at its answer. */
  readonly isPatient?: boolean;
  readonly onProgress?: OnProgress | undefined;
};

/** How long a step may run before others get a turn, in ms. */
const TURN_MS = 12;

/** Answers questions in turns. `pause` lets newer questions in; `now` is a clock in ms. */
export class Runner {
  private readonly newest = new Map<string, number>();
  private underWay = 0;

  constructor(
    private readonly pause: () => Promise<void>,
    private readonly now: () => number,
  ) {}

  /**
   * The answer; null when a newer question of its kind has come in meanwhile. `begin` brings what is needed for it and
   * gives the steps it is found in.
   */
  async ask<T>(question: Question, begin: () => Promise<Iterator<Progress, T>>): Promise<T | null> {
    const { kind, isPatient = false } = question;
    const mine = kind === null ? 0 : (this.newest.get(kind) ?? 0) + 1;
    if (kind !== null) this.newest.set(kind, mine);
    const isOld = () => kind !== null && this.newest.get(kind) !== mine;
    if (!isPatient) this.underWay++;
    try {
      const steps = await begin();
      return await this.run(steps, question, isOld);
    } finally {
      if (!isPatient) this.underWay--;
    }
  }

  private async run<T>(
    steps: Iterator<Progress, T>,
    { isPatient = false, onProgress }: Question,
    isOld: () => boolean,
  ): Promise<T | null> {
    let turn = this.now();
    for (;;) {
      if (isOld()) return null;
      while (isPatient && this.underWay > 0) {
        await this.pause();
        if (isOld()) return null;
        turn = this.now();
      }
      const step = steps.next();
      if (step.done) return step.value;
      if (this.now() - turn <= TURN_MS) continue;
      onProgress?.(Math.floor(step.value.done * 1000) / 1000, step.value.of);
      await this.pause();
      turn = this.now();
    }
  }
}
