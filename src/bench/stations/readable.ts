/** How readable the letters of a part are, in words. */
import type { PartView } from '@/worker/view';

/** The mean and the worst letter; undefined where nothing was measured. */
export function readableWords({ readability }: Pick<PartView, 'readability'>): string | undefined {
  if (!readability) return undefined;
  const { mean, worst, worstOf } = readability;
  const about = Math.round(mean) - Math.round(worst) >= 1 ? `, ${worstOf} ${Math.round(worst)} %` : '';
  return `readable ${Math.round(mean)} %${about}`;
}
