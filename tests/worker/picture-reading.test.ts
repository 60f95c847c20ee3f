/** A picture looked at before it is brought in. */
import { describe, expect, test } from 'vitest';
import type { PictureHead } from '../../src/core/formats/picture-size';
import { writePixels } from '../../src/core/formats/pixels';
import { closedPath } from '../../src/core/geometry/path';
import { arcAbout } from '../../src/core/geometry/segment';
import { type Decode, lookAtPicture } from '../../src/worker/picture-reading';
import { CLEAN, pictureOf } from '../support/degraded';

const disc = closedPath([arcAbout(30, 30, 18, 0, Math.PI), arcAbout(30, 30, 18, Math.PI, Math.PI)]);
const raster = pictureOf([disc], 60, 60, CLEAN);
const head: PictureHead = { format: 'PNG', width: 60, height: 60, dpi: 300, orientation: 1 };
const decode: Decode = async () => ({ raster, png: writePixels(raster) });
const look = (more: Partial<PictureHead> = {}, how: Decode = decode, told: number[] = []) =>
  lookAtPicture(new Uint8Array([1]), { ...head, ...more }, how, (share) => told.push(share));

describe('a picture', () => {
  test('comes with its size, its pixels, and what each start would trace', async () => {
    const told: number[] = [];
    const found = await look({}, decode, told);
    expect(found).toMatchObject({
      ok: true,
      isPicture: true,
      format: 'PNG',
      columns: 60,
      rows: 60,
      dpi: 300,
      came: null,
      tones: 'dark',
      likely: 'clear',
    });
    if (!found.ok) return;
    expect(found.starts.map((s) => [s.id, s.shapes])).toEqual([
      ['clear', 1],
      ['photo', 1],
      ['lines', 1],
    ]);
    expect(found.starts[0]?.d).toMatch(/^M.*Z$/);
    expect(told.at(-1)).toBe(1);
    expect([...told]).toEqual([...told].sort((a, b) => a - b));
  });

  test('taken on its side is asked for upright', async () => {
    const asked: unknown[] = [];
    await look({ width: 80, height: 20, orientation: 6 }, async (bytes, size) => {
      asked.push(size);
      return decode(bytes, size);
    });
    expect(asked).toEqual([{ columns: 20, rows: 80 }]);
  });

  test('of one tone has nothing to trace, and still comes in', async () => {
    const plain = { ...raster, data: new Uint8Array(3600).fill(200) };
    const found = await look({}, async () => ({ raster: plain, png: writePixels(plain) }));
    expect(found).toMatchObject({ ok: true, starts: [{ shapes: 0, d: '' }, { shapes: 0 }, { shapes: 0 }] });
  });

  test('that breaks off is told of', async () => {
    const found = await look({}, async () => Promise.reject(new Error('broken')));
    expect(found).toEqual({
      ok: false,
      sentence: 'This PNG picture breaks off, or is not as it should be: it can’t be unpacked.',
    });
  });
});
