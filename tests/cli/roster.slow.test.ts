/**
 * The headless command for jobs that are made for a list of names.
 * @module-tag slow
 */
import { existsSync, mkdtempSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { expect, test } from 'vitest';
import { check } from '../../src/cli/check';
import { type PrepareOptions, prepare } from '../../src/cli/prepare';
import { jobWith, lettering, partOf } from '../support/jobs';
import { rosterOfNames } from '../support/names';

const home = mkdtempSync(path.join(tmpdir(), 'names-'));
const save = (name: string, content: string): string => {
  const file = path.join(home, name);
  writeFileSync(file, content);
  return file;
};
const tags = (names: string[], more: object = {}): string =>
  save(
    `tags-${names.length}.json`,
    JSON.stringify(
      jobWith([partOf([lettering('‹Name›', 'Pacifico', { size: { by: 'capital', mm: 20 } })])], {
        title: 'Tags',
        roster: { ...rosterOfNames(names), ...more },
      }),
    ),
  );

/** The command with all that it says. */
async function run(options: Partial<PrepareOptions> & { job: string }) {
  const [out, err]: [string[], string[]] = [[], []];
  const code = await prepare(
    {
      out: null,
      formats: ['svg'],
      report: null,
      date: null,
      roster: null,
      typefaces: null,
      assets: null,
      machine: null,
      strict: false,
      ...options,
    },
    (line) => out.push(line),
    (line) => err.push(line),
  );
  return { code, out, err };
}

test('files of each name of the job’s own list, a list of what is where, and a report by row', async () => {
  const out = path.join(home, 'own');
  const report = path.join(home, 'own.json');
  const { code } = await run({ job: tags(['sage', 'fern', 'sage']), out, report });
  expect(code).toBe(0);
  expect(readdirSync(out).sort()).toEqual(['tags_fern.svg', 'tags_list.csv', 'tags_sage.svg', 'tags_sage_2.svg']);
  expect(readFileSync(path.join(out, 'tags_sage.svg'))).toEqual(readFileSync(path.join(out, 'tags_sage_2.svg')));
  const { rows } = JSON.parse(readFileSync(report, 'utf8'));
  expect(
    rows.map((r: { row: number; name: string; files: string[]; spoiled: boolean }) => [
      r.row,
      r.name,
      r.files,
      r.spoiled,
    ]),
  ).toEqual([
    [1, 'sage', ['tags_sage.svg'], false],
    [2, 'fern', ['tags_fern.svg'], false],
    [3, 'sage', ['tags_sage_2.svg'], false],
  ]);
  expect(rows[0].sheets[0].parts[0].keptPieces).toBe(1);
  expect(rows[1].cells).toEqual({ Name: 'fern' });
});

test('names from a file; --strict ends with 1 where one of them would be spoiled', async () => {
  const out = path.join(home, 'file');
  const list = save('names.csv', 'Name;Bed\nrowan;3\nij;4\n');
  const asked = { job: tags(['sage']), roster: list, out };
  const { code, out: said } = await run(asked);
  expect(code).toBe(0);
  expect(readdirSync(out).sort()).toEqual(['tags_ij.svg', 'tags_list.csv', 'tags_rowan.svg']);
  expect(said).toContain('fault: row 2, ij: The dot of i is not attached.');
  expect((await run({ ...asked, strict: true })).code).toBe(1);
  const whole = save('whole.csv', 'Name\nrowan\n');
  expect((await run({ ...asked, roster: whole, strict: true })).code).toBe(0);
});

test('a list that can’t be used is told, and nothing is written', async () => {
  const out = path.join(home, 'none');
  const job = tags(['sage']);
  expect(await run({ job, out, roster: path.join(home, 'gone.csv') })).toMatchObject({
    code: 2,
    err: [`There is no file ${path.join(home, 'gone.csv')}.`],
  });
  const empty = save('empty.csv', '');
  expect(await run({ job, out, roster: empty })).toMatchObject({ code: 2, err: [`${empty}: This file is empty.`] });
  expect(existsSync(out)).toBe(false);
});

test('a date in the list is that of the files; without one it is told', async () => {
  const job = tags(['sage'], {
    columns: [
      { id: 'name', kind: 'typed', name: 'Name' },
      { id: 'day', kind: 'date', name: 'Day' },
    ],
  });
  expect((await run({ job })).err).toContain(
    'The list of names has the date in it: say it with --date, or it stays empty.',
  );
  expect((await run({ job, date: '2026-11-30' })).err).toEqual([]);
});

test('a file is held against a row; without one the command asks which', async () => {
  const out = path.join(home, 'checked');
  const job = tags(['sage', 'fern']);
  await run({ job, out });
  const held = async (row: number | null) => {
    const [lines, err]: [string[], string[]] = [[], []];
    const code = await check(
      {
        files: [path.join(out, 'tags_fern.svg')],
        machine: null,
        json: false,
        job: { job, row, typefaces: null, assets: null },
      },
      (line) => lines.push(line),
      (line) => err.push(line),
    );
    return { code, err };
  };
  expect(await held(2)).toEqual({ code: 0, err: [] });
  expect((await held(1)).code).toBe(1);
  expect(await held(null)).toEqual({
    code: 2,
    err: ['This job is made for a list of names: say which of them with --row, from 1.'],
  });
  expect((await held(3)).err).toEqual(['There is no row 3 in the list of names; it has 2.']);
});

test('names that are laid: files of each sheet, a report of each sheet and of each row', async () => {
  const laid = (more: object) =>
    save(
      'laid.json',
      JSON.stringify(
        jobWith(
          [
            partOf([lettering('‹Name›', 'Poppins', { size: { by: 'capital', mm: 12 } })], {
              work: [{ what: 'fill', operation: 'engrave' }],
            }),
          ],
          {
            title: 'Laid',
            roster: rosterOfNames(['sage', 'rowan', 'ivy']),
            sheet: { width: 200, height: 100 },
            ...more,
          },
        ),
      ),
    );
  const out = path.join(home, 'laid');
  const report = path.join(home, 'laid-report.json');
  const blanks = { columns: 2, rows: 1, width: 70, height: 30, x: 50, y: 50, across: 90 };
  const job = laid({ layout: { way: 'blanks', blanks } });
  const ran = await run({ job, out, report, strict: true });
  expect(ran.out.filter((line) => !line.startsWith(out))).toEqual([]);
  expect(ran.code).toBe(0);
  expect(readdirSync(out).sort()).toEqual(['laid_list.csv', 'laid_sheet-1.svg', 'laid_sheet-2.svg']);
  const said = JSON.parse(readFileSync(report, 'utf8'));
  expect(
    said.rows.map((row: { name: string; onSheets: number[]; files: string[]; spoiled: boolean }) => [
      row.name,
      row.onSheets,
      row.files,
      row.spoiled,
    ]),
  ).toEqual([
    ['sage', [1], ['laid_sheet-1.svg'], false],
    ['rowan', [1], ['laid_sheet-1.svg'], false],
    ['ivy', [2], ['laid_sheet-2.svg'], false],
  ]);
  expect(said.sheets.map((sheet: { nth: number }) => sheet.nth)).toEqual([1, 2]);
  // Too large for their blanks: told by name, and nothing that the sheets only repeat.
  const small = laid({ layout: { way: 'blanks', blanks: { ...blanks, width: 20, height: 6, size: 'as-set' } } });
  const spoiled = await run({ job: small, strict: true });
  expect(spoiled.code).toBe(1);
  expect(spoiled.out.filter((line) => line.includes('sage'))).toEqual([
    expect.stringContaining('sage is larger than its blank.'),
    expect.stringContaining('sheet 1: “sage” reaches over its blank.'),
  ]);
});
