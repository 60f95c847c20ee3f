/** Centerline: lines down the middle of the strokes. */
import { z } from 'zod';
import { growBox } from '../../geometry/point';
import { more } from '../../inspect/rule';
import { LIMITS } from '../../limits';
import { weighPaths } from '../../prepare/outline';
import { about, letterKey, pathSharesField, stepOn } from '../../schema/fields';
import { type LetterLines, type PartLines, partLines, transformLines } from '../../toolpath/centerline/part-lines';
import type { Uneven } from '../../toolpath/centerline/uneven';
import { drawStep } from '../step';

const lineCorrectionSchema = z.strictObject({
  letter: about(letterKey, 'Which letter it was made on; the whole part where it is no letter.'),
  alike: about(
    z.string().max(400).nullable().default(null),
    'What letters look like that it stands for everywhere in the part; null: only this one.',
  ),
  d: about(pathSharesField, 'The lines in its place, in capital heights from the letter’s origin.'),
});

/** What each kind of place is called, and how grave it is. */
function sentenceOf({ what, turnDeg }: Uneven, letter: LetterLines, times: number): string {
  const name = letter.text ? `“${letter.text}”` : 'the shape';
  const often = times > 1 ? `, ${times.toLocaleString('en')} times` : '';
  if (what === 'lost') return `A piece of ${name} has no middle line${often}.`;
  if (what === 'kink') return `The middle line of ${name} has a kink of ${turnDeg.toFixed(0)}°${often}.`;
  if (what === 'loop') return `The loop of ${name} is nearly filled: see whether it is to stay one${often}.`;
  return `How the strokes of ${name} go on here is not sure${often}.`;
}
const RANK = { lost: 0, loop: 1, unsure: 2, kink: 3 } as const;

type UnevenPlace = {
  readonly letter: LetterLines;
  readonly times: number;
  readonly place: Uneven;
  readonly i: number;
};

/** Uneven places, the gravest first. The same place of letters that look alike is told once, with how often it comes. */
function unevenPlaces(drawn: PartLines | null): UnevenPlace[] {
  const kinds = new Map<string, { readonly letter: LetterLines; times: number }>();
  for (const letter of drawn?.letters ?? []) {
    const kind = letter.alike ?? letter.key;
    const known = kinds.get(kind);
    if (known) known.times++;
    else kinds.set(kind, { letter, times: 1 });
  }
  const places = [...kinds.values()].flatMap(({ letter, times }) =>
    letter.uneven.map((place, i) => ({ letter, times, place, i })),
  );
  return places.sort((a, b) => RANK[a.place.what] - RANK[b.place.what] || b.place.turnDeg - a.place.turnDeg);
}

/** One line down the middle of each stroke. */
export const centerlineStep = drawStep({
  kind: 'centerline',
  word: 'middle lines',
  isSingle: true,
  schema: z.strictObject({
    kind: z.literal('centerline'),
    on: stepOn,
    detail: about(
      z.number().min(0.05).max(10).default(0.45),
      'How far a branch must reach beyond the stroke it comes from to be a line, in halves of that stroke.',
    ),
    smooth: about(
      z.number().min(0.0001).max(100).nullable().default(null),
      'How far lines may stray from the middle to be smooth, in mm; null: a hundredth of the stroke.',
    ),
    ends: about(
      z.enum(['tip', 'short']).default('tip'),
      'Lines go to the end of the stroke, or stop short of it by half the stroke, where a round pen fills the rest.',
    ),
    loops: about(
      z.enum(['kept', 'filled']).default('kept'),
      'Loops whose inside is narrower than half the stroke stay loops, or are filled and become part of the stroke.',
    ),
    serifs: about(
      z.enum(['drawn', 'left']).default('drawn'),
      'Serifs are strokes of their own, or left out: stems then end where they would without.',
    ),
    inlines: about(
      z.enum(['drawn', 'left']).default('drawn'),
      'Letters with an inline, or in outline, are traced as they are drawn, or in the middle of what they are drawn around.',
    ),
    retraced: about(
      z.enum(['once', 'twice']).default('once'),
      'Stretches that two strokes share are drawn once, or gone over twice where the pen need not be lifted then.',
    ),
    joined: about(z.boolean().default(true), 'Lines run on from letter to letter where letters touch.'),
    dots: about(
      z.enum(['circle', 'point']).default('circle'),
      'What a dot becomes: a circle half its width, or a point.',
    ),
    corrections: about(
      z.array(lineCorrectionSchema).max(LIMITS.lineCorrections).default([]),
      'Letters whose lines were drawn by hand.',
    ),
  }),
  suited: () => ({}),
  lengths: { grows: [], stays: ['smooth'] },
  letters(step, { keyOf }) {
    // Lines drawn for every letter of a kind stay for the others of that kind.
    step.corrections = step.corrections.flatMap((c) => {
      const letter = keyOf(c.letter);
      if (letter !== null) return [{ ...c, letter }];
      return c.alike === null ? [] : [c];
    });
  },
  keepsLetters: true,
  /** With what was drawn in other parts for every letter of a kind; its own comes first. */
  completed(step, others) {
    const everywhere = others.flatMap((o) => o.corrections.filter((c) => c.alike !== null));
    return everywhere.length > 0 ? { ...step, corrections: [...step.corrections, ...everywhere] } : step;
  },
  draw: {
    name: 'middle lines',
    key: ({ shape, step }, idOf) => JSON.stringify([idOf(shape), step]),
    // biome-ignore lint/correctness/useYield: letters are traced in one go.
    *run({ part, shape, step, engine }, memory) {
      return partLines(part, shape, step, { engine, memory });
    },
    weigh: ({ paths: lines }) => 2 * weighPaths(lines),
  },
  moved: transformLines,
  rules: [
    {
      code: 'uneven-line',
      severity: 'note',
      station: 'fill',
      many: (count) => `${count} places of middle lines want a look.`,
      mend: { words: 'Mend its lines', byHand: 'lines' },
      find: ({ drawn }) =>
        unevenPlaces(drawn)
          .slice(0, LIMITS.unevenNamed)
          .map(({ letter, times, place, i }) => ({
            severity: place.what === 'lost' ? 'caution' : 'note',
            sentence: sentenceOf(place, letter, times),
            box: growBox({ minX: place.x, minY: place.y, maxX: place.x, maxY: place.y }, 3 * place.r),
            detail: `${letter.key}:${place.what}:${i}`,
            mend: { letter: letter.key },
          })),
    },
    {
      code: 'more-uneven',
      severity: 'note',
      station: 'fill',
      find({ drawn, title }) {
        const count = unevenPlaces(drawn).length - LIMITS.unevenNamed;
        if (count <= 0) return [];
        return [{ sentence: `${more(count, 'place')} of the middle lines of ${title} to look at.`, detail: 'uneven' }];
      },
    },
    {
      code: 'too-many-traced',
      severity: 'fault',
      station: 'fill',
      find: ({ drawn, title, part }) =>
        drawn && drawn.untraced > 0
          ? [
              {
                sentence: `${drawn.untraced.toLocaleString('en')} letters of ${title} have no middle line: at most ${LIMITS.lettersTraced.toLocaleString('en')} are traced.`,
                box: part.box,
                detail: 'traced',
              },
            ]
          : [],
    },
  ],
});
