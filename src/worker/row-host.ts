/** What the worker is asked about the rows of a roster. */
import type { Job } from '../core/document/schema';
import type { FileFormat } from '../core/formats/written';
import type { Progress } from '../core/job/evaluate';
import type { ExportScope } from '../core/job/export';
import { makeFiles } from '../core/job/files';
import { machineFiles } from '../core/job/machine-files';
import type { WriteOne } from '../core/job/row-files';
import { withPartsOfRows } from '../core/roster/in-row';
import { JobHost, type Means } from './job-host';
import { type OnRows, type RowMend, RowsHost } from './rows';
import type { OnProgress, Question } from './runner';

/** Answers about rows. */
export class RowHost extends JobHost {
  private readonly rowsHost = new RowsHost();

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
    const write: WriteOne = (one, result, now) =>
      formats === 'machine' ? machineFiles(one, result, now) : makeFiles(one, result, formats, now);
    return this.ofRows(job, { kind: null, onProgress }, today, (means) =>
      this.rowsHost.files(job, { filling: { today }, rowIds, scope, write }, means),
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
