/** Limits of typefaces by their names: what is just within goes, what is just beyond does not. */
import { expect, vi } from 'vitest';
import { facesAbout } from '../../src/core/lettering/about';
import { letterForms } from '../../src/core/lettering/forms';
import { loadTypeface } from '../../src/core/lettering/typeface';
import { LIMITS } from '../../src/core/limits';
import { faceAboutSchema } from '../../src/core/schema/face-about';
import { keepAsset } from '../../src/server/assets';
import { addTypeface } from '../../src/server/typefaces';
import { TypefaceReader } from '../../src/worker/client';
import { collectionOf, fontOf, SQUARE, type TestGlyph, woffOf } from '../support/font';
import { ownDatabase } from '../support/own-database';
import { workersAnswer } from '../support/workers';

const limits = LIMITS as { -readonly [K in keyof typeof LIMITS]: number };
const A: TestGlyph = { char: 'A', contours: [SQUARE] };
const plain = fontOf({ glyphs: [A] });

async function sentence(file: Uint8Array): Promise<string> {
  const load = await loadTypeface(file);
  return load.ok ? 'read' : load.sentence;
}
async function aboutOf(file: Uint8Array) {
  const described = await facesAbout(file);
  if (!described.ok) throw new Error(described.sentence);
  return described.faces[0] as (typeof described.faces)[number];
}
async function isBroken(glyphs: readonly TestGlyph[], glyph: number): Promise<boolean> {
  const load = await loadTypeface(fontOf({ glyphs }));
  if (!load.ok) throw new Error(load.sentence);
  return load.typeface.isBroken(glyph);
}
/** An axis table with so many axes and named places. */
function variationTable(axes: number, instances: number): Uint8Array {
  const size = 4 + 4 * axes;
  const view = new DataView(new ArrayBuffer(16 + 20 * axes + size * instances));
  for (const [i, value] of [1, 0, 16, 2, axes, 20, instances, size].entries()) view.setUint16(2 * i, value);
  for (let i = 0; i < axes; i++) {
    const at = 16 + 20 * i;
    view.setUint32(at, 0x41303030 + i);
    for (const [k, value] of [0, 100, 900].entries()) view.setInt32(at + 4 + 4 * k, value << 16);
    view.setUint16(at + 18, 1);
  }
  for (let i = 0; i < instances; i++) view.setUint16(16 + 20 * axes + size * i, 2);
  return new Uint8Array(view.buffer);
}
/** An about that is as it should be, changed. */
const about = async (more: object) => faceAboutSchema.safeParse({ ...(await aboutOf(plain)), ...more }).success;

/** Each limit of typefaces by its name, with what tries it. */
export const TYPEFACE_LIMITS = {
  typefaceBytes: async () => {
    limits.typefaceBytes = plain.length;
    expect(await sentence(plain)).toBe('read');
    limits.typefaceBytes = plain.length - 1;
    expect(await sentence(plain)).toMatch(/larger than 0 MB/);
  },
  typefaceUnpackedBytes: async () => {
    const packed = woffOf(plain);
    limits.typefaceUnpackedBytes = plain.length;
    expect(await sentence(packed)).toBe('read');
    limits.typefaceUnpackedBytes = 200;
    expect(await sentence(packed)).toMatch(/unpacks to more than/);
    const claim = Uint8Array.from('wOF2', (c) => c.charCodeAt(0));
    const woff2 = new Uint8Array(48);
    woff2.set(claim);
    new DataView(woff2.buffer).setUint32(16, 201);
    expect(await sentence(woff2)).toMatch(/unpacks to more than/);
  },
  facesInFile: async () => {
    const two = collectionOf([plain, plain]);
    limits.facesInFile = 2;
    expect(await sentence(two)).toBe('read');
    limits.facesInFile = 1;
    expect(await sentence(two)).toMatch(/holds 2 faces; at most 1 are read/);
  },
  typefaceGlyphs: async () => {
    limits.typefaceGlyphs = 2;
    expect(await sentence(plain)).toBe('read');
    limits.typefaceGlyphs = 1;
    expect(await sentence(plain)).toMatch(/more than 1 glyphs/);
    const svg = (glyphs: string) =>
      new TextEncoder().encode(`<svg xmlns="http://www.w3.org/2000/svg"><font>${glyphs}</font></svg>`);
    expect(await sentence(svg('<glyph unicode="a" d="M0 0V9"/>'))).toBe('read');
    expect(await sentence(svg('<glyph unicode="a" d="M0 0V9"/><glyph unicode="b" d="M0 0V9"/>'))).toMatch(
      /more than 1/,
    );
  },
  compositeDepth: async () => {
    const nested: TestGlyph[] = [
      A,
      { char: 'B', components: [{ glyph: 1 }] },
      { char: 'C', components: [{ glyph: 2 }] },
    ];
    limits.compositeDepth = 2;
    expect(await isBroken(nested, 3)).toBe(false);
    limits.compositeDepth = 1;
    expect(await isBroken(nested, 3)).toBe(true);
    expect(await isBroken(nested, 2)).toBe(false);
    // One that is made of itself is never done.
    limits.compositeDepth = 16;
    expect(await isBroken([{ char: 'A', components: [{ glyph: 1 }] }], 1)).toBe(true);
  },
  glyphSegments: async () => {
    limits.glyphSegments = 4;
    expect(await isBroken([A], 1)).toBe(false);
    limits.glyphSegments = 3;
    expect(await isBroken([A], 1)).toBe(true);
  },
  facesFeatures: async () => {
    limits.facesFeatures = 1;
    expect(await about({ features: [{ tag: 'ss01', name: 'a', forms: [] }] })).toBe(true);
    const file = (await import('node:fs')).readFileSync('public/typefaces/poppins.ttf');
    expect((await aboutOf(new Uint8Array(file))).features).toHaveLength(1);
  },
  faceForms: async () => {
    const load = await loadTypeface(plain);
    if (!load.ok) throw new Error(load.sentence);
    // A face in which every value of a feature gives another glyph.
    const many = {
      ...load.typeface,
      shape: (_text: string, _way: string, { features }: { features: readonly { value: number }[] }) => [
        { glyph: features[0]?.value ?? 0, cluster: 0, advance: 0, dx: 0, dy: 0 },
      ],
    } as typeof load.typeface;
    limits.faceForms = 5;
    const letter = { text: 'A', at: 0, features: {} };
    expect(letterForms(many, letter, [{ tag: 'salt', name: 'Other', forms: [] }])).toHaveLength(6);
  },
  faceAxes: async () => {
    const file = (axes: number) => fontOf({ glyphs: [A], tables: { fvar: variationTable(axes, 0) } });
    limits.faceAxes = 2;
    expect((await aboutOf(file(2))).axes).toHaveLength(2);
    expect((await aboutOf(file(3))).axes).toHaveLength(2);
  },
  faceInstances: async () => {
    const file = fontOf({ glyphs: [A], tables: { fvar: variationTable(1, 3) } });
    expect((await aboutOf(file)).instances).toHaveLength(3);
    limits.faceInstances = 2;
    expect((await aboutOf(file)).instances).toHaveLength(2);
  },
  faceWords: async () => {
    // Longer than a name may be.
    const file = fontOf({ glyphs: [A], names: { 0: 'c'.repeat(500), 13: 'w'.repeat(500) } });
    expect(await aboutOf(file)).toMatchObject({ licence: 'w'.repeat(500), copyright: 'c'.repeat(500) });
    limits.faceWords = 450;
    expect(await aboutOf(file)).toMatchObject({ licence: 'w'.repeat(450), copyright: 'c'.repeat(450) });
  },
  typefacesKept: async () => {
    const { db, close } = await ownDatabase('typeface_limits');
    try {
      limits.typefacesKept = 1;
      const faces = [await aboutOf(plain)];
      const ids = [await keepAsset(db, Buffer.from('a'), ''), await keepAsset(db, Buffer.from('b'), '')];
      expect(await addTypeface(db, ids[0] ?? '', faces)).toBe('added');
      expect(await addTypeface(db, ids[0] ?? '', faces)).toBe('known');
      expect(await addTypeface(db, ids[1] ?? '', faces)).toBe('full');
    } finally {
      await close();
    }
  },
  typefaceSeconds: async () => {
    limits.typefaceSeconds = 7;
    vi.useFakeTimers();
    const [worker] = [workersAnswer({ typeface: () => new Promise(() => {}) })];
    const done = new TypefaceReader().describe(new Uint8Array(1));
    await vi.advanceTimersByTimeAsync(6_999);
    expect(worker[0]?.ended).toBe(false);
    await vi.advanceTimersByTimeAsync(1);
    expect(worker[0]?.ended).toBe(true);
    expect(await done).toMatchObject({ ok: false, sentence: expect.stringContaining('longer than 7 seconds') });
  },
} satisfies Partial<Record<keyof typeof LIMITS, () => void | Promise<void>>>;
