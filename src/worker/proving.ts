/** Proving a document: its files are made, then read as their machine reads them, then held against what is meant. */
import type { Job } from '../core/document/schema';
import type { ClipEngine } from '../core/geometry/boolean/engine';
import type { JobResult, Progress } from '../core/job/evaluate';
import type { ExportScope } from '../core/job/export';
import { meantFiles, provedOn } from '../core/job/machine-files';
import { comparedWithNow } from '../core/proof/compare-file';
import type { FileDifference } from '../core/proof/differences';
import { prove, type ReadFile } from '../core/proof/prove';
import { readByMachine } from '../machine/read';
import { type ProofView, proofViewOf, refusedProof } from './proof-view';

/** What a question is answered with: the engine, and what the document comes to. */
type Given = { readonly engine: ClipEngine; readonly result: () => Generator<Progress, JobResult> };

/** Asks the runner something of the document; null when it was asked anew meanwhile. */
export type AskOfJob = <T>(kind: string, steps: (given: Given) => Generator<Progress, T>) => Promise<T | null>;

/** The proof of a document; null when that was asked anew meanwhile. */
export async function proofOf(job: Job, scope: ExportScope, ask: AskOfJob): Promise<ProofView | null> {
  const { id: _, ...machine } = provedOn(job);
  const name = job.machine?.name ?? null;
  const made = await ask('files to prove', function* ({ result }) {
    return yield* meantFiles(job, yield* result(), scope);
  });
  if (!made) return null;
  if (made.files.length === 0) return refusedProof(name, { machine, set: [] }, made.refused);
  const read: ReadFile[] = [];
  for (const file of made.files) {
    const found = await readByMachine(file.bytes, machine);
    read.push({ ...file, read: 'drawing' in found ? found.drawing : found });
  }
  return ask('proof', function* ({ engine, result }) {
    return proofViewOf(name, made.files, yield* prove(engine, job, yield* result(), read));
  });
}

/** What a file that was given out once has otherwise than one of now would; a sentence where it can't be told. Null when asked anew meanwhile. */
export async function comparison(
  job: Job,
  scope: ExportScope,
  { name, bytes }: { readonly name: string; readonly bytes: Uint8Array },
  ask: AskOfJob,
): Promise<readonly FileDifference[] | { readonly sentence: string } | null> {
  const found = await readByMachine(bytes, provedOn(job));
  if ('sentence' in found) return found;
  return ask('comparison', function* ({ result }) {
    const read = { name, read: found.drawing };
    return (
      comparedWithNow(job, yield* result(), scope, read) ?? { sentence: 'It is no kind of file that is written here.' }
    );
  });
}
