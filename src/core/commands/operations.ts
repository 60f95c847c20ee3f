/** Commands on operations: a new one at the place of its kind, in a colour of its own. */

import { colourOf } from '../document/colour-of';
import { apartWhereLeast, seenColour } from '../document/colours-apart';
import type { Job, Operation, OperationKind } from '../document/schema';
import { LIMITS } from '../limits';
import { changed, moveEntry } from './changed';
import { freeId } from './ids';

/** Kinds in the order they run: what comes off is cut last. */
export const RUNNING_ORDER: readonly OperationKind[] = ['engrave', 'mark', 'score', 'cut'];

const NAMES: Readonly<Record<OperationKind, string>> = { engrave: 'Engrave', mark: 'Mark', score: 'Score', cut: 'Cut' };

/** Shades that stand out from white, all around the wheel and from dark to light, that colours of operations are taken from. */
const SHADES = [0.3, 0.46, 0.62, 0.78].flatMap((value, k) =>
  Array.from({ length: 12 }, (_, i) => shade(i * 30 + (k % 2) * 15, value)),
);

/** A job with one more operation of a kind: after the last of its kind, or before those that run later; none beyond the limit. */
export const addOperation = (job: Job, kind: OperationKind): Job =>
  job.operations.length >= LIMITS.operations
    ? job
    : changed(job, (draft) => {
        const same = draft.operations.filter((o) => o.kind === kind);
        const operation: Operation = {
          id: freeId(job, 'operation'),
          name: freeName(draft.operations, NAMES[kind]),
          kind,
          on: true,
          tip: null,
          scan: null,
          // The first of its kind is drawn as the colour key says.
          colour: same.length === 0 ? null : ownColour(job),
          pens: [],
          kerfSide: 'line',
          lead: null,
          tabs: null,
          order: { by: 'way', pinned: [], found: null },
          settings: { charted: null, from: null, tried: false, toolWidth: null, typed: {} },
        };
        draft.operations.splice(placeFor(draft.operations, kind), 0, operation);
      });

/** A colour of its own for an operation, which no other has. */
export const giveOwnColour = (job: Job, operationId: string): Job =>
  changed(job, (draft) => {
    const operation = draft.operations.find((o) => o.id === operationId);
    if (operation) operation.colour = ownColour(job);
  });

/** Run an operation right before another that runs before it now. */
export const runBefore = (job: Job, operationId: string, otherId: string): Job =>
  changed(job, (draft) => {
    const from = draft.operations.findIndex((o) => o.id === operationId);
    const to = draft.operations.findIndex((o) => o.id === otherId);
    if (from > to && to >= 0) moveEntry(draft.operations, from, to);
  });

/** Where the cuts of an operation run, on the outlines or beside what is kept. */
export const setKerfSide = (job: Job, operationId: string, kerfSide: Operation['kerfSide']): Job =>
  changed(job, (draft) => {
    const operation = draft.operations.find((o) => o.id === operationId);
    if (operation) operation.kerfSide = kerfSide;
  });

/** How cuts of an operation begin in scrap, what is left out staying as it is; null: on the outline. */
export const setLead = (job: Job, operationId: string, lead: Partial<NonNullable<Operation['lead']>> | null): Job =>
  changed(job, (draft) => {
    const operation = draft.operations.find((o) => o.id === operationId);
    if (!operation) return;
    operation.lead = lead && { ...(operation.lead ?? { shape: 'arc', in: null, out: 0, over: 0 }), ...lead };
  });

function placeFor(operations: readonly Operation[], kind: OperationKind): number {
  const lastOfKind = operations.findLastIndex((o) => o.kind === kind);
  if (lastOfKind >= 0) return lastOfKind + 1;
  const rank = RUNNING_ORDER.indexOf(kind);
  const later = operations.findIndex((o) => RUNNING_ORDER.indexOf(o.kind) > rank);
  return later < 0 ? operations.length : later;
}

function freeName(operations: readonly Operation[], stem: string): string {
  const taken = new Set(operations.map((o) => o.name));
  if (!taken.has(stem)) return stem;
  for (let n = 2; ; n++) if (!taken.has(`${stem} ${n}`)) return `${stem} ${n}`;
}

/** The shade that is farthest from every colour a file of the job may have, whoever looks at it. */
function ownColour(job: Job): string {
  const used = [...job.operations.map((o) => colourOf(o, job)), ...Object.values(job.colourKey)].map(seenColour);
  const farthest = (colour: string): number => {
    const seen = seenColour(colour);
    return Math.min(...used.map((other) => apartWhereLeast(seen, other)));
  };
  return SHADES.reduce((best, colour) => (farthest(colour) > farthest(best) ? colour : best));
}

/** A saturated shade of a hue in degrees, "#RRGGBB", as bright as `value` of 1. */
function shade(hue: number, value: number): string {
  const part = (n: number): string => {
    const k = (n + hue / 60) % 6;
    const light = value - value * 0.85 * Math.max(0, Math.min(k, 4 - k, 1));
    return Math.round(255 * light)
      .toString(16)
      .padStart(2, '0');
  };
  return `#${part(5)}${part(3)}${part(1)}`.toUpperCase();
}
