/** What picture files say of themselves before they are unpacked, and pixels as they are kept. */
import { deflateSync } from 'node:zlib';
import { encode } from 'fast-png';
import jpeg from 'jpeg-js';
import { describe, expect, test } from 'vitest';
import { pictureHead } from '../../src/core/formats/picture-size';
import { readPixels, writePixels } from '../../src/core/formats/pixels';
import { chance } from '../support/random';
import { sample } from '../support/scale';

const ascii = (text: string): number[] => [...text].map((c) => c.charCodeAt(0));
const u16 = (n: number): number[] => [(n >> 8) & 255, n & 255];
const u32 = (n: number): number[] => [...u16(n >>> 16), ...u16(n & 0xffff)];
const little = (bytes: number[]): number[] => [...bytes].reverse();
const file = (...parts: number[][]): Uint8Array => Uint8Array.from(parts.flat());
const rgba = (width: number, height: number) => ({ width, height, data: new Uint8Array(4 * width * height).fill(120) });

/** EXIF with an orientation and dots per inch or centimetre. */
const exif = (orientation: number, density: number, unit: number, isLittle: boolean): number[] => {
  const n16 = (n: number) => (isLittle ? little(u16(n)) : u16(n));
  const n32 = (n: number) => (isLittle ? little(u32(n)) : u32(n));
  const entry = (tag: number, type: number, value: number[]) => [...n16(tag), ...n16(type), ...n32(1), ...value];
  return [
    ...ascii(isLittle ? 'II' : 'MM'),
    ...n16(42),
    ...n32(8),
    ...n16(3),
    ...entry(0x0112, 3, [...n16(orientation), 0, 0]),
    ...entry(0x011a, 5, n32(50)),
    ...entry(0x0128, 3, [...n16(unit), 0, 0]),
    ...n32(0),
    ...n32(density),
    ...n32(1),
  ];
};
const app1 = (body: number[]): number[] => [0xff, 0xe1, ...u16(body.length + 8), ...ascii('Exif'), 0, 0, ...body];
const sof = (width: number, height: number, marker = 0xc0): number[] => [
  0xff,
  marker,
  ...u16(11),
  8,
  ...u16(height),
  ...u16(width),
  1,
  1,
  17,
  0,
];
const jfif = (unit: number, density: number): number[] => [
  0xff,
  0xe0,
  ...u16(16),
  ...ascii('JFIF'),
  0,
  1,
  1,
  unit,
  ...u16(density),
  ...u16(density),
  0,
  0,
];
const chunk = (kind: string, body: number[]): number[] => [...u32(body.length), ...ascii(kind), ...body, 0, 0, 0, 0];
const png = (width: number, height: number, ...chunks: number[][]): Uint8Array =>
  file(
    [0x89, ...ascii('PNG\r\n\x1a\n')],
    chunk('IHDR', [...u32(width), ...u32(height), 8, 2, 0, 0, 0]),
    ...chunks,
    chunk('IDAT', []),
  );

describe('a picture says how large it is', () => {
  test.each<[string, Uint8Array, object]>([
    ['PNG', png(640, 480), { format: 'PNG', width: 640, height: 480, dpi: null, orientation: 1 }],
    ['PNG with dots a metre', png(64, 48, chunk('pHYs', [...u32(11_811), ...u32(11_811), 1])), { dpi: 300, width: 64 }],
    ['PNG with dots of no unit', png(64, 48, chunk('pHYs', [...u32(11_811), ...u32(11_811), 0])), { dpi: null }],
    ['PNG taken on its side', png(64, 48, chunk('eXIf', exif(6, 300, 2, false))), { orientation: 6 }],
    [
      'JPEG',
      file([0xff, 0xd8], jfif(1, 200), sof(800, 600)),
      { format: 'JPEG', width: 800, height: 600, dpi: 200, orientation: 1 },
    ],
    ['JPEG with dots a centimetre', file([0xff, 0xd8], jfif(2, 100), sof(8, 6)), { dpi: 254 }],
    ['JPEG in steps', file([0xff, 0xd8], sof(81, 61, 0xc2)), { width: 81, height: 61, dpi: null }],
    [
      'JPEG with EXIF',
      file([0xff, 0xd8], jfif(1, 72), app1(exif(8, 600, 2, true)), sof(8, 6)),
      { orientation: 8, dpi: 600 },
    ],
    [
      'JPEG with EXIF of the other order',
      file([0xff, 0xd8], app1(exif(3, 118, 3, false)), sof(8, 6)),
      { orientation: 3, dpi: 299.72 },
    ],
    ['JPEG with filling before a marker', file([0xff, 0xd8, 0xff], jfif(1, 200), sof(8, 6)), { width: 8 }],
    ['GIF', file(ascii('GIF89a'), little(u16(320)), little(u16(200))), { format: 'GIF', width: 320, height: 200 }],
    [
      'BMP from the top',
      file(
        ascii('BM'),
        new Array(12).fill(0),
        little(u32(40)),
        little(u32(32)),
        little(u32(-24 >>> 0)),
        new Array(12).fill(0),
        little(u32(11_811)),
      ),
      { format: 'BMP', width: 32, height: 24, dpi: 300 },
    ],
    [
      'an old BMP',
      file(ascii('BM'), new Array(12).fill(0), little(u32(12)), little(u16(32)), little(u16(24))),
      { width: 32, height: 24 },
    ],
    [
      'WebP',
      file(ascii('RIFF'), u32(0), ascii('WEBPVP8 '), new Array(10).fill(0), little(u16(320)), little(u16(200))),
      { format: 'WebP', width: 320, height: 200 },
    ],
    [
      'WebP without loss',
      file(ascii('RIFF'), u32(0), ascii('WEBPVP8L'), u32(0), [0x2f], little(u32((199 << 14) | 319))),
      { width: 320, height: 200 },
    ],
    [
      'WebP with more in it',
      file(
        ascii('RIFF'),
        u32(0),
        ascii('WEBPVP8X'),
        little(u32(10)),
        [0, 0, 0, 0],
        [63, 1, 0],
        [199, 0, 0],
        ascii('EXIF'),
        little(u32(60)),
        ascii('Exif'),
        [0, 0],
        exif(6, 300, 2, true),
      ),
      { width: 320, height: 200, orientation: 6 },
    ],
    [
      'AVIF',
      file(
        u32(24),
        ascii('ftypavif'),
        u32(0),
        ascii('mif1miaf'),
        u32(20),
        ascii('ispe'),
        u32(0),
        u32(16),
        u32(16),
        u32(20),
        ascii('ispe'),
        u32(0),
        u32(320),
        u32(200),
      ),
      { format: 'AVIF', width: 320, height: 200 },
    ],
  ])('%s', (_, bytes, head) => {
    expect(pictureHead(bytes)).toMatchObject(head);
  });

  test('as other programs write them', () => {
    expect(pictureHead(encode({ ...rgba(33, 21), channels: 4, depth: 8 }))).toMatchObject({
      format: 'PNG',
      width: 33,
      height: 21,
    });
    expect(pictureHead(new Uint8Array(jpeg.encode(rgba(33, 21), 80).data))).toMatchObject({
      format: 'JPEG',
      width: 33,
      height: 21,
    });
  });

  test('what is none says nothing', () => {
    const noPictures = [
      new Uint8Array(),
      file(ascii('<svg/>')),
      file(ascii('BM hello there, this is no picture at all')),
      png(0, 9),
      file([0xff, 0xd8, 0xff, 0xda, 0, 2]),
    ];
    expect(noPictures.map(pictureHead)).toEqual([null, null, null, null, null]);
  });

  test('wherever it breaks off, and whatever is changed in it, it ends and says something sensible or nothing', () => {
    const random = chance(4);
    const whole = [
      png(64, 48, chunk('eXIf', exif(6, 300, 2, false))),
      file([0xff, 0xd8], jfif(1, 200), app1(exif(8, 600, 2, true)), sof(800, 600)),
    ];
    for (let i = 0; i < 2000; i++) {
      const bytes = (whole[i % 2] as Uint8Array).slice(0, 1 + Math.floor(random() * 160));
      for (let k = 0; k < 3; k++) bytes[Math.floor(random() * bytes.length)] = Math.floor(random() * 256);
      const head = pictureHead(bytes);
      if (head) expect(head.width * head.height).toBeGreaterThan(0);
    }
  });
});

describe('pixels', () => {
  const picture = (channels: 1 | 2 | 3 | 4) => ({
    width: 7,
    height: 5,
    channels,
    data: Uint8Array.from({ length: 35 * channels }, (_, i) => (i * 37) % 256),
  });

  test.each([1, 2, 3, 4] as const)('of %i channels come back as they were', (channels) => {
    expect(readPixels(writePixels(picture(channels)))).toEqual(picture(channels));
  });

  test('of a file that unpacks to more than it says are none, and are not unpacked', () => {
    const packed = deflateSync(Buffer.alloc(80_000_000));
    const bomb = png(10, 10, chunk('IDAT', [...packed]));
    const began = process.memoryUsage().arrayBuffers;
    expect(readPixels(bomb)).toBeNull();
    expect(process.memoryUsage().arrayBuffers - began).toBeLessThan(40_000_000);
  });

  test('whatever is changed in a file, there are pixels of its size or none', { tags: 'slow' }, () => {
    const random = chance(5);
    const whole = writePixels(picture(3));
    for (let i = 0; i < sample(30, 2_000); i++) {
      const bytes = whole.slice(0, i % 3 === 0 ? 1 + Math.floor(random() * whole.length) : whole.length);
      for (let k = 0; k < 2; k++) bytes[Math.floor(random() * bytes.length)] = Math.floor(random() * 256);
      const read = readPixels(bytes);
      if (read) expect(read.data).toHaveLength(read.width * read.height * read.channels);
    }
  });

  test('of another depth, of a palette, or spoiled, are none', () => {
    const deep = encode({ width: 2, height: 1, channels: 1, depth: 16, data: new Uint16Array([1, 60_000]) });
    expect(readPixels(deep)).toBeNull();
    const bytes = writePixels(picture(3));
    expect(readPixels(bytes.subarray(0, bytes.length - 30))).toBeNull();
    expect(readPixels(file(ascii('not a picture')))).toBeNull();
  });
});
