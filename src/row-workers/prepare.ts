/** Preparing rows of a batch: each like a job of its own, with what its job names at hand, in the time there is for one. */
import type { Job } from '../core/document/schema';
import { scriptEngine } from '../core/geometry/boolean/engine-script';
import { loadWasmEngine } from '../core/geometry/boolean/engine-wasm';
import { Evaluator } from '../core/job/evaluate';
import { type RowSeen, rowSeenSteps } from '../core/job/rows';
import { LIMITS } from '../core/limits';
import { withPartsOfRows } from '../core/roster/in-row';
import { Sources } from '../worker/sources';

/** What a row came to, or why it could not be prepared. */
export type Came = { readonly seen: RowSeen } | { readonly fault: string };

/** How long a worker computes before it looks at anything else, in ms. */
const TURN_MS = 200;

/** After a file could not be fetched, it is not known for so long whether others are there, in ms. */
const FETCHED_AGAIN_MS = 6_000;

const turn = () => new Promise<void>((resolve) => setImmediate(resolve));

/** Prepares rows, one after the other. */
export type Preparing = {
  /** What a row of a job comes to. The same job is to be the same object: parts that rows share are prepared once. */
  readonly row: (job: Job, nth: number, today: string) => Promise<Came>;
};

/**
 * What prepares rows. `fetchFace` brings the bytes of a shipped typeface file, `fetchAsset` those of a kept file, null where none is kept;
 * `now` is a clock in ms. A row rejects while a file can’t be fetched: what it came to without it is not to be kept.
 */
export async function openPreparing(
  fetchFace: (file: string) => Promise<Uint8Array>,
  fetchAsset: (id: string) => Promise<Uint8Array | null>,
  now: () => number,
): Promise<Preparing> {
  const evaluator = new Evaluator(await loadWasmEngine().catch(() => scriptEngine));
  /** When fetching failed last: what is there is asked for again a while after that. */
  let failedAt = Number.NEGATIVE_INFINITY;
  const fetched = async <T>(fetching: Promise<T>): Promise<T> => {
    try {
      return await fetching;
    } catch (reason) {
      failedAt = now();
      throw reason;
    }
  };
  const sources = new Sources(
    (file) => fetched(fetchFace(file)),
    async (id) => {
      const bytes = await fetched(fetchAsset(id));
      if (!bytes) throw new Error(`${id} is not kept`);
      return bytes;
    },
  );
  return {
    row: async (job, nth, today) => {
      const faces = await sources.of(withPartsOfRows(job, { today }), evaluator);
      if (now() - failedAt < FETCHED_AGAIN_MS) throw new Error('a file of the job could not be fetched');
      const began = now();
      let last = began;
      try {
        const steps = rowSeenSteps(job, nth, { today }, { evaluator, faces });
        for (let step = steps.next(); ; step = steps.next()) {
          if (step.done) return { seen: step.value };
          if (now() - began > LIMITS.rowSeconds * 1000)
            return {
              fault: `It takes longer than ${LIMITS.rowSeconds} seconds to compute: put it on the sheet to see it.`,
            };
          if (now() - last < TURN_MS) continue;
          await turn();
          last = now();
        }
      } catch (reason) {
        return { fault: `It could not be computed: ${reason instanceof Error ? reason.message : 'unknown'}.` };
      }
    },
  };
}
