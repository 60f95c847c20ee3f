import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { LIMITS } from '../../src/core/limits';
import { formatLength, formatLengthNumber, parseLength, parseNumber } from '../../src/core/units/quantity';

const mm = (text: string, unit: 'mm' | 'in' = 'mm'): number => {
  const parsed = parseLength(text, unit);
  if (!parsed.ok) throw new Error(parsed.sentence);
  return parsed.value;
};

describe('a length as typed', () => {
  test.each([
    ['12', 12],
    ['12mm', 12],
    ['12 mm', 12],
    ['1.5 cm', 15],
    ['1m', 1000],
    ['1/2 in', 12.7],
    ['1/2"', 12.7],
    ['2 1/2"', 63.5],
    ['2 1/2 in', 63.5],
    ['2½"', 63.5],
    ['5\' 3 1/2"', 63.5 * 25.4],
    ['100/3', 100 / 3],
    ['600mm/2', 300],
    ['(600 - 20) / 2', 290],
    ['12mm + 1/4in', 12 + 6.35],
    ['3 x 40', 120],
    ['3 × 40 mm', 120],
    ['-5', -5],
    ['12,5', 12.5],
    ['.5', 0.5],
    ['10 thou', 0.254],
    ['2 * (3in + 4)', 2 * (76.2 + 4)],
  ])('%s', (text, value) => {
    expect(mm(text)).toBeCloseTo(value, 9);
  });

  test('bare numbers are in the unit shown', () => {
    expect(mm('2', 'in')).toBeCloseTo(50.8, 9);
    expect(mm('2 + 1mm', 'in')).toBeCloseTo(51.8, 9);
    expect(mm('3/8', 'in')).toBeCloseTo(9.525, 9);
  });

  test.each(['', '  ', 'abc', '12 furlongs', '12+', '(3', '1/0', '3mm * 4mm', '12 34', '1mm mm'])(
    'says what is wrong with “%s”',
    (text) => {
      const parsed = parseLength(text, 'mm');
      expect(parsed.ok).toBe(false);
      if (!parsed.ok) expect(parsed.sentence).toMatch(/^[A-Z“].*\.$/);
    },
  );

  test('is refused when longer than the limit', () => {
    expect(parseLength('1+'.repeat(LIMITS.quantityCharacters), 'mm').ok).toBe(false);
  });

  test('never throws, whatever is typed', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 40, unit: fc.constantFrom(...'0123456789./ +-*x()"\'inm½,e ') }), (text) => {
        const parsed = parseLength(text, 'in');
        if (parsed.ok) expect(Number.isFinite(parsed.value)).toBe(true);
      }),
      { numRuns: 2000 },
    );
  });

  test('printed lengths read back to what was printed', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -5000, max: 5000, noNaN: true }),
        fc.constantFrom('mm' as const, 'in' as const),
        (value, unit) => {
          const printed = formatLength(value, unit);
          expect(Math.abs(mm(printed, 'mm') - value)).toBeLessThanOrEqual(unit === 'mm' ? 0.00501 : 0.0128);
        },
      ),
    );
  });
});

test('lengths are printed without needless zeros', () => {
  expect(formatLengthNumber(12.7, 'mm')).toBe('12.7');
  expect(formatLengthNumber(12.7, 'in')).toBe('0.5');
  expect(formatLengthNumber(-0.0001, 'mm')).toBe('0');
  expect(formatLengthNumber(100, 'mm')).toBe('100');
});

test('plain numbers take their sign but no unit', () => {
  expect(parseNumber('12.5°', '°')).toEqual({ ok: true, value: 12.5 });
  expect(parseNumber('90/4', '°')).toEqual({ ok: true, value: 22.5 });
  expect(parseNumber('12mm', '°').ok).toBe(false);
});

test('nothing divides: neither a number, nor a fraction, nor what is worked out to be nothing', () => {
  for (const typed of ['5/0', '1 5/0 in', '12 / 0', '12 / (3 - 3)', '12 / 0.0', '7 mm / (2 - 2)', '0/0'])
    expect(parseLength(typed, 'mm'), typed).toEqual({ ok: false, sentence: 'That divides by nothing.' });
  expect(parseNumber('8/0')).toEqual({ ok: false, sentence: 'That divides by nothing.' });
  expect(parseLength('0 / 5', 'mm')).toEqual({ ok: true, value: 0 });
  expect(parseLength('12 / 0.5', 'mm')).toEqual({ ok: true, value: 24 });
  expect(parseLength('0/8 in', 'mm')).toEqual({ ok: true, value: 0 });
});

test('a unit that is not understood is answered with every one that is', () => {
  const said = parseLength('12 furlong', 'mm');
  if (said.ok) throw new Error('it was read');
  const words = said.sentence.match(/(?:mm|cm|µm|\bm\b|in\b|ft|thou|mil|pt|"|')/g) ?? [];
  expect(new Set(words)).toEqual(new Set(['mm', 'cm', 'm', 'µm', 'in', '"', 'ft', "'", 'thou', 'mil', 'pt']));
  for (const unit of words) expect(parseLength(`2 ${unit}`, 'mm').ok, unit).toBe(true);
});
