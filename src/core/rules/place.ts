/** What is found about where a part lies, how large it is, and what is left of it. */
import { punchMember } from '../commands/interior';
import type { Job } from '../document/schema';
import type { Path } from '../geometry/path';
import { type Box, isEmptyBox } from '../geometry/point';
import type { Rule } from '../inspect/rule';
import type { Memory } from '../memo';
import { isOnOffCut } from '../nesting/off-cut';
import { cutTo } from '../units/text';
import { type AnyMend, type Inspected, type PartSubject, partRule } from './rule';

/** How far a box sticks out of the sheet, in mm; 0 when it lies on it. */
const stickingOut = (box: Box, { width, height }: Job['sheet']): number =>
  Math.max(0, -box.minX, -box.minY, box.maxX - width, box.maxY - height);

/** All lines of a part. */
const pathsOf = ({ outlines, openPaths }: Inspected): Path[] => [...outlines.map((o) => o.path), ...openPaths];

/** An overall width is met to this, in mm. */
const OVERALL_MM = 0.01;
/** Rounding of coordinates is not sticking out, in mm. */
const OFF_SHEET_MM = 1e-3;

/** The members whose letters and shapes some of the bare shape is left of. */
const membersLeft = ({ own }: Inspected, memory: Memory): ReadonlySet<string | undefined> =>
  memory.of(own, 'members left', () => {
    const labels = new Set(own.bare.flatMap((o) => o.labels));
    return new Set([...labels].map((label) => own.sources[label]?.memberId));
  });

/** What is found about where a part lies. */
export const PLACE_RULES: readonly Rule<PartSubject, AnyMend>[] = [
  partRule<{ memberId: string }>({
    code: 'swallowed',
    severity: 'fault',
    station: 'compose',
    many: (count) => `${count} things lie in the rest of their part and would not be seen.`,
    mend: {
      words: 'Cut it out instead',
      apply: (job, partId, { memberId }) => punchMember(job, partId, memberId),
    },
    /** Words that are joined to something they lie in wholly: nothing of their outlines is left. */
    find({ part, ready, memory }) {
      const words = part.members.filter((m) => m.kind === 'lettering' && m.role === 'join');
      if (part.members.length < 2 || words.length === 0 || ready.overlaps || ready.handMade) return [];
      const membersLost = membersLeft(ready, memory);
      return part.members.flatMap((member, i) => {
        const prepared = ready.members[i];
        if (member.kind !== 'lettering' || member.role !== 'join' || membersLost.has(member.id)) return [];
        if (!prepared?.outlines.length) return [];
        const name = cutTo(member.text.trim().split('\n')[0] ?? '', 40);
        return [
          {
            sentence: `“${name}” lies in the rest of its part and is joined to it: it would not be seen.`,
            memberId: member.id,
            box: prepared.box,
            detail: member.id,
            mend: { memberId: member.id },
          },
        ];
      });
    },
  }),
  partRule({
    code: 'empty-part',
    severity: 'caution',
    station: 'compose',
    find: ({ part, ready, title }) =>
      isEmptyBox(ready.box) && part.members.length > 0 && ready.members.every((m) => m.trouble === null)
        ? [{ sentence: `Nothing is left of ${title}.`, detail: part.id }]
        : [],
  }),
  partRule({
    code: 'overall-width',
    severity: 'fault',
    station: 'compose',
    find({ part, ready, title, length }) {
      const { overall, box } = ready;
      if (isEmptyBox(box) || !overall || Math.abs(overall.gotMm - overall.askedMm) <= OVERALL_MM) return [];
      const sentence = `${title} can’t be ${length(overall.askedMm)} wide overall: what does not grow with it leaves ${length(overall.gotMm)}.`;
      return [{ sentence, detail: part.id, box }];
    },
  }),
  partRule({
    code: 'off-sheet',
    severity: 'fault',
    station: 'compose',
    many: (count) => `${count} parts stick out of the sheet.`,
    find({ part, ready, job, title, length }) {
      const { box } = ready;
      const out = isEmptyBox(box) ? 0 : stickingOut(box, job.sheet);
      const { offCut } = job.sheet;
      if (out <= OFF_SHEET_MM && offCut && !isEmptyBox(box) && !isOnOffCut(pathsOf(ready), offCut))
        return [{ sentence: `${title} sticks out of the off-cut.`, detail: part.id, box }];
      if (out <= OFF_SHEET_MM) return [];
      return [{ sentence: `${title} sticks out of the sheet by ${length(out)}.`, detail: part.id, box }];
    },
  }),
];
