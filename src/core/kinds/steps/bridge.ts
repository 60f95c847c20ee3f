/** Bridge: islands are held by strips of stock across the cut. */
import { z } from 'zod';
import { type Box, EMPTY_BOX, uniteBoxes } from '../../geometry/point';
import { islandNames, Names, startSentence } from '../../inspect/names';
import { LIMITS } from '../../limits';
import { about, length, letterKey, stepOn } from '../../schema/fields';
import { fixedStep, onLetters } from '../step';

const bridgeCount = z.int().min(0).max(LIMITS.bridgesOfIsland);

const islandSettingSchema = z.strictObject({
  letter: letterKey,
  island: about(z.int().min(0).max(LIMITS.islands), 'Which island of that letter, from the top, then from the left.'),
  how: about(
    z.enum(['auto', 'hand', 'leave']).default('auto'),
    '`auto`: placed anew each time; `hand`: only the bridges placed by hand; `leave`: no bridges.',
  ),
  count: about(bridgeCount.nullable().default(null), 'How many bridges; 0 as is best; null: as the step says.'),
});

const placedBridgeSchema = z.strictObject({
  letter: letterKey,
  island: about(
    z.int().min(0).max(LIMITS.islands).nullable().default(null),
    'Which island of that letter it holds; null: it holds none and crosses the gap nearest to it.',
  ),
  x: about(
    z.number().min(-LIMITS.bridgeCapitals).max(LIMITS.bridgeCapitals),
    'Where it starts, in capital heights from the letter’s origin.',
  ),
  y: about(z.number().min(-LIMITS.bridgeCapitals).max(LIMITS.bridgeCapitals), 'The same upwards from the baseline.'),
  turn: about(
    z.number().min(-360).max(360).nullable().default(null),
    'Its direction in the letter in degrees; null: square to the gap, or as the step says.',
  ),
  width: about(length.nullable().default(null), 'Its width in mm; null: as the step says.'),
});

/** Bridges as they are usual: wider where a flame cuts, which is told by its kerf. */
const BRIDGE_MM = 3;
const BRIDGE_BY_FLAME_MM = 5;
const FLAME_KERF_MM = 0.9;

const usualBridge = (kerfMm: number | null): number =>
  (kerfMm ?? 0) >= FLAME_KERF_MM ? BRIDGE_BY_FLAME_MM : BRIDGE_MM;

/** Strips of stock that hold islands. */
export const bridgeStep = fixedStep({
  kind: 'bridge',
  word: 'bridges',
  place: 'bridge',
  isSingle: true,
  schema: z.strictObject({
    kind: z.literal('bridge'),
    on: stepOn,
    width: about(length.default(3), 'Width of bridges in mm; where they are waisted, of the waist.'),
    direction: about(
      z.enum(['any', 'upright', 'level', 'stroke']).default('any'),
      'Which way bridges run: as is best, upright or level in the letter, or square across the stroke.',
    ),
    count: about(bridgeCount.default(0), 'Bridges of each island; 0: one, or two where it is large or heavy.'),
    sides: about(z.enum(['straight', 'waisted']).default('straight'), 'Whether the sides are straight or swing in.'),
    joints: about(
      z.enum(['square', 'filleted']).default('square'),
      'Whether straight sides meet the edges in a fillet.',
    ),
    slanted: about(z.boolean().default(true), 'Upright bridges lean as the typeface does.'),
    alike: about(z.boolean().default(true), 'The same letter has the same bridges everywhere.'),
    level: about(z.boolean().default(false), 'Bridges of neighbours lie at the same height.'),
    reads: about(z.boolean().default(false), 'Bridges keep off what makes letters themselves.'),
    small: about(
      z.enum(['bridge', 'ask', 'fill', 'drop']).default('bridge'),
      'Islands that nobody would miss, as in decorated lettering: bridged like others, asked about, not cut at all, or cut and left to drop.',
    ),
    islands: about(z.array(islandSettingSchema).max(LIMITS.islands).default([]), 'Islands treated otherwise.'),
    pinned: about(z.array(placedBridgeSchema).max(LIMITS.bridgesPlaced).default([]), 'Bridges placed by hand.'),
  }),
  suited: ({ kerfMm, leastWidthMm }) => ({
    width: Math.max(usualBridge(kerfMm), leastWidthMm ?? 0),
    reads: true,
    small: 'ask' as const,
  }),
  lengths: { grows: [], stays: ['width'] },
  grow(step, times) {
    for (const pinned of step.pinned) if (pinned.width !== null) pinned.width = times(pinned.width);
  },
  letters(step, change) {
    step.islands = onLetters(step.islands, change);
    step.pinned = onLetters(step.pinned, change);
  },
  keepsLetters: false,
  rules: [
    {
      code: 'too-many-to-bridge',
      severity: 'caution',
      station: 'hold',
      find: ({ part, partId, title }) =>
        part.bridged && part.bridged.tooMany > 0
          ? [
              {
                sentence: `${title} has ${part.bridged.tooMany.toLocaleString('en')} islands; up to ${LIMITS.islands.toLocaleString('en')} are bridged.`,
                detail: partId,
                box: part.box,
              },
            ]
          : [],
    },
    {
      code: 'small-islands',
      severity: 'caution',
      station: 'hold',
      many: (count) => `Small islands of ${count} parts are not bridged and would drop out.`,
      mend: {
        words: 'Leave them uncut',
        step: (step) => {
          step.small = 'fill';
        },
      },
      find({ step, part, partId, title, length }) {
        const small = part.bridged?.small ?? [];
        if (step?.small !== 'ask' || small.length === 0) return [];
        const widest = length(Math.max(...small.map(({ widthMm }) => widthMm)));
        const sentence =
          small.length === 1
            ? `A small island of ${title} is not bridged and would drop out: it is ${widest} wide.`
            : `${small.length.toLocaleString('en')} small islands of ${title} are not bridged and would drop out: they are up to ${widest} wide.`;
        const box = small.reduce<Box>((all, { outline }) => uniteBoxes(all, outline.box), EMPTY_BOX);
        return [{ sentence, detail: partId, box, mend: {} }];
      },
    },
    {
      code: 'bridge-narrowed',
      severity: 'caution',
      station: 'hold',
      many: (count) => `${count} bridges are narrower than was asked: there is no room.`,
      find({ part, length }) {
        const { bridged } = part;
        if (!bridged) return [];
        const names = islandNames(part.sources, bridged.islands);
        return bridged.islands.flatMap(({ bridges, outline }, i) => {
          const narrow = bridges.flatMap((k) => bridged.bridges[k] ?? []).filter((b) => b.isNarrowed);
          if (narrow.length === 0) return [];
          const name = names[i] as string;
          const verb = narrow.length > 1 ? `The bridges of ${name} are` : `The bridge of ${name} is`;
          const least = Math.min(...narrow.map((b) => b.width));
          return [
            {
              sentence: `${verb} ${length(least)} wide; there is no room for ${length(bridged.askedMm)}.`,
              box: outline.box,
              detail: name,
            },
          ];
        });
      },
    },
    {
      code: 'fewer-bridges',
      severity: 'note',
      station: 'hold',
      many: (count) => `${count} islands have fewer bridges than was asked.`,
      find({ part }) {
        const { bridged } = part;
        if (!bridged) return [];
        const names = islandNames(part.sources, bridged.islands);
        return bridged.islands.flatMap(({ how, asked, isCountAsked, bridges, outline }, i) => {
          if (how !== 'auto' || !isCountAsked || bridges.length === 0 || bridges.length >= asked) return [];
          const name = names[i] as string;
          const has = bridges.length === 1 ? '1 bridge' : `${bridges.length} bridges`;
          const sentence = `${startSentence(name)} has ${has}; there is no place for ${asked}.`;
          return [{ sentence, box: outline.box, detail: name }];
        });
      },
    },
    {
      code: 'bridge-unplaced',
      severity: 'caution',
      station: 'hold',
      find({ part, step, title }) {
        const names = new Names(part);
        const labels = new Map(part.frames.map((frame, label) => [frame.key, label]));
        return (part.bridged?.unplaced ?? []).map((index) => {
          const label = labels.get(step?.pinned[index]?.letter ?? '');
          const letter = label === undefined ? title : names.source(label);
          const sentence = `A bridge placed by hand in ${letter} no longer fits there and is left out.`;
          return { sentence, box: part.box, detail: letter };
        });
      },
    },
    {
      code: 'hair',
      severity: 'note',
      station: 'hold',
      many: (count) => `${count} necks of stock are too thin to stay.`,
      find: ({ part, partId, title, length }) =>
        (part.bridged?.hairs ?? []).map(({ at, width }) => ({
          sentence: `A piece of ${title} hangs on ${length(width)} of stock here; it is cut free, to be held by a bridge.`,
          box: { minX: at.x, minY: at.y, maxX: at.x, maxY: at.y },
          detail: partId,
        })),
    },
  ],
});
