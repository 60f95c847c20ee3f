/** Opening a job that was taken along: unpacked in a worker that can be ended, its files kept, and a job of its own made of it. */
import { call, callWithBytes } from '@/api/call';
import { API } from '@/api/endpoints';
import { isZip, TAKEN_ALONG, type TakenFile, takenTooLarge } from '@/core/job/taken-along';
import { LIMITS } from '@/core/limits';
import { computing, readingTaken, TypefaceReader } from '@/worker/client';

/** What came of a file: the job it has become, or the sentence why there is none. */
export type OpenedTaken =
  | { readonly ok: true; readonly id: string; readonly notes: readonly string[] }
  | { readonly ok: false; readonly sentence: string };

/** Whether a file is meant as a job taken along: by its ending, or as a zip file. */
export async function isTaken(file: File): Promise<boolean> {
  if (file.name.toLowerCase().endsWith(TAKEN_ALONG)) return true;
  return isZip(new Uint8Array(await file.slice(0, 4).arrayBuffer()));
}

const DAMAGED = 'One of the files in this job taken along is not what it should be: it did not arrive whole.';

/** Open a job that was taken along; `said` hears how far it is. */
export async function openTakenFile(file: File, said: (words: string) => void): Promise<OpenedTaken> {
  const refused = (sentence: string): OpenedTaken => ({ ok: false, sentence: `${file.name}: ${sentence}` });
  if (file.size > LIMITS.takenBytes) return refused(takenTooLarge());
  said(`Unpacking ${file.name} …`);
  const notes: string[] = [];
  const reader = new TypefaceReader();
  try {
    const opened = await readingTaken(new Uint8Array(await file.arrayBuffer()));
    if (!opened.ok) return refused(opened.sentence);
    for (const [i, taken] of opened.files.entries()) {
      said(`Keeping what came with it: ${i + 1} of ${opened.files.length} …`);
      const { id } = await callWithBytes(API.keepAsset, new Blob([new Uint8Array(taken.bytes)]), taken.name);
      if (id !== taken.id) return refused(DAMAGED);
      if (taken.as === 'typeface') notes.push(...(await listTypeface(reader, taken)));
    }
    said('Preparing it …');
    // The list shows it as others: with its picture.
    const extras = await computing().summary(opened.job);
    const { id } = await call(API.createJob, {}, { document: opened.job, extras });
    return { ok: true, id, notes: [...notes, ...opened.leftOut] };
  } catch (reason) {
    return refused(reason instanceof Error ? reason.message : 'It could not be opened.');
  } finally {
    reader.end();
  }
}

/** Put a typeface that came along into the list; one that can't be read stays out of it, with a sentence. */
async function listTypeface(reader: TypefaceReader, { id, name, bytes }: TakenFile): Promise<readonly string[]> {
  const described = await reader.describe(bytes);
  if (!described.ok) return [`${name}: ${described.sentence}`];
  await call(API.addTypeface, {}, { content: id, faces: [...described.faces] });
  return [];
}
