/** Lengths of paths, held as long as the paths are: a part that is only moved is not measured again. */
import { type Path, pathLength } from './path';

const lengths = new WeakMap<Path, number>();
/** Paths that are others moved, turned, mirrored or sized, with the factor: their lengths are known by those. */
const originals = new WeakMap<Path, { readonly path: Path; readonly scale: number }>();

/** A path is another one after a similarity, which makes it so many times as long. */
export const keepOriginal = (path: Path, original: Path, scale: number): void => {
  originals.set(path, { path: original, scale });
};

/** Length of a path in mm. */
export function lengthOfPath(path: Path): number {
  const known = lengths.get(path);
  if (known !== undefined) return known;
  const original = originals.get(path);
  const length = original ? original.scale * lengthOfPath(original.path) : pathLength(path);
  lengths.set(path, length);
  return length;
}
