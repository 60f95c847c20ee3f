/** What a shape measures: which of its fields are lengths. */
import type { Member, Shape, ShapeKind } from './schema';

/** The fields of each shape that are lengths in mm, and grow when it is sized. */
export const SHAPE_LENGTHS: Readonly<Record<ShapeKind, readonly string[]>> = {
  rectangle: ['width', 'height', 'corner'],
  ellipse: ['width', 'height'],
  polygon: ['width'],
  star: ['width'],
  heart: ['width', 'height'],
  bar: ['width', 'height'],
  spike: ['width', 'height', 'point'],
};

/** Change every length of a member in place; for lettering that is its size. A copy, a drawing and a trace have none: they have a scale. */
export function mapLengths(member: Member, change: (mm: number) => number): void {
  if (member.kind === 'lettering') {
    member.size.mm = change(member.size.mm);
    return;
  }
  if (!('width' in member)) return;
  const lengths = member as Shape & Record<string, number>;
  for (const key of SHAPE_LENGTHS[member.kind]) lengths[key] = change(lengths[key] as number);
}
