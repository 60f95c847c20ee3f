/** Picking a typeface of a family: the nearest weight and slant of those there are. */
import type { FaceNamed } from '../schema/lettering';

/** The typeface a lettering asks for; a weight of null is any. */
export type FaceWish = { readonly face: string; readonly weight: number | null; readonly italic: boolean };

/** Tells faces that words name apart: by content, face of the file and place along its axes, or by the family alone. */
export const faceKey = ({ face, weight, italic, content, number, axes }: FaceNamed): string =>
  content === null
    ? `${face.trim().toLowerCase()}|${weight}|${italic}`
    : JSON.stringify([content, number, Object.entries(axes).sort(([a], [b]) => (a < b ? -1 : 1))]);

/** What a typeface that is there has. */
export type FaceTraits = { readonly family: string; readonly weight: number; readonly italic: boolean };

/** Whether two family names mean the same: spaces around them and capitals do not count. */
export const sameFamily = (a: string, b: string): boolean => a.trim().toLowerCase() === b.trim().toLowerCase();

/** The best of the family wished for, or null when the family is not among them. A wrong slant counts as 500 of weight. */
export function pickFace<T extends FaceTraits>(wish: FaceWish, among: readonly T[]): T | null {
  const misfit = (face: T) =>
    (wish.weight === null ? Math.abs(face.weight - 400) / 1000 : Math.abs(face.weight - wish.weight)) +
    (face.italic === wish.italic ? 0 : 500);
  return among
    .filter((face) => sameFamily(face.family, wish.face))
    .reduce<T | null>((best, face) => (best === null || misfit(face) < misfit(best) ? face : best), null);
}
