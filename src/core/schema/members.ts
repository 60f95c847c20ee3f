/** What parts are made of: lettering, shapes, live copies, drawings and paths. */
import { z } from 'zod';
import { LIMITS } from '../limits';
import { artworkSchema } from './artwork';
import { about, ends, id, length, pathDataField } from './fields';
import { letteringSchema } from './lettering';
import { member } from './member';
import { traceSchema } from './picture';

const rectangleSchema = z.strictObject({
  ...member,
  kind: z.literal('rectangle'),
  width: about(length, 'Width in mm; the origin is the centre.'),
  height: about(length, 'Height in mm.'),
  corner: about(
    z.number().min(0).max(LIMITS.lengthMm).default(0),
    'Radius of the corners in mm; at most half the shorter side is used.',
  ),
});

const ellipseSchema = z.strictObject({
  ...member,
  kind: z.literal('ellipse'),
  width: about(length, 'Width in mm; the origin is the centre.'),
  height: about(length, 'Height in mm.'),
});

const polygonSchema = z.strictObject({
  ...member,
  kind: z.literal('polygon'),
  width: about(
    length,
    'Diameter of the circle through its corners, in mm; the origin is its centre. One corner is on top.',
  ),
  sides: about(z.int().min(3).max(LIMITS.shapeCorners), 'Number of sides.'),
});

const starSchema = z.strictObject({
  ...member,
  kind: z.literal('star'),
  width: about(
    length,
    'Diameter of the circle through its points, in mm; the origin is its centre. One point is on top.',
  ),
  points: about(z.int().min(3).max(LIMITS.shapeCorners), 'Number of points.'),
  inner: about(
    z.number().min(0.02).max(0.98).default(0.45),
    'Circle through its inner corners, as a share of the outer.',
  ),
});

const heartSchema = z.strictObject({
  ...member,
  kind: z.literal('heart'),
  width: about(length, 'Width in mm; the origin is the middle of its bounds.'),
  height: about(length, 'Height in mm.'),
});

const barSchema = z.strictObject({
  ...member,
  kind: z.literal('bar'),
  width: about(length, 'Length in mm, its ends included; the origin is the centre.'),
  height: about(length, 'Thickness in mm.'),
  ends: about(ends, 'Whether its ends are straight or half circles.'),
});

const spikeSchema = z.strictObject({
  ...member,
  kind: z.literal('spike'),
  width: about(length, 'Width in mm; the origin is the middle of its top edge.'),
  height: about(length, 'Length downwards in mm, the point included.'),
  point: about(length, 'Length of the point in mm; at most the whole length is used.'),
});

const copySchema = z.strictObject({
  ...member,
  kind: z.literal('copy'),
  of: id.describe('Id of the part whose shape is copied, live; the origin is the middle of that shape.'),
  scale: about(z.number().min(0.001).max(1000).default(1), 'How many times as large as what it copies.'),
  follows: about(
    z.boolean().default(false),
    'Whether its place counts from the middle of what it copies, as that lies in its own part, so that it stays on it.',
  ),
});

const pathSchema = z.strictObject({
  ...member,
  kind: z.literal('path'),
  d: pathDataField,
  scale: about(z.number().min(1e-4).max(1e4).default(1), 'How many times as large as it was drawn.'),
});

/** A member of any kind, told apart by `kind`. */
export const memberSchema = z.discriminatedUnion('kind', [
  letteringSchema,
  rectangleSchema,
  ellipseSchema,
  polygonSchema,
  starSchema,
  heartSchema,
  barSchema,
  spikeSchema,
  copySchema,
  artworkSchema,
  pathSchema,
  traceSchema,
]);

/** What a part is made of: words, a shape, a drawing, a copy. */
export type Member = z.infer<typeof memberSchema>;

/** The parts that a member is made from: that it copies, whose outline its words run along, or whose panel they fill. */
export function madeFrom(member: Member): string[] {
  if (member.kind === 'copy') return [member.of];
  if (member.kind !== 'lettering') return [];
  const { along, fit } = member;
  return [...(along?.line.kind === 'outline' ? [along.line.of] : []), ...(fit?.to === 'panel' ? [fit.of] : [])];
}

/** A member made from other parts instead. */
export function remadeFrom(member: Member, instead: (of: string) => string): Member {
  if (member.kind === 'copy') return { ...member, of: instead(member.of) };
  if (member.kind !== 'lettering') return member;
  const { along, fit } = member;
  return {
    ...member,
    along: along?.line.kind === 'outline' ? { ...along, line: { ...along.line, of: instead(along.line.of) } } : along,
    fit: fit?.to === 'panel' ? { ...fit, of: instead(fit.of) } : fit,
  };
}

/** Another part's shape as a member. */
export type Copy = z.infer<typeof copySchema>;

/** A path that was drawn here node by node. */
export type DrawnPath = z.infer<typeof pathSchema>;
/** A member that is a plain shape. */
export type Shape = Extract<Member, { width: number }>;

/** The kind of a shape: "rectangle", "heart", … */
export type ShapeKind = Shape['kind'];
