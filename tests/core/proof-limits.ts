/** Limits of proofs, of the bench machine, and of files that were given out, by their names. */
import { createHash } from 'node:crypto';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { expect, vi } from 'vitest';
import { API } from '../../src/api/endpoints';
import { MachineLog } from '../../src/bench-machine/log';
import { Machine } from '../../src/bench-machine/machine';
import { writtenFormat } from '../../src/core/formats/written';
import { toGiveSchema } from '../../src/core/job/given-files';
import { LIMITS } from '../../src/core/limits';
import { inFaces } from '../../src/core/papers/in-faces';
import { PAPERS } from '../../src/core/papers/paper';
import { trueSizePages } from '../../src/core/papers/true-size';
import { differencesOf } from '../../src/core/proof/differences';
import { machineSchema } from '../../src/core/schema/shop/machine';
import { keepAsset } from '../../src/server/assets';
import { sendToMachine } from '../../src/server/bench-machine';
import { giveFiles, listGivenFiles } from '../../src/server/given-files';
import { createJob } from '../../src/server/jobs';
import { jobWith, lettering, partOf } from '../support/jobs';
import { ownDatabase } from '../support/own-database';
import { meantOf } from '../support/proof';

const limits = LIMITS as { -readonly [K in keyof typeof LIMITS]: number };

const home = () => mkdtempSync(path.join(tmpdir(), 'needlefile-limits-'));
const LASER = machineSchema.parse({ name: 'Laser', kind: 'laser' });
/** A machine with so many short files in its line, each sent by its name. */
async function machineWith(count: number) {
  let ms = Date.parse('2026-05-04T10:00:00Z');
  const folder = home();
  const machine = new Machine(new MachineLog(folder), () => ms, 1);
  const sent = [];
  for (let i = 0; i < count; i++) {
    const text = `<svg xmlns="http://www.w3.org/2000/svg" width="30mm" height="9mm" viewBox="0 0 30 9"><path stroke="#f00" fill="none" d="M1 1H${20 + i / 10}"/></svg>`;
    const sha256 = createHash('sha256').update(text).digest('hex');
    const bytes = Buffer.from(text).toString('base64');
    sent.push(await machine.receive({ name: `${i}.svg`, bytes, sha256, machine: LASER, set: [] }));
  }
  const pass = (seconds: number) => {
    ms += 1000 * seconds;
    return machine.state();
  };
  return { machine, sent, pass, folder };
}

export const PROOF_LIMITS = {
  paperPages: () => {
    const box = { minX: 0, minY: 0, maxX: 900, maxY: 250 };
    const shapes = { kept: [], areas: [], lines: [], box, keptMm2: 0, pieces: 0 };
    const pages = () =>
      trueSizePages('A', shapes, { faces: { plain: [], bold: [] }, paper: PAPERS.a4, mirrored: false });
    const made = pages();
    if ('sentence' in made) throw new Error(made.sentence);
    limits.paperPages = made.length;
    expect(pages()).toHaveLength(made.length);
    limits.paperPages = made.length - 1;
    expect(pages()).toEqual({ sentence: expect.stringContaining(`takes ${made.length} pages`) });
  },
  facesCompared: () => {
    const job = jobWith([partOf([lettering('Elm')])]);
    limits.facesCompared = 2;
    expect(inFaces(job, ['Poppins', 'Caveat', 'Pacifico']).map((f) => f.face)).toEqual(['Poppins', 'Caveat']);
  },
  machineLine: async () => {
    limits.machineLine = 2;
    // One runs, two are in line.
    const { sent } = await machineWith(4);
    expect(sent.map((s) => 'ok' in s)).toEqual([true, true, true, false]);
    expect(sent[3]).toEqual({ sentence: '3.svg was not taken: 2 files are in line already.' });
  },
  machineRuns: async () => {
    limits.machineRuns = 3;
    const { pass } = await machineWith(5);
    for (let i = 0; i < 20; i++) pass(60);
    expect(pass(1).runs.map((r) => r.name)).toEqual(['2.svg', '3.svg', '4.svg']);
  },
  machineEvents: async () => {
    limits.machineEvents = 6;
    const { pass, folder } = await machineWith(2);
    for (let i = 0; i < 12; i++) pass(5);
    const { runs, log } = pass(60);
    expect(runs.map((r) => r.state)).toEqual(['finished', 'finished']);
    // Where it is now, and what happened to what is in the list, is known from a shorter log as well.
    const events = new MachineLog(folder).read();
    expect(events.length).toBeLessThanOrEqual(7);
    const again = new Machine(new MachineLog(folder), () => Date.parse('2026-05-04T12:00:00Z'), 1).state();
    expect(again.runs).toEqual(runs);
    expect(again.log.map((l) => l.words)).toEqual(log.map((l) => l.words));
    limits.machineEvents = 20_000;
    const long = await machineWith(2);
    for (let i = 0; i < 12; i++) long.pass(0.2);
    expect(new MachineLog(long.folder).read().length).toBeGreaterThan(2);
  },
  machineLogLines: async () => {
    limits.machineLogLines = 2;
    const { pass } = await machineWith(3);
    expect(pass(0).log).toHaveLength(2);
    limits.machineLogLines = 3;
    expect(pass(0).log.map((l) => l.words)[0]).toBe('2.svg came, for Laser.');
    expect(pass(0).log).toHaveLength(3);
  },
  machineFileBytes: async () => {
    const { db, close } = await ownDatabase('machine-limits');
    const service = vi.spyOn(globalThis, 'fetch').mockResolvedValue(Response.json({}, { status: 500 }));
    vi.stubEnv('NEEDLEFILE_MACHINE_URL', 'http://127.0.0.1:1');
    try {
      const file = (await keepAsset(db, Buffer.from('a'.repeat(100)), 'a.svg')) as string;
      const send = () => sendToMachine(db, { name: 'a.svg', file, machine: LASER, set: [] });
      limits.machineFileBytes = 99;
      await expect(send()).rejects.toThrow(/runs files of up to/);
      expect(service).not.toHaveBeenCalled();
      limits.machineFileBytes = 100;
      await expect(send()).rejects.toThrow(/is away/);
      expect(service).toHaveBeenCalledTimes(1);
    } finally {
      vi.unstubAllEnvs();
      service.mockRestore();
      await close();
    }
  },
  fileNameCharacters: () => {
    const named = (name: string) => toGiveSchema.safeParse({ name, file: 'a'.repeat(64), proof: null }).success;
    expect(named('a'.repeat(LIMITS.fileNameCharacters))).toBe(true);
    expect(named('a'.repeat(LIMITS.fileNameCharacters + 1))).toBe(false);
  },
  givenFiles: async () => {
    const { db, close } = await ownDatabase('given-limits');
    try {
      const job = await createJob(db, jobWith([]), { picture: null, openFindings: 0 });
      const id = job?.id as string;
      const file = (await keepAsset(db, Buffer.from('a'), 'a.svg')) as string;
      limits.givenFiles = 3;
      for (const name of ['1', '2', '3', '4'])
        expect(await giveFiles(db, id, { version: 1, partIds: null, files: [{ name, file, proof: null }] })).toBe(true);
      limits.givenFiles = 10;
      expect((await listGivenFiles(db, id))?.map((f) => f.name)).toEqual(['4', '3', '2']);
    } finally {
      await close();
    }
  },
  givenAtOnce: () => {
    const files = (count: number) =>
      Array.from({ length: count }, (_, i) => ({ name: `${i}`, file: 'a'.repeat(64), proof: null }));
    const sent = (count: number) =>
      API.giveFiles.body?.safeParse({ version: 1, partIds: null, files: files(count) }).success;
    expect(sent(LIMITS.givenAtOnce)).toBe(true);
    expect(sent(LIMITS.givenAtOnce + 1)).toBe(false);
  },
  proofDifferences: () => {
    const [file] = meantOf(jobWith([partOf([lettering('Elm')])]));
    if (!file) throw new Error('there is a file');
    const missing = () => differencesOf(file.meant.drawing, [], writtenFormat('svg').keeps).length;
    limits.proofDifferences = 4;
    expect(missing()).toBeLessThanOrEqual(4);
    const few = missing();
    limits.proofDifferences = 2;
    expect(few).toBeGreaterThan(2);
    expect(missing()).toBe(2);
  },
};
