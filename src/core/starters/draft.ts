/** How the starters that ship are written down: as job documents, with what most of them have in common. */
import type { z } from 'zod';
import { JOB_FORMAT, type Job, jobSchema } from '../document/schema';

type JobDraft = z.input<typeof jobSchema>;
/** A part of a starter that ships, as it is written down. */
export type PartDraft = NonNullable<JobDraft['parts']>[number];
/** A member of such a part. */
export type MemberDraft = PartDraft['members'][number];

/** A starter that ships: its id in addresses, and its job. */
export type ShippedStarter = { readonly id: string; readonly job: Job };

/** A starter of a name, an explanation, a sheet and parts. */
export const starter = (
  id: string,
  title: string,
  about: string,
  { sheet, parts, ...more }: Pick<JobDraft, 'sheet'> & { readonly parts: PartDraft[] } & Partial<JobDraft>,
): ShippedStarter => ({
  id,
  job: jobSchema.parse({
    format: JOB_FORMAT,
    title,
    starter: { about },
    sheet: { ...sheet, leastWidthFrom: 'material', kerfFrom: 'material' },
    parts,
    ...more,
  }),
});

const AT_ORIGIN = { x: 0, y: 0 };

/** A part whose members lie as they say, from the middle of the sheet. */
export const part = (
  id: string,
  name: string,
  members: MemberDraft[],
  more: Omit<Partial<PartDraft>, 'members'>,
): PartDraft => ({ id, name, placement: AT_ORIGIN, members, ...more });

/** Words that are asked for. */
export const words = (
  asked: string,
  text: string,
  face: string,
  capital: number,
  more: Partial<Extract<MemberDraft, { kind: 'lettering' }>> = {},
): MemberDraft => ({
  id: 'words',
  kind: 'lettering',
  placement: AT_ORIGIN,
  text,
  face,
  size: { by: 'capital', mm: capital },
  align: 'centre',
  asked,
  ...more,
});
