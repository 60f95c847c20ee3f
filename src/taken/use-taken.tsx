/** A file dropped or chosen that is a job taken along: opened, with what is said meanwhile. */
import { useRouter } from 'next/navigation';
import { useCallback, useState } from 'react';
import { type OpenedTaken, openTakenFile } from './open-taken';

/** Opens jobs taken along, one after the other; the last that could be opened is shown. `said` is null where nothing is under way. */
export function useOpenTaken(tell: (sentence: string) => void): {
  readonly said: string | null;
  readonly open: (files: readonly File[]) => Promise<void>;
} {
  const router = useRouter();
  const [said, setSaid] = useState<string | null>(null);
  const open = useCallback(
    async (files: readonly File[]) => {
      const came: OpenedTaken[] = [];
      try {
        for (const file of files) came.push(await openTakenFile(file, setSaid));
      } finally {
        setSaid(null);
      }
      const sentences = came.flatMap((c) => (c.ok ? c.notes : [c.sentence]));
      if (sentences.length > 0) tell(sentences.join(' '));
      const last = came.findLast((c) => c.ok);
      if (last?.ok) router.push(`/jobs/${last.id}`);
    },
    [router, tell],
  );
  return { said, open };
}
