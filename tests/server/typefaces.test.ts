import { afterAll, beforeAll, beforeEach, describe, expect, test } from 'vitest';
import { facesAbout } from '../../src/core/lettering/about';
import type { FaceAbout } from '../../src/core/schema/face-about';
import { clearUnusedAssets, keepAsset, openAsset } from '../../src/server/assets';
import type { Database } from '../../src/server/database';
import { assets, faceMarks, jobs, typefaces } from '../../src/server/schema';
import {
  addTypeface,
  listFaceMarks,
  listTypefaces,
  markFace,
  setRemoved,
  usersOfTypeface,
} from '../../src/server/typefaces';
import { fontOf, SQUARE } from '../support/font';
import { jobWith, lettering, partOf } from '../support/jobs';
import { ownDatabase } from '../support/own-database';

let db: Database;
let close: () => Promise<void>;
let about: FaceAbout[];

beforeAll(async () => {
  ({ db, close } = await ownDatabase('typefaces'));
  const described = await facesAbout(fontOf({ glyphs: [{ char: 'A', contours: [SQUARE] }] }));
  if (!described.ok) throw new Error(described.sentence);
  about = [...described.faces];
});
afterAll(() => close());
beforeEach(async () => {
  await db.delete(typefaces);
  await db.delete(assets);
  await db.delete(jobs);
  await db.delete(faceMarks);
});

const keep = async (name: string) => (await keepAsset(db, Buffer.from(name), name)) ?? '';
const names = async () => (await listTypefaces(db)).map(({ name }) => name);

test('a file is there once, with its faces; without its bytes it is none', async () => {
  const id = await keep('scribe.ttf');
  expect(await addTypeface(db, id, about)).toBe('added');
  expect(await addTypeface(db, id, about)).toBe('known');
  expect(await listTypefaces(db)).toEqual([
    {
      content: id,
      name: 'scribe.ttf',
      addedAt: expect.stringMatching(/^\d{4}-/),
      // No more than a list shows: licences of thousands would be megabytes.
      faces: [
        {
          number: 0,
          family: 'Trial',
          style: 'Regular',
          weight: 400,
          width: 100,
          italic: false,
          isSingleStroke: false,
          foundry: '',
          look: about[0]?.look,
        },
      ],
    },
  ]);
  expect(await addTypeface(db, 'a'.repeat(64), about)).toBe('no file');
});

describe('taken out of the list', () => {
  test('it is no longer listed, can be put back, and brought in again', async () => {
    const id = await keep('scribe.ttf');
    await addTypeface(db, id, about);
    expect(await setRemoved(db, id, true)).toBe(true);
    expect(await names()).toEqual([]);
    expect(await setRemoved(db, id, false)).toBe(true);
    expect(await names()).toEqual(['scribe.ttf']);
    await setRemoved(db, id, true);
    expect(await addTypeface(db, id, about)).toBe('added');
    expect(await names()).toEqual(['scribe.ttf']);
    expect(await setRemoved(db, 'b'.repeat(64), true)).toBe(false);
  });

  test('jobs that use it are told, and keep its file as long as they do', async () => {
    const [used, unused] = [await keep('used.ttf'), await keep('unused.ttf')];
    for (const id of [used, unused]) await addTypeface(db, id, about);
    const job = jobWith([partOf([lettering('Lane', 'Scribe', { content: used })])]);
    const row = { title: 'Gate', units: 'mm' as const, material: '', width: 1, height: 1 };
    await db.insert(jobs).values({ ...row, document: job });
    await db.insert(jobs).values({ ...row, title: 'In the bin', document: job, deletedAt: new Date() });
    expect((await usersOfTypeface(db, used)).map(({ title }) => title)).toEqual(['Gate']);
    expect(await usersOfTypeface(db, unused)).toEqual([]);
    // In the list, both stay; out of it only what a job uses.
    await clearUnusedAssets(db);
    await db.update(assets).set({ unusedSince: null });
    for (const id of [used, unused]) await setRemoved(db, id, true);
    await clearUnusedAssets(db);
    const long = new Date(Date.now() - 90 * 24 * 3600 * 1000);
    const waiting = (await db.select().from(assets)).filter((a) => a.unusedSince !== null).map((a) => a.sha256);
    expect(waiting).toEqual([unused]);
    await db.update(assets).set({ unusedSince: long });
    expect(await clearUnusedAssets(db)).toBe(1);
    expect(await openAsset(db, used)).not.toBeNull();
    expect(await openAsset(db, unused)).toBeNull();
    expect(await db.select({ id: typefaces.content }).from(typefaces)).toEqual([{ id: used }]);
  });
});

test('what is noted of a face is changed bit by bit', async () => {
  await markFace(db, 'Poppins', {});
  expect(await listFaceMarks(db)).toEqual([]);
  await markFace(db, 'Poppins', { favourite: true });
  await markFace(db, 'Poppins', { look: 'rounded' });
  expect(await listFaceMarks(db)).toEqual([{ face: 'Poppins', favourite: true, look: 'rounded', usedAt: null }]);
  await markFace(db, 'Poppins', { used: true, look: null, favourite: false });
  expect(await listFaceMarks(db)).toEqual([
    { face: 'Poppins', favourite: false, look: null, usedAt: expect.stringMatching(/^\d{4}-/) },
  ]);
});
