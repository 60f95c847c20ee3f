/** Faces that draw small letters as capitals. */
import { boxHeight } from '../geometry/point';
import { PLAIN_SHAPING, type Typeface } from './face';

/** Small letters that differ in height but where they are drawn as capitals: one without, one with a stem up, one with a stem down. */
const SMALL = ['x', 'b', 'p'];
/** Letters are of one height where the lowest has this share of the highest. */
const OF_ONE_HEIGHT = 0.93;

/**
 * Whether a face draws its small letters as capitals, of their size or smaller: x, b and p, where it has all of them, are of one
 * height.
 */
export function isOfCapitals(face: Typeface): boolean {
  const heights = SMALL.map((c) => {
    const [shaped] = face.shape(c, 'ltr', PLAIN_SHAPING);
    return shaped && shaped.glyph !== 0 ? boxHeight(face.box(shaped.glyph)) : 0;
  });
  const highest = Math.max(...heights);
  return highest > 0 && Math.min(...heights) >= OF_ONE_HEIGHT * highest;
}
