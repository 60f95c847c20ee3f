/** Sentences about a file, each with its place on the sheet where it has one. */
import type { Box } from '@/core/geometry/point';
import styles from '../../proof/proof.module.css';
import { bringIntoSight } from '../../store';

/** Things that were found; a press on one shows its place. */
export const FoundList = ({ found }: { found: readonly { readonly sentence: string; readonly box: Box | null }[] }) => (
  <>
    {found.map(({ sentence, box }, i) =>
      box ? (
        <button
          // biome-ignore lint/suspicious/noArrayIndexKey: they have no name of their own
          key={i}
          type="button"
          className={styles.found}
          title="Show the place"
          onClick={() => bringIntoSight(box)}
        >
          {sentence}
        </button>
      ) : (
        // biome-ignore lint/suspicious/noArrayIndexKey: they have no name of their own
        <div key={i} className={styles.found}>
          {sentence}
        </div>
      ),
    )}
  </>
);
