/** What is found about the machine a job is made on: what it can't do, what must not be done on it, what does not fit it. */
import { partTitle } from '../document/part-words';
import type { Job, Operation } from '../document/schema';
import { boxHeight, boxWidth, determinant, EMPTY_BOX, IDENTITY, isEmptyBox, uniteBoxes } from '../geometry/point';
import type { Observation } from '../inspect/rule';
import { doneBy, processOf } from '../shop/can';
import { inForce } from '../shop/in-force';
import { formatSpeed } from '../shop/words';
import { formatLength } from '../units/quantity';
import { running } from './operations';
import { type JobRule, jobRule } from './rule';

type Found = Observation & { readonly partId: string | null };
const ofJob = (sentence: string, detail: string, more: Partial<Found> = {}): Found => ({
  sentence,
  detail,
  partId: null,
  ...more,
});

/** What is said of an operation that is too fast or too slow for the machine; null where it is neither. */
function speedTrouble(job: Job, { name, settings }: Operation): string | null {
  const { machine } = job;
  const { speed } = inForce(settings);
  if (!machine || speed === null) return null;
  const most = Math.max(machine.speed.x, machine.speed.y);
  const as = (mm: number) => formatSpeed(mm, job.units);
  if (speed > most) return `${name} is set to ${as(speed)}: ${machine.name} goes no faster than ${as(most)}.`;
  if (speed < machine.slowest)
    return `${name} is set to ${as(speed)}: ${machine.name} runs no slower than ${as(machine.slowest)}.`;
  return null;
}

/** What is found about a job and its machine. */
export const MACHINE_RULES: readonly JobRule[] = [
  jobRule({
    code: 'mirrored-twice',
    severity: 'caution',
    station: 'prove',
    many: (count) =>
      `${count} parts are mirrored on the sheet, and files are written mirrored: they read as before again.`,
    find({ job, inspected }) {
      if (!job.export.mirrored) return [];
      return job.parts
        .filter((part) => determinant(inspected.get(part.id)?.matrix ?? IDENTITY) < 0)
        .map((part) => ({
          sentence: `${partTitle(part)} is mirrored on the sheet, and files are written mirrored: it reads as before again.`,
          detail: part.id,
          partId: part.id,
        }));
    },
  }),
  jobRule({
    code: 'must-not',
    severity: 'fault',
    station: 'compose',
    find({ job }) {
      const process = job.machine ? processOf(job.machine) : job.sheet.process;
      const refused = job.sheet.refuses.find((r) => r.process === process);
      if (!refused || running(job).length === 0) return [];
      const what = job.sheet.material || 'This stock';
      return [ofJob(`${what} must not be worked by ${refused.process}. ${refused.why}.`, refused.process)];
    },
  }),
  jobRule<{ operation: string }>({
    code: 'machine-can-not',
    severity: 'fault',
    station: 'assign',
    many: (count) => `${count} operations are of kinds that the machine can’t do.`,
    mend: {
      words: 'Switch it off',
      apply: (job, _partId, { operation }) => ({
        ...job,
        operations: job.operations.map((o) => (o.id === operation ? { ...o, on: false } : o)),
      }),
    },
    find({ job }) {
      const { machine } = job;
      if (!machine) return [];
      const can = doneBy(machine.kind);
      return running(job)
        .filter(({ kind }) => !can.includes(kind))
        .map(({ id, name, kind }) =>
          ofJob(`${machine.name} can’t do ${name}: it can ${can.join(' and ')}, not ${kind}.`, id, {
            mend: { operation: id },
          }),
        );
    },
  }),
  jobRule({
    code: 'off-bed',
    severity: 'fault',
    station: 'compose',
    find({ job, drawn }) {
      const { machine, units } = job;
      if (!machine) return [];
      const box = drawn
        .filter(({ operation }) => operation.on)
        .flatMap((o) => o.drawn.map((d) => d.drawable.box))
        .reduce(uniteBoxes, EMPTY_BOX);
      if (isEmptyBox(box)) return [];
      const [wide, high] = [boxWidth(box), boxHeight(box)];
      const { width, height } = machine.bed;
      if (wide <= width && high <= height) return [];
      const as = (mm: number) => formatLength(mm, units);
      const turned = wide <= height && high <= width ? ' Turned by a quarter it would fit.' : '';
      return [
        ofJob(
          `The work is ${as(wide)} × ${as(high)}: the bed of ${machine.name} is ${as(width)} × ${as(height)}.${turned}`,
          'bed',
          { box },
        ),
      ];
    },
  }),
  jobRule({
    code: 'machine-speed',
    severity: 'caution',
    station: 'assign',
    many: (count) => `${count} operations are set to speeds that the machine does not run at.`,
    find: ({ job }) =>
      running(job).flatMap((operation) => {
        const sentence = speedTrouble(job, operation);
        return sentence === null ? [] : [ofJob(sentence, operation.id)];
      }),
  }),
  jobRule({
    code: 'not-in-chart',
    severity: 'note',
    station: 'assign',
    many: (count) => `${count} operations have no settings: the cut chart says nothing of them.`,
    find({ job }) {
      const { machine, sheet } = job;
      if (!machine || sheet.material === '') return [];
      const stock = [
        sheet.thickness === null ? '' : formatLength(sheet.thickness, job.units, 2),
        sheet.material,
      ].filter(Boolean);
      return running(job)
        .filter(({ kind, settings }) => doneBy(machine.kind).includes(kind) && settings.charted === null)
        .filter(({ settings }) => Object.keys(settings.typed).length === 0)
        .map(({ id, name }) =>
          ofJob(`The cut chart of ${machine.name} says nothing of ${name} in ${stock.join(' ')}.`, id),
        );
    },
  }),
];
