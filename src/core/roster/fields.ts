/** Fields in words: columns of the roster by their names between ‹ and ›, and what a row has for them. */
import type { Column, Roster, RosterRow } from '../document/schema';
import type { DateForm } from '../schema/roster';

/** A stretch of words: plain, or the name of a column. `start` and `end` are indices in the text, marks included. */
export type TextStretch = {
  readonly start: number;
  readonly end: number;
  /** The name between the marks; null for plain words. */
  readonly field: string | null;
};

const FIELD = /‹([^‹›\n]+)›/g;

/** How a column stands in words. */
export const fieldMark = (name: string): string => `‹${name}›`;

/** Words taken apart into plain stretches and fields. */
export function stretchesOf(text: string): TextStretch[] {
  const all: TextStretch[] = [];
  let at = 0;
  for (const found of text.matchAll(FIELD)) {
    if (found.index > at) all.push({ start: at, end: found.index, field: null });
    at = found.index + found[0].length;
    all.push({ start: found.index, end: at, field: (found[1] as string).trim() });
  }
  if (at < text.length) all.push({ start: at, end: text.length, field: null });
  return all;
}

/** Names of the fields in words, each once. */
export const fieldsIn = (text: string): string[] => [
  ...new Set(stretchesOf(text).flatMap(({ field }) => (field === null ? [] : [field]))),
];

/** Whether words have a field. */
export const hasFields = (text: string): boolean => text.includes('‹') && fieldsIn(text).length > 0;

const MONTHS = 'January February March April May June July August September October November December'.split(' ');

/** A day, given as year-month-day, as it is written; "" where it is none. */
export function writtenDate(day: string, form: DateForm): string {
  const found = /^(\d{4})-(\d{2})-(\d{2})$/.exec(day);
  if (!found) return '';
  const [, year, month, date] = found as unknown as [string, string, string, string];
  switch (form) {
    case 'day month year':
      return `${Number(date)} ${MONTHS[Number(month) - 1] ?? month} ${year}`;
    case 'day.month.year':
      return `${date}.${month}.${year}`;
    case 'year-month-day':
      return day;
    case 'month/day/year':
      return `${month}/${date}/${year}`;
    case 'year':
      return year;
  }
}

/** A running number with leading noughts. */
const withNoughts = (value: number, digits: number): string =>
  `${value < 0 ? '-' : ''}${String(Math.abs(value)).padStart(digits, '0')}`;

/** What is known beside the roster when words are filled: the day of writing, as year-month-day. */
export type FilledWith = { readonly today: string };

/** What a row has in a column; `nth` is the row's place in the roster, from 0. */
export function cellOf(
  column: Column,
  { index, row, nth }: { readonly index: number; readonly row: RosterRow; readonly nth: number },
  { today }: FilledWith,
): string {
  switch (column.kind) {
    case 'typed':
      return row.cells[index] ?? '';
    case 'number':
      return withNoughts(column.start + nth * column.step, column.digits);
    case 'date':
      return writtenDate(column.on ?? today, column.form);
  }
}

/** What a row has in its columns, by their names as fields look for them. */
export type RowWords = {
  /** What stands for a field; null where there is no such column. */
  readonly of: (field: string) => string | null;
};

/** What stands for the fields of a row. */
export function wordsOfRow(roster: Roster, nth: number, filling: FilledWith): RowWords {
  const row = roster.rows[nth];
  const known = new Map(
    row &&
      roster.columns.map((column, index) => [
        column.name.toLowerCase(),
        cellOf(column, { index, row, nth }, filling).trim(),
      ]),
  );
  return { of: (field) => known.get(field.toLowerCase()) ?? null };
}

/** Words with their fields filled. */
export type Filled = {
  readonly text: string;
  /** Where a letter of the words with fields stands in the filled ones; null for one of a field's mark. */
  readonly map: (at: number) => number | null;
  /** Where a line stands: cells may hold several. */
  readonly lineOf: (line: number) => number;
  /** Fields without a column, and fields whose cell is empty. */
  readonly missing: readonly string[];
  readonly empty: readonly string[];
};

/** Fill words. A field without a column stays as it stands. */
export function fillWords(text: string, words: RowWords): Filled {
  const missing = new Set<string>();
  const empty = new Set<string>();
  const plain: { readonly from: number; readonly to: number; readonly at: number }[] = [];
  /** Lines that cells add, by the line of the text that they stand in. */
  const added: { readonly line: number; readonly lines: number }[] = [];
  let filled = '';
  let line = 0;
  for (const { start, end, field } of stretchesOf(text)) {
    const stands = field === null ? null : words.of(field);
    if (field !== null && stands !== null) {
      if (stands === '') empty.add(field);
      added.push({ line, lines: stands.split('\n').length - 1 });
      filled += stands;
      continue;
    }
    if (field !== null) missing.add(field);
    plain.push({ from: start, to: end, at: filled.length });
    const own = text.slice(start, end);
    filled += own;
    line += own.split('\n').length - 1;
  }
  return {
    text: filled,
    map: (at) => {
      const found = plain.find(({ from, to }) => from <= at && at < to);
      return found ? found.at + at - found.from : null;
    },
    lineOf: (of) => added.reduce((sum, a) => (a.line < of ? sum + a.lines : sum), of),
    missing: [...missing],
    empty: [...empty],
  };
}

/** Words in which a column that is called otherwise now goes on standing. */
export const renamedField = (text: string, from: string, to: string): string =>
  text.includes('‹')
    ? text.replace(FIELD, (mark, name: string) =>
        name.trim().toLowerCase() === from.toLowerCase() ? fieldMark(to) : mark,
      )
    : text;
