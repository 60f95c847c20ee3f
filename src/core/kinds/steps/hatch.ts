/** Hatch: lines, or rings, that fill the shape by a tip of some width. */
import { z } from 'zod';
import { applyMatrix, growBox, invert, type Point } from '../../geometry/point';
import { more } from '../../inspect/rule';
import { LIMITS } from '../../limits';
import type { PreparedPart } from '../../prepare/prepared';
import { about, stepOn } from '../../schema/fields';
import { hatchToolSchema } from '../../schema/tools';
import { type PartHatch, transformHatch } from '../../toolpath/hatch/part-hatch';
import { hatchStages, weighHatch } from '../../toolpath/hatch/stages';
import { drawStep } from '../step';

const percent = (share: number): string => `${(100 * share).toFixed(share < 0.1 ? 1 : 0)} %`;

/** Hatch lines there is something to say about; null where there are none, or nothing was filled. */
const filled = (hatch: PartHatch | null): PartHatch | null =>
  hatch && hatch.tooMany === null && hatch.reached.length > 0 ? hatch : null;

/** By where it is in the part, so that it keeps its key when the part is moved, turned or mirrored. */
function placeKey({ matrix, ownBox }: PreparedPart, at: Point): string {
  const own = applyMatrix(invert(matrix), at);
  return `${(own.x - ownBox.minX).toFixed(1)},${(own.y - ownBox.minY).toFixed(1)}`;
}

/** Lines, or rings, that fill the shape. */
export const hatchStep = drawStep({
  kind: 'hatch',
  word: 'hatch lines',
  isSingle: true,
  schema: z.strictObject({
    kind: z.literal('hatch'),
    on: stepOn,
    style: about(
      z.enum(['parallel', 'crossed', 'rings']).default('parallel'),
      'Lines side by side, the same crossed by a second set, or rings that follow the outline inwards.',
    ),
    joined: about(
      z.boolean().default(true),
      'The ends of neighbouring lines are joined along the edge, there and back, so that the tool stays down.',
    ),
    tool: hatchToolSchema.prefault({}).describe('What fills.'),
    overlap: about(
      z.number().min(-20).max(0.95).default(0.3),
      'Share of the width that neighbouring lines overlap; below 0 there is room between them.',
    ),
    angle: about(
      z.number().min(-360).max(360).default(45),
      'Direction of the lines in degrees, counter-clockwise from level.',
    ),
    outline: about(
      z.enum(['none', 'first', 'last']).default('last'),
      'A pass along the edge, half the width inside it, before or after the lines; rings end with it anyway.',
    ),
    least: about(z.number().min(0).max(1000).default(0), 'Lines shorter than this are left out, in mm.'),
    fillMissed: about(z.boolean().default(false), 'Places the lines miss get the few strokes they need.'),
    mostMissed: about(
      z.number().min(0).max(1).default(0.03),
      'Share of the area that a tool may leave because it does not fit; more is a finding, and no such tool is proposed.',
    ),
  }),
  // A pen, as wide as goes several times into a stroke.
  suited: ({ capHeightMm }) => ({ tool: { tip: Math.max(0.05, Math.round(capHeightMm * 2) / 40) } }),
  lengths: { grows: [], stays: ['least'] },
  grow(step, times) {
    step.tool.tip = times(step.tool.tip);
    step.tool.depth = times(step.tool.depth);
  },
  // Lines that fill change no letter; with them on, middle lines are read from the whole shape, as they always were.
  keepsLetters: false,
  canDraw: (shape) => shape.outlines.length > 0,
  draw: {
    name: 'hatch',
    // What may be left changes what is said of the lines, not the lines.
    key: ({ shape, step }, idOf) => JSON.stringify([idOf(shape), { ...step, mostMissed: 0 }]),
    run: ({ shape, step, engine }, memory) => hatchStages({ part: shape, step, engine }, memory),
    weigh: weighHatch,
  },
  moved: transformHatch,
  rules: [
    {
      code: 'too-many-lines',
      severity: 'fault',
      station: 'fill',
      find({ drawn, step, title, part }) {
        if (!drawn || drawn.tooMany === null) return [];
        const sentence =
          step?.style === 'rings'
            ? `${title} would take more than ${LIMITS.hatchRings.toLocaleString('en')} rings: none is made. Take a wider tool, or lines.`
            : `${title} would take more than ${LIMITS.hatchLines.toLocaleString('en')} lines: none is made. Take a wider tool or less overlap.`;
        return [{ sentence, box: part.box, detail: 'many' }];
      },
    },
    {
      code: 'fits-nowhere',
      severity: 'fault',
      station: 'fill',
      find: ({ drawn, title, part, length }) =>
        drawn && drawn.tooMany === null && drawn.reached.length === 0
          ? [
              {
                sentence: `A tool that works ${length(drawn.widthMm)} wide fits nowhere in ${title}: nothing is filled.`,
                box: part.box,
                detail: 'fits',
              },
            ]
          : [],
    },
    {
      code: 'beyond-reach',
      severity: 'caution',
      station: 'fill',
      find({ drawn, step, title, part, length }) {
        const hatch = filled(drawn);
        if (!hatch || !step) return [];
        const { reach, widthMm } = hatch;
        const share = reach.missedMm2 / Math.max(reach.areaMm2, 1e-9);
        if (share <= step.mostMissed) return [];
        const textOf = (source: number) => part.sources[source]?.text.trim();
        const letters = reach.letters.filter((l) => textOf(l.source));
        const worst = letters.reduce<(typeof letters)[number] | null>(
          (a, b) => (a && a.missedMm2 / a.areaMm2 >= b.missedMm2 / b.areaMm2 ? a : b),
          null,
        );
        const most =
          worst && letters.length > 1
            ? `, most of “${textOf(worst.source)}” (${percent(Math.min(1, worst.missedMm2 / worst.areaMm2))})`
            : '';
        const sentence = `A tool that works ${length(widthMm)} wide leaves ${percent(share)} of ${title}${most}: it does not fit there.`;
        return [{ sentence, box: part.box, detail: 'reach' }];
      },
    },
    {
      code: 'missed',
      severity: 'caution',
      station: 'fill',
      many: (count) => `${count} places are missed.`,
      mend: { words: 'Fill the rest', step: fillRest },
      find({ drawn, title, part, length }) {
        const hatch = filled(drawn);
        return (hatch?.cover.places ?? []).slice(0, LIMITS.missedNamed).map((place) => ({
          sentence: `A place of ${length(place.sizeMm[0])} by ${length(place.sizeMm[1])} in ${title} is missed.`,
          box: growBox(place.box, 2 * (hatch?.widthMm ?? 0)),
          detail: placeKey(part, place.at),
          mend: {},
        }));
      },
    },
    {
      code: 'more-missed',
      severity: 'caution',
      station: 'fill',
      mend: { words: 'Fill the rest', step: fillRest },
      find({ drawn, title }) {
        const count = (filled(drawn)?.cover.places.length ?? 0) - LIMITS.missedNamed;
        if (count <= 0) return [];
        const sentence = `${more(count, 'place')} in ${title} ${count === 1 ? 'is' : 'are'} missed.`;
        return [{ sentence, detail: 'missed', mend: {} }];
      },
    },
  ],
});

/** Strokes over what the lines miss. */
function fillRest(step: { fillMissed: boolean }): void {
  step.fillMissed = true;
}
