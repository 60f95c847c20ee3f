/** A list for spreadsheets, as comma-separated values (RFC 4180); a cell that would be taken for a formula is made harmless. */
import Papa from 'papaparse';
import type { Job } from '../document/schema';
import { cellOf, type FilledWith } from '../roster/fields';
import { paperName } from './file-names';
import type { WrittenFile } from './files';

/** What a row has in its columns. */
export function cellsOf(job: Job, nth: number, filling: FilledWith): string[] {
  const row = job.roster?.rows[nth];
  return row ? (job.roster?.columns ?? []).map((column, index) => cellOf(column, { index, row, nth }, filling)) : [];
}

/** A list of a job, its head first. */
export function listFile(job: Job, rows: readonly (readonly string[])[]): WrittenFile {
  const text = Papa.unparse(
    rows.map((cells) => [...cells]),
    { escapeFormulae: true, newline: '\r\n' },
  );
  // With a mark at its beginning spreadsheets read it as UTF-8.
  return { name: paperName(job, 'list', 'csv'), bytes: new TextEncoder().encode(`\uFEFF${text}\r\n`) };
}
