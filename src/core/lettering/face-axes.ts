/** Axes of variable faces and the places along them that have a name (OpenType specification, "fvar"). */
import type { Face } from 'harfbuzzjs';
import { LIMITS } from '../limits';
import type { FaceAbout } from '../schema/face-about';
import { nameInFace } from './harfbuzz';
import type { Bytes } from './sfnt';

/** What the axes that the specification registers are called where a face gives them no name. */
const AXIS_NAMES: ReadonlyMap<string, string> = new Map([
  ['wght', 'Weight'],
  ['wdth', 'Width'],
  ['slnt', 'Slant'],
  ['ital', 'Italic'],
  ['opsz', 'Optical size'],
]);

const HIDDEN = 1;

/** The axes of a face; none for one that is not variable. */
export function axesIn(face: Face): FaceAbout['axes'] {
  return Object.values(face.getAxisInfos())
    .filter(({ flags }) => (flags & HIDDEN) === 0)
    .slice(0, LIMITS.faceAxes)
    .map(({ tag, nameId, min, default: usual, max }) => ({
      tag,
      name: nameInFace(face, nameId) || (AXIS_NAMES.get(tag) ?? tag),
      least: Math.min(min, max),
      usual,
      most: Math.max(min, max),
    }));
}

/** The named places along a face's axes. */
export function instancesIn(face: Face, fvar: Bytes | undefined): FaceAbout['instances'] {
  if (!fvar) return [];
  const [offset, axes, axisSize] = [fvar.u16(4), fvar.u16(8), fvar.u16(10)];
  const [count, size] = [fvar.u16(12), fvar.u16(14)];
  const first = offset + axes * axisSize;
  const out: FaceAbout['instances'] = [];
  for (let i = 0; i < Math.min(count, LIMITS.faceInstances); i++) {
    const at = first + i * size;
    if (at + size > fvar.length || axes > LIMITS.faceAxes) break;
    const places = Array.from({ length: axes }, (_, k) => [
      fvar.tag(offset + k * axisSize),
      fvar.fixed(at + 4 + 4 * k),
    ]);
    const name = nameInFace(face, fvar.u16(at));
    if (name) out.push({ name, axes: Object.fromEntries(places) });
  }
  return out;
}
