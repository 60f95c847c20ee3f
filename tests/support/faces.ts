/** Typefaces and engines for tests. */
import { readFileSync } from 'node:fs';
import { diskFaces } from '../../src/cli/typefaces';
import { scriptEngine } from '../../src/core/geometry/boolean/engine-script';
import { loadWasmEngine } from '../../src/core/geometry/boolean/engine-wasm';
import type { Path } from '../../src/core/geometry/path';
import { transformRegion } from '../../src/core/geometry/path';
import { compose, rotation, translation } from '../../src/core/geometry/point';
import { isLineFace, SHIPPED_FACES } from '../../src/core/lettering/catalogue';
import type { Typeface } from '../../src/core/lettering/face';
import { type Layout, layoutLettering } from '../../src/core/lettering/layout';
import { readLineFace } from '../../src/core/lettering/line-face';
import { sameFamily } from '../../src/core/lettering/pick';
import type { LetteringSpec } from '../../src/core/lettering/spec';
import type { FaceAnswer, FaceLookup } from '../../src/core/prepare/prepared';
import { faceOfFamily } from '../../src/core/schema/lettering';

/** Faces of outlines, and those of lines. */
export const FAMILIES = SHIPPED_FACES.filter((f) => !isLineFace(f)).map((f) => f.family);
export const LINE_FAMILIES = SHIPPED_FACES.filter(isLineFace).map((f) => f.family);

const outlineFaces = await diskFaces(FAMILIES.map(faceOfFamily), null);
const lineFaces = new Map<string, FaceAnswer>();

/** The shipped typefaces; those of lines are read when first asked for, since most tests need none. */
export const faces: FaceLookup = (wish) => {
  const family = SHIPPED_FACES.find((f) => isLineFace(f) && sameFamily(f.family, wish.face));
  if (!family) return outlineFaces(wish);
  let known = lineFaces.get(family.family);
  if (!known) {
    const face = readLineFace(new Uint8Array(readFileSync(`public/typefaces/${family.file}`)));
    if (!face) throw new Error(`${family.file} can’t be read`);
    known = { typeface: { ...face, family: family.family } };
    lineFaces.set(family.family, known);
  }
  return known;
};
export const wasmEngine = await loadWasmEngine();
export { scriptEngine };

export function typeface(family: string): Typeface {
  const answer = faces(faceOfFamily(family));
  if ('sentence' in answer) throw new Error(answer.sentence);
  return answer.typeface;
}

export const spec = (text: string, more: Partial<LetteringSpec> = {}): LetteringSpec => ({
  text,
  size: { by: 'capital', mm: 20 },
  letterSpacing: 0,
  lineSpacing: 1,
  align: 'left',
  ...more,
});

/** The raw outlines of set lettering in mm, not united, turned by degrees. */
export function rawOutlines(layout: Layout, face: Typeface, turn = 0): Path[] {
  const k = layout.scale;
  return layout.letters.flatMap((letter) =>
    letter.glyphs.flatMap((g) =>
      transformRegion(
        face.outline(g.glyph),
        compose(
          compose({ a: k, b: 0, c: 0, d: k, e: 0, f: 0 }, translation((letter.x + g.x) * k, (letter.y + g.y) * k)),
          rotation(turn),
        ),
      ),
    ),
  );
}

export const set = (family: string, text: string, more: Partial<LetteringSpec> = {}) =>
  layoutLettering(spec(text, more), typeface(family));
