/** A job taken from one installation to another: between two databases, and to the headless command. */
import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { readJob } from '../../src/core/document/read';
import type { Job } from '../../src/core/document/schema';
import { writeFound } from '../../src/core/formats/found-file';
import { writePixels } from '../../src/core/formats/pixels';
import { readDrawing } from '../../src/core/formats/read';
import { closedPath } from '../../src/core/geometry/path';
import { arcAbout } from '../../src/core/geometry/segment';
import { openTaken } from '../../src/core/job/taken-along';
import { facesAbout } from '../../src/core/lettering/about';
import { keepAsset, openAsset } from '../../src/server/assets';
import type { Database } from '../../src/server/database';
import { createJob } from '../../src/server/jobs';
import { addTypeface, listTypefaces } from '../../src/server/typefaces';
import { Host } from '../../src/worker/host';
import { pictureOf } from '../support/degraded';
import { renamed, restricted } from '../support/font';
import { jobWith, lettering, partOf } from '../support/jobs';
import { ownDatabase } from '../support/own-database';

type Installation = { readonly db: Database; readonly host: Host; readonly close: () => Promise<void> };

async function installation(name: string): Promise<Installation> {
  const { db, close } = await ownDatabase(name);
  const host = new Host(
    async (file) => new Uint8Array(readFileSync(`public/typefaces/${file}`)),
    async (id) => {
      const found = await openAsset(db, id);
      if (!found) throw new Error('There is no such file.');
      return new Uint8Array(found.bytes);
    },
    () => new Promise((resolve) => setImmediate(resolve)),
    () => performance.now(),
  );
  return { db, host, close };
}

let here: Installation;
let there: Installation;
beforeAll(async () => {
  here = await installation('taken_here');
  there = await installation('taken_there');
});
afterAll(async () => {
  await here.close();
  await there.close();
});

const hash = (bytes: Uint8Array | string) => createHash('sha256').update(bytes).digest('hex');

/** Bring a typeface in, as the page does. */
async function bringIn({ db }: Installation, font: Uint8Array, name: string): Promise<string> {
  const content = (await keepAsset(db, Buffer.from(font), name)) ?? '';
  const described = await facesAbout(font);
  if (!described.ok) throw new Error(described.sentence);
  await addTypeface(db, content, described.faces);
  return content;
}

/** Open what was taken along, as the page does. */
async function opened({ db }: Installation, bytes: Uint8Array): Promise<Job> {
  const taken = openTaken(bytes);
  if (!taken.ok) throw new Error(taken.sentence);
  for (const { id, as, name, bytes: file } of taken.files) {
    expect(await keepAsset(db, Buffer.from(file), name)).toBe(id);
    if (as !== 'typeface') continue;
    const described = await facesAbout(file);
    if (described.ok) await addTypeface(db, id, described.faces);
  }
  const stored = await createJob(db, taken.job, NOTHING_SEEN);
  const read = readJob(JSON.stringify(stored?.document));
  if (!read.ok) throw new Error(read.sentences.join(' '));
  return read.job;
}

const NOTHING_SEEN = { picture: null, openFindings: 0 };

const script = new Uint8Array(readFileSync('public/typefaces/pacifico.ttf'));
const FORMATS = ['svg', 'dxf', 'pdf', 'hpgl'] as const;

async function emblem(font: Uint8Array): Promise<Job> {
  const content = await bringIn(here, font, 'house.ttf');
  const reading = readDrawing(new Uint8Array(readFileSync('demo/drawings/tool-shed.dxf')));
  if (!reading.ok) throw new Error(reading.sentence);
  const drawing = writeFound(reading.found);
  const disc = closedPath([arcAbout(40, 30, 20, 0, Math.PI), arcAbout(40, 30, 20, Math.PI, Math.PI)]);
  const pixels = writePixels(pictureOf([disc], 80, 60, { name: 'clean' }));
  await keepAsset(here.db, Buffer.from(drawing), '');
  await keepAsset(here.db, Buffer.from(pixels), '');
  return jobWith([
    partOf([
      lettering('Alder Lane\nGarden', 'House Script', {
        content,
        size: { by: 'capital', mm: 18 },
        along: { line: { kind: 'circle', radius: 60 }, bottom: true },
        closeUp: { overlap: 0.8 },
      }),
    ]),
    partOf(
      [
        {
          id: 'art',
          kind: 'artwork',
          placement: { x: 150, y: 100 },
          drawing: hash(drawing),
          scale: 25.4,
          close: { gap: 0.5 },
        },
      ],
      { id: 'shed' },
    ),
    partOf(
      [
        {
          id: 'm',
          kind: 'trace',
          placement: { x: 60, y: 40 },
          pixels: hash(pixels),
          columns: 80,
          rows: 60,
          scale: 0.5,
        },
      ],
      { id: 'disc' },
    ),
  ]);
}

test('the files written there are those written here, byte for byte', async () => {
  const job = await emblem(renamed(script, 'House Script'));
  const stored = await createJob(here.db, job, NOTHING_SEEN);
  expect(stored?.document).toEqual(job);
  const taken = await here.host.takeAlong(job);
  expect(taken.leftOut).toEqual([]);
  // Nothing of it is there yet.
  expect(await listTypefaces(there.db)).toEqual([]);
  const arrived = await opened(there, taken.bytes);
  expect(arrived).toEqual(job);
  expect((await listTypefaces(there.db)).flatMap((t) => t.faces.map((f) => f.family))).toEqual(['House Script']);
  const [before, after] = [
    await here.host.files(job, FORMATS, { partIds: null }),
    await there.host.files(arrived, FORMATS, { partIds: null }),
  ];
  expect(before.refused).toEqual([]);
  expect(before.files.length).toBe(FORMATS.length);
  for (const [i, file] of before.files.entries()) {
    expect(after.files[i]?.name).toBe(file.name);
    expect(Buffer.compare(Buffer.from(after.files[i]?.bytes ?? []), Buffer.from(file.bytes)), file.name).toBe(0);
  }
  // Taken along again it comes to the same file.
  expect(Buffer.compare(Buffer.from((await there.host.takeAlong(arrived)).bytes), Buffer.from(taken.bytes))).toBe(0);
  // The same once more is another job, with the same files.
  await opened(there, taken.bytes);
  expect((await listTypefaces(there.db)).length).toBe(1);
});

test('the typeface that one name of a list has of its own goes along', async () => {
  const content = await bringIn(here, renamed(script, 'Own Script'), 'own.ttf');
  const own = { parts: [{ id: 'part', members: [{ id: 'words', set: { face: 'Own Script', content } }] }] };
  const job = jobWith([partOf([lettering('‹Name›', 'Poppins')])], {
    roster: {
      columns: [{ id: 'name', kind: 'typed', name: 'Name' }],
      rows: [
        { id: 'r0', cells: ['Rowan'] },
        { id: 'r1', cells: ['Ivy'], own },
      ],
    },
  });
  const taken = await here.host.takeAlong(job);
  expect(taken.leftOut).toEqual([]);
  expect(await opened(there, taken.bytes)).toEqual(job);
  expect((await listTypefaces(there.db)).flatMap((t) => t.faces.map((f) => f.family))).toContain('Own Script');
});

test('a typeface that may not be handed on stays here; its words are cut there as they are', async () => {
  const job = await emblem(restricted(renamed(script, 'Customer Script')));
  const named = {
    ...job,
    parts: job.parts.map((p) => ({
      ...p,
      members: p.members.map((m) => (m.kind === 'lettering' ? { ...m, face: 'Customer Script' } : m)),
    })),
  };
  const taken = await here.host.takeAlong(named);
  expect(taken.leftOut.join(' ')).toContain('Customer Script stays here');
  const arrived = await opened(there, taken.bytes);
  expect((await listTypefaces(there.db)).flatMap((t) => t.faces.map((f) => f.family))).not.toContain('Customer Script');
  const view = await there.host.evaluate(arrived, null);
  const before = await here.host.evaluate(named, null);
  const findings = JSON.stringify(view);
  expect(findings).toContain('The typeface Customer Script is not here');
  const boxes = (update: typeof view) =>
    update?.parts.map((p) => (typeof p === 'string' ? p : Object.values(p.box).map((v) => Math.round(v * 1e3))));
  expect(boxes(view)).toEqual(boxes(before));
});

test('what is not at hand is told, and the rest goes along', async () => {
  const job = jobWith([
    partOf([
      {
        id: 'art',
        kind: 'artwork',
        placement: { x: 0, y: 0 },
        drawing: hash('nothing'),
        original: hash('none'),
        name: 'shed.dxf',
      },
    ]),
  ]);
  const taken = await here.host.takeAlong(job);
  expect(taken.leftOut.join(' ')).toContain('shed.dxf does not go along');
  expect(await opened(there, taken.bytes)).toEqual(job);
});
