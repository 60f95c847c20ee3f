/** What files are called. */
import { describe, expect, test } from 'vitest';
import { jobSchema } from '../../src/core/document/schema';
import { fileName, takenName } from '../../src/core/job/file-names';
import { isDay } from '../../src/core/units/day';
import { inchFraction } from '../../src/core/units/quantity';
import { type Draft, jobWith, lettering, partOf } from '../support/jobs';

const two = (more: Draft = {}) =>
  jobWith([partOf([lettering('A')], { id: 'a', name: 'Plate' }), partOf([lettering('B')], { id: 'b', name: '' })], {
    sheet: { width: 300, height: 200, material: 'Ply', thickness: 3 },
    ...more,
  });

describe('a file', () => {
  test('is named so that every disk takes it: no noise of numbers, cut by bytes, no name of a device', () => {
    const job = two({ sheet: { width: 300, height: 200, material: 'Steel', thickness: 19.049999999999997 } });
    expect(fileName(job, 'svg')).toBe('trial_steel-19.05mm.svg');
    const bare = { ...job, sheet: { ...job.sheet, material: '', thickness: null } };
    const named = (title: string) => fileName({ ...bare, title }, 'svg');
    // Four bytes a letter: eighty bytes are twenty of them, none cut in two.
    expect(named('𐎠'.repeat(60))).toBe(`${'𐎠'.repeat(20)}.svg`);
    expect(named('Ж'.repeat(60))).toBe(`${'ж'.repeat(40)}.svg`);
    const long = { ...job, title: 'Ж'.repeat(200), sheet: { ...job.sheet, material: 'Ж'.repeat(200) } };
    const parts = job.parts.map((p) => ({ ...p, name: 'Ж'.repeat(200) }));
    const whole = fileName({ ...long, parts }, 'svg', { partIds: ['a'] });
    expect(new TextEncoder().encode(whole).length).toBeLessThanOrEqual(250);
    for (const device of ['CON', 'nul', 'Prn', 'AUX', 'COM1', 'lpt9', 'con.backup', 'COM¹'])
      expect(named(device)).toMatch(/^job-/);
    for (const other of ['console', 'com', 'null']) expect(named(other)).toBe(`${other}.svg`);
    expect(named('...')).toBe('job.svg');
  });

  test('is named by job, piece and material', () => {
    expect(fileName(two(), 'svg')).toBe('trial_ply-3mm.svg');
    expect(fileName(two(), 'svg', { partIds: ['a'] })).toBe('trial_plate_ply-3mm.svg');
    expect(fileName(two(), 'svg', { partIds: ['b'] })).toBe('trial_ply-3mm.svg');
    expect(fileName(two(), 'svg', { partIds: ['a', 'b'] })).toBe('trial_ply-3mm.svg');
    const bare = two({ sheet: { width: 300, height: 200, material: 'Ply', thickness: null } });
    expect(fileName(bare, 'dxf')).toBe('trial_ply.dxf');
    const named = (title: string) => fileName({ ...bare, title, sheet: { ...bare.sheet, material: '' } }, 'dxf');
    expect(named('x'.repeat(90))).toBe(`${'x'.repeat(80)}.dxf`);
    expect(named(`${'x'.repeat(79)} y`)).toBe(`${'x'.repeat(79)}.dxf`);
  });
});

describe('a name in the user’s order', () => {
  const named = (nameFields: readonly string[], more: Draft = {}, date?: string) =>
    fileName(two({ export: { nameFields, number: 'PO 2041/B' }, ...more }), 'svg', {
      partIds: ['a'],
      ...(date && { date }),
    });

  test('has what is asked for, and nothing that is not known', () => {
    expect(named(['number', 'date', 'job'], {}, '2026-05-04')).toBe('po-2041-b_2026-05-04_trial.svg');
    expect(named(['number', 'date', 'job'])).toBe('po-2041-b_trial.svg');
    expect(named(['thickness', 'material', 'piece'])).toBe('3mm_ply_plate.svg');
    expect(named(['material', 'job', 'thickness'])).toBe('ply_trial_3mm.svg');
    expect(named([])).toBe('job.svg');
    expect(takenName(two({ export: { nameFields: ['date', 'number'], number: '7' } }))).toBe('7.needlefile');
  });

  test('each may be there once', () => {
    const twice = { ...two(), export: { nameFields: ['job', 'job'] } };
    expect(jobSchema.safeParse(twice).success).toBe(false);
  });

  test('lengths are in the unit of the job, as a fraction where they were typed so', () => {
    const thick = (mm: number, units: string, thicknessAs: string | null = null) =>
      named(['thickness'], { units, sheet: { width: 300, height: 200, thickness: mm, thicknessAs } });
    expect(thick(3.175, 'in')).toBe('0.125in.svg');
    expect(thick(25.4 / 16, 'in')).toBe('0.0625in.svg');
    expect(thick(3.175, 'in', '1/8')).toBe('1-8in.svg');
    expect(thick(3.175, 'mm', '1/8')).toBe('1-8in.svg');
    expect(thick(38.1, 'in', '1 1/2')).toBe('1-1-2in.svg');
    // Made another thickness since.
    expect(thick(4, 'mm', '1/8')).toBe('4mm.svg');
    expect(thick(3, 'mm', 'thick')).toBe('3mm.svg');
  });
});

test.each([
  ['1/8', 'in', '1/8'],
  ['1/8"', 'mm', '1/8'],
  ['1 1/2 in', 'mm', '1 1/2'],
  ['¾ in', 'mm', '3/4'],
  [' 3 / 16 inch ', 'in', '3/16'],
  ['1/8', 'mm', null],
  ['0.125 in', 'in', null],
  ['1/8 mm', 'in', null],
  ['1/8 + 1/8', 'in', null],
  ['', 'in', null],
] as const)('“%s” in %s is the fraction %s', (text, unit, fraction) => {
  expect(inchFraction(text, unit)).toBe(fraction);
});

test.each([
  ['2026-05-04', true],
  ['2028-02-29', true],
  ['2026-02-29', false],
  ['2026-5-4', false],
  ['04.05.2026', false],
  ['2026-13-01', false],
  ['today', false],
])('%s is a day: %s', (text, is) => {
  expect(isDay(text)).toBe(is);
});
