/** The documents of the golden set as they were written down: the sample jobs, and two hundred by chance. */
import { readdirSync, readFileSync } from 'node:fs';
import { anyDocument } from '../support/any-document';
import type { Draft } from '../support/jobs';

export const GENERATED = 200;
const SEED = 20_261_127;

/** A document as it is kept, with the drawings it is made with by their ids. */
export type Kept = { readonly name: string; readonly document: Draft };

/** The demo jobs and the generated documents, as they are now; the golden set keeps its own copy of them. */
export function documentsNow(): Kept[] {
  const demo = readdirSync('demo')
    .filter((file) => file.endsWith('.json'))
    .sort()
    .map((file) => ({
      name: file.replace('.json', ''),
      document: JSON.parse(readFileSync(`demo/${file}`, 'utf8')) as Draft,
    }));
  return [
    ...demo,
    ...Array.from({ length: GENERATED }, (_, i) => ({ name: `generated ${i}`, document: anyDocument(i, SEED) })),
  ];
}
