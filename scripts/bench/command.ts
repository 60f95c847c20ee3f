/** The headless command from its start to its end, against a process that does nothing; and a job that a warm one prepares anew. */
import { spawnSync } from 'node:child_process';
import { copyFileSync, mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { prepareFolder } from '../../src/cli/watch';
import { figure } from '../../tests/support/figures';
import { middle } from './median';

const ROUNDS = 7;
const out = mkdtempSync(path.join(tmpdir(), 'needlefile-'));

function timed(args: readonly string[]): number {
  const began = performance.now();
  const { status } = spawnSync(process.execPath, args, { stdio: 'ignore' });
  if (status !== 0) throw new Error(`${args.join(' ')} ended with ${status}`);
  return performance.now() - began;
}

const prepare = (name: string): string[] => ['bin/needlefile', 'prepare', `demo/${name}.json`, '--out', out];
const commands: Readonly<Record<string, readonly string[]>> = {
  'says how it is used': ['bin/needlefile', '--help'],
  'prepares a one-line plaque in four formats': prepare('bench-plaque'),
  'prepares a gate sign in four formats': prepare('gate-sign'),
};
// Built before it is timed.
timed(['bin/needlefile', '--help']);
const nothing: number[] = [];
const times = new Map<string, number[]>(Object.keys(commands).map((name) => [name, []]));
for (let round = 0; round < ROUNDS; round++) {
  nothing.push(timed(['-e', '0']));
  for (const [name, args] of Object.entries(commands)) times.get(name)?.push(timed(args));
}
for (const [name, all] of times)
  figure({
    name: `the command ${name}, against node -e 0`,
    value: middle(all) / middle(nothing),
    digits: 1,
    unit: '×',
    aim: { most: 4 },
    note: `${middle(all).toFixed(0)} ms against ${middle(nothing).toFixed(0)} ms`,
  });

// Warm: the same sign with another word each time, from the change of its file to its files.
const jobs = mkdtempSync(path.join(tmpdir(), 'needlefile-'));
const file = path.join(jobs, 'gate-sign.json');
copyFileSync('demo/gate-sign.json', file);
const text = readFileSync(file, 'utf8');
const end = new AbortController();
const seconds: number[] = [];
const words = ['GARDEN', 'GRADEN', 'GARNED', 'RAGDEN', 'DENGAR', 'NEDRAG'];
await prepareFolder(
  {
    job: jobs,
    out,
    formats: ['svg', 'dxf', 'pdf', 'hpgl'],
    report: null,
    date: null,
    roster: null,
    typefaces: null,
    assets: null,
    machine: null,
    strict: false,
  },
  {
    say: (line) => {
      const took = /: done, ([\d.]+) s$/.exec(line)?.[1];
      if (took === undefined) return;
      seconds.push(Number(took));
      const next = words[seconds.length];
      if (next) writeFileSync(file, text.replaceAll('GARDEN', next));
      else end.abort();
    },
    complain: (line) => {
      throw new Error(line);
    },
    until: end.signal,
  },
);
figure({
  name: 'a gate sign with another word, prepared by a warm command, against node -e 0',
  value: (1000 * middle(seconds.slice(1))) / middle(nothing),
  digits: 1,
  unit: '×',
  aim: { most: 4 },
  note: `${(1000 * middle(seconds.slice(1))).toFixed(0)} ms`,
});
