/** What the user's words come to in faces: computed once a face and words, in the worker, and kept. */
import { queryOptions, useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import type { FaceTrial } from '@/core/job/face-trial';
import { faceKey } from '@/core/lettering/pick';
import type { Lettering } from '@/core/schema/lettering';
import { computing } from '@/worker/client';
import type { Family, ListedFace } from './faces';

/** The words that faces are tried with: as they are set, but for the typeface. */
export type TriedWords = Pick<
  Lettering,
  'text' | 'size' | 'letterSpacing' | 'lineSpacing' | 'align' | 'evenLines' | 'features'
> & {
  /** The least safe width of a stroke, in mm; 0 where none is known. */
  readonly leastMm: number;
};

/** What a user asks of a face for these words. */
export const ASKED = ['one piece', 'no islands', 'thick enough', 'every character'] as const;

/** What a user asks of a face for these words. */
export type Asked = (typeof ASKED)[number];

/** What could not be computed, since a file could not be fetched, is asked for again when it is older than this, in ms. */
const RETRY_MS = 5_000;

const keepsAnswer = ({ state: { data } }: { readonly state: { readonly data: object | undefined } }): number =>
  data !== undefined && 'sentence' in data ? RETRY_MS : Infinity;

/** Words in a face, drawn. */
export const sampleQuery = (face: ListedFace, text: string) =>
  queryOptions({
    queryKey: ['face sample', faceKey(face.named), text],
    queryFn: () => computing().faceSample(face.named, text, {}),
    staleTime: keepsAnswer,
  });

/** Words in a face, tried. */
export const trialQuery = (face: ListedFace, { leastMm, ...words }: TriedWords) =>
  queryOptions({
    queryKey: ['face trial', faceKey(face.named), words, leastMm],
    queryFn: () => computing().faceTrial(face.named, words, leastMm),
    staleTime: keepsAnswer,
  });

const MEETS: Readonly<Record<Asked, (trial: FaceTrial, isLine: boolean) => boolean>> = {
  'one piece': ({ pieces }, isLine) => !isLine && pieces === 1,
  'no islands': ({ islands }) => islands === 0,
  'thick enough': ({ thinnestMm }, isLine) => isLine || thinnestMm === null,
  'every character': ({ missing, broken }) => missing.length === 0 && broken.length === 0,
};

/** Whether a face does what is asked of it. */
export const meets = ({ isLine }: ListedFace, trial: FaceTrial, asked: readonly Asked[]): boolean =>
  asked.every((ask) => MEETS[ask](trial, isLine));

/** How many results come in before the list is shown anew. */
const AT_A_TIME = 8;

/**
 * The families whose first face does what is asked, as far as that is known, and how many have been looked at. Nothing is computed
 * while nothing is asked. `families` is the same list as long as nothing in it changes: another is looked through from its start.
 */
export function useMeeting(families: readonly Family[], words: TriedWords, asked: readonly Asked[]) {
  const client = useQueryClient();
  const [done, setDone] = useState(0);
  const isAsked = asked.length > 0;
  // Words count by what is in them.
  const about = JSON.stringify(words);
  useEffect(() => {
    if (!isAsked) return;
    let isOver = false;
    setDone(0);
    const tried = JSON.parse(about) as TriedWords;
    void (async () => {
      for (const [i, { faces }] of families.entries()) {
        await client.fetchQuery(trialQuery(faces[0], tried)).catch(() => null);
        if (isOver) return;
        if (i % AT_A_TIME === AT_A_TIME - 1 || i === families.length - 1) setDone(i + 1);
      }
    })();
    return () => {
      isOver = true;
    };
  }, [families, about, isAsked, client]);
  if (!isAsked) return { shown: families, done: families.length };
  const shown = families.filter(({ faces: [face] }) => {
    const trial = client.getQueryData(trialQuery(face, words).queryKey);
    return trial !== undefined && !('sentence' in trial) && meets(face, trial, asked);
  });
  return { shown, done };
}
