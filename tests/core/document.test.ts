import { readFileSync } from 'node:fs';
import { describe, expect, test } from 'vitest';
import { newJob } from '../../src/core/commands/defaults';
import { checkJob, readJob } from '../../src/core/document/read';
import { JOB_FORMAT } from '../../src/core/document/schema';
import { LIMITS } from '../../src/core/limits';
import { demoJobs, jobWith, lettering, partOf } from '../support/jobs';

const sentencesOf = (document: unknown): string[] => {
  const read = checkJob(document);
  return read.ok ? [] : read.sentences;
};
const base = { format: 1, sheet: { width: 100, height: 50 } };

test('a short document gets its defaults', () => {
  const read = checkJob(base);
  expect(read.ok && read.job.operations.map((o) => o.kind)).toEqual(['engrave', 'mark', 'score', 'cut']);
  expect(read.ok && read.job.title).toBe('Untitled');
});

test('a checked document checks to itself', () => {
  for (const [name, job] of demoJobs())
    expect(checkJob(JSON.parse(JSON.stringify(job))), name).toEqual({ ok: true, job });
  const made = newJob('New');
  expect(checkJob(made)).toEqual({ ok: true, job: made });
});

describe('what is wrong is said with the field', () => {
  test.each([
    [{ format: 1 }, 'sheet is missing.'],
    [{ ...base, sheet: { width: 0, height: 50 } }, 'sheet.width must be at least 1.'],
    [{ ...base, sheet: { width: -5, height: 50 } }, 'sheet.width must be at least 1.'],
    [{ ...base, sheet: { width: 1e9, height: 50 } }, `sheet.width must be at most ${LIMITS.sheetMostMm}.`],
    [{ ...base, sheet: { width: '100', height: 50 } }, 'sheet.width must be a number.'],
    [{ ...base, units: 'cm' }, 'units must be “mm” or “in”.'],
    [{ ...base, colour: 'red' }, 'The job has “colour”, which a job document does not know.'],
    [{ ...base, parts: [partOf([lettering('A', '')])] }, 'parts[0].members[0].face is empty.'],
    [
      { ...base, parts: [partOf([{ ...lettering('A'), kind: 'spline' }])] },
      'parts[0].members[0].kind is of a kind this version does not know.',
    ],
    [
      { ...base, parts: [partOf([lettering('A')], { work: [{ what: 'outline', operation: 'saw' }] })] },
      'parts[0].work[0].operation: there is no operation “saw”.',
    ],
    [{ ...base, parts: [partOf([]), partOf([])] }, 'parts[1].id: the id “part” is used twice.'],
    [{ ...base, colourKey: { cut: 'blue' } }, 'colourKey.cut: must be a colour such as #1A26AF.'],
    [[], 'This is not a job document.'],
    [null, 'This is not a job document.'],
  ])('%j', (document, sentence) => {
    expect(sentencesOf(document)).toContain(sentence);
  });

  test('a document from a newer version', () => {
    const newer = JOB_FORMAT + 1;
    expect(sentencesOf({ ...base, format: newer })[0]).toContain(`newer Needlefile (format ${newer})`);
    for (const format of [0, -1, 1.5])
      expect(sentencesOf({ ...base, format })[0]).toMatch(/^format: there is no format/);
  });

  test('text that is not JSON, and text that is too long', () => {
    expect(readJob('{')).toEqual({ ok: false, sentences: ['This is not a job document: it is not valid JSON.'] });
    const long = readJob(`{"title":"${'x'.repeat(20 * 1024 * 1024)}"}`);
    expect(long.ok ? '' : long.sentences[0]).toMatch(/20\.0 MB; up to 8 MB/);
  });

  test('NaN and infinities have no place in it', () => {
    expect(sentencesOf({ ...base, sheet: { width: Number.NaN, height: 50 } })).not.toEqual([]);
    expect(sentencesOf({ ...base, sheet: { width: Number.POSITIVE_INFINITY, height: 50 } })).not.toEqual([]);
  });
});

describe('limits', () => {
  const tooMany = (count: number) => Array.from({ length: count }, (_, i) => partOf([], { id: `p${i}` }));
  test.each([
    ['parts', { parts: tooMany(LIMITS.parts + 1) }],
    ['tags', { tags: Array.from({ length: LIMITS.tags + 1 }, (_, i) => `t${i}`) }],
    ['tags[0]', { tags: ['x'.repeat(LIMITS.tagCharacters + 1)] }],
    ['title', { title: 'x'.repeat(LIMITS.nameCharacters + 1) }],
    [
      'operations',
      {
        operations: Array.from({ length: LIMITS.operations + 1 }, (_, i) => ({ id: `o${i}`, name: 'o', kind: 'cut' })),
      },
    ],
    [
      'parts[0].members',
      { parts: [partOf(Array.from({ length: LIMITS.members + 1 }, (_, i) => lettering('A', 'X', { id: `m${i}` })))] },
    ],
    ['parts[0].members[0].text', { parts: [partOf([lettering('x'.repeat(LIMITS.letteringStoredCharacters + 1))])] }],
    [
      'parts[0].placement.x',
      { parts: [partOf([lettering('x', 'X', { placement: { x: LIMITS.lengthMm + 1, y: 0 } })])] },
    ],
    [
      'parts[0].members[0].letters',
      {
        parts: [
          partOf([
            lettering('x', 'X', { letters: Array.from({ length: LIMITS.letterChanges + 1 }, () => ({ at: 0 })) }),
          ]),
        ],
      },
    ],
    ['parts[0].members[0].closeUp.overlap', { parts: [partOf([lettering('x', 'X', { closeUp: { overlap: 0 } })])] }],
    ['parts[0].steps[0].by', { parts: [partOf([], { steps: [{ kind: 'thicken', by: LIMITS.offsetMostMm + 1 }] })] }],
    ['parts[0].steps[0].by', { parts: [partOf([], { steps: [{ kind: 'thicken', by: -LIMITS.offsetMostMm - 1 }] })] }],
    ['parts[0].steps[0].distance', { parts: [partOf([], { steps: [{ kind: 'border', distance: -1 }] })] }],
    ['parts[0].steps[0].width', { parts: [partOf([], { steps: [{ kind: 'tie', width: 0 }] })] }],
    [
      'parts[0].steps[0].answers',
      {
        parts: [
          partOf([], {
            steps: [{ kind: 'tie', answers: Array.from({ length: LIMITS.piecesTied + 1 }, () => ({ piece: 'x' })) }],
          }),
        ],
      },
    ],
    ['export.arcTolerance', { export: { arcTolerance: LIMITS.arcToleranceLeastMm / 2 } }],
    ['export.arcTolerance', { export: { arcTolerance: LIMITS.arcToleranceMostMm * 2 } }],
  ])('%s', (field, more) => {
    expect(sentencesOf({ ...base, ...more })[0]).toMatch(new RegExp(`^${field.replace(/[[\].]/g, '\\$&')} `));
  });

  test('a lettering at the limits of a document is kept as it is', () => {
    const text = 'x'.repeat(LIMITS.letteringStoredCharacters);
    const member = jobWith([partOf([lettering(text)])]).parts[0]?.members[0];
    expect(member?.kind === 'lettering' && member.text).toBe(text);
  });
});

test('docs/job-format.md is written from the schema', async () => {
  const { jobFormatPage } = await import('../../scripts/job-format');
  expect(readFileSync('docs/job-format.md', 'utf8')).toBe(jobFormatPage());
});
