/** What steps noted about parts. */
import { noteOf } from '../../src/core/kinds/step';
import { tieStep } from '../../src/core/kinds/steps/tie';
import type { PreparedPart } from '../../src/core/prepare/prepared';
import type { Tie } from '../../src/core/prepare/ties';

/** The ties of a part; none where there is no part. */
export const tiesOf = (part: PreparedPart | undefined): readonly Tie[] => (part && noteOf(tieStep, part)?.ties) ?? [];
