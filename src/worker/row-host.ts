/** What the worker is asked about the rows of a roster. */
import type { Job } from '../core/document/schema';
import type { FileFormat } from '../core/formats/written';
import type { Progress } from '../core/job/evaluate';
import type { ExportScope } from '../core/job/export';
import { makeFiles } from '../core/job/files';
import { type SheetFinding, sheetFindings } from '../core/job/laid-sheets';
import { type FilledSheet, filledSheet, type LaidRows } from '../core/job/lay-out';
import { machineFiles } from '../core/job/machine-files';
import type { WriteOne } from '../core/job/row-files';
import { rowShapes } from '../core/job/row-shapes';
import { sheetFiles } from '../core/job/sheet-files';
import { withPartsOfRows } from '../core/roster/in-row';
import type { RowLayout } from '../core/schema/layout';
import { JobHost, type Means } from './job-host';
import { Laying, type OnLaid } from './laying';
import { type OnRows, type RowMend, RowsHost } from './rows';
import type { OnProgress, Question } from './runner';

/** Writes what a machine wants, or formats. */
const writerOf =
  (formats: readonly FileFormat[] | 'machine'): WriteOne =>
  (one, result, scope) =>
    formats === 'machine' ? machineFiles(one, result, scope) : makeFiles(one, result, formats, scope);

/** Answers about rows. */
export class RowHost extends JobHost {
  private readonly rowsHost = new RowsHost();
  private readonly laying = new Laying();

  /** The rows of a document's roster, looked over one after the other: told as they are there. Null when that was asked anew meanwhile. */
  rows(job: Job, today: string, onRows: OnRows, onProgress?: OnProgress): Promise<true | null> {
    return this.ofRows(job, { kind: 'rows', onProgress }, today, (means) =>
      this.rowsHost.look(job, { today }, onRows, means),
    );
  }

  /** A document with findings of its rows mended. */
  mendRows(job: Job, mend: RowMend, today: string, onProgress?: OnProgress) {
    return this.ofRows(job, { kind: null, onProgress }, today, (means) =>
      this.rowsHost.mend(job, mend, { today }, means),
    );
  }

  /** Files of the rows of a document, of those asked for: for its machine, or in formats. */
  rowFiles(
    job: Job,
    {
      formats,
      rowIds,
      scope,
      today,
    }: {
      readonly formats: readonly FileFormat[] | 'machine';
      readonly rowIds: readonly string[] | null;
      readonly scope: ExportScope;
      readonly today: string;
    },
    onProgress?: OnProgress,
  ) {
    return this.ofRows(job, { kind: null, onProgress }, today, (means) =>
      this.rowsHost.files(job, { filling: { today }, rowIds, scope, write: writerOf(formats) }, means),
    );
  }

  /** Names laid on sheets, better and better until so many moves were made or it is stopped; null when that was asked anew meanwhile. */
  layOut(
    job: Job,
    asked: { readonly layout: RowLayout; readonly moves: number; readonly today: string },
    onLaid: OnLaid,
    onProgress?: OnProgress,
  ): Promise<LaidRows | null> {
    const { layout, moves, today } = asked;
    this.laying.begin();
    return this.ofRows(job, { kind: 'lay out', onProgress }, today, (means) =>
      this.laying.steps(job, { layout, moves, filling: { today } }, onLaid, means),
    );
  }

  /** As many copies of a row as one sheet holds; null when that was asked anew meanwhile. */
  fillSheet(
    job: Job,
    asked: { readonly rowId: string; readonly layout: RowLayout; readonly today: string },
    onProgress?: OnProgress,
  ): Promise<FilledSheet | null> {
    const { rowId, layout, today } = asked;
    return this.ofRows(job, { kind: 'lay out', onProgress }, today, function* (means) {
      const shapes = yield* rowShapes(job, { today }, means);
      const shape = shapes.find((one) => one.rowId === rowId);
      return shape && !shape.takesSheet ? filledSheet(job, shape, layout) : { copies: 0, places: [] };
    });
  }

  /** End the laying under way: it answers with the best layout it found. */
  async stopLaying(_job: Job): Promise<void> {
    this.laying.stop();
  }

  /** What is found about the sheets that names lie on; null when that was asked anew meanwhile. */
  sheetFindings(job: Job, today: string): Promise<SheetFinding[] | null> {
    return this.ofRows(job, { kind: 'sheet findings', isPatient: true }, today, (means) =>
      sheetFindings(job, { today }, means),
    );
  }

  /** Files of the sheets that names were laid on: for their machine, or in formats. */
  sheetFiles(
    job: Job,
    asked: { readonly formats: readonly FileFormat[] | 'machine'; readonly scope: ExportScope; readonly today: string },
    onProgress?: OnProgress,
  ) {
    const { formats, scope, today } = asked;
    return this.ofRows(job, { kind: null, onProgress }, today, (means) =>
      sheetFiles(job, { filling: { today }, scope, write: writerOf(formats), ...means }),
    );
  }

  /** The same with the typefaces and files at hand that rows have of their own. */
  private ofRows<T>(
    job: Job,
    question: Question,
    today: string,
    steps: (means: Means) => Iterator<Progress, T>,
  ): Promise<T | null> {
    return this.ask(question, withPartsOfRows(job, { today }), steps);
  }
}
