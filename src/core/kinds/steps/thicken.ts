/** Thicken: every outline is moved outwards, or inwards; holes may be kept open. */
import { z } from 'zod';
import { transformedBox } from '../../geometry/point';
import { Names, startSentence } from '../../inspect/names';
import { LIMITS } from '../../limits';
import type { ClosedWhite } from '../../prepare/grown';
import type { PreparedPart } from '../../prepare/prepared';
import { type Thickened, thicken as thickened } from '../../prepare/thicken';
import { about, corners, stepOn } from '../../schema/fields';
import { outlineStep, tenths } from '../step';

/** What thickening did: holes that it held open, and white that closed. */
export type ThickenNote = Pick<Thickened, 'heldHoles' | 'closed'>;

/** Holes are kept this wide at least, in mm, where no least safe width is given. */
const LEAST_HOLE_MM = 0.5;

const closedOf = (note: ThickenNote | null, kind: ClosedWhite['kind']): readonly ClosedWhite[] =>
  (note?.closed ?? []).filter((c) => c.kind === kind).slice(0, LIMITS.piecesNamed);

/** "B", "B, e and a", "B, e and 4 more": letters by their labels, or the part where there are none. */
function nameOf(
  { part, title }: { readonly part: PreparedPart; readonly title: string },
  labels: readonly number[],
): string {
  const names = new Names(part);
  const [first, ...others] = labels.map((label) => names.source(label));
  if (first === undefined) return title;
  if (others.length === 0) return first;
  if (others.length <= MOST_NAMED) return `${[first, ...others.slice(0, -1)].join(', ')} and ${others.at(-1)}`;
  return `${first}, ${others[0]} and ${others.length - 1} more`;
}

/** Letters named beside the first. */
const MOST_NAMED = 3;

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
  suited: ({ capHeightMm, leastWidthMm }) => ({
    by: Math.round(Math.max(0.05, capHeightMm / 100) * 20) / 20,
    holesOpen: Math.max(LEAST_HOLE_MM, leastWidthMm ?? tenths(capHeightMm / 25)),
  }),
  lengths: { grows: [], stays: ['by', 'holesOpen'] },
  keepsLetters: true,
  run({ shape }, step, { engine }) {
    const { outlines, heldHoles, closed } = thickened(engine, shape, step);
    return { shape: outlines, note: { heldHoles, closed } };
  },
  /** Holes that were kept open, and how wide, in mm; and what closed. */
  moved: ({ heldHoles, closed }: ThickenNote, mover) => ({
    heldHoles: heldHoles.map((h) => ({ ...h, hole: mover.outline(h.hole) })),
    closed: closed.map((c) => ({ ...c, box: transformedBox(c.box, mover.matrix) })),
  }),
  rules: [
    {
      code: 'hole-held',
      severity: 'note',
      station: 'hold',
      find({ note, part, title, length }) {
        const names = new Names(part);
        return (note?.heldHoles ?? []).map(({ hole, widthMm }) => {
          const label = hole.labels.find((l) => l >= 0);
          const name = label === undefined ? `a hole in ${title}` : `the hole of ${names.source(label)}`;
          const sentence = `${startSentence(name)} is kept ${length(widthMm)} open; it grows together less there.`;
          return { sentence, box: hole.box, detail: name };
        });
      },
    },
    {
      code: 'hole-closes',
      severity: 'caution',
      station: 'hold',
      find: (about) =>
        closedOf(about.note, 'hole').map(({ box, labels }, i) => {
          const name = nameOf(about, labels);
          return {
            sentence: `The hole of ${name} closes: nothing is left of it at this thickness.`,
            box,
            detail: `${name}/${i}`,
          };
        }),
    },
    {
      code: 'opening-closes',
      severity: 'note',
      station: 'hold',
      find: (about) =>
        closedOf(about.note, 'opening').map(({ box, labels }, i) => {
          const name = nameOf(about, labels);
          const what = labels.length > 1 ? `The white between ${name}` : `The opening of ${name}`;
          return { sentence: `${what} closes and becomes a hole.`, box, detail: `${name}/${i}` };
        }),
    },
    {
      code: 'grows-together',
      severity: 'note',
      station: 'hold',
      find: (about) =>
        closedOf(about.note, 'between').map(({ box, labels }, i) => {
          const name = nameOf(about, labels);
          const sentence =
            labels.length > 1 ? `${startSentence(name)} grow together.` : `The parts of ${name} grow together.`;
          return { sentence, box, detail: `${name}/${i}` };
        }),
    },
  ],
});
