/** What files are called: made of what the user wants in their names, in the user's order. */
import { sheetsOf } from '../document/on-sheet';
import type { Job, Sheet } from '../document/schema';
import { type FileFormat, writtenFormat } from '../formats/written';
import { LIMITS } from '../limits';
import type { NameField } from '../schema/operations';
import { formatLengthNumber, parseLength } from '../units/quantity';
import type { ExportScope } from './export';
import { TAKEN_ALONG } from './taken-along';

const bytesOf = (text: string): number => new TextEncoder().encode(text).length;

/** Letters, digits and single hyphens, cut to so many bytes. */
function slug(text: string, most: number): string {
  const plain = text
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}.]+/gu, '-')
    .replace(/^[-.]+|[-.]+$/g, '');
  let bytes = 0;
  let cut = '';
  for (const character of plain) {
    bytes += bytesOf(character);
    if (bytes > most) break;
    cut += character;
  }
  return cut.replace(/[-.]+$/, '');
}

/** Names that are devices on some disks, whatever their ending. */
const DEVICE = /^(con|prn|aux|nul|com\d|lpt\d)(\.|$)/;

/** Places behind the point of a thickness: 1 µm and a ten-thousandth of an inch. */
const THICKNESS_DIGITS = { mm: 3, in: 4 } as const;

/** "3mm", "0.125in", or "1-8in" where it was typed as a fraction and still is that; "" where none is given. */
function thicknessWords({ thickness, thicknessAs }: Sheet, unit: Job['units']): string {
  if (!thickness) return '';
  const typed = thicknessAs === null ? null : parseLength(thicknessAs, 'in');
  if (thicknessAs !== null && typed?.ok && Math.abs(typed.value - thickness) < 1e-6)
    return `${thicknessAs.replace(/[^\d /]+/g, '').trim()}in`;
  return `${formatLengthNumber(thickness, unit, THICKNESS_DIGITS[unit])}${unit}`;
}

/** What each field of a name says of a job, as it was typed; "" where it is not known. */
export function nameWords(job: Job, scope: ExportScope): Readonly<Record<NameField, string>> {
  const only = scope.partIds?.length === 1 ? job.parts.find((p) => p.id === scope.partIds?.[0]) : undefined;
  return {
    job: job.title,
    piece: only?.name ?? '',
    material: job.sheet.material,
    thickness: thicknessWords(job.sheet, job.units),
    date: scope.date ?? '',
    number: job.export.number,
    row: scope.row ?? '',
  };
}

/** The fields of a name that are known, parted by _, a thickness that follows its material by -; each cut to so many bytes. */
function joined(fields: readonly NameField[], words: Readonly<Record<NameField, string>>, most: number): string {
  let stem = '';
  let before: NameField | null = null;
  for (const field of fields) {
    const word = slug(words[field], most);
    if (!word) continue;
    stem += `${stem && (before === 'material' && field === 'thickness' ? '-' : '_')}${word}`;
    before = field;
  }
  return stem;
}

/** What a name is made of; files of rows are told apart by their row whether or not that was asked for. */
const fieldsOf = ({ export: { nameFields } }: Job, { row }: ExportScope): readonly NameField[] =>
  row === undefined || nameFields.includes('row') ? nameFields : [...nameFields, 'row'];

/** The name of a file without its ending; "job" where nothing of it is known. Where it is too long its longest fields are cut. */
function stemOf(job: Job, scope: ExportScope): string {
  const words = nameWords(job, scope);
  let most: number = LIMITS.fileNamePartBytes;
  const fields = fieldsOf(job, scope);
  let stem = joined(fields, words, most);
  while (bytesOf(stem) > LIMITS.fileNameBytes) stem = joined(fields, words, --most);
  return `${DEVICE.test(stem) ? 'job-' : ''}${stem || 'job'}`;
}

/** "gate-sign_plate_steel-3mm.svg". A piece is named when only one is written, the date when it is said, the operation last where it has a file of its own, and behind it that it is mirrored. */
export function fileName(job: Job, format: FileFormat, scope: ExportScope = { partIds: null }): string {
  const operation = job.operations.find((o) => o.id === scope.operationId);
  const of = operation ? slug(operation.name, LIMITS.fileNamePartBytes) || operation.id : '';
  const seen = job.export.mirrored ? 'mirrored' : '';
  return `${[stemOf(job, scope), sheetWords(job), of, seen].filter(Boolean).join('_')}.${writtenFormat(format).ending}`;
}

/** Which sheet it is, in names of files of a job that has several; "" where there is one. */
function sheetWords(job: Job): string {
  const sheets = sheetsOf(job);
  if (sheets.length === 1) return '';
  const nth = sheets.findIndex((s) => s.isInHand) + 1;
  return job.sheetName.trim() ? slug(job.sheetName, LIMITS.fileNamePartBytes) || `sheet-${nth}` : `sheet-${nth}`;
}

/** The name of a file that a job is taken along in. */
export const takenName = (job: Job): string => `${stemOf(job, { partIds: null })}${TAKEN_ALONG}`;

/** The name of a paper of a job, by what is on it: "gate-sign_proof-sheet.pdf". */
export const paperName = (job: Job, what: string, ending: string): string =>
  `${[stemOf(job, { partIds: null }), sheetWords(job), what].filter(Boolean).join('_')}.${ending}`;

/** The name of the paper that a wall is drilled by for a part. */
export const drillPaperName = (job: Job, partId: string): string =>
  `${stemOf(job, { partIds: [partId] })}_drill-paper.pdf`;
