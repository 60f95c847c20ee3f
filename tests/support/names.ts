/** Names for lists: of plants and made up, and hard ones; and jobs that are made for a list of them. */
import type { Job } from '../../src/core/document/schema';
import { type Draft, jobWith, lettering, partOf, rectangle } from './jobs';
import { chance } from './random';

const PLANTS =
  'Rosemary Thyme Mint Jasmine Dill Rowan Hazel Ivy Juniper Fern Willow Briar Sage Marigold Lavender Heather Clover Basil Borage Comfrey'.split(
    ' ',
  );
const HARD = [
  'i',
  'W',
  'Å',
  'Øyvind Ångström',
  'Marigold and Thyme of the lower beds by',
  'Jean-Luc',
  'O’Brien',
  'ÿ ẞ Ð ł',
  'Ελένη',
  'Жанна',
  '中文',
  'שרה',
  '',
  '   ',
  'A. B. C.',
  'fi ffl',
  '№ 7',
  'a\nb',
  '‹x›',
  '"quoted", with; signs',
];
const SYLLABLES = 'an be cor da el fi gra ha il jo ka lu mo ne or pa qui ro sa ti um va wen xy yo ze'.split(' ');

/** So many names, the hard ones among them, the same for the same seed. */
export function namesFor(count: number, seed = 1): string[] {
  const next = chance(seed);
  const pick = <T>(list: readonly T[]): T => list[Math.floor(next() * list.length)] as T;
  const madeUp = () => {
    const word = Array.from({ length: 1 + Math.floor(next() * 4) }, () => pick(SYLLABLES)).join('');
    return word.charAt(0).toUpperCase() + word.slice(1);
  };
  return Array.from({ length: count }, (_, i) => {
    if (i < HARD.length) return HARD[i] as string;
    return next() < 0.4 ? pick(PLANTS) : next() < 0.3 ? `${madeUp()} ${madeUp()}` : madeUp();
  });
}

/** Four jobs for a list: a name tied into one piece, a bridged plate, an engraved tag, a name drawn with a pen. */
export const NAME_JOBS: Readonly<Record<string, (words: string, more?: Draft) => Job>> = {
  'tied name': (words, more) =>
    jobWith(
      [
        partOf([lettering(words, 'Pacifico', { size: { by: 'capital', mm: 22 } })], {
          steps: [{ kind: 'weld' }, { kind: 'thicken', by: 0.3 }, { kind: 'tie', width: 2 }],
        }),
      ],
      more,
    ),
  'bridged plate': (words, more) =>
    jobWith(
      [
        partOf(
          [
            rectangle('plate', 200, 50, { placement: { x: 150, y: 100 } }),
            lettering(words, 'Poppins', {
              role: 'punch',
              size: { by: 'capital', mm: 18 },
              within: { width: 180, least: 6 },
            }),
          ],
          { steps: [{ kind: 'weld' }, { kind: 'bridge', width: 2 }] },
        ),
      ],
      more,
    ),
  'engraved tag': (words, more) =>
    jobWith(
      [
        partOf([rectangle('tag', 90, 30, { placement: { x: 150, y: 100 }, corner: 4 })], { id: 'tag' }),
        partOf(
          [lettering(words, 'Bebas Neue', { size: { by: 'capital', mm: 12 }, within: { width: 80, tightest: -0.05 } })],
          {
            work: [{ what: 'fill', operation: 'engrave' }],
          },
        ),
      ],
      more,
    ),
  'drawn with a pen': (words, more) =>
    jobWith(
      [
        partOf([lettering(words, 'Caveat', { size: { by: 'capital', mm: 20 } })], {
          steps: [{ kind: 'weld' }, { kind: 'centerline' }],
          work: [{ what: 'centerline', operation: 'mark' }],
        }),
      ],
      more,
    ),
};

/** A roster of one column, “Name”. */
export const rosterOfNames = (names: readonly string[]): Draft => ({
  columns: [{ id: 'name', kind: 'typed', name: 'Name' }],
  rows: names.map((name, i) => ({ id: `r${i}`, cells: [name] })),
});
