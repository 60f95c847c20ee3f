/** The faces that are nearest to one that is not there, by all that is known of it: its family name, weight and slant. */
import { sameFamily } from '@/core/lettering/pick';
import type { Look } from '@/core/schema/face-about';
import type { FaceNamed } from '@/core/schema/lettering';
import type { ListedFace } from './faces';

/** What words in a family's name say of how its letters are built. */
const SAYS: readonly (readonly [RegExp, Look])[] = [
  [/stencil/, 'stencil'],
  [/mono\b|code\b|typewriter/, 'fixed width'],
  [/script|brush|calligra/, 'script'],
  [/hand|marker|chalk|pen\b/, 'hand'],
  [/slab|egyptian/, 'slab'],
  [/\bsans|gothic|grotesk/, 'plain'],
  [/serif|antiqua|roman\b|old ?style/, 'serif'],
  [/round|soft/, 'rounded'],
  [/narrow|condensed|compressed/, 'narrow'],
  [/one ?line|single|stroke/, 'one line'],
];

const lookIn = (name: string): Look | null => SAYS.find(([words]) => words.test(name))?.[1] ?? null;

const wordsIn = (name: string): string[] =>
  name
    .toLowerCase()
    .split(/[^\p{L}\p{N}]+/u)
    .filter(Boolean);

/** How far a face is from what was named: another family costs most, then how its letters are built, then weight and slant. */
function distance(named: FaceNamed, face: ListedFace): number {
  const name = named.face.toLowerCase();
  const theirs = new Set(wordsIn(face.family));
  const shared = wordsIn(name).filter((word) => theirs.has(word)).length;
  const family = sameFamily(named.face, face.family) ? 0 : 4 - Math.min(2, shared);
  const look = lookIn(name);
  const build = look === null || look === face.look ? 0 : 1;
  const weight = Math.abs((named.weight ?? 400) - (face.kept?.about.weight ?? 400)) / 1000;
  const slant = named.italic === (face.kept?.about.italic ?? false) ? 0 : 0.4;
  return family + build + weight + slant;
}

/** The nearest faces to one that is not there, one a family, the nearest first. */
export function nearestFaces(named: FaceNamed, faces: readonly ListedFace[], most: number): ListedFace[] {
  const byDistance = faces
    .map((face) => ({ face, far: distance(named, face) }))
    .sort((a, b) => a.far - b.far || a.face.family.localeCompare(b.face.family, 'en'));
  const out: ListedFace[] = [];
  for (const { face } of byDistance) {
    if (out.length === most) break;
    if (!out.some(({ family }) => sameFamily(family, face.family))) out.push(face);
  }
  return out;
}
