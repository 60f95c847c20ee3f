/** A line that a pen of even width followed. */
import type { TrackPoint } from './track';

/** What a line comes to at an end: the end of the pen's way, another line that it leaves, or a place where no edge is seen. */
export type PenLineEnd = 'tip' | 'on' | 'hidden';

/** A line the middle of the pen followed. */
export type PenLine = {
  readonly points: readonly TrackPoint[];
  readonly closed: boolean;
  readonly ends: readonly [PenLineEnd, PenLineEnd];
};
