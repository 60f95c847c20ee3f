/** What is found about operations: their order, and those that a machine would take for one. */
import { giveOwnColour, runBefore } from '../commands/operations';
import { colourOf } from '../document/colour-of';
import { partTitle } from '../document/part-words';
import type { Job, Operation } from '../document/schema';
import { outlinesGiven } from '../kinds/letters-alone';
import { settingsOn } from '../shop/in-force';
import { type JobRule, jobRule, type OperationDrawn } from './rule';

const RUNS_BEFORE_CUT = new Set(['engrave', 'mark', 'score']);

/** The operations that run: they are on, and some part that is shown is given to them. */
export function running(job: Job): readonly Operation[] {
  const used = new Set(job.parts.filter((p) => !p.hidden).flatMap((p) => p.work.map((w) => w.operation)));
  return job.operations.filter((o) => o.on && used.has(o.id));
}

/** What is found about operations. */
export const OPERATION_RULES: readonly JobRule[] = [
  jobRule<{ operation: string; before: string }>({
    code: 'cut-first',
    severity: 'caution',
    station: 'assign',
    many: (count) => `${count} operations run after a cut: pieces may shift or fall before they are finished.`,
    mend: {
      words: 'Run it before',
      apply: (job, _partId, { operation, before }) => runBefore(job, operation, before),
    },
    find({ job }) {
      const inOrder = running(job);
      return inOrder.flatMap((operation, i) => {
        const earlier = inOrder.slice(0, i).find((o) => o.kind === 'cut');
        if (!earlier || !RUNS_BEFORE_CUT.has(operation.kind)) return [];
        const sentence = `${earlier.name} runs before ${operation.name}: pieces may shift or fall before they are finished.`;
        return [
          {
            sentence,
            partId: null,
            detail: `${earlier.id}:${operation.id}`,
            mend: { operation: operation.id, before: earlier.id },
          },
        ];
      });
    },
  }),
  jobRule<{ operation: string }>({
    code: 'one-colour',
    severity: 'caution',
    station: 'assign',
    many: (count) => `${count} operations have the colour of another in files: a machine reads them as one.`,
    mend: {
      words: 'A colour of its own',
      apply: (job, _partId, { operation }) => giveOwnColour(job, operation),
    },
    find({ job }) {
      const inOrder = running(job);
      const colours = inOrder.map((o) => colourOf(o, job).toUpperCase());
      return inOrder.flatMap((operation, i) => {
        const first = inOrder[colours.indexOf(colours[i] as string)] as Operation;
        if (first === operation) return [];
        const sentence = `${first.name} and ${operation.name} have the same colour in files: a machine reads them as one.`;
        return [{ sentence, partId: null, detail: operation.id, mend: { operation: operation.id } }];
      });
    },
  }),
  jobRule({
    code: 'kerf-not-known',
    severity: 'fault',
    station: 'assign',
    many: (count) => `${count} operations run beside the outlines by half a kerf that is not known.`,
    find: ({ job }) =>
      running(job)
        .filter((o) => o.kind === 'cut' && o.kerfSide === 'beside' && !settingsOn(o, job.sheet).kerf)
        .map((o) => ({
          sentence: `${o.name} runs beside the outlines by half the kerf, and the kerf is not known: it runs on them.`,
          partId: null,
          detail: o.id,
        })),
  }),
  jobRule<{ operation: string }>({
    code: 'kerf-side-without-cut',
    severity: 'caution',
    station: 'assign',
    mend: {
      words: 'On the outlines',
      apply: (job, _partId, { operation }) => ({
        ...job,
        operations: job.operations.map((o) => (o.id === operation ? { ...o, kerfSide: 'line' } : o)),
      }),
    },
    find: ({ job }) =>
      running(job)
        .filter((o) => o.kind !== 'cut' && o.kerfSide !== 'line')
        .map((o) => ({
          sentence: `${o.name} is a ${o.kind}, and runs beside the outlines like a cut.`,
          partId: null,
          detail: o.id,
          mend: { operation: o.id },
        })),
  }),
  jobRule({
    code: 'narrower-than-cut',
    severity: 'fault',
    station: 'assign',
    many: (count) => `${count} parts have openings narrower than the cut, which are not cut.`,
    find: ({ job, drawn, inspected }) =>
      drawn
        .filter(({ operation: o }) => o.on && o.kind === 'cut' && o.kerfSide === 'beside')
        .flatMap(({ operation, drawn: own, cuts }) =>
          job.parts.flatMap((part) => {
            const ready = inspected.get(part.id);
            const isGiven = part.work.some((w) => w.what === 'outline' && w.operation === operation.id);
            if (!ready || !isGiven || part.keep !== 'outside') return [];
            const along = cuts.length > 0 ? cuts : own.filter((d) => d.what === 'outline');
            const entries = part.work.filter((w) => w.operation === operation.id);
            const given = outlinesGiven(ready.outlines, ready, { work: part.work, entries });
            const gone = given.length - along.filter((c) => c.partId === part.id).length;
            if (gone <= 0) return [];
            const what = gone === 1 ? 'an opening' : `${gone} openings`;
            return [
              {
                sentence: `${partTitle(part)} has ${what} narrower than the cut: ${operation.name} leaves ${gone === 1 ? 'it' : 'them'} out.`,
                partId: part.id,
                detail: operation.id,
                box: ready.box,
              },
            ];
          }),
        ),
  }),
  jobRule({
    code: 'no-room-for-lead',
    severity: 'caution',
    station: 'assign',
    many: (count) => `${count} cuts have no room for a lead-in: they begin on the outline.`,
    find: ({ drawn }) =>
      lacking(drawn, 'lead', (name) => `${name} has no room for a lead-in here: it begins on the outline.`),
  }),
  jobRule({
    code: 'no-room-for-tabs',
    severity: 'caution',
    station: 'assign',
    many: (count) => `${count} pieces have no room for a tab: they come free.`,
    find: ({ drawn }) =>
      lacking(drawn, 'tabs', (name) => `${name} has no room for a tab on this piece: it comes free.`),
  }),
];

/** So many places are told one by one. */
const TOLD = 30;

/** Where cuts have no room for something that is asked of them. */
const lacking = (
  drawn: readonly OperationDrawn[],
  what: 'lead' | 'tabs',
  sentence: (operation: string) => string,
): ReturnType<JobRule['find']> =>
  drawn
    .filter(({ operation }) => operation.on)
    .flatMap(({ operation, cuts }) =>
      cuts
        .filter(({ lacks }) => lacks.includes(what))
        .slice(0, TOLD)
        .map(({ partId, box }, i) => ({
          sentence: sentence(operation.name),
          partId,
          detail: `${operation.id}:${i}`,
          box,
        })),
    );
