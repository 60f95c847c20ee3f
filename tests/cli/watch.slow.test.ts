/**
 * A folder of jobs that is prepared as it changes, and the command as it is built ahead.
 * @module-tag slow
 */
import { spawn, spawnSync } from 'node:child_process';
import {
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  rmSync,
  symlinkSync,
  utimesSync,
  writeFileSync,
} from 'node:fs';
import path from 'node:path';
import { afterEach, describe, expect, test, vi } from 'vitest';
import { currentCommand, stampOf } from '../../scripts/lib/built-command.cjs';
import type { PrepareOptions } from '../../src/cli/prepare';
import { diskFaces, ReadFaces } from '../../src/cli/typefaces';
import { prepareFolder } from '../../src/cli/watch';
import { faceOfFamily } from '../../src/core/schema/lettering';
import { folder } from '../support/checkers';
import { jobWith, lettering, partOf } from '../support/jobs';

const BIN = path.resolve('bin', 'needlefile');

const sign = (words: string): string =>
  JSON.stringify(jobWith([partOf([lettering(words, 'Poppins')])], { title: 'Sign' }));

describe('a watched folder', () => {
  const until: AbortController[] = [];
  afterEach(() => {
    for (const one of until.splice(0)) one.abort();
  });

  function watching(options: Partial<PrepareOptions> = {}) {
    const [jobs, out] = [folder(), folder()];
    const end = new AbortController();
    until.push(end);
    const said: string[] = [];
    const start = () =>
      prepareFolder(
        {
          job: jobs,
          out,
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
        { say: (line) => said.push(line), complain: (line) => said.push(line), until: end.signal },
      );
    const save = (name: string, text: string) => writeFileSync(path.join(jobs, name), text);
    const count = (words: string) => said.filter((line) => line.includes(words)).length;
    return { jobs, out, said, end, start, save, count };
  }
  const eventually = (check: () => void) => vi.waitFor(check, { timeout: 60_000, interval: 50 });

  test('has its jobs prepared, and each that comes or changes, in a folder for each', async () => {
    const { out, said, end, start, save, count } = watching({ report: 'report.json' });
    save('one.json', sign('Oak'));
    save(`${'0'.repeat(64)}.json`, '{}');
    save('notes.txt', 'no job');
    const ended = start();
    await eventually(() => expect(count('one.json: done')).toBe(1));
    expect(readdirSync(path.join(out, 'one')).sort()).toEqual(['report.json', 'sign.svg']);
    const first = readFileSync(path.join(out, 'one', 'sign.svg'), 'utf8');
    save('two.json', sign('Elm'));
    await eventually(() => expect(count('two.json: done')).toBe(1));
    save('one.json', sign('Ash'));
    await eventually(() => expect(count('one.json: done')).toBe(2));
    expect(readFileSync(path.join(out, 'one', 'sign.svg'), 'utf8')).not.toBe(first);
    expect(count('two.json: done')).toBe(1);
    end.abort();
    expect(await ended).toBe(0);
    expect(readdirSync(out).sort()).toEqual(['one', 'two']);
    expect(said.filter((line) => line.includes('notes') || line.includes('000'))).toEqual([]);
  });

  test('gives the very files of a command by itself, also for a job that comes after others', async () => {
    const { out, end, start, save, count } = watching();
    save('a.json', sign('Oak'));
    save('b.json', sign('Oak and Ash'));
    const ended = start();
    await eventually(() => expect(count(': done')).toBe(2));
    end.abort();
    await ended;
    const alone = folder();
    writeFileSync(path.join(alone, 'b.json'), sign('Oak and Ash'));
    const made = spawnSync(process.execPath, [
      BIN,
      'prepare',
      path.join(alone, 'b.json'),
      '--out',
      alone,
      '--formats',
      'svg',
    ]);
    expect(made.status).toBe(0);
    expect(readFileSync(path.join(out, 'b', 'sign.svg'), 'utf8')).toBe(
      readFileSync(path.join(alone, 'sign.svg'), 'utf8'),
    );
  });

  test('goes on after a job that can’t be used, and says that what lies there is of before', async () => {
    const { start, save, count } = watching();
    save('one.json', sign('Oak'));
    void start();
    await eventually(() => expect(count('one.json: done')).toBe(1));
    save('one.json', '{');
    await eventually(() => expect(count('one.json: can’t be used')).toBe(1));
    expect(count('was made before')).toBe(1);
    save('one.json', sign('Oak'));
    await eventually(() => expect(count('one.json: done')).toBe(2));
    expect(count('was made before')).toBe(1);
  });

  test('jobs that differ by their ending alone have folders of their own', async () => {
    const { out, start, save, count } = watching();
    save('one.json', sign('Oak'));
    save('one.needlefile', 'no archive');
    void start();
    await eventually(() => expect(count('one.json: done') + count('one.needlefile: can’t')).toBe(2));
    expect(readdirSync(out)).toEqual(['one.json']);
  });

  test('ends with 2 where it is not there, or goes, or nobody says where files go', async () => {
    const { jobs, said, start, save, count } = watching();
    save('one.json', sign('Oak'));
    const ended = start();
    await eventually(() => expect(count('one.json: done')).toBe(1));
    rmSync(jobs, { recursive: true });
    expect(await ended).toBe(2);
    expect(said.at(-1)).toBe(`The folder ${jobs} is gone.`);
    expect(await start()).toBe(2);
    expect(said.at(-1)).toBe(`There is no folder ${jobs}.`);
    const homeless = watching({ out: null });
    expect(await homeless.start()).toBe(2);
    expect(homeless.said).toEqual(['Say with --out where the files of all these jobs are to go.']);
    const astray = watching({ report: 'reports/one.json' });
    expect(await astray.start()).toBe(2);
    expect(astray.said).toHaveLength(1);
  });

  test('is ended by Ctrl C, with 0', async () => {
    const [jobs, out] = [folder(), folder()];
    writeFileSync(path.join(jobs, 'one.json'), sign('Oak'));
    const child = spawn(process.execPath, [BIN, 'prepare', jobs, '--watch', '--out', out, '--formats', 'svg']);
    let said = '';
    child.stdout.on('data', (data) => {
      said += data;
    });
    await eventually(() => expect(said).toContain('one.json: done'));
    child.kill('SIGINT');
    expect(await new Promise((resolve) => child.on('exit', resolve))).toBe(0);
  });
});

describe('the command that is built', () => {
  test('is another as soon as anything that it was made from is', () => {
    const home = folder();
    const known = path.join(home, 'current.json');
    const save = (name: string, text: string) => writeFileSync(path.join(home, name), text);
    save('main.cjs', '');
    save('a.ts', 'a');
    save('b.ts', 'b');
    const build = () =>
      save(
        'current.json',
        JSON.stringify({
          file: 'main.cjs',
          madeFrom: { 'a.ts': stampOf('a.ts', home), 'b.ts': stampOf('b.ts', home) },
        }),
      );
    expect(currentCommand(known, home)).toBeNull();
    build();
    expect(currentCommand(known, home)).toBe(path.join(home, 'main.cjs'));
    save('b.ts', 'bb');
    expect(currentCommand(known, home)).toBeNull();
    build();
    utimesSync(path.join(home, 'a.ts'), 1, 1);
    expect(currentCommand(known, home)).toBeNull();
    build();
    rmSync(path.join(home, 'a.ts'));
    expect(currentCommand(known, home)).toBeNull();
    save('a.ts', 'a');
    build();
    rmSync(path.join(home, 'main.cjs'));
    expect(currentCommand(known, home)).toBeNull();
    save('current.json', '{');
    expect(currentCommand(known, home)).toBeNull();
  });

  test('runs from any folder, by any name it is linked to', () => {
    const away = folder();
    mkdirSync(path.join(away, 'in'));
    symlinkSync(BIN, path.join(away, 'linked'));
    const { status, stdout } = spawnSync(path.join(away, 'linked'), ['--help'], {
      cwd: path.join(away, 'in'),
      encoding: 'utf8',
    });
    expect(status).toBe(0);
    expect(stdout).toContain('needlefile prepare JOB');
    expect(existsSync(path.join(away, 'in', '.local'))).toBe(false);
  });
});

test('whoever reads no further ends nothing: files are written, and it ends as it would', () => {
  const out = folder();
  const line = `"${process.execPath}" "${BIN}" prepare demo/gate-sign.json --out "${out}" --formats svg --strict | true; exit \${PIPESTATUS[0]}`;
  const { status, stderr } = spawnSync('bash', ['-c', line], { encoding: 'utf8' });
  expect([status, stderr]).toEqual([1, '']);
  expect(readdirSync(out)).toEqual(['gate-sign_mild-steel-3mm.svg']);
});

test('typefaces are read once, until their files change', async () => {
  const own = folder();
  const file = path.join(own, 'own.ttf');
  const bytes = readFileSync('public/typefaces/poppins.ttf');
  writeFileSync(file, bytes);
  const read = new ReadFaces();
  const faceOf = async () => {
    const found = (await diskFaces([faceOfFamily('Poppins'), faceOfFamily('Caveat')], own, () => {}, [], read))(
      faceOfFamily('Poppins'),
    );
    return 'typeface' in found ? found.typeface : null;
  };
  const first = await faceOf();
  expect(first).not.toBeNull();
  expect(await faceOf()).toBe(first);
  utimesSync(file, 1, 1);
  expect(await faceOf()).not.toBe(first);
});
