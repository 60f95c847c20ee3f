/** Thicken: every outline is moved outwards, or inwards; holes may be kept open. */
import { z } from 'zod';
import { transformedBox } from '../../geometry/point';
import { listed, Names, startSentence } from '../../inspect/names';
import { more } from '../../inspect/rule';
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

type About = {
  readonly note: ThickenNote | null;
  readonly part: PreparedPart;
  readonly partId: string;
  readonly title: string;
};

/** White of a kind that closed, each with the sentence of it; those beyond what is named one by one in one sentence. */
function closedOf(about: About, kind: ClosedWhite['kind'], say: (name: string, count: number) => string, rest: string) {
  const { part, partId, note, title } = about;
  const names = new Names(part);
  const all = (note?.closed ?? []).filter((c) => c.kind === kind);
  const times = new Map<string, number>();
  const named = all.slice(0, LIMITS.piecesNamed).map(({ box, labels }) => {
    const name = labels.length === 0 ? title : listed(labels.map((label) => names.source(label)));
    // It stays the same finding while others of the part come and go.
    const letters = labels.map((label) => part.frames[label]?.key ?? '').join(' ');
    const nth = times.get(letters) ?? 0;
    times.set(letters, nth + 1);
    return { sentence: say(name, labels.length), box, detail: `${letters}/${nth}` };
  });
  const count = all.length - named.length;
  return count === 0 ? named : [...named, { sentence: `${more(count, rest)} in ${title}.`, box: null, detail: partId }];
}

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
  run({ shape }, step, { engine, memory }) {
    const { outlines, heldHoles, closed } = thickened(engine, shape, step, memory);
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
      many: (count) => `${count} holes were kept open.`,
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
      many: (count) => `${count} holes close.`,
      find: (about) =>
        closedOf(
          about,
          'hole',
          (name) => `The hole of ${name} closes: nothing is left of it at this thickness.`,
          'closed hole',
        ),
    },
    {
      code: 'opening-closes',
      severity: 'note',
      station: 'hold',
      many: (count) => `${count} openings close.`,
      find: (about) =>
        closedOf(
          about,
          'opening',
          (name, letters) =>
            `${letters > 1 ? 'The white between' : 'The opening of'} ${name} closes and becomes a hole.`,
          'closed opening',
        ),
    },
    {
      code: 'grows-together',
      severity: 'note',
      station: 'hold',
      many: (count) => `${count} things grow together.`,
      find: (about) =>
        closedOf(
          about,
          'between',
          (name, letters) =>
            letters > 1 ? `${startSentence(name)} grow together.` : `The parts of ${name} grow together.`,
          'closed gap',
        ),
    },
  ],
});
