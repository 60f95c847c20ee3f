/** The outlines of a part made ready to be compared with other outlines. */
import { type Laid, laid } from '../geometry/lying';
import type { Memory } from '../memo';
import type { Outline } from './outline';

/** The outlines of a part made ready to be compared, once for the part. */
export const outlinesLaid = (part: { readonly outlines: readonly Outline[] }, memory: Memory): Laid =>
  memory.of(part, 'outlines laid', () => laid(part.outlines.map((o) => o.path)));
