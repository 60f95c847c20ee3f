/** Lists of names from files and from the clipboard: what parts them, how they are written, and what is wrong with them. */
import fc from 'fast-check';
import Papa from 'papaparse';
import { describe, expect, test } from 'vitest';
import { LIMITS } from '../../src/core/limits';
import { type ReadList, type ReadListAs, readList, readPasted } from '../../src/core/roster/read-list';

const bytesOf = (text: string): Uint8Array => new TextEncoder().encode(text);
function read(from: string | Uint8Array, as?: ReadListAs): Extract<ReadList, { ok: true }> {
  const answer = readList(typeof from === 'string' ? bytesOf(from) : from, as);
  if (!answer.ok) throw new Error(answer.sentence);
  return answer;
}
const refused = (from: string | Uint8Array): string => {
  const answer = readList(typeof from === 'string' ? bytesOf(from) : from);
  if (answer.ok) throw new Error('it was read');
  return answer.sentence;
};

describe('what parts cells, and the head', () => {
  test.each([
    ['commas', 'Name,Bed\nRowan,3\nIvy,4', ',', true],
    ['semicolons, with commas in cells', 'Name;Size\nRowan;1,5\nIvy;2,0', ';', true],
    ['tabs', 'Rowan\t3\nIvy\t4', '\t', false],
    ['upright strokes', 'Name|Bed\nRowan|3', '|', true],
    ['one name a line', 'Rowan\nIvy\nSage', null, false],
    ['names, a comma in one of them', 'Rowan\nIvy, the climber\nSage\nFern', null, false],
    ['one column with a head', 'Name\nRowan\nIvy', null, true],
    ['numbers under words that head nothing known', 'Plant kind,Row\nRowan,3\nIvy,4', ',', true],
  ])('%s', (_, text, delimiter, header) => {
    expect(read(text)).toMatchObject({ delimiter, header });
  });

  test('columns are named by the head, and what is said otherwise is obeyed', () => {
    const found = read('Name,Bed\nRowan,3');
    expect(found).toMatchObject({ columns: ['Name', 'Bed'], rows: [['Rowan', '3']] });
    expect(read('Name,Bed\nRowan,3', { header: false })).toMatchObject({
      columns: ['', ''],
      rows: [
        ['Name', 'Bed'],
        ['Rowan', '3'],
      ],
    });
    expect(read('Name,Bed\nRowan,3', { delimiter: ';' }).rows).toEqual([['Name,Bed'], ['Rowan,3']]);
  });

  test('quoted cells, line ends of all kinds, empty lines and cells at the end of a row', () => {
    expect(read('"Alder ""Lane""","two\nlines"\r\n\r\nIvy,\rSage\n').rows).toEqual([
      ['Alder "Lane"', 'two\nlines'],
      ['Ivy', ''],
      ['Sage'],
    ]);
  });
});

describe('how it is written', () => {
  const text = 'Name\nÅse\nŻółw';
  test('UTF-8, with its mark or without', () => {
    expect(read(text)).toMatchObject({ encoding: 'UTF-8', rows: [['Åse'], ['Żółw']] });
    expect(read(`\uFEFF${text}`)).toMatchObject({ encoding: 'UTF-8', columns: ['Name'] });
  });

  test('UTF-16 in both orders, with a mark or by its noughts', () => {
    const wide = Uint8Array.from([...text].flatMap((c) => [c.charCodeAt(0) & 255, c.charCodeAt(0) >> 8]));
    const swapped = Uint8Array.from(wide, (_, i) => wide[i ^ 1] as number);
    for (const bytes of [Uint8Array.from([255, 254, ...wide]), Uint8Array.from([254, 255, ...swapped]), wide, swapped])
      expect(read(bytes)).toMatchObject({ encoding: 'UTF-16', rows: [['Åse'], ['Żółw']] });
  });

  test('Windows-1252, and lines in both', () => {
    expect(read(Uint8Array.from([0x4e, 0x0a, 0xc5, 0x73, 0x65]))).toMatchObject({
      encoding: 'Windows-1252',
      rows: [['N'], ['Åse']],
    });
    const mixed = read(Uint8Array.from([0xc3, 0x85, 0x0a, 0xc5, 0x0a]));
    expect(mixed).toMatchObject({ encoding: 'mixed', rows: [['Å'], ['Å']] });
    expect(mixed.notes).toEqual(['Its lines are written in different encodings; each was read by itself.']);
  });
});

describe('what is wrong with it', () => {
  test('nothing in it, or something else than a list', () => {
    expect(refused('')).toBe('This file is empty.');
    expect(refused(' \n\r\n ')).toBe('There is nothing in this list.');
    expect(refused('\uFEFF')).toBe('There is nothing in this list.');
    expect(refused(Uint8Array.from([0x50, 0x4b, 3, 4, 20]))).toMatch(/^This is a spreadsheet in its own format/);
    expect(refused(Uint8Array.from([0xd0, 0xcf, 0x11, 0xe0]))).toMatch(/^This is a spreadsheet in an old format/);
    expect(refused('%PDF-1.7')).toMatch(/^This is a PDF/);
    expect(refused(Uint8Array.from([0x89, 0x50, 0x4e, 0x47]))).toMatch(/^This is a picture/);
  });

  test('a quotation mark that is never closed: all others are read as they stand, and no row is lost', () => {
    const found = read('Name\nRowan\n"Ivy\nSage\nFern');
    expect(found.rows).toEqual([['Rowan'], ['"Ivy'], ['Sage'], ['Fern']]);
    expect(found.notes).toEqual(['A quotation mark is never closed; all of them were read as they stand.']);
  });

  test('signs that are no text are left out', () => {
    const found = read('Ro\0wan\nI\0vy and Sage');
    expect(found.rows).toEqual([['Rowan'], ['Ivy and Sage']]);
    expect(found.notes).toEqual(['It holds signs that are no text; they were left out.']);
  });

  test('cells that begin like a formula are words', () => {
    expect(read('=1+1\n@SUM(A1)\n-Ivy').rows).toEqual([['=1+1'], ['@SUM(A1)'], ['-Ivy']]);
  });

  test('ten thousand columns; a line of megabytes', () => {
    const wide = read(`${'a,'.repeat(9_999)}a\n${'b,'.repeat(9_999)}b`);
    expect(wide.rows.map((row) => row.length)).toEqual([LIMITS.columns, LIMITS.columns]);
    expect(wide.notes).toEqual([`It has 10,000 columns; the first ${LIMITS.columns} were taken.`]);
    const line = read('x'.repeat(4_000_000));
    expect(line.rows).toEqual([['x'.repeat(LIMITS.cellCharacters)]]);
    expect(line.notes).toHaveLength(2);
  });

  test('fifty megabytes', { tags: 'slow' }, () => {
    const bytes = bytesOf(`Name,Place\n${'Rowan,Alder Lane\n'.repeat(3_000_000)}`);
    const found = read(bytes);
    expect(found.rows).toHaveLength(LIMITS.rosterRows);
    expect(found.notes).toEqual([expect.stringContaining('those after them were left out')]);
    expect(refused(new Uint8Array(50 * 1024 * 1024).fill(0x2c))).toBe('There is nothing in this list.');
    const wide = read(new Uint8Array(50 * 1024 * 1024).map((_, i) => (i % 2 === 0 ? 0x61 : 0x2c)));
    expect(wide.rows).toEqual([Array(LIMITS.columns).fill('a')]);
    expect(wide.notes).toContain('One line is longer than 200,000 characters; what is beyond was left out.');
  });
});

test('what is pasted: a row in each line, cells parted by tabs; nothing else parts it', () => {
  expect(readPasted('Rowan\tBed 3\r\n"Ivy\nSage"\tBed 4\r\n')).toEqual([
    ['Rowan', 'Bed 3'],
    ['Ivy\nSage', 'Bed 4'],
  ]);
  expect(readPasted('Rowan, the tree\nIvy; Sage')).toEqual([['Rowan, the tree'], ['Ivy; Sage']]);
});

test('what is written is read as it was', () => {
  const cell = fc.string({ unit: 'grapheme', maxLength: 12 }).map((s) => s.replace(/[\r\0]/g, '').trim());
  const table = fc.array(fc.tuple(cell, cell, cell), { minLength: 2, maxLength: 8 });
  fc.assert(
    fc.property(table, fc.constantFrom<',' | ';' | '\t'>(',', ';', '\t'), (rows, delimiter) => {
      const whole = rows.filter((row) => row.some((c) => c !== ''));
      fc.pre(whole.length > 0);
      const text = Papa.unparse(whole, { delimiter, quotes: true });
      expect(read(text, { delimiter, header: false }).rows).toEqual(whole);
    }),
  );
});
