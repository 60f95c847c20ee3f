/** Nodes: outlines worked on by hand stand in place of what the steps before give. */
import { z } from 'zod';
import { takeInHand } from '../../prepare/hand-made';
import { about, length, pathSharesField, stepOn } from '../../schema/fields';
import { fixedStep } from '../step';

/** Outlines whose nodes were worked on by hand, in place of what the steps give. */
export const nodesStep = fixedStep({
  kind: 'nodes',
  word: 'outlines by hand',
  place: 'nodes',
  isSingle: true,
  schema: z.strictObject({
    kind: z.literal('nodes'),
    on: stepOn,
    d: about(
      pathSharesField,
      'Paths as SVG path data in measures of the first member, y upwards; closed ones enclose areas, open ones are lines.',
    ),
    unit: about(length, 'What the first member measured when this was drawn, in mm: its capitals, or its height.'),
    over: about(
      z.strictObject({ segments: z.int().min(0), area: z.number(), length: z.number().min(0) }),
      'What it stands in place of, as it was then: segments, area and length in that measure.',
    ),
  }),
  suited: ({ capHeightMm }) => ({
    d: '',
    unit: Math.max(0.01, capHeightMm),
    over: { segments: 0, area: 0, length: 0 },
  }),
  // Kept in the measure of the first member.
  lengths: { grows: [], stays: [] },
  keepsLetters: false,
  rules: [
    {
      code: 'hand-made',
      severity: 'note',
      station: 'close',
      mend: { words: 'Back to the words and steps', isLeftOut: true },
      find({ part, partId, title }) {
        const { handMade, box } = part;
        if (!handMade) return [];
        const sentence = handMade.stale
          ? `${title} was worked on by hand, and its words or steps have changed since: the outlines are the old ones.`
          : `${title} is worked on by hand: changes of its words or steps don’t show.`;
        return [{ severity: handMade.stale ? 'caution' : 'note', sentence, box, detail: partId, mend: {} }];
      },
    },
  ],
});

/** The step that keeps a part's outlines and lines as they are; null when it has none. */
export function outlinesInHand(part: Parameters<typeof takeInHand>[0]): z.infer<typeof nodesStep.schema> | null {
  const kept = takeInHand(part);
  return kept && { kind: 'nodes', on: true, ...kept };
}
