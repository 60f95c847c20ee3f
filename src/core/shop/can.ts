/** What machines can do, and by what process. */
import type { OperationKind } from '../schema/operations';
import type { Process } from '../schema/sheet';
import type { Machine, MachineKind } from '../schema/shop/machine';

const DOES: Readonly<Record<MachineKind, readonly OperationKind[]>> = {
  laser: ['engrave', 'mark', 'score', 'cut'],
  plasma: ['mark', 'cut'],
  'water jet': ['score', 'cut'],
  router: ['engrave', 'score', 'cut'],
  engraver: ['engrave', 'mark', 'score'],
  knife: ['score', 'cut'],
  pen: ['engrave', 'mark'],
};

/** The kinds of operations a machine of a kind can do, in running order; an engraving by a pen is filled by lines. */
export const doneBy = (kind: MachineKind): readonly OperationKind[] => DOES[kind];

/** The process a machine works by, where stock is cut by it; null for those that cut nothing off. */
export const processOf = ({ kind }: Pick<Machine, 'kind'>): Process | null =>
  kind === 'engraver' || kind === 'pen' ? null : kind;
