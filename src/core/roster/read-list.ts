/**
 * A list of names read from a file of values (RFC 4180 and what passes for it) or pasted from a spreadsheet: encoding, what parts the
 * cells and whether the first row names the columns are found, and said.
 */
import Papa from 'papaparse';
import type { Table } from '../commands/roster';
import { LIMITS } from '../limits';
import { keepable } from '../units/text';

/** How the bytes of a list were written. */
export type ListEncoding = 'UTF-8' | 'UTF-16' | 'Windows-1252' | 'mixed';

/** What parts cells. */
export type ListDelimiter = ',' | ';' | '\t' | '|';

/** How a list is to be read; what is left out is found. */
export type ReadListAs = { readonly delimiter?: ListDelimiter; readonly header?: boolean };

/** A list that was read, or why not. */
export type ReadList =
  | {
      readonly ok: true;
      /** What the columns are called; "" where the list does not say. */
      readonly columns: readonly string[];
      readonly rows: Table;
      readonly encoding: ListEncoding;
      /** Null where every row has one cell. */
      readonly delimiter: ListDelimiter | null;
      readonly header: boolean;
      /** What was odd, each a sentence. */
      readonly notes: readonly string[];
    }
  | { readonly ok: false; readonly sentence: string };

const DELIMITERS: readonly ListDelimiter[] = [',', ';', '\t', '|'];

/** What parts cells, in words. */
export const DELIMITER_WORDS: Readonly<Record<ListDelimiter, string>> = {
  ',': 'commas',
  ';': 'semicolons',
  '\t': 'tabs',
  '|': 'upright strokes',
};

/** Rows looked at to find out how a list is written. */
const LOOKED_AT = 50;

const count = (n: number): string => n.toLocaleString('en');

/** Read a list from the bytes of a file. */
export function readList(bytes: Uint8Array, as: ReadListAs = {}): ReadList {
  if (bytes.length === 0) return { ok: false, sentence: 'This file is empty.' };
  if (bytes.length > LIMITS.listBytes)
    return {
      ok: false,
      sentence: `This list has ${Math.ceil(bytes.length / 1024 / 1024)} MB; up to ${LIMITS.listBytes / 1024 / 1024} MB can be read.`,
    };
  const binary = binarySentence(bytes);
  if (binary) return { ok: false, sentence: binary };
  const { text, encoding } = decoded(bytes);
  return readText(text, encoding, as);
}

/** Read a list that was pasted: a row in each line, cells parted by tabs. */
export function readPasted(text: string): Table {
  const { rows } = parsed(text.replace(/\r?\n$/, ''), text.includes('\t') ? '\t' : null);
  return rows;
}

/** What files are that begin like this, where people take them for lists. */
const BEGINNINGS: readonly (readonly [readonly number[], string])[] = [
  [
    [0x50, 0x4b, 0x03, 0x04],
    'This is a spreadsheet in its own format, or another packed file. Save it as CSV, or copy the cells and paste them.',
  ],
  [
    [0xd0, 0xcf, 0x11, 0xe0],
    'This is a spreadsheet in an old format of its own. Save it as CSV, or copy the cells and paste them.',
  ],
  [[0x25, 0x50, 0x44, 0x46], 'This is a PDF. A list is a text file, such as CSV.'],
  [[0x89, 0x50, 0x4e, 0x47], 'This is a picture. A list is a text file, such as CSV.'],
  [[0xff, 0xd8, 0xff], 'This is a picture. A list is a text file, such as CSV.'],
];

const binarySentence = (bytes: Uint8Array): string | null =>
  BEGINNINGS.find(([start]) => start.every((byte, i) => bytes[i] === byte))?.[1] ?? null;

/** Bytes at the beginning by which text in two bytes a letter is told. */
const ZEROS_LOOKED_AT = 4_096;

/** The text of a file. Without a mark at its beginning: UTF-8 where it is that, by lines where only some of it is. */
function decoded(bytes: Uint8Array): { readonly text: string; readonly encoding: ListEncoding } {
  const as = (label: string, fatal: boolean, from: Uint8Array = bytes) =>
    new TextDecoder(label, { fatal }).decode(from);
  const wide = wideLabel(bytes);
  if (wide) return { text: as(wide, false), encoding: 'UTF-16' };
  try {
    return { text: as('utf-8', true), encoding: 'UTF-8' };
  } catch {
    return decodedByLines(bytes);
  }
}

/** The label of UTF-16, by its mark or by noughts in every other byte; null where it is not that. */
function wideLabel(bytes: Uint8Array): 'utf-16le' | 'utf-16be' | null {
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return 'utf-16le';
  if (bytes[0] === 0xfe && bytes[1] === 0xff) return 'utf-16be';
  const head = bytes.subarray(0, ZEROS_LOOKED_AT);
  const zeros = [0, 0];
  head.forEach((byte, i) => {
    if (byte === 0) zeros[i % 2] = (zeros[i % 2] ?? 0) + 1;
  });
  const [even = 0, odd = 0] = zeros;
  const most = head.length / 2;
  if (odd > 0.6 * most && even < 0.1 * most) return 'utf-16le';
  if (even > 0.6 * most && odd < 0.1 * most) return 'utf-16be';
  return null;
}

/** Text that is not UTF-8 throughout: each line by itself, as UTF-8 where it is that. */
function decodedByLines(bytes: Uint8Array): { readonly text: string; readonly encoding: ListEncoding } {
  const utf8 = new TextDecoder('utf-8', { fatal: true });
  const western = new TextDecoder('windows-1252');
  const lines: string[] = [];
  let mixed = false;
  let from = 0;
  while (from <= bytes.length) {
    const end = bytes.indexOf(0x0a, from);
    const to = end < 0 ? bytes.length : end + 1;
    const line = bytes.subarray(from, to);
    try {
      const text = utf8.decode(line);
      mixed ||= text.length < line.length;
      lines.push(text);
    } catch {
      lines.push(western.decode(line));
    }
    if (end < 0) break;
    from = to;
  }
  return { text: lines.join(''), encoding: mixed ? 'mixed' : 'Windows-1252' };
}

/** A line is read up to so many characters, more than all columns and cells that are taken can have. */
const MOST_OF_LINE = 200_000;

/** Text whose lines are cut where they are longer than what can be taken of them: megabytes of commas would be millions of cells. */
function withLinesCut(text: string): { readonly text: string; readonly cut: number } {
  if (text.length <= MOST_OF_LINE) return { text, cut: 0 };
  const kept: string[] = [];
  let cut = 0;
  for (let from = 0; from <= text.length; ) {
    const newline = text.indexOf('\n', from);
    const end = newline < 0 ? text.length : newline;
    if (end - from > MOST_OF_LINE) cut++;
    kept.push(text.slice(from, Math.min(end, from + MOST_OF_LINE)));
    if (newline < 0) break;
    from = newline + 1;
  }
  return cut > 0 ? { text: kept.join('\n'), cut } : { text, cut };
}

/** Text taken apart into rows of cells. */
function parsed(
  text: string,
  delimiter: ListDelimiter | null,
): { readonly rows: string[][]; readonly openQuote: boolean } {
  const options = {
    // A sign that no list holds parts cells where there is one in each row.
    delimiter: delimiter ?? '\u001f',
    skipEmptyLines: 'greedy' as const,
    preview: LIMITS.rosterRows + 2,
  };
  const strict = Papa.parse<string[]>(text, options);
  const openQuote = strict.errors.some((e) => e.code === 'MissingQuotes');
  const { data } = openQuote ? Papa.parse<string[]>(text, { ...options, quoteChar: '\u001e' }) : strict;
  return { rows: data, openQuote };
}

/** What parts the cells of a text: that by which most of its first rows have the same number of cells, more than one. */
function delimiterOf(text: string): ListDelimiter | null {
  const head = text.slice(0, 200_000);
  let best: { readonly delimiter: ListDelimiter; readonly score: number } | null = null;
  for (const delimiter of DELIMITERS) {
    if (!head.includes(delimiter)) continue;
    const { data } = Papa.parse<string[]>(head, { delimiter, skipEmptyLines: 'greedy', preview: LOOKED_AT });
    // Nothing but what parts cells.
    if (data.length === 0) return delimiter;
    const widths = new Map<number, number>();
    for (const cells of data) widths.set(cells.length, (widths.get(cells.length) ?? 0) + 1);
    const [wide, rows] = [...widths].sort((a, b) => b[1] - a[1] || b[0] - a[0])[0] ?? [1, 0];
    if (wide < 2) continue;
    const score = rows / data.length + Math.min(wide, 10) / 100;
    if (!best || score > best.score) best = { delimiter, score };
  }
  // Half of the rows at least: names with a comma in some are a list of names.
  return best && best.score > 0.5 ? best.delimiter : null;
}

const HEADINGS =
  /^(full |first |last |given |family |sur|nick|display )?(name|names|text|words|line ?\d*|title|label|place|town|plant|no\.?|nr\.?|number|id|date|size|quantity|qty|copies|class|group|table|team|room|address|street|email|phone|notes?|colou?r|material)$/i;
const NUMERIC = /^[-+]?[\d\s.,]+$/;

/** Whether the first of some rows names the columns: by words that head columns, or numbers under what is none. */
function isHeader(rows: Table): boolean {
  const [first, ...rest] = rows;
  if (!first || rest.length === 0) return false;
  const cells = first.map((cell) => cell.trim());
  if (cells.some((cell) => cell === '') || new Set(cells.map((c) => c.toLowerCase())).size < cells.length) return false;
  if (cells.some((cell) => HEADINGS.test(cell))) return true;
  return cells.some(
    (cell, i) => !NUMERIC.test(cell) && rest.length > 1 && rest.every((row) => NUMERIC.test((row[i] ?? '').trim())),
  );
}

/** The text of a list read. */
function readText(
  raw: string,
  encoding: ListEncoding,
  { delimiter: asked, header: askedHeader }: ReadListAs,
): ReadList {
  const notes: string[] = [];
  const { text, cut } = withLinesCut(keepable(raw.replace(/^\uFEFF/, '').replace(/\r\n?/g, '\n')));
  if (raw.includes('\0')) notes.push('It holds signs that are no text; they were left out.');
  if (cut > 0)
    notes.push(
      `${cut === 1 ? 'One line is' : `${count(cut)} lines are`} longer than ${count(MOST_OF_LINE)} characters; what is beyond was left out.`,
    );
  if (encoding === 'mixed') notes.push('Its lines are written in different encodings; each was read by itself.');
  if (text.trim() === '') return { ok: false, sentence: 'There is nothing in this list.' };
  const delimiter = asked ?? delimiterOf(text);
  const { rows: all, openQuote } = parsed(text, delimiter);
  if (all.length === 0) return { ok: false, sentence: 'There is nothing in this list.' };
  if (openQuote) notes.push('A quotation mark is never closed; all of them were read as they stand.');
  const header = askedHeader ?? isHeader(all.slice(0, LOOKED_AT));
  const body = (header ? all.slice(1) : all).slice(0, LIMITS.rosterRows + 1);
  if (body.length > LIMITS.rosterRows)
    notes.push(`A list has up to ${count(LIMITS.rosterRows)} rows: those after them were left out.`);
  const wide = all.reduce((most, cells) => Math.max(most, cells.length), 0);
  if (wide > LIMITS.columns) notes.push(`It has ${count(wide)} columns; the first ${LIMITS.columns} were taken.`);
  let long = 0;
  const rows = body.slice(0, LIMITS.rosterRows).map((cells) =>
    cells.slice(0, LIMITS.columns).map((cell) => {
      const trimmed = cell.trim();
      if (trimmed.length > LIMITS.cellCharacters) long++;
      return trimmed.slice(0, LIMITS.cellCharacters);
    }),
  );
  if (long > 0)
    notes.push(
      `${long === 1 ? 'One cell is' : `${count(long)} cells are`} longer than ${LIMITS.cellCharacters} characters and ${long === 1 ? 'was' : 'were'} cut there.`,
    );
  const columns = Array.from({ length: Math.min(wide, LIMITS.columns) }, (_, i) =>
    header ? (all[0]?.[i] ?? '').trim() : '',
  );
  return { ok: true, columns, rows, encoding, delimiter, header, notes };
}
