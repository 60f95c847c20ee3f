/** Questions about documents, answered with an evaluator and what the documents name at hand. */
import type { Job } from '../core/document/schema';
import type { ClipEngine } from '../core/geometry/boolean/engine';
import { Evaluator, type Progress } from '../core/job/evaluate';
import type { FaceLookup } from '../core/prepare/prepared';
import { FaceHost } from './face-host';
import type { Question, Runner } from './runner';
import type { Sources } from './sources';

/** What a question is answered with. */
export type Means = { readonly evaluator: Evaluator; readonly faces: FaceLookup };

/** Answers about documents, in the turns of the runner. */
export class JobHost extends FaceHost {
  protected readonly evaluators: Promise<Evaluator>;

  constructor(engine: Promise<ClipEngine>, runner: Runner, sources: Sources) {
    super(engine, runner, sources);
    this.evaluators = engine.then((e) => new Evaluator(e));
  }

  protected ask<T>(question: Question, job: Job, steps: (means: Means) => Iterator<Progress, T>): Promise<T | null> {
    return this.runner.ask(question, async () => {
      const evaluator = await this.evaluators;
      return steps({ evaluator, faces: await this.sources.of(job, evaluator) });
    });
  }

  /** The answer to a question of which every one is answered. */
  protected answer<T>(job: Job, steps: (means: Means) => Iterator<Progress, T>): Promise<T> {
    return this.ask({ kind: null }, job, steps) as Promise<T>;
  }
}
