/** Thicken: every outline is moved outwards, or inwards; holes may be kept open. */
import { z } from 'zod';
import { Names, startSentence } from '../../inspect/names';
import { LIMITS } from '../../limits';
import { type Thickened, thicken as thickened } from '../../prepare/thicken';
import { about, corners, stepOn } from '../../schema/fields';
import { outlineStep } from '../step';

/** Every outline moved outwards, or inwards. */
export const thickenStep = outlineStep({
  kind: 'thicken',
  word: 'thicken',
  isSingle: false,
  schema: z.strictObject({
    kind: z.literal('thicken'),
    on: stepOn,
    by: about(
      z.number().min(-LIMITS.offsetMostMm).max(LIMITS.offsetMostMm).default(0.2),
      'How far every outline moves outwards in mm; negative for inwards.',
    ),
    corners,
    holesOpen: about(
      z.number().min(0).max(LIMITS.offsetMostMm).nullable().default(null),
      'Holes are kept at least this wide in mm; a hole that would get narrower grows less. Null: they may close.',
    ),
  }),
  suited: ({ capHeightMm }) => ({ by: Math.round(Math.max(0.05, capHeightMm / 100) * 20) / 20 }),
  lengths: { grows: [], stays: ['by', 'holesOpen'] },
  keepsLetters: true,
  run({ shape }, step, { engine }) {
    const { outlines, heldHoles } = thickened(engine, shape, step);
    return { shape: outlines, note: heldHoles };
  },
  /** Holes that were kept open, and how wide, in mm. */
  moved: (holes: Thickened['heldHoles'], mover) => holes.map((h) => ({ ...h, hole: mover.outline(h.hole) })),
  rules: [
    {
      code: 'hole-held',
      severity: 'note',
      station: 'hold',
      find({ note, part, title, length }) {
        const names = new Names(part);
        return (note ?? []).map(({ hole, widthMm }) => {
          const label = hole.labels.find((l) => l >= 0);
          const name = label === undefined ? `a hole in ${title}` : `the hole of ${names.source(label)}`;
          const sentence = `${startSentence(name)} is kept ${length(widthMm)} open; it grows together less there.`;
          return { sentence, box: hole.box, detail: name };
        });
      },
    },
  ],
});
