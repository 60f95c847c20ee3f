/** More than one stock in a job: another sheet, taking one in hand, and which part is on which. */
import { isOnSheet, sheetsOf } from '../document/on-sheet';
import type { Job, Work } from '../document/schema';
import { workBy } from '../kinds/works';
import { LIMITS } from '../limits';
import { partMatrix, placementOf } from '../prepare/placement';
import { operationSettingsSchema } from '../schema/shop/settings';
import { changed, type Done, plain } from './changed';
import { type AtHand, takeFromChart } from './shop';

type OtherSheet = Job['otherSheets'][number];

/** The sheet in hand as it is put away. */
const putAway = (job: Job): OtherSheet => ({
  id: job.sheetId,
  name: job.sheetName,
  sheet: plain(job.sheet),
  machine: job.machine?.id ?? null,
  settings: Object.fromEntries(job.operations.map((o) => [o.id, plain(o.settings)])),
});

/**
 * Take another sheet in hand: its stock, and the settings that operations have on it. Those that were made for another machine, or never,
 * are taken from the chart where a shop is given.
 */
export function takeSheet(job: Job, sheetId: string, shop: AtHand | null = null): Job {
  const wanted = job.otherSheets.find((s) => s.id === sheetId);
  if (!wanted) return job;
  const next = changed(job, (draft) => {
    const away = putAway(job);
    draft.otherSheets = job.otherSheets.map((s) => (s.id === sheetId ? away : s)) as Job['otherSheets'];
    draft.sheetId = wanted.id;
    draft.sheetName = wanted.name;
    draft.sheet = plain(wanted.sheet);
    for (const operation of draft.operations)
      operation.settings = plain(wanted.settings[operation.id] ?? operationSettingsSchema.parse({}));
  });
  const isAnew =
    wanted.machine !== (job.machine?.id ?? null) || job.operations.some((o) => wanted.settings[o.id] === undefined);
  return shop && isAnew ? takeFromChart(next, shop) : next;
}

/** A job with each of its sheets in hand, in the order they were made. */
export const eachSheet = (job: Job): Job[] =>
  sheetsOf(job).map((sheet) => (sheet.isInHand ? job : takeSheet(job, sheet.id)));

/** One more sheet, as large as the one in hand and of nothing yet, taken in hand; none beyond the limit. */
export function addSheet(job: Job): Done<{ readonly sheetId: string }> {
  if (job.otherSheets.length + 1 >= LIMITS.sheets) return { job, sheetId: job.sheetId };
  const taken = new Set(sheetsOf(job).map((s) => s.id));
  let n = 2;
  while (taken.has(`sheet-${n}`)) n++;
  const sheetId = `sheet-${n}`;
  const bare: Job['sheet'] = {
    ...plain(job.sheet),
    material: '',
    thickness: null,
    thicknessAs: null,
    leastWidth: null,
    kerf: null,
    price: null,
    refuses: [],
    leastWidthFrom: null,
    kerfFrom: null,
    priceFrom: null,
  };
  const added = changed(job, (draft) => {
    draft.otherSheets.push({ id: sheetId, name: '', sheet: bare, machine: job.machine?.id ?? null, settings: {} });
  });
  return { job: takeSheet(added, sheetId), sheetId };
}

/** What the sheet in hand is called. */
export const nameSheet = (job: Job, sheetName: string): Job =>
  changed(job, (draft) => {
    draft.sheetName = sheetName;
  });

/** Take the sheet in hand out of the job. Its parts come on the one that is in hand then; the only sheet stays. */
export function removeSheet(job: Job): Job {
  const listed = sheetsOf(job);
  const at = listed.findIndex((s) => s.isInHand);
  const next = listed[at - 1] ?? listed[at + 1];
  if (!next) return job;
  return changed(takeSheet(job, next.id), (draft) => {
    draft.otherSheets = draft.otherSheets.filter((s) => s.id !== job.sheetId);
    for (const part of draft.parts) if (isOnSheet(job, part)) part.sheet = next.id;
  });
}

/** Put parts on a sheet, at the same place of it. What goes along with a part of another sheet goes by itself then. */
export const putOnSheet = (job: Job, partIds: readonly string[], sheetId: string): Job =>
  sheetsOf(job).some((s) => s.id === sheetId)
    ? changed(job, (draft) => {
        for (const part of draft.parts) if (partIds.includes(part.id) && !part.locked) part.sheet = sheetId;
        const sheetOfPart = new Map(draft.parts.map((p) => [p.id, p.sheet]));
        for (const part of draft.parts) {
          if (part.along === null || sheetOfPart.get(part.along) === part.sheet) continue;
          if (isMadeOfLeader(part)) {
            cutInsteadOfEngraved(draft, part.along);
            continue;
          }
          const own = job.parts.find((p) => p.id === part.id);
          if (own) part.placement = placementOf(partMatrix(job.parts, own));
          part.along = null;
        }
      })
    : job;

/** Words that were engraved on a backing of their own stock are cut when it is of another: they are glued on it. */
function cutInsteadOfEngraved(draft: Job, partId: string): void {
  const part = draft.parts.find((p) => p.id === partId);
  const kindOf = (w: Work) => draft.operations.find((o) => o.id === w.operation)?.kind;
  const cut = draft.operations.find((o) => o.kind === 'cut');
  const isEngraved = part?.work.some((w) => w.what === 'fill' && kindOf(w) === 'engrave');
  if (!part || !cut || !isEngraved || part.work.some((w) => kindOf(w) === 'cut')) return;
  part.work = [...part.work.filter((w) => w.what !== 'fill'), workBy('outline', cut.id)];
}

/** Whether a part is made of the one it goes along with, as a backing is: then it stays exactly over it, on whatever sheet. */
const isMadeOfLeader = (part: Job['parts'][number]): boolean =>
  part.members.some((m) => m.kind === 'copy' && m.of === part.along);
