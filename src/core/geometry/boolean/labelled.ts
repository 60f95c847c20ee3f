/** Outlines that know where they come from. */
import type { Path } from '../path';

/** A closed outline and, for each of its segments, the label its source was added with (-1: a bridging line). */
export type LabelledPath = { readonly path: Path; readonly labels: readonly number[] };
