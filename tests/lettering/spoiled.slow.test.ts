/**
 * Typeface files spoiled at random: each is described or answered with a sentence, in bounded time and memory; what can be loaded can be
 * set.
 *
 * @module-tag slow
 */
import { readFileSync } from 'node:fs';
import { setImmediate } from 'node:timers/promises';
import { expect, test } from 'vitest';
import { compress } from 'woff2-encoder';
import { facesAbout } from '../../src/core/lettering/about';
import { layoutLettering, letterPaths } from '../../src/core/lettering/layout';
import { loadTypeface } from '../../src/core/lettering/typeface';
import { LIMITS } from '../../src/core/limits';
import { faceAboutSchema } from '../../src/core/schema/face-about';
import { spec } from '../support/faces';
import { figure } from '../support/figures';
import { collectionOf, fontOf, SQUARE, woffOf } from '../support/font';
import { chance } from '../support/random';
import { inFull, sample } from '../support/scale';
import { ONE_LINE_FACES, STATIC_FACES, VARIABLE_FACES } from '../support/typefaces';

const read = (file: string) => new Uint8Array(readFileSync(file));

/** A file with a few things done to it: bytes changed, a stretch of zeros or of ones, cut off, or a stretch doubled. */
function spoiled(file: Uint8Array, random: () => number): Uint8Array {
  const out = file.slice();
  const place = () => Math.floor(out.length * random() ** (random() < 0.5 ? 3 : 1));
  const kind = random();
  if (kind < 0.1) return out.slice(0, place());
  if (kind < 0.2) out.fill(random() < 0.5 ? 0 : 255, place(), place() + 64);
  else if (kind < 0.3) out.copyWithin(place(), place(), place() + 256);
  else for (let n = 1 + Math.floor(12 * random()); n > 0; n--) out[place()] = Math.floor(256 * random());
  return out;
}

/** Room that wasm and pages of it may take beyond what there was, in MB. */
const ROOM_MB = 700;

test('each is answered, and what is left of it can be set', { timeout: 3_600_000 }, async () => {
  const shipped = ['sacramento', 'caveat', 'saira-stencil-one'].map((name) => read(`public/typefaces/${name}.ttf`));
  const [first, second] = shipped as [Uint8Array, Uint8Array];
  const nested = fontOf({
    glyphs: [
      { char: 'A', contours: [SQUARE] },
      ...Array.from({ length: 20 }, (_, i) => ({
        char: String.fromCharCode(66 + i),
        components: [{ glyph: i + 1 }, { glyph: i + 1, x: 40 }],
      })),
    ],
  });
  const files = [
    ...shipped,
    nested,
    woffOf(first),
    await compress(first),
    collectionOf([first, second]),
    read(ONE_LINE_FACES[0]?.file ?? ''),
    ...(inFull ? [...STATIC_FACES.slice(0, 12), ...VARIABLE_FACES].map(({ file }) => read(file)) : []),
  ];
  const random = chance(21);
  const count = sample(60, 3000);
  const began = process.memoryUsage().rss;
  let [described, slowest, broken, room] = [0, 0, 0, 0];
  for (let i = 0; i < count; i++) {
    const file = spoiled(files[i % files.length] as Uint8Array, random);
    const at = performance.now();
    const about = await facesAbout(file);
    slowest = Math.max(slowest, performance.now() - at);
    if (about.ok) {
      described++;
      // It can be kept as it is described.
      for (const face of about.faces) {
        expect(faceAboutSchema.safeParse(face).error?.message, `file ${i}`).toBeUndefined();
        broken += face.broken;
      }
      const load = await loadTypeface(file);
      if (load.ok) {
        const layout = layoutLettering(spec('Alder fi 48'), load.typeface);
        expect(letterPaths(layout).length).toBeLessThan(LIMITS.glyphSegments);
      }
    } else expect(about.sentence).toMatch(/^[A-Z].*\.$/);
    // What is no longer used is let go between one and the next.
    await setImmediate();
    room = Math.max(room, (process.memoryUsage().rss - began) / 1024 ** 2);
  }
  figure({
    name: 'typeface files spoiled at random: the slowest answer',
    value: slowest / 1000,
    digits: 2,
    unit: 's',
    aim: { most: LIMITS.typefaceSeconds },
    note: `${count.toLocaleString('en')} files, ${described.toLocaleString('en')} of them described, ${broken.toLocaleString('en')} glyphs broken; ${room.toFixed(0)} MB more at most`,
  });
  expect(slowest / 1000).toBeLessThan(LIMITS.typefaceSeconds);
  expect(room).toBeLessThan(ROOM_MB);
});
