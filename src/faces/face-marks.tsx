/** What matters of a face to a machine, for the words at hand: marks with their figure. */
import { useQuery } from '@tanstack/react-query';
import type { FaceTrial } from '@/core/job/face-trial';
import { formatLength } from '@/core/units/quantity';
import type { ListedFace } from './faces';
import styles from './faces.module.css';
import { type TriedWords, trialQuery } from './trials';

type Mark = { readonly words: string; readonly tone: 'good' | 'caution' | 'plain' };

/** The marks of a face, the gravest first. */
export function marksOf({ isLine }: ListedFace, trial: FaceTrial, { leastMm }: TriedWords, units: 'mm' | 'in'): Mark[] {
  const { pieces, islands, thinnestMm, missing, broken } = trial;
  if (missing.length > 0) return [{ words: `has no ${missing.slice(0, 6).join(' ')}`, tone: 'caution' }];
  if (broken.length > 0) return [{ words: `${broken.slice(0, 6).join(' ')} broken`, tone: 'caution' }];
  // How it is built says so already.
  if (isLine) return [];
  const marks: Mark[] = [];
  if (thinnestMm !== null && leastMm > 0)
    marks.push({ words: `thin: ${formatLength(thinnestMm, units)}`, tone: 'caution' });
  marks.push(pieces === 1 ? { words: 'one piece', tone: 'good' } : { words: `${pieces} pieces`, tone: 'plain' });
  marks.push(
    islands === 0
      ? { words: 'no islands', tone: 'good' }
      : { words: islands === 1 ? '1 island' : `${islands} islands`, tone: 'plain' },
  );
  return marks;
}

/** The marks of a face, once they are known. */
export function FaceMarks({ face, words, units }: { face: ListedFace; words: TriedWords; units: 'mm' | 'in' }) {
  const { data } = useQuery(trialQuery(face, words));
  if (!data || 'sentence' in data) return null;
  return (
    <span className={styles.marks}>
      {marksOf(face, data, words, units).map(({ words: said, tone }) => (
        <span key={said} className={tone === 'plain' ? undefined : styles[tone]}>
          {said}
        </span>
      ))}
    </span>
  );
}
