/** The bench machine: what comes, in what order it is run, and that nothing is lost when it goes off in the middle of it. */
import { createHash } from 'node:crypto';
import { appendFileSync, existsSync, mkdtempSync, readdirSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { beforeEach, describe, expect, test } from 'vitest';
import { arrivingSchema, type MachineRun } from '../../src/api/bench-machine';
import { MachineLog } from '../../src/bench-machine/log';
import { Machine } from '../../src/bench-machine/machine';
import { machineSchema } from '../../src/core/schema/shop/machine';

const LASER = machineSchema.parse({ name: 'Laser', kind: 'laser', areas: {} });
const SET = [{ name: 'Cut', kind: 'cut', speed: 10 }];
/** 100 mm at 10 mm/s, and the way to it. */
const svg = (y = 10) =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="120mm" height="60mm" viewBox="0 0 120 60"><g id="Cut"><path fill="none" stroke="#ff0000" d="M10 ${y}H110"/></g></svg>`;
const arriving = (name: string, text: string, sha256 = createHash('sha256').update(text).digest('hex')) =>
  arrivingSchema.parse({ name, bytes: Buffer.from(text).toString('base64'), sha256, machine: LASER, set: SET });

let home: string;
let ms: number;
const started = (pace = 1) => new Machine(new MachineLog(home), () => ms, pace);
const after = (machine: Machine, seconds: number) => {
  ms += 1000 * seconds;
  return machine.state();
};
const receive = async (machine: Machine, name: string, text = svg()): Promise<MachineRun> => {
  const said = await machine.receive(arriving(name, text));
  if ('sentence' in said) throw new Error(said.sentence);
  return said.ok;
};
const states = (machine: Machine) => machine.state().runs.map((run) => `${run.name} ${run.state}`);
const lines = (machine: Machine) => machine.state().log.map((line) => line.words);

beforeEach(() => {
  home = mkdtempSync(path.join(tmpdir(), 'needlefile-bench-machine-'));
  ms = Date.parse('2026-05-04T10:00:00Z');
});

describe('in line', () => {
  test('one after the other, each as long as it takes', async () => {
    const machine = started();
    const first = await receive(machine, 'first.svg');
    await receive(machine, 'second.svg', svg(20));
    expect(first.seconds).toBeGreaterThan(10);
    expect(first.seconds).toBeLessThan(11.5);
    expect(states(machine)).toEqual(['first.svg running', 'second.svg in line']);
    expect(after(machine, 5).runs[0]?.done).toBeCloseTo(5, 6);
    after(machine, 7);
    expect(states(machine)).toEqual(['first.svg finished', 'second.svg running']);
    after(machine, 12);
    expect(states(machine)).toEqual(['first.svg finished', 'second.svg finished']);
    expect(lines(machine)).toEqual([
      'second.svg is finished.',
      'second.svg began.',
      'first.svg is finished.',
      'second.svg came, for Laser.',
      'first.svg began.',
      'first.svg came, for Laser.',
    ]);
  });

  test('time passes as many times as fast as it is set', async () => {
    const machine = started(20);
    await receive(machine, 'a.svg');
    expect(after(machine, 0.25).runs[0]?.done).toBeCloseTo(5, 6);
    expect(after(machine, 1).runs[0]?.state).toBe('finished');
  });

  test('paused it stays where it is, and what is in line waits; it goes on from there', async () => {
    const machine = started();
    const { id } = await receive(machine, 'a.svg');
    await receive(machine, 'b.svg', svg(20));
    after(machine, 4);
    expect(machine.order(id, 'pause')).toEqual({ ok: null });
    after(machine, 100);
    expect(states(machine)).toEqual(['a.svg paused', 'b.svg in line']);
    expect(machine.order(id, 'pause')).toEqual({ sentence: 'a.svg is paused.' });
    machine.order(id, 'go on');
    expect(after(machine, 1).runs[0]?.done).toBeCloseTo(5, 6);
  });

  test('stopped, the next begins; taken out, it is gone from the list and its bytes from the disk', async () => {
    const machine = started();
    const a = await receive(machine, 'a.svg');
    await receive(machine, 'b.svg', svg(20));
    after(machine, 3);
    expect(machine.order(a.id, 'take out')).toEqual({ sentence: 'a.svg is running.' });
    machine.order(a.id, 'stop');
    expect(states(machine)).toEqual(['a.svg stopped', 'b.svg running']);
    expect(machine.state().runs[0]?.endedAt).not.toBeNull();
    expect(existsSync(path.join(home, 'files', a.sha256))).toBe(true);
    machine.order(a.id, 'take out');
    expect(states(machine)).toEqual(['b.svg running']);
    expect(existsSync(path.join(home, 'files', a.sha256))).toBe(false);
    expect(machine.order(a.id, 'stop')).toEqual({ sentence: 'There is no such run on the bench machine.' });
  });

  test('nothing at all, and a hundred files', async () => {
    const machine = started();
    expect(machine.state()).toEqual({ runs: [], log: [], pace: 1 });
    for (let i = 0; i < 100; i++) await receive(machine, `${i}.svg`, svg(10 + i / 10));
    expect(machine.state().runs).toHaveLength(100);
    expect(states(machine).filter((s) => s.endsWith('running'))).toHaveLength(1);
    after(machine, 3);
    // What ended and what began are told one by one, however much time passes between two looks.
    for (let i = 0; i < 200; i++) after(machine, 11.5);
    expect(states(machine).every((s) => s.endsWith('finished'))).toBe(true);
  });
});

describe('what is not taken is said, in the log too', () => {
  test.each([
    [
      'half of it',
      arriving('a.svg', svg(), createHash('sha256').update('more').digest('hex')),
      'only a part of it came.',
    ],
    ['nothing', arriving('a.svg', ''), 'it is empty.'],
    ['no drawing', arriving('a.svg', 'Elm'), 'This is no drawing that can be read here.'],
    ['an empty drawing', arriving('a.svg', svg().replace(/<g.*<\/g>/, '')), 'there is nothing in it to run.'],
  ])('%s', async (_, sent, why) => {
    const machine = started();
    const said = await machine.receive(sent);
    expect(said).toEqual({ sentence: expect.stringContaining(why) });
    expect(lines(machine)[0]).toContain(`a.svg was not taken: `);
    expect(machine.state().runs).toEqual([]);
  });

  test('what a machine would not run as meant stands beside it', async () => {
    const machine = started();
    const cutOff = await receive(machine, 'a.svg', svg().slice(0, -6));
    expect(cutOff.troubles).toEqual(['It is not whole: what is missing would not be run.']);
    expect((await receive(machine, 'b.svg')).troubles).toEqual([]);
  });
});

describe('it goes off in the middle', () => {
  test('what was at work is stopped where it was, what was in line goes on, and the log says so', async () => {
    const machine = started();
    await receive(machine, 'a.svg');
    await receive(machine, 'b.svg', svg(20));
    after(machine, 6);
    // Nothing is said to the machine before it goes off; another begins where its log ends.
    ms += 60_000;
    const again = started();
    expect(states(again)).toEqual(['a.svg stopped', 'b.svg running']);
    expect(again.state().runs[0]?.done).toBeCloseTo(6, 6);
    expect(lines(again).join('\n')).toMatch(/The machine went off in the middle of a\.svg, at 5\d %\./);
    // No time passes for what waited while it was off.
    expect(after(again, 1).runs[1]?.done).toBeCloseTo(1, 6);
  });

  test('half a line in the log, or one that is none, loses nothing else', async () => {
    const machine = started();
    await receive(machine, 'a.svg');
    after(machine, 12);
    appendFileSync(path.join(home, 'log.jsonl'), 'nothing\n{"what":"came","at":"2026-05-');
    const again = started();
    expect(states(again)).toEqual(['a.svg finished']);
    await receive(again, 'b.svg', svg(20));
    expect(states(started())).toEqual(['a.svg finished', 'b.svg stopped']);
  });

  test('half a file on the disk is never taken for one', async () => {
    const machine = started();
    const { sha256 } = await receive(machine, 'a.svg');
    const [file] = readdirSync(path.join(home, 'files'));
    expect(file).toBe(sha256);
    expect(
      createHash('sha256')
        .update(readFileSync(path.join(home, 'files', sha256)))
        .digest('hex'),
    ).toBe(sha256);
  });
});
