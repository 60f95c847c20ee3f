/** A finding: one sentence about the job with the place it speaks of. */
import type { Box } from '../geometry/point';
import type { Station } from './stations';

/** How grave a finding is. `fault` spoils the work, `caution` may, `note` is worth knowing. */
export type Severity = 'fault' | 'caution' | 'note';

/** What a mend has to know, said by the finding: ids, keys, lengths. */
export type MendArgs = Readonly<Record<string, string | number>>;

/**
 * A sentence about the job with a place: what it is about, how grave it is, where it is dealt with, how it is mended.
 */
export type Finding = {
  /** The same finding keeps its key from one evaluation to the next. */
  readonly key: string;
  /** Which rule found it. */
  readonly code: string;
  readonly severity: Severity;
  readonly sentence: string;
  /** Where it is dealt with. */
  readonly station: Station;
  readonly partId: string | null;
  readonly memberId: string | null;
  /** Place on the sheet in mm. */
  readonly box: Box | null;
  /** Said where it can be mended in one press. */
  readonly mend: MendArgs | null;
  /** The reason when the user has left it as it is. */
  readonly leftReason: string | null;
};
