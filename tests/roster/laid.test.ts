/** Names laid on sheets, and the sheets as jobs: every name where it lies, as it is by itself, clear of the others. */
import { execFileSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import path from 'node:path';
import { describe, expect, test } from 'vitest';
import { changed } from '../../src/core/commands/changed';
import {
  editLayout,
  lockPlace,
  movePlace,
  newLayout,
  notLaid,
  setFilled,
  setLayout,
  setPlaces,
} from '../../src/core/commands/layout';
import { editRows } from '../../src/core/commands/roster';
import type { Job } from '../../src/core/document/schema';
import { flattenPath } from '../../src/core/geometry/path';
import { applyMatrix, compose, rotation, translation } from '../../src/core/geometry/point';
import { Evaluator, type JobResult } from '../../src/core/job/evaluate';
import { makeFiles } from '../../src/core/job/files';
import { laidRows } from '../../src/core/job/laid-rows';
import { jobOfSheet, placesOn, sheetFindings, sheetsLaid } from '../../src/core/job/laid-sheets';
import { filledSheet, laidOutRows } from '../../src/core/job/lay-out';
import { rowShapes } from '../../src/core/job/row-shapes';
import { placeList, sheetFiles } from '../../src/core/job/sheet-files';
import { finished } from '../../src/core/memo';
import { jobInRow } from '../../src/core/roster/in-row';
import { layoutSchema, type RowLayout, turnsOf } from '../../src/core/schema/layout';
import { folder } from '../support/checkers';
import { faces, wasmEngine } from '../support/faces';
import { type Draft, jobWith, lettering, partOf, rectangle } from '../support/jobs';
import { rosterOfNames } from '../support/names';

const filling = { today: '2026-11-30' };
const means = () => ({ evaluator: new Evaluator(wasmEngine), faces });
const NAMES = ['Rowan', 'Hazel', 'Ivy', 'Juniper', 'Fern', 'Willow'];

/** Tags with a name engraved on each. */
const tags = (names: string[] = NAMES, layout: Draft = {}): Job =>
  jobWith(
    [
      partOf([rectangle('tag', 80, 30)], { id: 'tag', name: 'Tag', placement: { x: 100, y: 100 } }),
      partOf([lettering('‹Name›', 'Poppins', { size: { by: 'capital', mm: 10 }, placement: { x: 0, y: -5 } })], {
        along: 'tag',
        work: [{ what: 'fill', operation: 'engrave' }],
      }),
    ],
    { roster: rosterOfNames(names), layout, sheet: { width: 200, height: 120 } },
  );
const names = (layout: Draft = {}): Job =>
  jobWith([partOf([lettering('‹Name›', 'Pacifico', { size: { by: 'capital', mm: 14 } })])], {
    roster: rosterOfNames(NAMES),
    layout,
    sheet: { width: 200, height: 80 },
  });

function laidOut(job: Job, moves = 200): { job: Job; needed: number; laid: ReturnType<typeof finished<unknown>> } {
  const laid = finished(
    laidOutRows(job, finished(rowShapes(job, filling, means())), job.layout as RowLayout, { moves }),
  );
  return { job: setPlaces(job, laid.places), needed: laid.needed, laid };
}

/** The outlines of a job, as rings. */
const ringsOf = (result: JobResult, id: (part: string) => boolean = () => true): number[][][] =>
  result.parts.flatMap((part) =>
    id(part.id) ? part.outlines.map((o) => flattenPath(o.path, 0.01).map(({ x, y }) => [x, y])) : [],
  );

test.for([
  ['nested', names({ spacing: 2, turns: 4 })],
  ['nested, with the holes of others', tags(NAMES, { spacing: 1.5, holes: true })],
  ['in rows and columns', tags(NAMES, { way: 'rows', spacing: 4 })],
] as const)('%s: names are clear of each other and of the edge, each as it is by itself', ([, before]) => {
  const { job, needed } = laidOut(before);
  const layout = job.layout as RowLayout;
  expect(notLaid(job)).toBe(0);
  expect(needed).toBeGreaterThan(0.2);
  expect(needed).toBeLessThanOrEqual(1);
  const evaluator = new Evaluator(wasmEngine);
  const sheets = Array.from({ length: sheetsLaid(job) }, (_, sheet) => {
    const own = jobOfSheet(job, sheet, filling);
    const result = evaluator.evaluate(own, faces);
    expect(result.findings.filter((f) => ['cut-across', 'off-sheet', 'off-piece'].includes(f.code))).toEqual([]);
    return placesOn(job, sheet).map((place, nth) => {
      const alone = evaluator.evaluate(
        jobInRow(
          job,
          (job.roster?.rows ?? []).findIndex((row) => row.id === place.row),
          filling,
        ),
        faces,
      );
      const to = compose(rotation(place.turn), translation(place.x, place.y));
      const expected = ringsOf(alone).map((ring) =>
        ring.map(([x, y]) => applyMatrix(to, { x: x as number, y: y as number })),
      );
      const rings = ringsOf(result, (part) => part.startsWith(`n${nth}-`));
      expect(rings.length).toBe(expected.length);
      expect(rings.length).toBeGreaterThan(0);
      rings.flat().forEach(([x, y], i) => {
        const at = expected.flat()[i];
        expect(Math.hypot((x as number) - (at?.x ?? NaN), (y as number) - (at?.y ?? NaN))).toBeLessThan(1e-4);
      });
      // The tag alone: what is engraved lies on it.
      return layout.way === 'rows' || before.parts.length > 1 ? rings.slice(0, 1) : rings;
    });
  });
  const file = path.join(folder(), 'layouts.json');
  writeFileSync(file, JSON.stringify([{ width: job.sheet.width, height: job.sheet.height, sheets }]));
  const [judged] = JSON.parse(
    execFileSync('/usr/bin/python3', ['tests/nesting/check_spacing.py', file], { encoding: 'utf8' }),
  ) as { apart: number; edge: number }[];
  expect(judged?.apart).toBeGreaterThanOrEqual(layout.spacing - 1e-3);
  expect(judged?.edge).toBeGreaterThanOrEqual(layout.margin - 1e-3);
});

describe('what is laid', () => {
  test('as many copies as are asked for, and nothing that is left out', () => {
    const job = editRows(
      editRows(tags(), ['r1'], (row) => void Object.assign(row, { copies: 3 })),
      ['r0'],
      (row) => void Object.assign(row, { out: true }),
    );
    const { job: laid } = laidOut(job);
    const rows = laid.layout?.places.map((p) => `${p.row}/${p.copy}`).sort();
    expect(rows).toEqual(['r1/0', 'r1/1', 'r1/2', 'r2/0', 'r3/0', 'r4/0', 'r5/0']);
    // One that is left out afterwards is on no sheet any more, and one copy less neither.
    const less = editRows(
      editRows(laid, ['r2'], (row) => void Object.assign(row, { out: true })),
      ['r1'],
      (row) => void Object.assign(row, { copies: 2 }),
    );
    const on = Array.from({ length: sheetsLaid(less) }, (_, i) => placesOn(less, i)).flat();
    expect(on.map((p) => `${p.row}/${p.copy}`).sort()).toEqual(['r1/0', 'r1/1', 'r3/0', 'r4/0', 'r5/0']);
    expect(notLaid(editRows(laid, ['r0'], (row) => void Object.assign(row, { out: false })))).toBe(1);
  });

  test('what is larger than the sheet, and what is cut out of the sheet itself, is told', () => {
    const large = jobWith([partOf([lettering('‹Name›', 'Poppins', { size: { by: 'capital', mm: 60 } })])], {
      roster: rosterOfNames(['Bo', 'Marigold and Thyme']),
      layout: {},
    });
    expect(laidOut(large).laid).toMatchObject({ tooLarge: ['r1'], takesSheet: [] });
    const negative = jobWith([partOf([lettering('‹Name›', 'Poppins')], { keep: 'outside' })], {
      roster: rosterOfNames(['Bo']),
      layout: {},
    });
    expect(laidOut(negative).laid).toMatchObject({ places: [], sheets: 0, takesSheet: ['r0'] });
  });

  test('what is locked stays where it is, whichever copy, and the others are laid around it', () => {
    const twice = editRows(tags(), ['r2'], (row) => void Object.assign(row, { copies: 2 }));
    const before = laidOut(twice).job;
    const place = before.layout?.places.find((p) => p.row === 'r2' && p.copy === 1);
    if (!place) throw new Error('it was not laid');
    const moved = lockPlace(movePlace(before, place, 3.3, 2.2), place, true);
    const { job } = laidOut(moved);
    expect(job.layout?.places.find((p) => p.row === 'r2' && p.copy === 1)).toEqual(
      moved.layout?.places.find((p) => p.row === 'r2' && p.copy === 1),
    );
    expect(notLaid(job)).toBe(0);
    expect(job.layout?.places).toHaveLength(7);
    expect(finished(sheetFindings(job, filling, means()))).toEqual([]);
    expect(lockPlace(job, place, false).layout?.places.some((p) => p.locked)).toBe(false);
  });

  test('what is shown for reference only takes no room, and no sheet', () => {
    const job = changed(names(), (draft) => {
      const [words] = draft.parts;
      if (words) draft.parts.push({ ...words, id: 'panel', reference: true, keep: 'outside' });
    });
    const [alone, beside] = [names(), job].map((of) => finished(rowShapes(of, filling, means())));
    expect(beside).toEqual(alone);
  });

  test('the same list gives the same layout', () => {
    expect(laidOut(names()).job).toEqual(laidOut(names()).job);
  });

  test('turns: none, over, across, any; the grain lets them be turned over only', () => {
    expect([1, 2, 4, 3].map((turns) => turnsOf({ turns, grain: false }))).toEqual([
      [0],
      [0, 180],
      [0, 90, 180, 270],
      [0, 120, 240],
    ]);
    expect([1, 4, 24].map((turns) => turnsOf({ turns, grain: true }))).toEqual([[0], [0, 180], [0, 180]]);
  });
});

test('parts that go along, and copies of others, do so on the sheet', () => {
  const job = laidOut(tags()).job;
  const own = jobOfSheet(job, 0, filling);
  expect(own).toMatchObject({ roster: null, layout: null });
  for (const part of own.parts.filter((p) => p.along !== null))
    expect(own.parts.map((p) => p.id)).toContain(part.along);
  expect(new Set(own.parts.map((p) => p.id)).size).toBe(own.parts.length);
});

test('files of each sheet, and a list of which name lies where', () => {
  const { job } = laidOut(changed(tags(), (draft) => void Object.assign(draft, { title: 'Tags' })));
  const { sheets, refused } = finished(
    sheetFiles(job, {
      filling,
      scope: { partIds: null },
      write: (one, result, scope) => makeFiles(one, result, ['svg'], scope),
      ...means(),
    }),
  );
  expect(refused).toEqual([]);
  expect(sheets.map((s) => s.files.map((f) => f.name))).toEqual(
    Array.from({ length: sheetsLaid(job) }, (_, i) => [`tags_sheet-${i + 1}.svg`]),
  );
  const lines = new TextDecoder()
    .decode(placeList(job, sheets, filling).bytes)
    .trim()
    .split('\r\n');
  expect(lines[0]).toBe('Sheet,No.,Name,Copy,Turn,Files');
  expect(lines).toHaveLength(1 + NAMES.length);
  expect(
    lines
      .slice(1)
      .map((l) => l.split(',')[2])
      .sort(),
  ).toEqual([...NAMES].sort());
});

test.for([
  ['in rows', { way: 'rows' }, 6],
  ['nested', { way: 'nested' }, 6],
  ['larger than the sheet', { way: 'nested', margin: 50 }, 0],
] as const)('as many copies as go on one sheet, %s', ([, layout, copies]) => {
  const job = tags(['Rowan'], layout);
  const [shape] = finished(rowShapes(job, filling, means()));
  if (!shape) throw new Error('no shape');
  const filled = filledSheet(job, shape, job.layout as RowLayout);
  expect(filled.copies).toBe(copies);
  const full = setFilled(job, 'r0', Math.max(1, filled.copies), filled.places);
  expect(notLaid(full)).toBe(copies === 0 ? 1 : 0);
  expect(finished(sheetFindings(full, filling, means()))).toEqual([]);
});

test('what lies on each other, or off its sheet, is found, by the names', () => {
  const { job } = laidOut(tags());
  const found = (of: Job) => finished(sheetFindings(of, filling, means())).map((f) => f.sentence);
  expect(found(job)).toEqual([]);
  const [one, other] = (job.layout?.places ?? []).filter((place) => place.sheet === 0);
  if (!one || !other) throw new Error('too little lies on the first sheet');
  const over = movePlace(job, one, other.x - one.x + 5, other.y - one.y + 3);
  const sentences = found(over).join(' ');
  const title = (row: string) => NAMES[Number(row.slice(1))] as string;
  expect(sentences).toContain(title(one.row));
  expect(sentences).toContain(title(other.row));
  expect(found(movePlace(job, one, 1_000, 0)).join(' ')).toMatch(/sheet/);
});

test('commands: how names are laid, where one lies, and each by itself again', () => {
  const job = setLayout(tags(), newLayout());
  expect(job.layout).toEqual(layoutSchema.parse({}));
  expect(editLayout(job, { spacing: 7 }).layout?.spacing).toBe(7);
  expect(setLayout(job, job.layout)).toBe(job);
  const laid = laidOut(job).job;
  const [place] = laid.layout?.places ?? [];
  if (!place) throw new Error('nothing was laid');
  const moved = movePlace(laid, place, 1.25, -2);
  expect(moved.layout?.places[0]).toEqual({ ...place, x: place.x + 1.25, y: place.y - 2 });
  expect(movePlace(laid, { row: 'gone', copy: 0, parts: [] }, 1, 1)).toBe(laid);
  expect(setLayout(laid, null).layout).toBeNull();
  const without = setLayout(tags(), null);
  for (const done of [editLayout(without, { spacing: 1 }), setPlaces(without, []), movePlace(without, place, 1, 1)])
    expect(done).toBe(without);
});

describe('a name and its backing', () => {
  /** A plate, and a backing a little larger that copies its outline, beside each other; a note that is only shown. */
  const both = (apart: RowLayout['apart'], names = NAMES): Job =>
    jobWith(
      [
        partOf([rectangle('shape', 70, 24)], { id: 'plate', name: 'Plate', placement: { x: 60, y: 100, turn: 10 } }),
        partOf([lettering('‹Name›', 'Poppins', { size: { by: 'capital', mm: 8 }, placement: { x: 0, y: -4 } })], {
          id: 'words',
          along: 'plate',
          work: [{ what: 'fill', operation: 'engrave' }],
        }),
        partOf([{ id: 'copied', kind: 'copy', of: 'plate', placement: { x: 0, y: 0 } }], {
          id: 'backing',
          name: 'Backing',
          placement: { x: 150, y: 20 },
        }),
        partOf([rectangle('note', 10, 10)], { id: 'note', reference: true, placement: { x: 10, y: 10 } }),
      ],
      { roster: rosterOfNames(names), layout: { apart, spacing: 2 }, sheet: { width: 220, height: 70 } },
    );
  const placed = (job: Job) => {
    const laid = finished(laidRows(job, { filling, layout: job.layout as RowLayout, moves: 400 }, means()));
    return setPlaces(job, laid.places);
  };
  const bySheet = (job: Job) =>
    (job.layout as RowLayout).places.map((p) => `${p.row} ${p.parts.join('+')} on ${p.sheet}`);

  test('are one thing where nothing is said', () => {
    const job = placed(both('no'));
    expect((job.layout as RowLayout).places.every((p) => p.parts.length === 0)).toBe(true);
  });

  test.for(['same-sheet', 'free'] as const)('%s: are laid by themselves, each as it is, on one sheet', (apart) => {
    const job = placed(both(apart));
    const layout = job.layout as RowLayout;
    expect(layout.places).toHaveLength(2 * NAMES.length);
    expect(notLaid(job)).toBe(0);
    const first = layout.places.filter((p) => p.row === 'r0');
    expect(first.map((p) => p.parts).sort()).toEqual([['backing'], ['plate', 'words', 'note']]);
    // A copy is made from the plate, so that they come to one sheet in either case.
    for (const name of NAMES.keys())
      expect(new Set(layout.places.filter((p) => p.row === `r${name}`).map((p) => p.sheet)).size).toBe(1);
    expect(sheetsLaid(job)).toBeGreaterThan(1);
    expect(finished(sheetFindings(job, filling, means()))).toEqual([]);
    const evaluator = new Evaluator(wasmEngine);
    for (let sheet = 0; sheet < sheetsLaid(job); sheet++) {
      const result = evaluator.evaluate(jobOfSheet(job, sheet, filling), faces);
      placesOn(job, sheet).forEach((place, nth) => {
        const row = (job.roster?.rows ?? []).findIndex((r) => r.id === place.row);
        const alone = evaluator.evaluate(jobInRow(job, row, filling), faces);
        const to = compose(rotation(place.turn), translation(place.x, place.y));
        const expected = ringsOf(alone, (id) => place.parts.includes(id) && id !== 'note')
          .flat()
          .map(([x, y]) => applyMatrix(to, { x: x as number, y: y as number }));
        const rings = ringsOf(result, (id) => id.startsWith(`n${nth}-`) && id !== `n${nth}-3`).flat();
        expect(rings.length).toBe(expected.length);
        rings.forEach(([x, y], i) => {
          expect(
            Math.hypot((x as number) - (expected[i]?.x ?? NaN), (y as number) - (expected[i]?.y ?? NaN)),
          ).toBeLessThan(1e-4);
        });
      });
    }
  });

  test('what has become part of a locked piece since lies with it', () => {
    const job = placed(both('same-sheet', ['Ivy']));
    const backing = job.layout?.places.find((p) => p.parts[0] === 'backing');
    if (!backing) throw new Error('it was not laid');
    const more = changed(lockPlace(job, backing, true), (draft) => {
      const [plate] = draft.parts;
      if (plate) draft.parts.push({ ...plate, id: 'foot', placement: { ...plate.placement, x: 150, y: 20, turn: 0 } });
    });
    const again = placed(more);
    expect(again.layout?.places.find((p) => p.locked)?.parts).toEqual(['backing', 'foot']);
    expect(again.layout?.places.flatMap((p) => p.parts).sort()).toEqual(['backing', 'foot', 'note', 'plate', 'words']);
  });

  test('a piece is moved and locked by itself, and stays where it is', () => {
    const job = placed(both('same-sheet', ['Ivy', 'Fern']));
    const backing = (job.layout as RowLayout).places.find((p) => p.row === 'r1' && p.parts[0] === 'backing');
    if (!backing) throw new Error('it was not laid');
    const moved = movePlace(lockPlace(job, backing, true), backing, 1.5, 0);
    const differing = (moved.layout as RowLayout).places.filter(
      (p, i) => p.x !== (job.layout as RowLayout).places[i]?.x,
    );
    expect(differing.map((p) => `${p.row} ${p.parts[0]}`)).toEqual(['r1 backing']);
    const again = placed(moved);
    expect(again.layout?.places).toHaveLength(4);
    expect(again.layout?.places.find((p) => p.locked)).toEqual({ ...backing, x: backing.x + 1.5, locked: true });
    expect(finished(sheetFindings(again, filling, means()))).toEqual([]);
    expect(bySheet(again)).toHaveLength(4);
  });
});
