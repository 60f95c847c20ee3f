/** What is found about what is worked: nothing given, two things on the same letters, letters too small for their tip. */

import type { Operation, Work } from '../document/schema';
import { pathLength } from '../geometry/path';
import { isEmptyBox } from '../geometry/point';
import { startSentence } from '../inspect/names';
import type { Rule } from '../inspect/rule';
import { notAlone, outlinesGiven, regionGiven } from '../kinds/letters-alone';
import type { Outline } from '../prepare/outline';
import { type AnyMend, ofMembers, type PartSubject, partRule } from './rule';

/** So many letters are told one by one. */
const TOLD = 8;

/** Letters of one-line faces lower than this many tips run together. */
const LEAST_TIPS = 6;

/** Whether one operation fills what another runs along: where letters are given by themselves these may be others. */
function haveInCommon({ part: { work }, ready }: PartSubject, filling: Operation, along: Operation): boolean {
  if (work.every((w) => w.only === null)) return true;
  const of = ({ id }: Operation) => ({ work, entries: work.filter((w) => w.operation === id) });
  const filled = new Set((['fill', 'hatch'] as const).flatMap((what) => regionGiven(ready, of(filling), what)));
  return outlinesGiven(ready.outlines, ready, of(along)).some((outline) => filled.has(outline));
}

/** How wide strokes are on the mean, in mm: their area over half the length around them; 0 without any. */
function meanStroke(outlines: readonly Outline[]): number {
  const around = outlines.reduce((sum, { path }) => sum + pathLength(path), 0);
  return around > 0 ? (2 * outlines.reduce((sum, { area }) => sum + area, 0)) / around : 0;
}

/** The operations that do some kinds of work on a part. */
const doing = ({ part, job }: PartSubject, ...whats: readonly Work['what'][]): Operation[] =>
  part.work.flatMap((w) => (whats.includes(w.what) ? (job.operations.find((o) => o.id === w.operation) ?? []) : []));

/** What is found about the work on a part. */
export const WORK_RULES: readonly Rule<PartSubject, AnyMend>[] = [
  partRule({
    code: 'letter-not-alone',
    severity: 'caution',
    station: 'assign',
    find({ part, ready, names, title }) {
      const whats = new Set(part.work.flatMap((w) => (w.only ? [w.what] : [])));
      return [...whats].flatMap((what) =>
        notAlone(ready, part.work, what)
          .slice(0, TOLD)
          .map((label) => ({
            sentence: `${startSentence(names.source(label))} of ${title} hangs together with other letters: it is worked with them, not by itself.`,
            detail: `${what}:${label}`,
            box: ready.box,
          })),
      );
    },
  }),
  partRule({
    code: 'lines-not-filled',
    severity: 'caution',
    station: 'assign',
    find: ({ part, ready, title }) =>
      ready.outlines.length === 0 &&
      ready.openPaths.length > 0 &&
      part.work.length > 0 &&
      part.work.every((w) => w.what === 'fill')
        ? [
            {
              sentence: `${title} is lines only: there is no inside to engrave, and nothing would be in the file.`,
              box: ready.box,
              detail: 'lines',
            },
          ]
        : [],
  }),
  partRule({
    code: 'small-for-tip',
    severity: 'caution',
    station: 'compose',
    find(about) {
      const tip = Math.max(0, ...doing(about, 'outline').map((o) => o.tip ?? 0));
      if (tip === 0) return [];
      const least = LEAST_TIPS * tip;
      return ofMembers(about, (member, { layout, outlines }) => {
        if (member.kind !== 'lettering' || !layout || outlines.length > 0 || layout.capHeightMm >= least) return null;
        return {
          sentence: `Letters ${about.length(layout.capHeightMm)} high run together under a tip of ${about.length(tip)}: take at least ${about.length(least)}.`,
        };
      });
    },
  }),
  partRule({
    code: 'tool-over-stroke',
    severity: 'caution',
    station: 'assign',
    many: (count) => `${count} times a tool is wider than the strokes it goes over.`,
    find(about) {
      const { ready, title, length } = about;
      const stroke = meanStroke(ready.outlines);
      return doing(about, 'fill')
        .filter(({ on, settings }) => on && stroke > 0 && (settings.toolWidth ?? 0) > stroke)
        .map(({ id, name, settings }) => ({
          sentence: `The tool of ${name} works ${length(settings.toolWidth ?? 0)} wide: strokes of ${title} are about ${length(stroke)} wide, and it does not fit into them.`,
          detail: id,
          box: ready.box,
        }));
    },
  }),
  partRule({
    code: 'no-operation',
    severity: 'caution',
    station: 'assign',
    many: (count) => `${count} parts have no operation yet: they would not be in the file.`,
    find: ({ part, ready: { box }, title }) =>
      part.work.length === 0 && !isEmptyBox(box)
        ? [{ sentence: `${title} has no operation yet: it would not be in the file.`, detail: part.id, box }]
        : [],
  }),
  partRule({
    code: 'fill-and-cut',
    severity: 'caution',
    station: 'assign',
    many: (count) => `${count} parts have both a fill and a cut on the same letters.`,
    find(about) {
      const { part, ready, title } = about;
      const filled = doing(about, 'fill', 'hatch').find((o) => o.on);
      const cut = doing(about, 'outline').find((o) => o.on && o.kind === 'cut');
      if (!filled || !cut || isEmptyBox(ready.box) || !haveInCommon(about, filled, cut)) return [];
      const sentence = `${title} has both a fill (${filled.name}) and a cut (${cut.name}) on the same letters.`;
      return [{ sentence, detail: part.id, box: ready.box }];
    },
  }),
  partRule({
    code: 'operation-off',
    severity: 'note',
    station: 'assign',
    many: (count) => `${count} parts are given to operations that are switched off.`,
    find: ({ part, ready: { box }, job, title }) =>
      part.work.length > 0 &&
      !isEmptyBox(box) &&
      part.work.every((w) => job.operations.find((o) => o.id === w.operation)?.on === false)
        ? [{ sentence: `${title} is given to operations that are switched off.`, detail: part.id, box }]
        : [],
  }),
];
