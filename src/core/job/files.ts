/**
 * Files to be given out. What is drawn is checked before anything is written, and what was written is read back before it leaves:
 * metal is spent on it. A file that fails is not given out, and a sentence says why.
 */
import { partTitle } from '../document/part-words';
import type { Job } from '../document/schema';
import type { Drawing } from '../formats/drawing';
import { differenceFrom } from '../formats/read-back/compare';
import { type FileFormat, writtenFormat } from '../formats/written';
import { type Drawable, type DrawableFault, faultOf } from '../geometry/drawable';
import { stepIn } from '../kinds/steps';
import { workKind } from '../kinds/works';
import { LEAST_TWICE_MM, mayRunTwice, twiceWithin } from '../rules/twice';
import { leadSettings } from './cut-paths';
import type { OperationResult } from './drawn';
import type { JobResult, Progress } from './evaluate';
import { drawingOf, type ExportScope, writeFile } from './export';
import { fileName } from './file-names';

/** A file that was written: its name and its bytes. */
export type WrittenFile = { readonly name: string; readonly bytes: Uint8Array };

/** The files of one press or command: all of them, or none and why. Both are empty when there is nothing to write. */
export type MadeFiles = { readonly files: readonly WrittenFile[]; readonly refused: readonly string[] };

const FAULT_WORDS: Readonly<Record<DrawableFault['what'], (mm: string) => string>> = {
  'not finite': () => 'has a place that is nowhere',
  empty: () => 'is empty',
  open: () => 'does not close',
  gap: (mm) => `breaks off, and goes on ${mm} mm farther`,
  tiny: () => 'has a piece of no length',
};

const OURS = 'That is a fault of this program; the job is as it was.';

const placeWords = (at: DrawableFault['at']): string =>
  at && Number.isFinite(at.x) && Number.isFinite(at.y) ? ` at ${at.x.toFixed(2)}, ${at.y.toFixed(2)} mm` : '';

/** What is wrong with what would be written, in a sentence that names the part; null when nothing is. */
export function faultyWork(job: Job, result: JobResult, scope: ExportScope): string | null {
  const title = (id: string) => {
    const part = job.parts.find((p) => p.id === id);
    return part ? partTitle(part) : 'a part';
  };
  for (const { operation, drawn, cuts } of result.operations) {
    if (!operation.on) continue;
    const wanted = drawn.filter((d) => scope.partIds === null || scope.partIds.includes(d.partId));
    for (const { partId, what, drawable } of wanted) {
      const fault = faultOf(drawable);
      if (!fault) continue;
      const words = FAULT_WORDS[fault.what](fault.mm.toFixed(4));
      return `${workKind(what).word} of ${title(partId)} for ${operation.name}: a line ${words}${placeWords(fault.at)}. ${OURS}`;
    }
    for (const [partId, twice] of unaskedTwice(job, result, { operation, drawn: wanted, cuts }))
      if (twice >= LEAST_TWICE_MM)
        return `${operation.name} would go along ${twice.toFixed(2)} mm of ${title(partId)} twice. ${OURS}`;
  }
  return null;
}

/**
 * How long each part's own lines are gone along twice, in mm, where nobody asked for it: stems of centerlines are where that is
 * chosen, and of drawings and what is not welded a finding tells.
 */
function unaskedTwice(
  job: Job,
  result: JobResult,
  { operation, drawn, cuts }: Pick<OperationResult, 'operation' | 'drawn' | 'cuts'>,
): ReadonlyMap<string, number> {
  const overrun = Math.max(0, leadSettings(operation, job.sheet)?.overMm ?? 0);
  const made = new Map(result.parts.map((part) => [part.id, part]));
  const twiceByChoice = new Set(
    job.parts.flatMap((part) => (stepIn(part, 'centerline')?.retraced === 'twice' ? [part.id] : [])),
  );
  const lines = new Map<string, Drawable[]>();
  for (const { partId, what, drawable } of drawn) {
    const part = made.get(partId);
    const isAsked = what === 'centerline' && twiceByChoice.has(partId);
    if (isAsked || !part || mayRunTwice(part.own)) continue;
    const list = lines.get(partId);
    if (list) list.push(drawable);
    else lines.set(partId, [drawable]);
  }
  // Cuts with a lead go on beyond where they began as far as is asked.
  const overrunsOf = (partId: string) =>
    overrun * cuts.filter((c) => c.partId === partId && !c.lacks.includes('lead')).length;
  return new Map([...lines].map(([partId, list]) => [partId, twiceWithin(list) - overrunsOf(partId)]));
}

/** The files of a job, in the formats asked for; one that fails keeps back all. Yields how many are done. */
export function* makeFiles(
  job: Job,
  result: JobResult,
  formats: readonly FileFormat[],
  scope: ExportScope,
): Generator<Progress, MadeFiles> {
  const faulty = faultyWork(job, result, scope);
  if (faulty) return { files: [], refused: [`Nothing is written. ${faulty}`] };
  const made: Made[] = [];
  for (const id of formats) {
    yield { done: made.length, of: formats.length };
    const drawing = drawingOf(job, result, scope, writtenFormat(id).frame(job.export));
    if (drawing) made.push(writtenAndRead(drawing, id, { job, name: fileName(job, id, scope) }));
  }
  return allOrNone(made);
}

/** A file, or the sentence why it is not given out. */
type Made = WrittenFile | { readonly refused: string };

/** A drawing written and read back; a file that is not what was drawn is not given out. */
export function writtenAndRead(
  drawing: Drawing,
  id: FileFormat,
  { job, name }: { readonly job: Pick<Job, 'export'>; readonly name: string },
): Made {
  const format = writtenFormat(id);
  const bytes = writeFile(drawing, id, job.export);
  const difference = differenceFrom(drawing, () => format.readBack(bytes, job.export), {
    keeps: format.keeps,
    lineMm: job.export.lineWidth,
  });
  if (difference) return { refused: `${format.word} is not given out: read back, the file ${difference}. ${OURS}` };
  return { name, bytes };
}

/** Files, where none is refused; else none of them, and why. */
export function allOrNone<F extends WrittenFile>(
  made: readonly (F | { readonly refused: string })[],
): { readonly files: readonly F[]; readonly refused: readonly string[] } {
  const refused = made.flatMap((m) => ('refused' in m ? [m.refused] : []));
  return { files: refused.length > 0 ? [] : made.flatMap((m) => ('bytes' in m ? [m] : [])), refused };
}

/** The files of several presses as those of one: all, where none is refused. */
export const allFiles = (made: readonly MadeFiles[]): MadeFiles => {
  const refused = [...new Set(made.flatMap((m) => m.refused))];
  return { files: refused.length > 0 ? [] : made.flatMap((m) => m.files), refused };
};
