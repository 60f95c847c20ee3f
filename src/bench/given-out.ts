/** Files that leave the bench: kept with the job by what is in them, so that they can be had again, compared, and sent to the bench machine. */
import { call, callWithBytes } from '@/api/call';
import { API } from '@/api/endpoints';
import type { Job } from '@/core/document/schema';
import type { WrittenFile } from '@/core/job/files';
import type { KeptProof, ToGive } from '@/core/job/given-files';
import { LIMITS } from '@/core/limits';
import { openFaults, proofOf, useProof } from './proof/proving';
import { useBench } from './store';

/** Saving is waited for so long before files are noted with a version, in ms. */
const SAVING_MS = 4_000;
const LOOK_MS = 100;

/** Keep the bytes of a file; its id is what is in them. */
export const keepFile = async ({ name, bytes }: WrittenFile): Promise<string> =>
  (await callWithBytes(API.keepAsset, new Blob([bytes as BlobPart]), name)).id;

/** The version that a document is on the server; nothing where it is not saved by then, or is another one. */
async function versionOf(document: Job): Promise<number | null> {
  const until = performance.now() + SAVING_MS;
  const isSaved = () => useBench.getState().save.kind === 'saved';
  while (!isSaved() && performance.now() < until) await new Promise((resolve) => setTimeout(resolve, LOOK_MS));
  const { version, document: now } = useBench.getState();
  return isSaved() && now === document ? version : null;
}

/** What the proof says of the document on the bench, and of which bytes; null where it was not proved. */
function proofNow(): { readonly of: ReadonlySet<string>; readonly said: KeptProof } | null {
  const { job, view } = useBench.getState();
  const proof = proofOf(useProof.getState().proved, job);
  return (
    proof && {
      of: new Set(proof.files.map((f) => f.sha256)),
      said: { machine: proof.machine, differences: proof.findings.length, faults: openFaults(view) },
    }
  );
}

/** Keep files that were given out with the job they were made of; a sentence where that did not go. */
export async function keepGiven(
  files: readonly WrittenFile[],
  partIds: readonly string[] | null,
): Promise<string | null> {
  const { id, document } = useBench.getState();
  const proof = proofNow();
  try {
    const kept: ToGive[] = [];
    for (const written of files) {
      const file = await keepFile(written);
      // Another format of the same job was not run: only these very bytes were.
      kept.push({ name: written.name, file, proof: proof?.of.has(file) ? proof.said : null });
    }
    const version = await versionOf(document);
    if (version === null) return 'They are not kept with the job: it is not saved as it was written.';
    for (let at = 0; at < kept.length; at += LIMITS.givenAtOnce)
      await call(
        API.giveFiles,
        { id },
        { version, partIds: partIds && [...partIds], files: kept.slice(at, at + LIMITS.givenAtOnce) },
      );
    return null;
  } catch (reason) {
    return `They are not kept with the job: ${reason instanceof Error ? reason.message : 'the server is away.'}`;
  }
}
