/** What stays open in brought-in drawings: gaps that are sure, places to be asked about, lines that end nowhere near another. */
import { answerGap } from '../commands/drawings';
import type { Artwork } from '../document/schema';
import { regionBox } from '../geometry/path';
import { applyMatrix, type Box, EMPTY_BOX, growBox, type Matrix, transformedBox, uniteBoxes } from '../geometry/point';
import type { MendArgs } from '../inspect/finding';
import type { Observation, Rule } from '../inspect/rule';
import { LIMITS } from '../limits';
import type { PreparedArtwork } from '../prepare/artwork';
import type { Gap } from '../prepare/closing/closing';
import type { PreparedMember } from '../prepare/prepared';
import { type AnyMend, type PartSubject, partRule } from './rule';

type Closing = PreparedArtwork['closing'];

/** Something found about each drawing of a part that is cut; of one worked on by hand, how its drawings would close does not show. */
const ofDrawings = <A extends MendArgs>(
  { part, ready, isCut }: PartSubject,
  find: (closing: Closing, member: Artwork, prepared: PreparedMember) => readonly Omit<Observation<A>, 'memberId'>[],
): Observation<A>[] =>
  isCut && !ready.handMade
    ? part.members.flatMap((member, i) => {
        const prepared = ready.members[i];
        if (member.kind !== 'artwork' || !prepared?.closing) return [];
        return find(prepared.closing, member, prepared).map((found) => ({ ...found, memberId: member.id }));
      })
    : [];

const gapBox = (gaps: readonly Gap[], matrix: Matrix): Box =>
  growBox(
    gaps
      .flatMap((gap) => [gap.from, gap.to])
      .map((p) => applyMatrix(matrix, p))
      .reduce<Box>((box, { x, y }) => uniteBoxes(box, { minX: x, minY: y, maxX: x, maxY: y }), EMPTY_BOX),
    1,
  );

/** Gaps with one partner for both ends, the widest first. */
const sureGaps = ({ gaps }: Closing): Gap[] =>
  gaps.filter((gap) => gap.state === 'sure').sort((a, b) => b.sizeMm - a.sizeMm);

/** Gaps that share ends are one place to be asked about. */
function askedPlaces({ gaps }: Closing): { gaps: Gap[]; ends: number }[] {
  const placeOf = new Map<string, { gaps: Gap[]; ends: Set<string> }>();
  for (const gap of gaps) {
    if (gap.state !== 'asked') continue;
    const ends = gap.key.split('~');
    const met = [...new Set(ends.flatMap((end) => placeOf.get(end) ?? []))];
    const place = {
      gaps: [...met.flatMap((m) => m.gaps), gap],
      ends: new Set([...met.flatMap((m) => [...m.ends]), ...ends]),
    };
    for (const end of place.ends) placeOf.set(end, place);
  }
  return [...new Set(placeOf.values())].map((place) => ({ gaps: place.gaps, ends: place.ends.size }));
}

/** What is narrower is told as nothing, in mm. */
const NO_GAP_MM = 0.005;

const gap = partRule<{ memberId: string; gap: string }>({
  code: 'gap',
  severity: 'caution',
  station: 'close',
  many: (count) => `${count} gaps are open.`,
  mend: {
    words: 'Close it',
    apply: (job, partId, args) => answerGap(job, partId, { memberId: args.memberId, gap: args.gap, how: 'close' }),
  },
  find: (about) =>
    ofDrawings(about, (closing, member, { matrix }) =>
      sureGaps(closing)
        .slice(0, LIMITS.gapsNamed)
        .map((one) => ({
          sentence:
            one.sizeMm < NO_GAP_MM
              ? 'Two ends of an outline meet and are not joined: close it, and it is cut in one go.'
              : `Gap of ${about.length(one.sizeMm)} in an outline.`,
          box: gapBox([one], matrix),
          detail: `${member.id}:${one.key}`,
          mend: { memberId: member.id, gap: one.key },
        })),
    ),
});

const askedGap = partRule({
  code: 'asked-gap',
  severity: 'caution',
  station: 'close',
  many: (count) => `${count} gaps can be joined in more than one way.`,
  find: (about) =>
    ofDrawings(about, (closing, member, { matrix }) =>
      askedPlaces(closing)
        .slice(0, LIMITS.gapsNamed)
        .map(({ gaps, ends }) => ({
          sentence: `${ends} ends come close here: which belong together?`,
          box: gapBox(gaps, matrix),
          detail: `${member.id}:${gaps[0]?.key ?? ''}`,
        })),
    ),
});

const moreGaps = partRule({
  code: 'more-gaps',
  severity: 'caution',
  station: 'close',
  find: (about) =>
    ofDrawings(about, (closing, member, { box }) => {
      const beyond = (list: readonly unknown[]) => Math.max(0, list.length - LIMITS.gapsNamed);
      const more = beyond(sureGaps(closing)) + beyond(askedPlaces(closing));
      const sentence = `${more.toLocaleString('en')} more gaps in “${member.name}”.`;
      return more > 0 ? [{ sentence, box, detail: member.id }] : [];
    }),
});

const sharedEdges = partRule({
  code: 'shared-edges',
  severity: 'caution',
  station: 'close',
  find: (about) =>
    ofDrawings(about, ({ shared }, member, { box }) => {
      if (shared === 0) return [];
      const sentence =
        shared === 1
          ? `Two outlines of “${member.name}” have an edge in common: it is cut twice.`
          : `Outlines of “${member.name}” have ${shared.toLocaleString('en')} edges in common: each is cut twice.`;
      return [{ sentence, box, detail: member.id }];
    }),
});

const notArrived = partRule({
  code: 'not-arrived',
  severity: 'fault',
  station: 'close',
  // Whatever is done to the part, what is not there is not done.
  find: (about) =>
    ofDrawings({ ...about, isCut: true }, ({ missing }, member, { matrix }) => {
      if (missing.paths === 0) return [];
      const lines = missing.paths === 1 ? 'A line' : `${missing.paths.toLocaleString('en')} lines`;
      const sentence = `${lines} of “${member.name}”, ${about.length(missing.mm)} long, did not arrive whole on the sheet: look the drawing over before you cut it.`;
      return [{ sentence, box: growBox(transformedBox(missing.box, matrix), 1), detail: member.id }];
    }),
});

const openLines = partRule({
  code: 'open-lines',
  severity: 'caution',
  station: 'close',
  find(about) {
    const { part, ready, isCut } = about;
    const n = ready.openPaths.length;
    // Where gaps are asked about, what is open is their matter.
    if (!isCut || n === 0 || [gap, askedGap].some((rule) => rule.find(about).length > 0)) return [];
    const sentence =
      n === 1
        ? 'A line does not close: it is cut as it is, and nothing comes off.'
        : `${n.toLocaleString('en')} lines do not close: they are cut as they are, and nothing comes off.`;
    return [{ sentence, box: growBox(regionBox(ready.openPaths), 1), detail: part.id }];
  },
});

/** What is found about drawings that do not close. */
export const CLOSING_RULES: readonly Rule<PartSubject, AnyMend>[] = [
  notArrived,
  gap,
  askedGap,
  moreGaps,
  sharedEdges,
  openLines,
];
