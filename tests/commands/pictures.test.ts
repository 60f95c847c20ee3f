/** Pictures on the sheet: laid, moved, sized, turned, straightened, cropped, traced, pressed on. */
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import {
  croppedBox,
  editPicture,
  layPicture,
  layPictureOf,
  movedPicture,
  pickTone,
  pictureBox,
  pictureMatrix,
  pixelAt,
  putPicture,
  removePicture,
  sizedPicture,
  straightenedPicture,
  tracePicture,
  turnedPicture,
  unpickTone,
} from '../../src/core/commands/pictures';
import { checkJob } from '../../src/core/document/read';
import type { Job, PlacedPicture, Trace } from '../../src/core/document/schema';
import { growPart } from '../../src/core/document/sizes';
import { applyMatrix } from '../../src/core/geometry/point';
import { jobWith } from '../support/jobs';

const kept = { name: 'leaf.jpg', original: 'b'.repeat(64), pixels: 'a'.repeat(64), columns: 400, rows: 300 };
const empty = jobWith([]);
const laid = (job: Job = empty, scale = 0.5) => layPicture(job, kept, scale, { x: 200, y: 100 });
const job = laid().job;
const picture = job.pictures[0] as PlacedPicture;
const traceIn = (now: Job): Trace => now.parts.at(-1)?.members[0] as Trace;
const valid = (now: Job) => expect(checkJob(JSON.parse(JSON.stringify(now)))).toMatchObject({ ok: true });

describe('laid on the sheet', () => {
  test('with its middle where it is asked for, under an id of its own', () => {
    expect(laid().pictureId).toBe('picture-1');
    expect(laid(job).pictureId).toBe('picture-2');
    expect(pictureBox(picture)).toEqual({ minX: 100, minY: 25, maxX: 300, maxY: 175 });
    valid(laid(job).job);
  });

  test('and taken off again; what was traced stays', () => {
    const traced = tracePicture(job, picture.id, 'clear').job;
    const off = removePicture(traced, picture.id);
    expect([off.pictures.length, off.parts.length]).toEqual([0, 1]);
    expect(removePicture(job, 'none')).toBe(job);
  });
});

describe('placed', () => {
  test('moved, and put in its place', () => {
    const moved = putPicture(job, movedPicture(picture, 10, -5));
    expect(moved.pictures[0]?.placement).toMatchObject({ x: 210, y: 95 });
    expect(moved.parts).toBe(job.parts);
  });

  test('sized about a point, which stays where it is in the picture', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.2, max: 5, noNaN: true }),
        fc.integer({ min: 0, max: 400 }),
        fc.integer({ min: 0, max: 300 }),
        (factor, x, y) => {
          const turned = turnedPicture(picture, 33, { x: 10, y: 20 });
          const about = applyMatrix(pictureMatrix(turned), { x: x - 200, y: y - 150 });
          const sized = sizedPicture(turned, factor, about);
          const after = applyMatrix(pictureMatrix(sized), { x: x - 200, y: y - 150 });
          expect(Math.hypot(after.x - about.x, after.y - about.y)).toBeLessThan(0.01);
          expect(sized.scale).toBeCloseTo(0.5 * factor, 6);
        },
      ),
    );
  });

  test('a pixel stays within what documents take', () => {
    expect(sizedPicture(picture, 1e9, { x: 0, y: 0 }).scale).toBe(1000);
    expect(sizedPicture(picture, 1e-9, { x: 0, y: 0 }).scale).toBe(1e-5);
  });

  test('turned about a point, less than half round', () => {
    const turned = turnedPicture(picture, 270, { x: 200, y: 100 });
    expect(turned.placement).toMatchObject({ x: 200, y: 100, turn: -90 });
    expect(turnedPicture(picture, 90, { x: 0, y: 0 }).placement).toMatchObject({ x: -100, y: 200 });
  });

  test.each([
    [{ x: 0, y: 0 }, { x: 100, y: 10 }, -5.7106],
    [{ x: 100, y: 10 }, { x: 0, y: 0 }, -5.7106],
    [{ x: 0, y: 0 }, { x: 5, y: 100 }, 2.8624],
    [{ x: 7, y: 7 }, { x: 7, y: 7 }, 0],
  ])('straightened so that %j to %j is level or upright', (from, to, turn) => {
    expect(straightenedPicture(picture, from, to).placement.turn).toBeCloseTo(turn, 3);
  });
});

describe('cropped', () => {
  const cropped = editPicture(job, picture.id, ({ crop }) => {
    Object.assign(crop, { left: 100, bottom: 50 });
  }).pictures[0] as PlacedPicture;

  test('what is left lies where it lay', () => {
    expect(croppedBox(cropped)).toEqual({ minX: -100, minY: -100, maxX: 200, maxY: 150 });
    expect(pictureBox(cropped)).toEqual({ minX: 150, minY: 50, maxX: 300, maxY: 175 });
  });

  test('cropped away altogether, a pixel is left', () => {
    const { minX, maxX } = croppedBox({ ...cropped, crop: { left: 390, right: 390, top: 0, bottom: 0 } });
    expect(maxX - minX).toBe(1);
  });

  test('places are told in pixels from the top left, none outside of what is left', () => {
    const matrix = pictureMatrix(cropped);
    expect(pixelAt(cropped, matrix, { x: 200, y: 100 })).toEqual({ x: 200, y: 150 });
    expect(pixelAt(cropped, matrix, { x: 300, y: 175 })).toEqual({ x: 400, y: 0 });
    expect(pixelAt(cropped, matrix, { x: 120, y: 100 })).toBeNull();
  });
});

describe('traced', () => {
  test('over the picture, in mm at its size, cut', () => {
    const done = tracePicture(job, picture.id, 'clear');
    const trace = traceIn(done.job);
    expect(done.partId).toBe('part-1');
    expect(trace).toMatchObject({
      pixels: kept.pixels,
      scale: 0.5,
      least: 1.5,
      follow: null,
      tones: { by: 'dark', evenLight: false },
    });
    const part = done.job.parts[0];
    expect([part?.name, part?.work]).toEqual(['leaf', [{ what: 'outline', operation: 'cut', only: null }]]);
    expect(part?.placement).toMatchObject({ x: 200, y: 100 });
    valid(done.job);
  });

  test('as a photo with even light and larger things kept; of a logo by what is solid', () => {
    const logo = editPicture(job, picture.id, (p) => {
      p.likely = 'opaque';
    });
    expect(traceIn(tracePicture(logo, picture.id, 'photo').job)).toMatchObject({
      least: 3,
      tones: { by: 'opaque', evenLight: true },
    });
  });

  test('as a line drawing with lines down the middle, marked', () => {
    const { job: made } = tracePicture(job, picture.id, 'lines');
    expect(made.parts[0]?.steps.map((s) => s.kind)).toEqual(['weld', 'centerline']);
    expect(made.parts[0]?.work).toEqual([{ what: 'centerline', operation: 'mark', only: null }]);
    valid(made);
  });

  test('of no picture nothing is traced', () => {
    expect(tracePicture(job, 'none', 'clear')).toEqual({ job, partId: null });
  });

  test('pressing on tones makes these count, and begins with none', () => {
    const traced = tracePicture(job, picture.id, 'clear').job;
    const id = traceIn(traced).id;
    const once = pickTone(traced, 'part-1', id, { x: 1, y: 2 }, true);
    const twice = pickTone(once, 'part-1', id, { x: 3, y: 4 }, false);
    expect(traceIn(twice).tones).toMatchObject({
      by: 'picked',
      picks: [
        { x: 1, y: 2, belongs: true },
        { x: 3, y: 4, belongs: false },
      ],
    });
    expect(pickTone(traced, 'part-1', 'none', { x: 1, y: 2 }, true)).toBe(traced);
    const back = unpickTone(twice, 'part-1', id);
    expect(traceIn(back).tones).toMatchObject({ by: 'picked', picks: [{ x: 1 }] });
    expect(traceIn(unpickTone(back, 'part-1', id)).tones).toMatchObject({ by: 'dark', picks: [] });
  });

  test('sized, it keeps the same things', () => {
    const part = structuredClone(tracePicture(job, picture.id, 'clear').job.parts[0]) as Job['parts'][number];
    (part.members[0] as Trace).follow = 0.2;
    growPart(part, 2, false);
    expect(part.members[0]).toMatchObject({ scale: 1, least: 3, follow: 0.4 });
  });

  test.each([false, true])('its picture is laid under it again where it lies now, mirrored: %s', (mirror) => {
    const traced = tracePicture(job, picture.id, 'clear').job;
    const at = { x: 40, y: 30, turn: 25, mirror };
    const matrix = pictureMatrix({ scale: 1, placement: at });
    const { job: again } = layPictureOf(
      traced,
      { ...traceIn(traced), crop: { left: 5, right: 0, top: 0, bottom: 0 } },
      matrix,
    );
    expect(again.pictures[1]).toMatchObject({ scale: 0.5, placement: at, crop: { left: 5 } });
  });
});
