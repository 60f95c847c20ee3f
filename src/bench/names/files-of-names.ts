/** Files of each name of the list, with a list of what is where: by themselves where they are few, else packed into one. */
import { proxy } from 'comlink';
import type { Job } from '@/core/document/schema';
import type { FileFormat } from '@/core/formats/written';
import type { ExportScope } from '@/core/job/export';
import { paperName } from '@/core/job/file-names';
import type { MadeFiles, WrittenFile } from '@/core/job/files';
import { sheetsLaid } from '@/core/job/laid-sheets';
import { packed, rowList } from '@/core/job/row-files';
import { placeList } from '@/core/job/sheet-files';
import { today } from '@/ui/when';
import { computingRows } from '@/worker/client';
import { useBench } from '../store';

/** More files than these come packed into one: a browser asks, or drops some. */
const HANDED_OVER = 6;

/** Make the files of all names that are made; `tell` hears how far it is. */
export async function filesOfNames(
  formats: readonly FileFormat[] | 'machine',
  scope: ExportScope,
  tell: (state: { busy: boolean; words: string }) => void,
): Promise<MadeFiles> {
  const { document } = useBench.getState();
  // Progress may still be on its way when the result is there.
  let isDone = false;
  const tellHow = proxy((done: number, of: number) => {
    if (!isDone) tell({ busy: true, words: `Writing ${Math.floor(done)} of ${of} …` });
  });
  const now = scope.date ?? today();
  if (document.layout && sheetsLaid(document) > 0) {
    const made = await computingRows().sheetFiles(document, { formats, scope, today: now }, tellHow);
    isDone = true;
    if (!made || made.refused.length > 0) return { files: [], refused: made?.refused ?? [] };
    const files = made.sheets.flatMap((sheet) => sheet.files);
    return handedOver(document, files, placeList(document, made.sheets, { today: now }));
  }
  const made = await computingRows().rowFiles(document, { formats, rowIds: null, scope, today: now }, tellHow);
  isDone = true;
  if (!made || made.refused.length > 0) return { files: [], refused: made?.refused ?? [] };
  const files = made.rows.flatMap((row) => row.files);
  return handedOver(document, files, rowList(document, made.rows, { today: now }));
}

/** Files with their list; many packed into one. */
function handedOver(document: Job, files: readonly WrittenFile[], list: WrittenFile): MadeFiles {
  if (files.length === 0) return { files: [], refused: [] };
  const all = [...files, list];
  return {
    files: all.length > HANDED_OVER ? [packed(paperName(document, 'names', 'zip'), all)] : all,
    refused: [],
  };
}
