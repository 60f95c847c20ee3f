/** Border: the shape becomes what lies within a distance of it. */
import { z } from 'zod';
import { LIMITS } from '../../limits';
import { border as bordered } from '../../prepare/border';
import { about, corners, stepOn } from '../../schema/fields';
import { outlineStep, tenths } from '../step';

/** An outline at a distance around the shape. */
export const borderStep = outlineStep({
  kind: 'border',
  word: 'border',
  isSingle: false,
  schema: z.strictObject({
    kind: z.literal('border'),
    on: stepOn,
    distance: about(
      z.number().min(0).max(LIMITS.offsetMostMm).default(6),
      'Distance of the border from the shape in mm.',
    ),
    corners,
    envelope: about(
      z.boolean().default(false),
      'Off: it follows the letters; on: it spans the hollows between them, like a skin pulled over them.',
    ),
    bridge: about(
      z.number().min(0).max(LIMITS.offsetMostMm).default(0),
      'Gaps in the border narrower than this are bridged, in mm.',
    ),
    smooth: about(z.number().min(0).max(LIMITS.offsetMostMm).default(0), 'Radius its corners are rounded to, in mm.'),
    holesFrom: about(
      z.number().min(0).max(LIMITS.offsetMostMm).nullable().default(null),
      'Holes at least this wide stay, in mm; null: none does.',
    ),
  }),
  suited: ({ capHeightMm }) => ({ distance: tenths(capHeightMm / 4) }),
  lengths: { grows: [], stays: ['distance', 'bridge', 'smooth', 'holesFrom'] },
  keepsLetters: false,
  run: ({ shape }, step, { engine, memory }) => ({ shape: bordered(engine, shape, step, memory) }),
  moved: (note: null) => note,
  rules: [],
});
