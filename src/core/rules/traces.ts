/** What is found about traced pictures: what was taken for background, edges too blurred to be sure of, words that could be set. */
import { editTrace } from '../commands/pictures';
import type { Trace } from '../document/schema';
import { type Box, boxHeight } from '../geometry/point';
import type { MendArgs } from '../inspect/finding';
import type { Observation, Rule } from '../inspect/rule';
import { LIMITS } from '../limits';
import type { Outline } from '../prepare/outline';
import type { PreparedMember } from '../prepare/prepared';
import type { TraceFound } from '../prepare/trace';
import { type AnyMend, type PartSubject, partRule } from './rule';

/** Something found about each trace of a part. */
const ofTraces = <A extends MendArgs>(
  { part, ready }: PartSubject,
  find: (
    found: TraceFound,
    trace: Trace,
    prepared: PreparedMember,
  ) => Omit<Observation<A>, 'memberId' | 'detail' | 'box'> | null,
): Observation<A>[] =>
  part.members.flatMap((member, i) => {
    const prepared = ready.members[i];
    if (member.kind !== 'trace' || !prepared?.traced) return [];
    const found = find(prepared.traced, member, prepared);
    return found ? [{ ...found, box: prepared.box, detail: member.id, memberId: member.id }] : [];
  });

const nameOf = (trace: Trace): string => (trace.name ? `“${trace.name}”` : 'the picture');

const rimLeftOut = partRule<{ memberId: string }>({
  code: 'rim-left-out',
  severity: 'note',
  station: 'compose',
  mend: {
    words: 'Keep it',
    apply: (job, partId, { memberId }) =>
      editTrace(job, partId, memberId, (trace) => {
        trace.dropRim = false;
      }),
  },
  find: (about) =>
    ofTraces(about, ({ rims }, trace) =>
      rims > 0 && trace.dropRim
        ? {
            sentence: `${rims === 1 ? 'A shape runs' : `${rims} shapes run`} along the rim of ${nameOf(trace)} and ${rims === 1 ? 'was' : 'were'} taken for background: left out.`,
            mend: { memberId: trace.id },
          }
        : null,
    ),
});

const background = partRule<{ memberId: string }>({
  code: 'background-traced',
  severity: 'caution',
  station: 'compose',
  mend: {
    words: 'Leave it out',
    apply: (job, partId, { memberId }) =>
      editTrace(job, partId, memberId, (trace) => {
        trace.dropRim = true;
      }),
  },
  find: (about) =>
    ofTraces(about, ({ rims }, trace) =>
      rims > 0 && !trace.dropRim
        ? {
            sentence: `${rims === 1 ? 'A shape runs' : `${rims} shapes run`} along the rim of ${nameOf(trace)}: probably background, and not meant to be cut.`,
            mend: { memberId: trace.id },
          }
        : null,
    ),
});

/** An edge wider than this, in pixels and in mm, is blurred: where in it the outline runs is a guess. */
const BLURRED_PIXELS = 3.6;
const BLURRED_MM = 0.5;

const blurredEdges = partRule({
  code: 'blurred-edges',
  severity: 'caution',
  station: 'compose',
  find: (about) =>
    ofTraces(about, ({ edgePixels, edgeMm }, trace) =>
      edgePixels > BLURRED_PIXELS && edgeMm > BLURRED_MM
        ? {
            sentence: `The edges in ${nameOf(trace)} are blurred over ${about.length(edgeMm)} at this size: where in them the outline runs is not sure.`,
          }
        : null,
    ),
});

const tooManyOutlines = partRule({
  code: 'too-many-outlines',
  severity: 'fault',
  station: 'compose',
  find: (about) =>
    ofTraces(about, ({ beyond }, trace) =>
      beyond > 0
        ? {
            sentence: `${nameOf(trace).replace(/^t/, 'T')} comes to ${(beyond + LIMITS.tracedOutlines).toLocaleString('en')} outlines; the ${LIMITS.tracedOutlines.toLocaleString('en')} largest are kept. Ask for larger things, or for other tones.`,
          }
        : null,
    ),
});

/** Shapes whose feet lie this near to one line, and whose heights are this much alike, as shares of their height. */
const FEET = 0.08;
const ALIKE = 0.12;
/** Letters stand no farther apart than this, are this high for their width at least, and are as many. */
const APART = 1.6;
const SLENDER = 0.35;
const LETTERS = 3;

/** Whether three or more shapes of like height stand on one line next to each other, as letters do. Boxes are those of outer outlines. */
export function looksLikeWords(boxes: readonly Box[]): boolean {
  const byPlace = boxes.filter((b) => boxHeight(b) > 0).sort((p, q) => p.minX - q.minX);
  return byPlace.some((first) => {
    const height = boxHeight(first);
    let [count, right] = [1, first.maxX];
    for (const next of byPlace) {
      if (next.minX < right - FEET * height || next === first) continue;
      if (next.minX - right > APART * height) continue;
      const isAlike =
        Math.abs(next.minY - first.minY) < FEET * height &&
        Math.abs(boxHeight(next) - height) < ALIKE * height &&
        next.maxX - next.minX < height / SLENDER;
      if (!isAlike) continue;
      count++;
      right = next.maxX;
    }
    return count >= LETTERS;
  });
}

const outerBoxes = (outlines: readonly Outline[]): Box[] => outlines.filter((o) => o.area > 0).map((o) => o.box);

const couldBeWords = partRule({
  code: 'could-be-words',
  severity: 'note',
  station: 'compose',
  find: (about) =>
    ofTraces(about, (_, trace, { outlines }) =>
      looksLikeWords(outerBoxes(outlines))
        ? {
            sentence: `Some of ${nameOf(trace)} looks like words. Set as lettering they stay words: they can be changed, spaced and bridged by letter.`,
          }
        : null,
    ),
});

/** What is found about traced pictures. */
export const TRACE_RULES: readonly Rule<PartSubject, AnyMend>[] = [
  tooManyOutlines,
  background,
  blurredEdges,
  rimLeftOut,
  couldBeWords,
];
