/** A file that was given out once, held against what the job means now. */
import type { Job } from '../document/schema';
import type { ReadDrawing } from '../formats/read-drawing';
import { WRITTEN_FORMATS } from '../formats/written';
import { invert, transformedBox } from '../geometry/point';
import type { JobResult } from '../job/evaluate';
import { type ExportScope, laidOut } from '../job/export';
import { asItReads, namedAsItReads, provedOn } from '../job/machine-files';
import { differencesOf, type FileDifference } from './differences';
import { itemsOf } from './read-items';

/**
 * What an earlier file has otherwise than one of now would, with places on the sheet; null where its name has no ending that files here
 * have. Files of one operation are held against the operation that they are nearest to.
 */
export function comparedWithNow(
  job: Job,
  result: JobResult,
  scope: ExportScope,
  { name, read }: { readonly name: string; readonly read: ReadDrawing },
): readonly FileDifference[] | null {
  const format = WRITTEN_FORMATS.find((f) => name.toLowerCase().endsWith(`.${f.ending}`));
  if (!format) return null;
  const machine = provedOn(job);
  const items = itemsOf(read);
  const asked = asItReads(job, machine);
  const drawings = [undefined, ...result.operations.map((o) => o.operation.id)].flatMap((operationId) => {
    const own = { ...scope, ...(operationId && { operationId }) };
    // Written as the job says, or with the names and colours that its machine reads.
    const plain = laidOut(job, result, own, format.frame(job.export));
    const forIt = laidOut(asked, result, own, format.frame(asked.export));
    return [
      ...(plain ? [plain] : []),
      ...(forIt ? [{ ...forIt, drawing: namedAsItReads(forIt.drawing, machine) }] : []),
    ];
  });
  let least: readonly FileDifference[] | null = null;
  for (const { drawing, matrix } of drawings)
    for (const curves of format.keeps.curves ? [true, false] : [false]) {
      const found = differencesOf(drawing, items, { ...format.keeps, curves });
      const toSheet = invert(matrix);
      if (least === null || found.length < least.length)
        least = found.map((d) => ({ ...d, box: d.box && transformedBox(d.box, toSheet) }));
      if (least.length === 0) return least;
    }
  return least;
}
