/** @module-tag slow */

import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { copyFileSync, existsSync, mkdirSync, readdirSync, readFileSync, truncateSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { describe, expect, test } from 'vitest';
import { addSheet, putOnSheet } from '../../src/core/commands/sheets';
import { typeSetting } from '../../src/core/commands/shop';
import { writeFound } from '../../src/core/formats/found-file';
import { writePixels } from '../../src/core/formats/pixels';
import { readDrawing } from '../../src/core/formats/read';
import { closedPath } from '../../src/core/geometry/path';
import { arcAbout } from '../../src/core/geometry/segment';
import { Evaluator } from '../../src/core/job/evaluate';
import { type Report, reportOf } from '../../src/core/job/report';
import { packJob } from '../../src/core/job/taken-along';
import { folder } from '../support/checkers';
import { pictureOf } from '../support/degraded';
import { faces, wasmEngine } from '../support/faces';
import { fontOf, renamed, SQUARE, woffOf } from '../support/font';
import { demoJobs, jobWith, lettering, partOf } from '../support/jobs';

const runBy = (command: readonly string[], args: readonly string[]) => {
  const result = spawnSync(process.execPath, [...command, ...args], { encoding: 'utf8' });
  return { code: result.status, out: result.stdout, err: result.stderr };
};
const run = (...args: string[]) => runBy(['bin/needlefile'], args);

const home = folder();
const entriesOf = (dir: string) => (existsSync(dir) ? readdirSync(dir) : []);
const save = (name: string, document: unknown): string => {
  const file = path.join(home, name);
  writeFileSync(file, typeof document === 'string' ? document : JSON.stringify(document));
  return file;
};

test('files and report of a sample job', () => {
  const out = path.join(home, 'out');
  const report = path.join(home, 'reports', 'gate.json');
  const result = run('prepare', 'demo/gate-sign.json', '--out', out, '--formats', 'svg,dxf', '--report', report);
  expect(result.code).toBe(0);
  expect(readdirSync(out).sort()).toEqual(['gate-sign_mild-steel-3mm.dxf', 'gate-sign_mild-steel-3mm.svg']);
  const job = demoJobs().get('gate-sign');
  if (!job) throw new Error('no gate sign');
  const read = JSON.parse(readFileSync(report, 'utf8')) as Report;
  expect(read).toEqual(JSON.parse(JSON.stringify(reportOf(job, new Evaluator(wasmEngine).evaluate(job, faces)))));
  const [plate] = read.parts;
  expect(plate?.box).toEqual({ x: 20, y: 20, width: 560, height: 220 });
  expect(plate?.keptPieces).toBe(8);
  expect(plate?.openPaths).toBe(0);
  expect(plate?.pieces.map((p) => p.kind).sort()).toEqual([...Array(7).fill('island'), 'main']);
  expect(plate?.pieces.reduce((sum, p) => sum + p.areaMm2, 0)).toBeCloseTo(plate?.keptAreaMm2 ?? 0, 2);
  expect(read.operations.find((o) => o.id === 'cut')?.lengthMm).toBeGreaterThan(1560);
});

test('pictures that are traced are found beside the job, and traced as elsewhere', () => {
  const disc = closedPath([arcAbout(40, 30, 20, 0, Math.PI), arcAbout(40, 30, 20, Math.PI, Math.PI)]);
  const bytes = writePixels(pictureOf([disc], 80, 60, { name: 'clean' }));
  const id = createHash('sha256').update(bytes).digest('hex');
  const trace = { id: 'm', kind: 'trace', pixels: id, columns: 80, rows: 60, scale: 0.5, placement: { x: 100, y: 90 } };
  const job = jobWith([partOf([trace])]);
  const document = save('traced.json', job);
  const out = path.join(home, 'traced');
  expect(run('prepare', document, '--out', out, '--formats', 'svg').out).toContain(
    'can’t be used: It is not at hand here.',
  );
  writeFileSync(path.join(home, `${id}.png`), bytes);
  const report = path.join(home, 'traced-report.json');
  const { code, err } = run('prepare', document, '--out', out, '--formats', 'svg', '--report', report);
  expect([code, err]).toEqual([0, '']);
  const here = new Evaluator(wasmEngine);
  here.addPicture(id, bytes);
  expect(JSON.parse(readFileSync(report, 'utf8'))).toEqual(
    JSON.parse(JSON.stringify(reportOf(job, here.evaluate(job, faces)))),
  );
});

test('drawings are found beside the job or in the folder that is named; without one its place is told', () => {
  const reading = readDrawing(readFileSync('demo/drawings/tool-shed.dxf'));
  if (!reading.ok) throw new Error(reading.sentence);
  const text = writeFound(reading.found);
  const id = createHash('sha256').update(text).digest('hex');
  const job = jobWith([
    partOf([
      { id: 'art', kind: 'artwork', placement: { x: 150, y: 100 }, drawing: id, scale: 25.4, close: { gap: 0.5 } },
    ]),
  ]);
  const file = save('shed.json', job);
  const report = path.join(home, 'shed-report.json');
  expect(run('prepare', file, '--report', report).out).toContain('can’t be used');
  mkdirSync(path.join(home, 'drawings'));
  writeFileSync(path.join(home, 'drawings', `${id}.json`), text);
  const found = run(
    'prepare',
    file,
    '--report',
    report,
    '--drawings',
    path.join(home, 'drawings'),
    '--out',
    path.join(home, 'shed'),
  );
  expect(found.code).toBe(0);
  const [part] = (JSON.parse(readFileSync(report, 'utf8')) as Report).parts;
  expect(part?.box?.width).toBeCloseTo(228.6, 3);
  expect(part?.openPaths).toBe(0);
  copyFileSync(path.join(home, 'drawings', `${id}.json`), path.join(home, `${id}.json`));
  expect(run('prepare', file, '--report', report).out).not.toContain('can’t be used');
});

test('a job taken along is taken in place of a document, with all that came with it', () => {
  const reading = readDrawing(readFileSync('demo/drawings/tool-shed.dxf'));
  if (!reading.ok) throw new Error(reading.sentence);
  const drawing = new TextEncoder().encode(writeFound(reading.found));
  const script = renamed(new Uint8Array(readFileSync('public/typefaces/pacifico.ttf')), 'House Script');
  const hash = (bytes: Uint8Array) => createHash('sha256').update(bytes).digest('hex');
  const job = jobWith([
    partOf([lettering('Alder', 'House Script', { content: hash(script) })]),
    partOf([{ id: 'art', kind: 'artwork', placement: { x: 150, y: 150 }, drawing: hash(drawing), scale: 9 }], {
      id: 'shed',
    }),
  ]);
  const files = [
    { id: hash(script), as: 'typeface', name: 'House Script', bytes: script },
    { id: hash(drawing), as: 'drawing', name: '', bytes: drawing },
  ] as const;
  const packed = path.join(home, 'emblem.needlefile');
  writeFileSync(packed, packJob(job, files, []));
  const whole = run('prepare', packed, '--out', path.join(home, 'packed'), '--formats', 'svg,dxf', '--strict');
  expect(whole.err).toBe('');
  expect(whole.out).not.toContain('can’t be used');
  // The same from a document beside its files.
  const beside = path.join(home, 'beside');
  mkdirSync(beside);
  writeFileSync(path.join(beside, 'house.ttf'), script);
  writeFileSync(path.join(beside, `${hash(drawing)}.json`), drawing);
  writeFileSync(path.join(beside, 'emblem.json'), JSON.stringify(job));
  const plain = ['--typefaces', beside, '--out', path.join(home, 'plain'), '--formats', 'svg,dxf'];
  expect(run('prepare', path.join(beside, 'emblem.json'), ...plain).out).not.toContain('can’t be used');
  for (const name of readdirSync(path.join(home, 'plain')))
    expect(readFileSync(path.join(home, 'packed', name)).equals(readFileSync(path.join(home, 'plain', name)))).toBe(
      true,
    );

  writeFileSync(packed, packJob(job, [{ ...files[0], bytes: script.slice(0, 1000) }, files[1]], []));
  expect(run('prepare', packed)).toMatchObject({ code: 2, err: expect.stringContaining('did not arrive whole') });
  writeFileSync(packed, 'nothing of the kind');
  expect(run('prepare', packed)).toMatchObject({ code: 2, err: expect.stringContaining('no zip file') });
});

test('with --strict open faults end with 1, answered ones with 0', () => {
  expect(run('prepare', 'demo/gate-sign.json', '--strict').code).toBe(1);
  expect(run('prepare', 'demo/bench-plaque.json', '--strict').code).toBe(0);
  // Where it was never said, words are to hang together.
  const said = (hangsTogether: string | null) =>
    run('prepare', save('said.json', jobWith([partOf([lettering('HI')], { hangsTogether })])), '--strict');
  expect(said(null)).toMatchObject({ code: 1, out: expect.stringContaining('is not attached') });
  expect(said('no')).toMatchObject({ code: 0, out: '' });
});

test('the day is said, kept in the files and, where asked for, in their names', () => {
  const job = save('dated.json', jobWith([partOf([lettering('Oak')])], { export: { nameFields: ['date', 'job'] } }));
  const out = (name: string) => path.join(home, name);
  const dated = run('prepare', job, '--out', out('dated'), '--formats', 'svg', '--date', '2026-05-04');
  expect(dated).toMatchObject({ code: 0, err: '' });
  expect(readFileSync(path.join(out('dated'), '2026-05-04_trial.svg'), 'utf8')).toContain('>2026-05-04</date>');
  const undated = run('prepare', job, '--out', out('undated'), '--formats', 'svg');
  expect(undated).toMatchObject({ code: 0, err: expect.stringContaining('say it with --date') });
  expect(readFileSync(path.join(out('undated'), 'trial.svg'), 'utf8')).not.toContain('date');
  expect(run('prepare', job, '--date', '4.5.2026')).toMatchObject({
    code: 2,
    err: expect.stringContaining('is no day'),
  });
});

describe('input that can’t be used ends with 2 and a sentence', () => {
  test.each([
    [['prepare', '/nowhere.json'], /no file/],
    [['prepare', save('broken.json', '{')], /not valid JSON/],
    [['prepare', save('newer.json', { format: 99, sheet: { width: 1, height: 1 } })], /newer Needlefile/],
    [['prepare', save('zero.json', { format: 1, sheet: { width: 0, height: 10 } })], /sheet\.width must be at least 1/],
    [['prepare', save('huge.json', `"${'x'.repeat(20 * 1024 * 1024)}"`)], /20\.0 MB/],
    [['prepare', 'demo/gate-sign.json', '--formats', 'cdr'], /“cdr” is not a format/],
    [['prepare', 'demo/gate-sign.json', '--typefaces', '/nowhere'], /no folder/],
    [['prepare'], /one job document/],
    [['paint', 'demo/gate-sign.json'], /Say “prepare”/],
    [['prepare', 'demo/gate-sign.json', '--unknown'], /unknown/i],
  ])('%j', (args, sentence) => {
    const result = run(...args);
    expect(result.code).toBe(2);
    expect(result.err).toMatch(sentence);
    expect(result.err).not.toMatch(/at .*:\d+:\d+/);
  });
});

test('a document of 600 MB is answered with a sentence, and not read', () => {
  const file = path.join(home, 'giant.json');
  writeFileSync(file, '{');
  truncateSync(file, 600 * 1024 * 1024);
  const result = run('prepare', file);
  expect(result.code).toBe(2);
  expect(result.err).toBe('This job document has 600.0 MB; up to 8 MB can be read.\n');
});

describe('all files of one command are written, or none', () => {
  const job = save('all-or-none.json', jobWith([partOf([lettering('H')])]));

  test('--out on a file', () => {
    const file = save('taken', 'this is no folder');
    const result = run('prepare', job, '--out', file);
    expect(result.code).toBe(2);
    expect(result.err).toMatch(/can’t be written: there is a file where a folder is to be\. No file is written\.\n$/);
    expect(readFileSync(file, 'utf8')).toBe('this is no folder');
    expect(run('prepare', job, '--out', path.join(file, 'deeper')).err).toContain('a file where a folder is to be');
  });

  test('a folder where a file is to be, or a report that can’t be written', () => {
    const out = path.join(home, 'half');
    mkdirSync(path.join(out, 'trial.pdf'), { recursive: true });
    const result = run('prepare', job, '--out', out);
    expect(result.code).toBe(2);
    expect(result.out).toBe('');
    expect(result.err).toContain('trial.pdf can’t be written: there is a folder of that name. No file is written.');
    expect(entriesOf(out)).toEqual(['trial.pdf']);
    const other = path.join(home, 'other');
    const report = run('prepare', job, '--out', other, '--report', path.join(home, 'taken', 'report.json'));
    expect([report.code, entriesOf(other)]).toEqual([2, []]);
  });

  test('what stood there is written over, and nothing is left beside it', () => {
    const out = path.join(home, 'again');
    for (let i = 0; i < 2; i++) expect(run('prepare', job, '--out', out).code).toBe(0);
    expect(entriesOf(out).sort()).toEqual(['trial.dxf', 'trial.pdf', 'trial.plt', 'trial.svg']);
  });
});

describe('numbers beyond all measure are refused with their field', () => {
  const part = (more: object) => ({
    format: 4,
    sheet: { width: 300, height: 200 },
    parts: [{ id: 'p', placement: { x: 0, y: 0 }, members: [], ...more }],
  });
  const member = (more: object) => part({ members: [{ id: 'm', placement: { x: 0, y: 0 }, ...more }] });
  // Every field is tried in limits.test.ts; here, that nothing is written.
  test.each<[string, object, RegExp]>([
    [
      'a coordinate that is still a number',
      member({ kind: 'path', d: 'M0 0L1e308 1e308L5 5Z' }),
      /^parts\[0\]\.members\[0\]\.d: 1e308 is too far out/,
    ],
    [
      'a tie',
      part({ steps: [{ kind: 'tie', width: 1e-300 }] }),
      /^parts\[0\]\.steps\[0\]\.width must be at least 0\.001/,
    ],
  ])('%s', (name, document, sentence) => {
    const out = path.join(home, `far-${name.replace(/ /g, '-')}`);
    const result = run('prepare', save('far.json', document), '--out', out);
    expect(result.err).toMatch(sentence);
    expect([result.code, existsSync(out)]).toEqual([2, false]);
  });

  test('copies of copies at a thousand times are told, and the rest is written', () => {
    const copies = Array.from({ length: 5 }, (_, i) => ({
      ...partOf([{ id: 'c', kind: 'copy', of: `p${i}`, scale: 1000, placement: { x: 0, y: 0 } }]),
      id: `p${i + 1}`,
    }));
    const out = path.join(home, 'copies');
    const result = run(
      'prepare',
      save('copies.json', jobWith([{ ...partOf([lettering('H')]), id: 'p0' }, ...copies])),
      '--out',
      out,
    );
    expect(result.code).toBe(0);
    expect(result.out).toMatch(/fault: Something in .* would be [\d,.]+ m large; up to 1,000 m is drawn\./);
    expect(entriesOf(out)).toHaveLength(4);
  });
});

test('a job with nothing to write says so and writes nothing', () => {
  const out = path.join(home, 'nothing');
  const job = jobWith([partOf([lettering('H')], { work: [] })]);
  const result = run('prepare', save('nothing.json', job), '--out', out);
  expect(result.code).toBe(0);
  expect(result.err).toMatch(/no file is written/);
  expect(existsSync(out)).toBe(false);
});

test('more typefaces come from a folder by their family name; files that are none are named', () => {
  const dir = path.join(home, 'faces');
  mkdirSync(path.join(dir, 'deep'), { recursive: true });
  copyFileSync('public/typefaces/caveat.ttf', path.join(dir, 'deep', 'renamed.ttf'));
  writeFileSync(path.join(dir, 'bad.otf'), 'not a typeface at all');
  const packed = woffOf(fontOf({ glyphs: [...'Lane'].map((char) => ({ char, contours: [SQUARE] })) }));
  writeFileSync(path.join(dir, 'packed.woff'), packed);
  const content = createHash('sha256').update(packed).digest('hex');
  const job = jobWith([
    partOf([lettering('Lane', 'caveat')]),
    partOf([lettering('Lane', 'Whatever it is called', { content })], { id: 'packed' }),
    partOf([lettering('Lane', 'Caveat', { content: 'f'.repeat(64) })], { id: 'another' }),
  ]);
  const result = run(
    'prepare',
    save('folder.json', job),
    '--typefaces',
    dir,
    '--strict',
    '--report',
    path.join(home, 'folder.report.json'),
  );
  expect(result.err).toContain('bad.otf: The file is not a typeface we can read');
  const report = JSON.parse(readFileSync(path.join(home, 'folder.report.json'), 'utf8')) as Report;
  expect(report.parts[0]?.paths).toBeGreaterThan(0);
  // By what is in it, whatever it is called; another file of the same name is not taken for it.
  expect(report.parts[1]?.paths).toBe(4);
  expect(report.parts[2]?.paths).toBe(0);
  expect(result.out).toMatch(/The typeface Caveat can’t be used: It is not among the typefaces here/);
  const missing = run('prepare', save('missing.json', jobWith([partOf([lettering('Lane', 'Nowhere')])])), '--strict');
  expect(missing.code).toBe(1);
  expect(missing.out).toMatch(/Nowhere can’t be used/);
});

test('on another machine it takes another time; what is no machine is said', () => {
  const job = jobWith([partOf([lettering('Elm')], { id: 'part' })], {
    operations: [{ id: 'cut', name: 'Cut', kind: 'cut', settings: { typed: { speed: 20 } } }],
  });
  const document = save('timed.json', job);
  const seconds = (acceleration: number): Report => {
    const machine = save(`machine-${acceleration}.json`, {
      name: 'Twin',
      kind: 'laser',
      acceleration: { x: acceleration, y: acceleration },
    });
    const report = path.join(home, `timed-${acceleration}.report.json`);
    expect(run('prepare', document, '--machine', machine, '--report', report).code).toBe(0);
    return JSON.parse(readFileSync(report, 'utf8'));
  };
  const [slow, fast] = [seconds(50), seconds(5000)];
  expect(fast.seconds).toBeGreaterThan(10);
  expect(slow.seconds).toBeGreaterThan(fast.seconds + 2);
  expect(fast.timeNotKnown).toEqual([]);
  expect(fast.operations[0]?.order).toHaveLength(3);
  const refused = (text: string) => run('prepare', document, '--machine', save('no-machine.json', text));
  expect(refused('{"name":"Twin","kind":"kettle"}')).toMatchObject({
    code: 2,
    err: expect.stringMatching(/is no machine: kind: /),
  });
  expect(refused('Twin')).toMatchObject({ code: 2, err: expect.stringMatching(/is no JSON/) });
  expect(run('prepare', document, '--machine', path.join(home, 'none.json'))).toMatchObject({ code: 2 });
});

describe('files are checked', () => {
  const svg = (inside: string) =>
    `<svg xmlns="http://www.w3.org/2000/svg" width="100mm" height="60mm" viewBox="0 0 100 60">${inside}</svg>`;
  const square = '<path d="M10 10H40V40H10Z" fill="none" stroke="#ff0000"/>';

  test('what a machine understands of each, in lines and as JSON', () => {
    const [good, bad] = [save('good.svg', svg(square)), save('bad.svg', svg('<text x="5" y="5">Elm</text>'))];
    const one = run('check', good);
    expect(one.code).toBe(0);
    expect(one.out).toContain('1. #ff0000: 1 path, 120 mm, ');
    expect(one.out).toContain('It runs as it is.');
    const both = run('check', good, bad, path.join(home, 'gone.dxf'), '--json');
    expect(both.code).toBe(1);
    const report = JSON.parse(both.out) as { runs: boolean; operations?: { lengthMm: number }[]; sentence?: string }[];
    expect(report.map((r) => r.runs)).toEqual([true, false, false]);
    expect(report[0]?.operations?.[0]?.lengthMm).toBe(120);
    expect(report[2]?.sentence).toContain('There is no file');
  });

  test('held against a machine; one that can’t be used ends with 2', () => {
    const good = save('good.svg', svg(square));
    const machine = save('dxf-machine.json', { name: 'Table', kind: 'plasma', file: { format: 'dxf' } });
    const held = run('check', good, '--machine', machine);
    expect(held.code).toBe(1);
    expect(held.out).toContain('Table reads DXF; this is SVG.');
    expect(run('check', good, '--machine', save('none.json', '{}')).code).toBe(2);
  });

  test('held against a job: its own files run, with their times; what was changed since is told', () => {
    const out = path.join(home, 'checked');
    const settings = { typed: { speed: 20 } };
    const text = readFileSync('demo/gate-sign.json', 'utf8');
    const job = JSON.parse(text) as { operations: object[]; parts: object[] };
    const timed = { ...job, operations: job.operations.map((o) => ({ ...o, settings })) };
    const meant = save('timed.json', timed);
    expect(run('prepare', meant, '--out', out, '--formats', 'svg,dxf')).toMatchObject({ code: 0 });
    const files = readdirSync(out).map((name) => path.join(out, name));
    expect(files).toHaveLength(2);
    // Without a machine any of its formats will do.
    const own = run('check', ...files, '--job', meant, '--json');
    expect(own.code).toBe(0);
    const [report] = JSON.parse(own.out) as [{ seconds: number; operations: { seconds: number }[]; differences: [] }];
    expect(report).toMatchObject({ runs: true, differences: [] });
    expect(report.seconds).toBeGreaterThan(1);
    expect(report.operations.reduce((sum, o) => sum + o.seconds, 0)).toBeCloseTo(report.seconds, 2);
    const other = run('check', ...files, '--job', save('other.json', text.replaceAll('ALDER', 'ELDER')));
    expect(other.code).toBe(1);
    expect(other.out).toContain('! Not as the job is now: ');
    expect(run('check', ...files, '--job', path.join(home, 'none.json')).code).toBe(2);
  });

  test('of a job with several sheets the times are those of the sheet that a file is of', () => {
    const rectangle = (id: string, width: number, height: number) =>
      partOf([{ id: `r-${id}`, kind: 'rectangle', placement: { x: 0, y: 0 }, width, height }], {
        id,
        placement: { x: 100, y: 100 },
        work: [{ what: 'outline', operation: 'cut' }],
      });
    const both = addSheet(
      typeSetting(jobWith([rectangle('slow', 100, 100), rectangle('fast', 120, 80)]), 'cut', 'speed', 10),
    );
    const job = typeSetting(putOnSheet(both.job, ['fast'], both.sheetId), 'cut', 'speed', 50);
    const meant = save('two-sheets.json', { ...job, title: 'Two', sheet: { ...job.sheet, material: 'Birch' } });
    const out = path.join(home, 'two-sheets');
    expect(run('prepare', meant, '--out', out, '--formats', 'svg')).toMatchObject({ code: 0 });
    const seconds = readdirSync(out).map((name) => {
      const { code, out: said } = run('check', path.join(out, name), '--job', meant, '--json');
      expect(code, said).toBe(0);
      return (JSON.parse(said) as [{ seconds: number }])[0].seconds;
    });
    // 400 mm at 10 and at 50 mm a second.
    expect(seconds.map((s) => Math.round(s)).sort((p, q) => p - q)).toEqual([8, 40]);
  });

  test('an option that a command would pass over is told', () => {
    const good = save('good.svg', svg(square));
    const refused = (...args: string[]) => {
      const { code, err } = run(...args);
      expect(code).toBe(2);
      return err;
    };
    expect(refused('check', good, '--strict')).toContain('“check” does not take “--strict”.');
    expect(refused('prepare', 'demo/gate-sign.json', '--job', good)).toContain('“prepare” does not take “--job”.');
    expect(refused('check', good, '--typefaces', home)).toContain('say that with --job');
  });
});
