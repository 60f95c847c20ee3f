/** Proving a document: its files are made, then read as their machine reads them, then held against what is meant. */
import type { Job } from '../core/document/schema';
import type { ClipEngine } from '../core/geometry/boolean/engine';
import type { JobResult, Progress } from '../core/job/evaluate';
import type { ExportScope } from '../core/job/export';
import { meantFiles, provedOn } from '../core/job/machine-files';
import { prove, type ReadFile } from '../core/proof/prove';
import { readByMachine } from '../machine/read';
import { type ProofView, proofViewOf, refusedProof } from './proof-view';

/** What a question is answered with: the engine, and what the document comes to. */
type Given = { readonly engine: ClipEngine; readonly result: () => Generator<Progress, JobResult> };

/** Asks the runner something of the document; null when it was asked anew meanwhile. */
type AskOfJob = <T>(kind: string, steps: (given: Given) => Generator<Progress, T>) => Promise<T | null>;

/** The proof of a document; null when that was asked anew meanwhile. */
export async function proofOf(job: Job, scope: ExportScope, ask: AskOfJob): Promise<ProofView | null> {
  const machine = provedOn(job);
  const name = job.machine?.name ?? null;
  const made = await ask('files to prove', function* ({ result }) {
    return yield* meantFiles(job, yield* result(), scope);
  });
  if (!made) return null;
  if (made.files.length === 0) return refusedProof(name, made.refused);
  const read: ReadFile[] = [];
  for (const file of made.files) {
    const found = await readByMachine(file.bytes, machine);
    read.push({ ...file, read: 'drawing' in found ? found.drawing : found });
  }
  return ask('proof', function* ({ engine, result }) {
    return proofViewOf(name, made.files, yield* prove(engine, job, yield* result(), read));
  });
}
