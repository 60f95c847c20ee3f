/** Starters of names that are cut out as one piece. */
import { type PartDraft, part, type ShippedStarter, starter, words } from './draft';

const PLYWOOD = { width: 400, height: 120, material: 'Birch plywood', thickness: 4, leastWidth: 2, kerf: 0.2 };
const ONE_PIECE = { overlap: 2.4, words: true, lines: true, joints: 'best' } as const;
const tie = { kind: 'tie', width: 3, overlap: 1.5 } as const;
const cutOut: Pick<PartDraft, 'work'> = { work: [{ what: 'outline', operation: 'cut' }] };

/** A name as one piece, on the wall. */
const toHang = starter('to-hang', 'Name to hang', 'A name as one piece, to hang on a wall or a door.', {
  sheet: PLYWOOD,
  parts: [
    part('name', '', [words('Name', 'Rosemary', 'Pacifico', 55, { closeUp: ONE_PIECE })], {
      steps: [{ kind: 'weld' }, tie],
      ...cutOut,
    }),
  ],
});

/** A name that stands on a foot. */
const onStand = starter(
  'on-a-stand',
  'Name on a stand',
  'A name on a base, as one piece, to stand on a shelf or a desk.',
  {
    sheet: { ...PLYWOOD, material: 'Hardwood', thickness: 12, leastWidth: 7.2 },
    parts: [
      part('name', '', [words('Name', 'JUNIPER', 'Fredoka', 60, { letterSpacing: 0.02 })], {
        steps: [{ kind: 'weld' }, { kind: 'bar', height: 14, overlap: 2.5, beyond: 10 }, { ...tie, width: 8 }],
        ...cutOut,
      }),
    ],
  },
);

/** A name with spikes, to stick into something soft. */
const withSpikes = starter(
  'with-spikes',
  'Topper with spikes',
  'A name on a bar with two spikes, to stick into a cake or a pot.',
  {
    sheet: { width: 220, height: 130, material: 'Acrylic', thickness: 3, leastWidth: 1.5, kerf: 0.15 },
    parts: [
      part(
        'topper',
        '',
        [
          words('Names, in one line', 'Ivy and Rowan', 'Pacifico', 26),
          { id: 'left', kind: 'spike', placement: { x: -24, y: -2 }, width: 5, height: 70, point: 12 },
          { id: 'right', kind: 'spike', placement: { x: 24, y: -2 }, width: 5, height: 70, point: 12 },
        ],
        {
          steps: [
            { kind: 'weld' },
            { kind: 'bar', height: 5, overlap: 1.5, beyond: 4, ends: 'round' },
            { ...tie, width: 2.5 },
          ],
          ...cutOut,
        },
      ),
    ],
  },
);

/** Names cut out as one piece: to hang, on a base, on spikes. */
export const OF_NAMES: readonly ShippedStarter[] = [toHang, onStand, withSpikes];
