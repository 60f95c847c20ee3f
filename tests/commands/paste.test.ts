/** Copying and putting in again, in the same job and in another. */
import { describe, expect, test } from 'vitest';
import { memberOf } from '../../src/core/commands/changed';
import { type Copied, copyOf, paste, pasteWords, readCopied } from '../../src/core/commands/paste';
import { checkJob } from '../../src/core/document/read';
import type { Job } from '../../src/core/document/schema';
import { LIMITS } from '../../src/core/limits';
import { boxOf, middlesIn, partIn, rectangle, viewed } from '../support/commands';
import { type Draft, jobWith, lettering, partOf } from '../support/jobs';

const whole = (...partIds: string[]) => ({ partIds, memberId: null });
const copied = (job: Job, ...ids: string[]): Copied => {
  const made = copyOf(job, whole(...ids));
  if (!made) throw new Error('nothing copied');
  // As it comes back from where it was kept.
  const read = readCopied(JSON.parse(JSON.stringify(made)));
  if (!read) throw new Error('not read');
  return read;
};
const none = () => ({ x: 0, y: 0 });
const sign = () =>
  jobWith([
    partOf([lettering('Oak', 'Poppins', { size: { by: 'capital', mm: 10 } }), rectangle('r', 60)], {
      id: 'words',
      name: 'Sign',
      locked: true,
      placement: { x: 20, y: 30, turn: 15 },
      work: [
        { what: 'outline', operation: 'cut', only: null },
        { what: 'dots', operation: 'mark', only: null },
      ],
    }),
    partOf([{ id: 'c', kind: 'copy', of: 'words', follows: true, placement: { x: 0, y: 0 } }], {
      id: 'border',
      along: 'words',
      steps: [{ kind: 'weld' }, { kind: 'border', distance: 4 }],
    }),
    partOf([rectangle('s', 5)], { id: 'last' }),
  ]);
const valid = (job: Job): Job => {
  const read = checkJob(JSON.parse(JSON.stringify(job)));
  if (!read.ok) throw new Error(read.sentences.join(' '));
  return read.job;
};

describe('parts', () => {
  test('are put in beside where they lay, chosen, and free to move', () => {
    const job = sign();
    const done = paste(job, copied(job, 'words', 'border'), null, none);
    expect(done.sentence).toBeNull();
    const [words, border] = done.chosen.partIds as [string, string];
    expect(done.job.parts.map((p) => p.id)).toEqual(['words', 'border', 'last', words, border]);
    expect(partIn(done.job, words)).toMatchObject({ name: 'Sign', locked: false, hidden: false });
    expect(partIn(done.job, border)).toMatchObject({ along: words, members: [{ of: words }] });
    for (const [from, to] of [
      ['words', words],
      ['border', border],
    ] as const) {
      expect(boxOf(done.job, to).minX).toBeCloseTo(boxOf(job, from).minX + 10, 5);
      expect(boxOf(done.job, to).minY).toBeCloseTo(boxOf(job, from).minY - 10, 5);
    }
    valid(done.job);
    // Once more, beside both.
    const again = paste(done.job, copied(job, 'words'), null, none);
    expect(partIn(again.job, again.chosen.partIds[0]).placement).toMatchObject({ x: 40, y: 10 });
    expect(done.job.parts[0]).toBe(job.parts[0]);
  });

  test('go into another job with what they copy, in the same place, for operations of their kind', () => {
    const other = jobWith([], {
      operations: [
        { id: 'edge', name: 'Edge', kind: 'cut' },
        { id: 'knife', name: 'Cut', kind: 'cut' },
      ],
    });
    const done = paste(other, copied(sign(), 'border'), null, none);
    const [border] = done.chosen.partIds as [string];
    const original = done.job.parts.find((p) => p.id !== border);
    // What is copied comes along out of sight, and does what it did.
    expect(original).toMatchObject({ hidden: true, name: 'Sign' });
    expect(partIn(done.job, border)).toMatchObject({ along: original?.id, members: [{ of: original?.id }] });
    expect(boxOf(done.job, border)).toEqual(boxOf(sign(), 'border'));
    // Of the same name; one of a kind there is none of comes along.
    expect(original?.work).toEqual([
      { what: 'outline', operation: 'knife', only: null },
      { what: 'dots', operation: 'mark', only: null },
    ]);
    expect(done.job.operations.map((o) => [o.id, o.kind])).toEqual([
      ['edge', 'cut'],
      ['knife', 'cut'],
      ['mark', 'mark'],
    ]);
    valid(done.job);
    const renamed = jobWith([], { operations: [{ id: 'mark', name: 'Edge', kind: 'cut' }] });
    const clashing = paste(renamed, copied(sign(), 'words'), null, none);
    expect(clashing.job.parts[0]?.work.map((w) => w.operation)).toEqual(['mark', 'mark-1']);
    valid(clashing.job);
  });

  test('that copy what the job has as it is copy that; one that lies along without it stays where it is', () => {
    const job = sign();
    const done = paste(job, copied(job, 'border'), null, none);
    expect(done.job.parts).toHaveLength(4);
    const made = partIn(done.job, done.chosen.partIds[0]);
    expect(made).toMatchObject({ members: [{ of: 'words' }] });
    const alone = copyOf(
      jobWith([
        partOf([rectangle('r', 60)], { id: 'a', placement: { x: 7, y: 8, turn: 90 } }),
        partOf([rectangle('s', 5)], { id: 'b', along: 'a', placement: { x: 1, y: 2 } }),
      ]),
      whole('b'),
    );
    expect(alone?.document.parts).toMatchObject([{ id: 'b', along: null, placement: { x: 5, y: 9, turn: 90 } }]);
  });

  test('come onto the sheet when they lay beside it', () => {
    const far = jobWith([partOf([rectangle('r', 0)], { placement: { x: 900, y: 40 } })], {
      sheet: { width: 1000, height: 100 },
    });
    for (const place of [
      { x: 900, y: 40 },
      { x: -1, y: 40 },
      { x: 40, y: -1 },
      { x: 40, y: 201 },
    ]) {
      const made = copied(
        { ...far, parts: [{ ...partIn(far), placement: { ...partIn(far).placement, ...place } }] },
        'part',
      );
      const done = paste(jobWith([]), made, null, none);
      expect(done.job.parts[0]?.placement).toMatchObject({ x: 150, y: 100 });
    }
  });

  test('beyond the limit are refused, and nothing changes', () => {
    const full = jobWith(Array.from({ length: LIMITS.parts }, (_, i) => partOf([], { id: `p${i}` })));
    const done = paste(full, copied(sign(), 'last'), null, none);
    expect(done).toMatchObject({ job: full, sentence: `A job has up to ${LIMITS.parts} parts.` });
  });
});

describe('a member', () => {
  const member = (job: Job, partId: string, memberId: string): Copied => {
    const made = copyOf(job, { partIds: [partId], memberId });
    const read = made && readCopied(JSON.parse(JSON.stringify(made)));
    if (!read) throw new Error('nothing copied');
    return read;
  };
  const boxIn = (job: Job, partId: string, memberId: string | null) => {
    const box = viewed(job)
      .parts.find((p) => p.id === partId)
      ?.members.find((m) => m.id === memberId)?.box;
    if (!box) throw new Error('no box');
    return box;
  };
  const source = () =>
    jobWith([
      partOf(
        [
          lettering('Oak', 'Poppins', { placement: { x: 3, y: 4, turn: 10 }, size: { by: 'capital', mm: 10 } }),
          rectangle('r', 60),
        ],
        {
          placement: { x: 50, y: 60, turn: 30, mirror: true },
        },
      ),
      partOf([rectangle('s', 9)], { id: 'into', placement: { x: 5, y: 5, turn: -70 } }),
    ]);

  test('goes into the part that is chosen, where it lay on the sheet', () => {
    const job = source();
    const done = paste(job, member(job, 'part', 'words'), 'into', middlesIn(job));
    expect(partIn(done.job, 'into').members.map((m) => m.kind)).toEqual(['rectangle', 'lettering']);
    const [from, to] = [boxIn(job, 'part', 'words'), boxIn(done.job, 'into', done.chosen.memberId)];
    for (const side of ['minX', 'minY', 'maxX', 'maxY'] as const) expect(to[side]).toBeCloseTo(from[side], 5);
    valid(done.job);
  });

  test('goes beside itself in its own part, and into another job', () => {
    const job = source();
    const done = paste(job, member(job, 'part', 'words'), 'part', middlesIn(job));
    const [from, to] = [boxIn(job, 'part', 'words'), boxIn(done.job, 'part', done.chosen.memberId)];
    expect(to.minX).toBeCloseTo(from.minX + 10, 5);
    expect(to.minY).toBeCloseTo(from.minY - 10, 5);
    const other = jobWith([partOf([rectangle('q', 9)], { placement: { x: 9, y: 9, turn: 3 } })]);
    const there = paste(other, member(job, 'part', 'words'), 'part', middlesIn(other));
    expect(boxIn(there.job, 'part', there.chosen.memberId).minX).toBeCloseTo(from.minX, 5);
    valid(there.job);
  });

  test('is a part of its own where none is chosen, or that is locked', () => {
    const job = source();
    const locked = { ...job, parts: job.parts.map((p) => ({ ...p, locked: true })) };
    for (const [into, target] of [
      [null, job],
      ['gone', job],
      ['into', locked],
    ] as const) {
      const done = paste(target, member(job, 'part', 'words'), into, middlesIn(job));
      const made = partIn(done.job, done.chosen.partIds[0]);
      expect(made.members.map((m) => m.kind)).toEqual(['lettering']);
      expect(made.work).toEqual([{ what: 'outline', operation: 'cut', only: null }]);
      expect(done.chosen.memberId).toBeNull();
      // Its part was turned and mirrored; so is it, beside where it lay.
      expect(boxOf(done.job, made.id).minX).toBeCloseTo(boxIn(job, 'part', 'words').minX + 10, 5);
      valid(done.job);
    }
  });

  test('is not put into a part that is full', () => {
    const full = jobWith([partOf(Array.from({ length: LIMITS.members }, (_, i) => rectangle(`r${i}`, i)))]);
    expect(paste(full, member(source(), 'part', 'words'), 'part', none)).toMatchObject({
      job: full,
      sentence: `A part has up to ${LIMITS.members} members.`,
    });
  });

  test('that copies takes what it copies along', () => {
    const job = jobWith([
      partOf([lettering('Oak')], { id: 'a' }),
      partOf([rectangle('r', 9), { id: 'c', kind: 'copy', of: 'a', placement: { x: 50, y: 50 } }], { id: 'b' }),
    ]);
    const made = member(job, 'b', 'c');
    expect(made.document.parts.map((p) => p.id)).toEqual(['a', 'b']);
    const done = paste(jobWith([]), made, null, none);
    const [own] = done.chosen.partIds as [string];
    const of = (memberOf(done.job, own, 'c') as { of: string }).of;
    expect(partIn(done.job, of)).toMatchObject({ hidden: true, members: [{ kind: 'lettering' }] });
  });
});

test('of nothing nothing is copied, and what is no copy is not read', () => {
  const job = sign();
  expect(copyOf(job, whole())).toBeNull();
  expect(copyOf(job, whole('gone'))).toBeNull();
  expect(copyOf(job, { partIds: ['words'], memberId: 'gone' })).toBeNull();
  const good = JSON.parse(JSON.stringify(copyOf(job, whole('last')))) as Draft;
  expect(readCopied(good)).not.toBeNull();
  for (const bad of [
    null,
    'text',
    {},
    { ...good, document: {} },
    { ...good, partIds: 'last' },
    { ...good, partIds: ['gone'] },
    { ...good, memberId: 'gone' },
  ])
    expect(readCopied(bad)).toBeNull();
  // What an older Needlefile copied is read as its jobs are.
  const old = { format: 1, sheet: { width: 300, height: 200 }, parts: [{ id: 'p', members: [rectangle('r', 5)] }] };
  expect(readCopied({ document: old, partIds: ['p'], memberId: null })?.document.parts[0]?.placement.x).toBe(5);
});

describe('words from elsewhere', () => {
  test('become lettering of their own, in lines, beside what lies there', () => {
    const job = sign();
    const done = pasteWords(job, '  Bean\tBed \r\nnorth\r\n', null);
    expect(done.sentence).toBeNull();
    const made = partIn(done.job, done.chosen.partIds[0] as string);
    expect(made.members.map((m) => m.kind === 'lettering' && m.text)).toEqual(['Bean Bed\nnorth']);
    expect(valid(done.job).parts).toHaveLength(4);
    const again = pasteWords(done.job, 'more', null);
    const placed = [done, again].map((d) => partIn(d.job, d.chosen.partIds[0] as string).placement);
    expect(placed[0]).not.toEqual(placed[1]);
  });

  test('are set as those of the part that is chosen', () => {
    const done = pasteWords(sign(), 'Elm', 'words');
    const made = partIn(done.job, done.chosen.partIds[0] as string).members[0];
    expect(made).toMatchObject({ kind: 'lettering', text: 'Elm', face: 'Poppins', size: { by: 'capital', mm: 10 } });
    // In the same file, at the same place along its axes, with the same features.
    const own = { style: 'Thin', content: 'a'.repeat(64), number: 1, axes: { wght: 250 }, features: { ss01: 1 } };
    const job = jobWith([partOf([lettering('Oak', 'Scribe', own)])]);
    const beside = pasteWords(job, 'Elm', 'part');
    expect(partIn(beside.job, beside.chosen.partIds[0] as string).members[0]).toMatchObject({ face: 'Scribe', ...own });
  });

  test('of nothing, and into a full job, are refused', () => {
    const job = sign();
    expect(pasteWords(job, ' \n\u0000', null)).toMatchObject({ job, sentence: 'There are no words to paste.' });
    const full = jobWith(Array.from({ length: LIMITS.parts }, (_, i) => partOf([rectangle('r', 5)], { id: `p${i}` })));
    expect(pasteWords(full, 'one more', null)).toMatchObject({
      job: full,
      sentence: `A job has up to ${LIMITS.parts} parts.`,
    });
    const long = pasteWords(job, 'x'.repeat(LIMITS.letteringStoredCharacters + 5), null);
    expect(valid(long.job).parts).toHaveLength(4);
  });
});
