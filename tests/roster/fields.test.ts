/** Fields in words, and what stands for them. */
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import type { Roster } from '../../src/core/document/schema';
import {
  cellOf,
  fieldsIn,
  fillWords,
  hasFields,
  renamedField,
  stretchesOf,
  wordsOfRow,
  writtenDate,
} from '../../src/core/roster/fields';
import { DATE_FORMS } from '../../src/core/schema/roster';

const row = { id: 'r1', cells: [' Rowan ', ''], copies: 1, out: false, own: null };
const roster: Roster = {
  columns: [
    { id: 'c1', kind: 'typed', name: 'Name' },
    { id: 'c2', kind: 'typed', name: 'Bed' },
    { id: 'c3', kind: 'number', name: 'No', start: 8, step: 2, digits: 3 },
    { id: 'c4', kind: 'number', name: 'Down', start: 1, step: -4, digits: 2 },
    { id: 'c5', kind: 'date', name: 'Day', on: null, form: 'day month year' },
    { id: 'c6', kind: 'date', name: 'Then', on: '2025-01-09', form: 'year' },
  ],
  rows: [row, { ...row, id: 'r2', cells: [] }],
};
const words = (nth: number) => wordsOfRow(roster, nth, { today: '2026-11-30' });

test('words are taken apart into plain words and fields; marks without a pair are plain', () => {
  const fields = (text: string) => stretchesOf(text).map(({ start, end, field }) => field ?? text.slice(start, end));
  expect(fields('To ‹Name›!')).toEqual(['To ', 'Name', '!']);
  expect(fieldsIn('‹A› ‹b› ‹A›')).toEqual(['A', 'b']);
  expect(['‹', '‹›', '‹a', 'a›', '›a‹', '‹a\nb›'].map(hasFields)).toEqual(Array(6).fill(false));
});

test('stretches cover the words from end to end', () => {
  fc.assert(
    fc.property(fc.string({ unit: fc.constantFrom('‹', '›', 'a', ' ', '\n') }), (text) => {
      const all = stretchesOf(text);
      expect(all.map(({ start, end }) => text.slice(start, end)).join('')).toBe(text);
    }),
  );
});

describe('what a row has', () => {
  test('typed cells without spaces around them, running numbers with noughts, days as they are written', () => {
    const of = (nth: number) =>
      roster.columns.map((column, index) =>
        cellOf(column, { index, row: roster.rows[nth] ?? row, nth }, { today: '2026-11-30' }),
      );
    expect(of(0)).toEqual([' Rowan ', '', '008', '01', '30 November 2026', '2025']);
    expect(of(1)).toEqual(['', '', '010', '-03', '30 November 2026', '2025']);
    expect(words(0).of('NAME')).toBe('Rowan');
    expect(words(0).of('Nobody')).toBeNull();
  });

  test('every form of a day; none where there is no day', () => {
    expect(DATE_FORMS.map((form) => writtenDate('2026-05-04', form))).toEqual([
      '4 May 2026',
      '04.05.2026',
      '2026-05-04',
      '05/04/2026',
      '2026',
    ]);
    expect(writtenDate('', 'year')).toBe('');
  });
});

test('words are filled; what is missing and what is empty is said', () => {
  expect(fillWords('‹Name› in ‹bed›, ‹row›', words(0))).toMatchObject({
    text: 'Rowan in , ‹row›',
    missing: ['row'],
    empty: ['bed'],
  });
});

test('each plain letter keeps its place among the filled ones', () => {
  const part = fc.oneof(
    fc.constantFrom('‹Name›', '‹No›', '‹Bed›', '‹gone›'),
    fc.string({ unit: fc.constantFrom('a', 'é', ' ', '\n'), maxLength: 5 }),
  );
  fc.assert(
    fc.property(fc.array(part, { maxLength: 8 }), (parts) => {
      const text = parts.join('');
      const filled = fillWords(text, words(0));
      const inField = new Set(
        stretchesOf(text)
          .filter(({ field }) => field !== null && field !== 'gone')
          .flatMap(({ start, end }) => Array.from({ length: end - start }, (_, i) => start + i)),
      );
      for (let i = 0; i < text.length; i++) {
        const at = filled.map(i);
        if (inField.has(i)) expect(at).toBeNull();
        else expect(filled.text[at as number]).toBe(text[i]);
      }
      expect(filled.map(text.length)).toBeNull();
    }),
  );
});

test('a column that is called otherwise goes on standing, however it was written', () => {
  expect(renamedField('‹name› ‹Names› ‹ NAME ›', 'Name', 'Who')).toBe('‹Who› ‹Names› ‹Who›');
});
