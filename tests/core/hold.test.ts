import { describe, expect, test } from 'vitest';
import type { Job } from '../../src/core/document/schema';
import { ordinal } from '../../src/core/inspect/names';
import { Evaluator } from '../../src/core/job/evaluate';
import { LIMITS } from '../../src/core/limits';
import { faces, scriptEngine, wasmEngine } from '../support/faces';
import { jobWith, lettering, partOf as part } from '../support/jobs';

const evaluate = (job: Job) => new Evaluator(wasmEngine).evaluate(job, faces);
const sentences = (job: Job) => evaluate(job).findings.map((f) => f.sentence);
const holdSentences = (text: string, keep: 'inside' | 'outside', face?: string) =>
  evaluate(jobWith([part([lettering(text, face)], { keep })]))
    .findings.filter((f) => f.station === 'hold')
    .map((f) => f.sentence);

describe('negative lettering', () => {
  test.each([
    ['O', ['The middle of O will drop out.']],
    ['T', []],
    ['B', ['The lower middle of B will drop out.', 'The upper middle of B will drop out.']],
    ['8', ['The lower middle of 8 will drop out.', 'The upper middle of 8 will drop out.']],
    ['%', ['The left middle of % will drop out.', 'The right middle of % will drop out.']],
    ['i', []],
    ['LOO', ['The middle of the first O will drop out.', 'The middle of the second O will drop out.']],
  ])('%s', (text, expected) => {
    expect(holdSentences(text, 'outside').sort()).toEqual([...expected].sort());
  });

  test('a stencil face needs nothing', () => {
    expect(holdSentences('ABDOPQR', 'outside', 'Saira Stencil One')).toEqual([]);
  });
});

describe('positive lettering', () => {
  test.each([
    ['O', []],
    ['i', ['The dot of i is not attached.']],
    ['ä', ['A dot of ä is not attached.', 'A dot of ä is not attached.']],
    ['é', ['The accent of é is not attached.']],
    ['!', ['The dot of ! is not attached.']],
    ['HL', ['“L” is not attached.']],
  ])('%s', (text, expected) => {
    expect(holdSentences(text, 'inside').sort()).toEqual([...expected].sort());
  });

  test('a script word is one piece but for its dots', () => {
    expect(holdSentences('lemon', 'inside', 'Pacifico')).toEqual([]);
    expect(holdSentences('mill', 'inside', 'Pacifico')).toEqual(['The dot of i is not attached.']);
  });

  test('the dot of a ligature', () => {
    expect(holdSentences('fig', 'inside', 'Pacifico')).toEqual(['The dot of fi is not attached.']);
  });

  test('pieces by the hundred are counted, not all listed', () => {
    const text = `${'i'.repeat(50)}\n`.repeat(2);
    const findings = evaluate(
      jobWith([part([lettering(text, 'Archivo Black', { size: { by: 'width', mm: 200 } })])]),
    ).findings;
    // Two pieces a letter, one of which is the main piece.
    expect(findings.filter((f) => f.code === 'loose')).toHaveLength(LIMITS.piecesNamed);
    expect(findings.find((f) => f.code === 'more-pieces')?.sentence).toMatch(
      /^139 more pieces of “i+…?” would come away\.$/,
    );
  });

  test('the piece that is the word is named by its letters', () => {
    expect(holdSentences('Al lemon', 'inside', 'Pacifico')).toEqual(['“Al” is not attached.']);
  });

  test('a letter ringed by another is an island', () => {
    const [piece] = evaluate(jobWith([part([lettering('®', 'Poppins')])])).parts[0]?.pieces.slice(1) ?? [];
    expect(piece?.kind).toBe('island');
  });
});

describe('plates', () => {
  const plate = (text: string, width = 250) =>
    part([
      { id: 'rim', kind: 'rectangle', placement: { x: 150, y: 100 }, width, height: 120, corner: 10 },
      lettering(text, 'Archivo Black', { role: 'punch', placement: { x: 150, y: 85 } }),
    ]);

  test('words cut out of a plate leave islands', () => {
    const job = jobWith([plate('GATE')]);
    expect(sentences(job)).toEqual(['The middle of A will drop out.']);
    const [prepared] = evaluate(job).parts;
    expect(prepared?.pieces.map((p) => p.kind)).toEqual(['main', 'island']);
    const total = prepared?.pieces.reduce((s, p) => s + p.area, 0);
    expect(total).toBeCloseTo(prepared?.kept.reduce((s, o) => s + o.area, 0) ?? 0, 6);
  });

  test('a letter taller than the plate cuts it apart', () => {
    const rim = { id: 'rim', kind: 'rectangle', placement: { x: 150, y: 100 }, width: 250, height: 60 };
    const tall = lettering('I', 'Archivo Black', {
      role: 'punch',
      size: { by: 'capital', mm: 120 },
      placement: { x: 150, y: 40 },
    });
    const [prepared] = evaluate(jobWith([part([rim, tall])])).parts;
    expect(prepared?.pieces.map((p) => p.kind)).toEqual(['main', 'loose']);
  });

  test('a negative that reaches over the edge of the sheet cuts the sheet', () => {
    const bar = { id: 'bar', kind: 'rectangle', placement: { x: 150, y: 100 }, width: 400, height: 10 };
    const result = evaluate(jobWith([part([bar], { keep: 'outside' })]));
    expect(result.parts[0]?.pieces.map((p) => p.kind)).toEqual(['main', 'loose']);
    expect(result.findings.map((f) => f.sentence)).toContain('A piece of the sheet is not attached.');
    expect(result.findings.some((f) => f.code === 'off-sheet')).toBe(true);
  });

  test('a hole that touches the edge of the sheet in one point leaves one piece', () => {
    for (const turn of [0, 30, 77])
      for (const [x, y] of [
        [150, 50],
        [150, 150],
        [50, 100],
      ]) {
        const hole = { id: 'hole', kind: 'ellipse', placement: { x, y, turn }, width: 100, height: 100 };
        const [prepared] = evaluate(jobWith([part([hole], { keep: 'outside' })])).parts;
        expect(prepared?.pieces.map((p) => p.kind)).toEqual(['main']);
      }
  });

  test('dust is no piece', () => {
    // Two squares on their corners leave a triangle of stock between them and the edge of the sheet, so high:
    const kinds = (heightMm: number) => {
      const gap = heightMm + 10 * Math.SQRT1_2 - 5;
      const squares = [-1, 1].map((way) => ({
        id: `s${way + 1}`,
        kind: 'rectangle',
        placement: { x: 150 + way * (10 * Math.SQRT1_2 + gap), y: 195, turn: 45 },
        width: 20,
        height: 20,
      }));
      return evaluate(jobWith([part(squares, { keep: 'outside' })])).parts[0]?.pieces.map((p) => p.kind);
    };
    expect(kinds(2)).toEqual(['main', 'loose']);
    expect(kinds(0.05)).toEqual(['main', 'loose']);
    expect(kinds(0.02)).toEqual(['main']);
  });

  test('kept area of a negative is the sheet less the shape', () => {
    const [prepared] = evaluate(jobWith([part([lettering('OAK')], { keep: 'outside' })])).parts;
    const shape = prepared?.outlines.reduce((s, o) => s + o.area, 0) ?? 0;
    expect(prepared?.kept.reduce((s, o) => s + o.area, 0)).toBeCloseTo(300 * 200 - shape, 6);
  });
});

test('engraved lettering need not hang together', () => {
  const engraved = part([lettering('i')], { work: [{ what: 'fill', operation: 'engrave' }] });
  expect(sentences(jobWith([engraved]))).toEqual([]);
});

describe.each([wasmEngine, scriptEngine])('on $name', (engine) => {
  test.each([{ turn: 33, mm: 30 }, { turn: 200, mirror: true, mm: 30 }, { mm: 2 }, { mm: 900 }])(
    'pieces are the same at %o',
    ({ mm, turn = 0, mirror = false }) => {
      const words = lettering('BOW %', 'Archivo Black', {
        size: { by: 'capital', mm },
        placement: { x: 5000, y: 5000, turn, mirror },
      });
      const job = jobWith([part([words], { keep: 'outside' })], { sheet: { width: 10_000, height: 10_000 } });
      const kinds = new Evaluator(engine).evaluate(job, faces).parts[0]?.pieces.map((p) => p.kind);
      expect(kinds).toEqual(['main', 'island', 'island', 'island', 'island', 'island']);
    },
  );
});

test('ordinals', () => {
  expect([1, 2, 3, 10, 11, 12, 13, 21, 22, 101, 111].map(ordinal)).toEqual([
    'first',
    'second',
    'third',
    'tenth',
    '11th',
    '12th',
    '13th',
    '21st',
    '22nd',
    '101st',
    '111th',
  ]);
});
