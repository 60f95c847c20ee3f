/** The job of a row, and what is changed while it is on the sheet: kept for all rows, or in the row alone. */
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { changed } from '../../src/core/commands/changed';
import { setWords } from '../../src/core/commands/words';
import { checkJob } from '../../src/core/document/read';
import type { Job, Lettering, Part } from '../../src/core/document/schema';
import { jobInRow, placeOfRow, rowTitle } from '../../src/core/roster/in-row';
import { type ChangeFor, keptInDocument, likeTheOthers } from '../../src/core/roster/kept';
import { type Draft, jobWith, lettering, partOf, rectangle } from '../support/jobs';

const TODAY = { today: '2026-11-30' };
const NAMES = ['Rowan', 'Bo', 'Øyvind', ''];

const rosterOf = (names: readonly string[]): Draft => ({
  columns: [
    { id: 'name', kind: 'typed', name: 'Name' },
    { id: 'no', kind: 'number', name: 'No', start: 7, step: 2, digits: 3 },
    { id: 'day', kind: 'date', name: 'Day' },
  ],
  rows: names.map((name, i) => ({ id: `r${i}`, cells: [name] })),
});

const withNames = (text: string, more: Draft = {}, part: Draft = {}): Job =>
  jobWith(
    [
      partOf([lettering(text, 'Archivo Black', more)], { steps: [{ kind: 'weld' }, { kind: 'bridge' }], ...part }),
      { ...partOf([rectangle('edge', 80, 30)]), id: 'plate', steps: [{ kind: 'weld' }, { kind: 'thicken', by: 0.2 }] },
    ],
    { roster: rosterOf(NAMES) },
  );

const wordsOf = (job: Job): Lettering => job.parts.find((p) => p.id === 'part')?.members[0] as Lettering;
const inRow = (job: Job, nth: number) => jobInRow(job, nth, TODAY);

describe('the job of a row', () => {
  test('fields are filled, with plain words around them', () => {
    expect(wordsOf(inRow(withNames('Dear ‹Name›, ‹no›\n‹Day›'), 1)).text).toBe('Dear Bo, 009\n30 November 2026');
  });

  test('it is what the same words make when they are typed, and has no roster', () => {
    const typed = setWords({ ...withNames('‹Name›'), roster: null }, 'part', 'words', 'Rowan');
    expect(inRow(withNames('‹Name›'), 0)).toEqual(typed);
  });

  test('parts without fields stay the same objects', () => {
    const job = withNames('‹Name›');
    expect(inRow(job, 0).parts[1]).toBe(job.parts[1]);
  });

  test('what stands on plain letters goes with them; lines keep what is theirs, also behind cells of several lines', () => {
    const job = withNames('‹Name› Lane\nNo. ‹No›', {
      letters: [{ at: 7, dx: 5 }],
      lines: [{ line: 1, scale: 0.5 }],
    });
    const two = changed(job, (draft) => {
      const [row] = draft.roster?.rows ?? [];
      if (row) row.cells = ['Alder\nand Rowan'];
    });
    const words = wordsOf(inRow(two, 0));
    expect(words.text).toBe('Alder\nand Rowan Lane\nNo. 007');
    expect(words.text[words.letters[0]?.at ?? 0]).toBe('L');
    expect(words.lines.map((l) => [l.line, l.scale])).toEqual([[2, 0.5]]);
  });

  test('a field without a column stays as it stands; titles are filled too', () => {
    const job = { ...withNames('‹Name› ‹Class›'), title: 'Tag ‹Name›' };
    expect(wordsOf(inRow(job, 0)).text).toBe('Rowan ‹Class›');
    expect(inRow(job, 0).title).toBe('Tag Rowan');
  });

  test('a row is called by the first that is typed, else by its place', () => {
    expect(NAMES.map((_, i) => rowTitle(withNames('‹Name›'), i))).toEqual(['Rowan', 'Bo', 'Øyvind', 'Row 4']);
  });

  test('the place of a row: the first that is made, where it is gone', () => {
    const job = changed(withNames('‹Name›'), (draft) => {
      for (const row of draft.roster?.rows.slice(0, 2) ?? []) row.out = true;
    });
    expect([placeOfRow(job, 'r1'), placeOfRow(job, 'gone'), placeOfRow({ ...job, roster: null }, 'r1')]).toEqual([
      1, 2, -1,
    ]);
  });

  test('what no longer fits a part is left out of it, and the part stays', () => {
    const job = changed(withNames('‹Name›'), (draft) => {
      const [row] = draft.roster?.rows ?? [];
      if (row)
        row.own = {
          leftAsIs: [],
          parts: [{ id: 'part', set: {}, steps: [], members: [{ id: 'words', set: { size: 3 } }] }],
        };
    });
    expect(wordsOf(inRow(job, 0))).toMatchObject({ text: 'Rowan', size: { mm: 30 } });
  });
});

/** Things that are done on the bench, by what they do to the job on the sheet. */
const EDITS: readonly ((job: Job, n: number) => Job)[] = [
  (job, n) => inWords(job, () => ({ size: { by: 'capital', mm: 10 + n } })),
  (job, n) => inWords(job, () => ({ letterSpacing: n / 100 })),
  (job, n) => inWords(job, ({ text }) => ({ letters: text ? [{ ...NO_CHANGE, at: n % text.length, dx: n }] : [] })),
  (job, n) => inWords(job, () => ({ face: n % 2 ? 'Pacifico' : 'Poppins' })),
  (job, n) => inWords(job, () => ({ closeUp: closedUp(n % 2 ? null : 1) })),
  (job, n) => inStep(job, 'bridge', { width: 1 + n }),
  (job, n) =>
    inStep(job, 'bridge', {
      pinned: [{ letter: `words:${n % 4}`, island: 0, x: n / 10, y: 0, turn: null, width: null }],
    }),
  (job, n) => inStep(job, 'bridge', { on: n % 2 === 0 }),
  (job) => inPart(job, ({ steps }) => ({ steps: steps.filter((s) => s.kind !== 'bridge') })),
  (job) =>
    inPart(job, ({ steps }) => ({ steps: steps.some((s) => s.kind === 'tie') ? steps : steps.toSpliced(1, 0, TIE) })),
  (job) => inPart(job, ({ steps }) => ({ steps: steps.filter((s) => s.kind !== 'tie') })),
  (job, n) => inStep(job, 'tie', { width: 1 + n }),
  (job, n) => inPart(job, ({ placement }) => ({ placement: { ...placement, x: n } })),
  (job, n) => inPart(job, () => ({ tabs: [{ ...TAB, letter: `words:${n % 3}` }] })),
  (job, n) => inPart(job, () => ({ name: `Part ${n}` })),
  (job, n) => ({ ...job, sheet: { ...job.sheet, width: 200 + n } }),
  (job) => ({ ...job, parts: job.parts.toReversed() }),
  (job, n) => ({ ...job, leftAsIs: [...job.leftAsIs, { finding: `thin:${n}`, reason: 'so' }] }),
  (job) => ({ ...job, leftAsIs: [] }),
  (job, n) =>
    inPart(
      job,
      ({ members }) => (members.some((m) => m.id === `extra${n}`) ? {} : { members: [...members, EXTRA(n)] }),
      'plate',
    ),
  (job) => inPart(job, () => ({ steps: [] }), 'plate'),
];
/** Edits up to this one are of settings that a row can have of its own. */
const LAST_OWN = 14;

const closedUp = (at: number | null): Lettering['closeUp'] => ({
  overlap: 0.5,
  words: false,
  lines: false,
  joints: 'best',
  pairs: [
    { left: 'o', right: 'w', at, how: 'tie' },
    { left: 'B', right: 'o', at: null, how: 'foot' },
  ],
});
const model = jobWith([
  partOf([lettering('a', 'Poppins', { letters: [{ at: 0, dx: 0 }] })], {
    steps: [{ kind: 'tie', width: 2 }],
    tabs: [{ letter: 'words:0', x: 0, y: 0 }],
  }),
]).parts[0] as Part;
const NO_CHANGE = (model.members[0] as Lettering).letters[0] as Lettering['letters'][number];
const [TIE] = model.steps as [Part['steps'][number]];
const [TAB] = model.tabs as [Part['tabs'][number]];
const EXTRA = (n: number) =>
  jobWith([partOf([rectangle(`extra${n}`, 5, 5)])]).parts[0]?.members[0] as Part['members'][number];

const inPart = (job: Job, set: (part: Part) => Partial<Part>, id = 'part'): Job => ({
  ...job,
  parts: job.parts.map((part) => (part.id === id ? { ...part, ...set(part) } : part)),
});
const inWords = (job: Job, set: (words: Lettering) => Partial<Lettering>): Job =>
  inPart(job, ({ members: [words, ...more] }) => ({
    members: [{ ...(words as Lettering), ...set(words as Lettering) }, ...more],
  }));
const inStep = (job: Job, kind: string, set: object): Job =>
  inPart(job, ({ steps }) => ({ steps: steps.map((s) => (s.kind === kind ? { ...s, ...set } : s)) }));

const plain = (job: Job) => JSON.parse(JSON.stringify(job)) as unknown;

/** Make a change on the sheet with a row on it, and keep it. */
function doOn(
  document: Job,
  nth: number,
  changeFor: ChangeFor,
  edit: (job: Job) => Job,
): { document: Job; after: Job } {
  const before = inRow(document, nth);
  const after = edit(before);
  return { document: keptInDocument(document, { nth, before, after, changeFor }), after };
}

const sequences = fc.array(
  fc.record({
    edit: fc.nat(EDITS.length - 1),
    n: fc.integer({ min: 0, max: 9 }),
    nth: fc.nat(NAMES.length - 2),
    changeFor: fc.constantFrom<ChangeFor>('all', 'row'),
  }),
  { minLength: 1, maxLength: 12 },
);

describe('what is changed while a row is on the sheet', () => {
  test('is on the sheet as it was made, for whomever; the document can be read', { tags: 'slow' }, () => {
    fc.assert(
      fc.property(sequences, (steps) => {
        let document = withNames('‹Name› x');
        for (const { edit, n, nth, changeFor } of steps) {
          const done = doOn(document, nth, changeFor, (job) => (EDITS[edit] as (typeof EDITS)[number])(job, n));
          document = done.document;
          expect(plain(inRow(document, nth))).toEqual(plain(done.after));
        }
        const read = checkJob(JSON.parse(JSON.stringify(document)));
        expect(read.ok ? [] : read.sentences).toEqual([]);
      }),
      { numRuns: 120 },
    );
  });

  test('for one row alone it changes the parts of no other', { tags: 'slow' }, () => {
    fc.assert(
      fc.property(sequences, (steps) => {
        let document = withNames('‹Name› x');
        const others = () => [0, 1, 2].map((i) => plain(inRow(document, i)) as { parts: { id: string }[] });
        for (const { edit, n, nth } of steps) {
          const was = others();
          document = doOn(document, nth, 'row', (job) => (EDITS[edit] as (typeof EDITS)[number])(job, n)).document;
          const is = others();
          // What belongs to no row, the sheet, what there is of parts and members, is so for all.
          if (edit <= LAST_OWN) for (const i of [0, 1, 2]) if (i !== nth) expect(is[i]).toEqual(was[i]);
        }
      }),
      { numRuns: 60 },
    );
  });

  test('for all rows: the others follow, but for what stands on letters of the one', () => {
    let { document } = doOn(withNames('‹Name›'), 0, 'all', (job) => EDITS[0]?.(job, 5) as Job);
    ({ document } = doOn(document, 0, 'all', (job) => EDITS[2]?.(job, 3) as Job));
    ({ document } = doOn(document, 0, 'all', (job) => EDITS[5]?.(job, 2) as Job));
    ({ document } = doOn(document, 0, 'all', (job) => EDITS[6]?.(job, 1) as Job));
    const [one, other] = [inRow(document, 0), inRow(document, 1)];
    expect(wordsOf(other)).toMatchObject({ size: { mm: 15 }, letters: [] });
    expect(wordsOf(one)).toMatchObject({ size: { mm: 15 }, letters: [{ at: 3, dx: 3 }] });
    expect(other.parts[0]?.steps[1]).toMatchObject({ width: 3, pinned: [] });
    expect(one.parts[0]?.steps[1]).toMatchObject({ width: 3, pinned: [{ letter: 'words:1' }] });
    expect(document.roster?.rows[0]?.own?.parts).toMatchObject([
      { id: 'part', members: [{ id: 'words' }], steps: [{ kind: 'bridge', nth: 0 }] },
    ]);
    expect(Object.keys(document.roster?.rows[0]?.own?.parts[0]?.members[0]?.set ?? {})).toEqual(['letters']);
  });

  test('set for all, it is no row’s own any more that is on the sheet; another’s own stays', () => {
    let { document } = doOn(withNames('‹Name›'), 0, 'row', (job) => EDITS[0]?.(job, 1) as Job);
    ({ document } = doOn(document, 1, 'row', (job) => EDITS[0]?.(job, 2) as Job));
    ({ document } = doOn(document, 0, 'all', (job) => EDITS[0]?.(job, 3) as Job));
    expect([0, 1, 2].map((i) => wordsOf(inRow(document, i)).size.mm)).toEqual([13, 12, 13]);
    expect(document.roster?.rows[0]?.own).toBeNull();
  });

  test('words of a row’s own stand in the place of those of all, and may take fields', () => {
    const { document } = doOn(withNames('‹Name›'), 0, 'row', (job) => setWords(job, 'part', 'words', 'Mr ‹Name›'));
    expect([0, 1].map((i) => wordsOf(inRow(document, i)).text)).toEqual(['Mr Rowan', 'Bo']);
  });

  test('filled words are never kept in the place of fields', () => {
    const { document } = doOn(withNames('‹Name›'), 0, 'all', (job) => setWords(job, 'part', 'words', 'Rowan!'));
    expect(wordsOf(document).text).toBe('‹Name›');
  });

  test('the way back: a row is like the others again', () => {
    const before = withNames('‹Name›');
    const { document } = doOn(before, 0, 'row', (job) => EDITS[9]?.(job, 1) as Job);
    expect(document.roster?.rows[0]?.own).not.toBeNull();
    expect(plain(likeTheOthers(document, 'r0'))).toEqual(plain(before));
  });
});
