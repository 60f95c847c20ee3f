/** New jobs, parts and members with sensible first values. */

import {
  type CloseUp,
  type Copy,
  JOB_FORMAT,
  type Job,
  jobSchema,
  type Lettering,
  type Member,
  type Part,
  type Shape,
  type ShapeKind,
  type Sheet,
} from '../document/schema';
import { type Measure, tenths } from '../kinds/step';
import { workBy } from '../kinds/works';
import { DEFAULT_FACE } from '../lettering/catalogue';
import { UNMOVED } from '../prepare/placement';
import { faceOfFamily } from '../schema/lettering';

/** An empty job on a 600 × 400 mm sheet. */
export const newJob = (title: string): Job =>
  jobSchema.parse({ format: JOB_FORMAT, title, sheet: { width: 600, height: 400 } });

/** Lettering in the middle of the sheet, about half its width when set. */
export function newLettering(id: string, sheet: Sheet, text: string): Lettering {
  return {
    id,
    kind: 'lettering',
    role: 'join',
    placement: { x: sheet.width / 2, y: sheet.height / 2, turn: 0, mirror: false },
    text,
    ...faceOfFamily(DEFAULT_FACE),
    features: {},
    size: { by: 'capital', mm: Math.max(1, Math.round(Math.min(sheet.height / 5, sheet.width / 10))) },
    letterSpacing: 0,
    lineSpacing: 1,
    align: 'centre',
    evenLines: 'no',
    closeUp: null,
    insteadOf: null,
    letters: [],
    lines: [],
    along: null,
    fit: null,
    within: null,
    asSet: null,
    asked: null,
  };
}

/** A shape in the middle of the sheet, of a size that fits it. */
export function newShape(kind: ShapeKind, id: string, sheet: Sheet): Shape {
  const base = {
    id,
    role: 'join' as const,
    placement: { x: sheet.width / 2, y: sheet.height / 2, turn: 0, mirror: false },
  };
  const across = Math.max(1, Math.round(Math.min(sheet.width, sheet.height) / 3));
  switch (kind) {
    case 'rectangle':
      return { ...base, kind, width: sheet.width / 2, height: sheet.height / 3, corner: 0 };
    case 'ellipse':
      return { ...base, kind, width: across, height: across };
    case 'polygon':
      return { ...base, kind, width: across, sides: 6 };
    case 'star':
      return { ...base, kind, width: across, points: 5, inner: 0.45 };
    case 'heart':
      return { ...base, kind, width: across, height: across * 0.9 };
    case 'bar':
      return { ...base, kind, width: sheet.width / 2, height: Math.max(1, across / 20), ends: 'round' };
    case 'spike':
      return { ...base, kind, width: Math.max(1, across / 12), height: across, point: across / 4 };
  }
}

/** A live copy of a part, in the middle of the sheet. */
export const newCopy = (id: string, of: string, sheet: Sheet): Copy => ({
  id,
  kind: 'copy',
  role: 'join',
  placement: { x: sheet.width / 2, y: sheet.height / 2, turn: 0, mirror: false },
  of,
  scale: 1,
  follows: false,
});

/**
 * A part whose outlines go to the job's first cut, if it has one. Its members are given as they lie on the sheet; its origin is
 * that of the first.
 */
export function newPart(
  id: string,
  name: string,
  members: readonly Member[],
  job: Pick<Job, 'operations' | 'sheetId'>,
): Part {
  const cut = job.operations.find((o) => o.kind === 'cut');
  const { x, y } = members[0]?.placement ?? UNMOVED;
  return {
    id,
    name,
    sheet: job.sheetId,
    hidden: false,
    reference: false,
    locked: false,
    keep: 'inside',
    selfAdhesive: false,
    hangsTogether: null,
    placement: { ...UNMOVED, x, y },
    along: null,
    overallWidth: null,
    starts: [],
    tabs: [],
    sides: [],
    members: members.map((m) => ({ ...m, placement: { ...m.placement, x: m.placement.x - x, y: m.placement.y - y } })),
    steps: [{ kind: 'weld', on: true }],
    work: cut ? [workBy('outline', cut.id)] : [],
  };
}

/** How letters are closed up at first: as strong as the material asks for, and never less than a fortieth of a capital. */
export const newCloseUp = ({ capHeightMm, leastWidthMm }: Measure): CloseUp => ({
  overlap: tenths(Math.max(1.2 * (leastWidthMm ?? 0), capHeightMm / 40)),
  words: false,
  lines: false,
  joints: 'best',
  pairs: [],
});
