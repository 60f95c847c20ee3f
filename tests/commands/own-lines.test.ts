/** What is set of chosen lines, and what becomes of it when the words are edited. */
import { describe, expect, test } from 'vitest';
import { replaceFace, setAxes, setFace, setFeature } from '../../src/core/commands/faces';
import {
  chosenLines,
  linesAlike,
  setLetterSpacing,
  setLineCapitals,
  setLineSpacing,
} from '../../src/core/commands/own-lines';
import { setWords } from '../../src/core/commands/words';
import { faceOfFamily } from '../../src/core/schema/lettering';
import { partIn, wordsIn } from '../support/commands';
import { jobWith, lettering, partOf } from '../support/jobs';

const TEXT = 'Seedlings\nsow in March\nthin in May';
const job = (text = TEXT) => jobWith([partOf([lettering(text, 'Pacifico')])]);
const at = (lines: readonly number[] | null) => ({ partId: 'part', memberId: 'words', lines });
const shipped = (family: string, isLine = false) => ({ ...faceOfFamily(family), isLine });

test('all lines chosen are the whole words, and lines that are gone are not chosen', () => {
  expect(chosenLines(TEXT, [1])).toEqual([1]);
  expect(chosenLines(TEXT, [0, 1, 2])).toBeNull();
  expect(chosenLines(TEXT, [7])).toBeNull();
  expect(chosenLines('one', [0])).toBeNull();
});

describe('what is set of lines', () => {
  test('stays theirs, until it is set of all', () => {
    let now = setFace(job(), at([1]), shipped('Poppins'));
    now = setLetterSpacing(now, at([1, 2]), 0.1);
    now = setLineSpacing(now, at([2]), 1.4);
    now = setLineCapitals(now, at([1]), 12, { words: 30 });
    expect(wordsIn(now).lines).toMatchObject([
      { line: 1, face: { face: 'Poppins' }, scale: 0.4, letterSpacing: 0.1, lineSpacing: null },
      { line: 2, face: null, scale: 1, letterSpacing: 0.1, lineSpacing: 1.4 },
    ]);
    now = setLetterSpacing(now, at(null), 0.2);
    expect(wordsIn(now)).toMatchObject({
      letterSpacing: 0.2,
      lines: [{ letterSpacing: null }, { letterSpacing: null }],
    });
    now = setFace(now, at(null), shipped('Fredoka'));
    expect(wordsIn(now)).toMatchObject({ face: 'Fredoka', lines: [{ face: null, scale: 0.4 }, { lineSpacing: 1.4 }] });
    now = setLineSpacing(now, at([0, 1, 2]), 1);
    now = setLineCapitals(now, at([0, 1, 2]), 25, { words: 30 });
    expect(wordsIn(now)).toMatchObject({ lines: [], size: { by: 'capital', mm: 25 } });
  });

  test('is left as it was where the part is locked, gone, or not computed', () => {
    const locked = jobWith([partOf([lettering(TEXT)], { locked: true })]);
    expect(setLetterSpacing(locked, at([1]), 0.3)).toBe(locked);
    expect(linesAlike(locked, at([1]))).toBe(locked);
    const plain = job();
    expect(setLineCapitals(plain, at([1]), 12, { words: null })).toBe(plain);
    expect(setLineSpacing(plain, { ...at([1]), partId: 'gone' }, 2)).toBe(plain);
  });

  test('of a face acts on the face of those lines alone', () => {
    let now = setAxes(job(), at([1]), { wght: 700 }, 'Bold');
    now = setFeature(now, at([1]), 'ss01', 1);
    expect(wordsIn(now)).toMatchObject({ axes: {}, features: {}, lines: [{ line: 1 }] });
    expect(wordsIn(now).lines[0]?.face).toMatchObject({
      face: 'Pacifico',
      axes: { wght: 700 },
      style: 'Bold',
      features: { ss01: 1 },
    });
    now = setFace(now, at([1]), shipped('Poppins'));
    expect(wordsIn(now).lines[0]?.face).toMatchObject({ face: 'Poppins', axes: {}, features: { ss01: 1 } });
    expect(wordsIn(linesAlike(now, at([1]))).lines).toEqual([]);
  });

  test('marks the part only where every line is of single strokes', () => {
    const operationOf = (of: ReturnType<typeof job>) => partIn(of).work[0]?.operation;
    const one = setFace(job('Oak\nAsh'), at([0]), shipped('Hershey Sans', true));
    expect(operationOf(one)).toBe('cut');
    const both = setFace(one, at([1]), shipped('EMS Tech', true));
    expect(operationOf(both)).toBe('mark');
    expect(operationOf(setFace(both, at([0]), shipped('Poppins')))).toBe('cut');
  });
});

test('a typeface that is gone is replaced wherever the words name it, and nowhere else', () => {
  let now = setFace(job(), at([1]), shipped('Gone Serif'));
  now = replaceFace(now, at(null), { face: 'Gone Serif', content: null }, shipped('Fredoka'));
  expect(wordsIn(now)).toMatchObject({ face: 'Pacifico', lines: [{ line: 1, face: { face: 'Fredoka' } }] });
  now = replaceFace(now, at(null), { face: 'Pacifico', content: null }, shipped('Poppins'));
  expect(wordsIn(now)).toMatchObject({ face: 'Poppins', lines: [{ line: 1, face: { face: 'Fredoka' } }] });
});

describe('lines of their own when the words are edited', () => {
  const styled = setLetterSpacing(setFace(job(), at([1]), shipped('Poppins')), at([2]), 0.5);
  const edited = (text: string) =>
    wordsIn(setWords(styled, 'part', 'words', text)).lines.map((l) => [l.line, l.face?.face ?? null]);

  test.each([
    [
      'a line is put before them',
      'Alder Lane\nSeedlings\nsow in March\nthin in May',
      [
        [2, 'Poppins'],
        [3, null],
      ],
    ],
    [
      'a line is parted',
      'Seed\nlings\nsow in March\nthin in May',
      [
        [2, 'Poppins'],
        [3, null],
      ],
    ],
    [
      'letters are typed in them',
      'Seedlings\nsow early in March\nthin in June',
      [
        [1, 'Poppins'],
        [2, null],
      ],
    ],
    ['one is taken out', 'Seedlings\nthin in May', [[1, null]]],
    ['two become one', 'Seedlings\nsow in March thin in May', [[1, 'Poppins']]],
    ['everything goes', '', []],
  ])('%s', (_, text, lines) => expect(edited(text)).toEqual(lines));
});
