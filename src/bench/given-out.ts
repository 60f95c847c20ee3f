/** Files that leave the bench: kept with the job by what is in them, so that they can be had again, compared, and sent to the bench machine. */
import { call, callWithBytes } from '@/api/call';
import { API } from '@/api/endpoints';
import type { WrittenFile } from '@/core/job/files';
import type { KeptProof } from '@/core/job/given-files';
import { LIMITS } from '@/core/limits';
import { openFaults, proofOf, useProof } from './proof/proving';
import { useBench } from './store';

/** Saving is waited for so long before files are noted with a version, in ms. */
const SAVING_MS = 4_000;
const LOOK_MS = 100;

/** Keep the bytes of a file; its id is what is in them. */
export const keepFile = async ({ name, bytes }: WrittenFile): Promise<string> =>
  (await callWithBytes(API.keepAsset, new Blob([bytes as BlobPart]), name)).id;

/** The version of the job that was saved last, once it is saved or was waited for. */
async function versionSaved(): Promise<number> {
  const until = performance.now() + SAVING_MS;
  while (useBench.getState().save.kind !== 'saved' && performance.now() < until)
    await new Promise((resolve) => setTimeout(resolve, LOOK_MS));
  return useBench.getState().version;
}

/** What the proof says of the document on the bench; null where it was not proved. */
function keptProof(): KeptProof | null {
  const { job, view } = useBench.getState();
  const proof = proofOf(useProof.getState().proved, job);
  if (!proof || proof.files.length === 0) return null;
  return { machine: proof.machine, differences: proof.findings.length, faults: openFaults(view) };
}

/** Keep files that were given out with the job; a sentence where that did not go. */
export async function keepGiven(files: readonly WrittenFile[]): Promise<string | null> {
  const { id } = useBench.getState();
  const proof = keptProof();
  try {
    const kept = [];
    for (const file of files.slice(0, LIMITS.givenAtOnce)) kept.push({ name: file.name, file: await keepFile(file) });
    await call(API.giveFiles, { id }, { version: await versionSaved(), files: kept, proof });
    return null;
  } catch (reason) {
    return `They are not kept with the job: ${reason instanceof Error ? reason.message : 'the server is away.'}`;
  }
}
