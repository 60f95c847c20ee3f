/** Packing a job to be taken along, with all that it names. */
import type { Job } from '../core/document/schema';
import type { Evaluator } from '../core/job/evaluate';
import {
  filesNamed,
  leftOutSentence,
  ownFacesNamed,
  packJob,
  type TakenFile,
  withWordsAsSet,
} from '../core/job/taken-along';
import { withPartsOfRows } from '../core/roster/in-row';
import type { Sources } from './sources';

/** A packed job, and what does not go along. */
export type Taken = { readonly bytes: Uint8Array; readonly leftOut: readonly string[] };

/** Pack a job: its drawings, pictures and typefaces are brought from where they are kept. */
export async function takeAlong(job: Job, evaluator: Evaluator, sources: Sources): Promise<Taken> {
  // Names of a list may have typefaces of their own.
  const named = withPartsOfRows(job, { today: '' });
  const faces = await sources.of(named, evaluator);
  const leftOut: string[] = [];
  const stays = new Set<string>();
  for (const face of ownFacesNamed(named)) {
    const about = await sources.about(face);
    if (about?.embedding !== 'restricted' || face.content === null) continue;
    stays.add(face.content);
    leftOut.push(leftOutSentence(face));
  }
  const files: TakenFile[] = [];
  for (const file of filesNamed(named)) {
    if (stays.has(file.id)) continue;
    const bytes = await sources.asset(file.id);
    if (bytes) files.push({ ...file, bytes });
    else leftOut.push(`${file.name || `A ${file.as}`} does not go along: it is not at hand here.`);
  }
  const isLeftOut = ({ content }: { readonly content: string | null }) => content !== null && stays.has(content);
  const packed = withWordsAsSet(job, isLeftOut, (of, partId) => evaluator.prepare(of, partId, faces)?.members ?? []);
  return { bytes: packJob(packed, files, leftOut), leftOut };
}
