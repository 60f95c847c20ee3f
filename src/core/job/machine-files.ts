/** Files as the machine of a job wants them: its format and version, its kinds of curves, its colours and layers, no more than it takes. */
import type { Job } from '../document/schema';
import { inCurveKinds } from '../formats/curve-kinds';
import type { Drawing } from '../formats/drawing';
import { type FileFormat, writtenFormat } from '../formats/written';
import { pathToArcs } from '../geometry/arcs';
import { drawnPaths, isHatch } from '../geometry/drawable';
import { countSegments } from '../geometry/path';
import { type JobMachine, jobMachineSchema } from '../schema/shop/machine';
import type { JobResult, Progress } from './evaluate';
import { type ExportScope, type LaidOut, laidOut } from './export';
import { fileName } from './file-names';
import { allOrNone, faultyWork, type MadeFiles, type WrittenFile, writtenAndRead } from './files';

/** The names of the files that the machine of a job is given, in their order, by the operations that draw something; empty without a machine. */
export const machineFileNames = (job: Job, drawing: readonly string[], scope: ExportScope): string[] =>
  job.machine
    ? apart(scopesFor(job.machine, drawing, scope).map((own) => fileName(job, formatOf(job.machine), own)))
    : [];

/** Names told apart by a number before their ending, where operations are called alike. */
const apart = (names: readonly string[]): string[] =>
  names.map((name, i) => {
    const before = names.slice(0, i).filter((other) => other === name).length;
    return before === 0 ? name : name.replace(/\.[^.]+$/, (ending) => `-${before + 1}${ending}`);
  });

const formatOf = (machine: JobMachine | null): FileFormat => machine?.file.format ?? 'svg';

/** One scope for each file: for all operations, or for each of those that draw something. */
const scopesFor = ({ file }: JobMachine, drawing: readonly string[], scope: ExportScope): ExportScope[] =>
  file.perOperation ? drawing.map((operationId) => ({ ...scope, operationId })) : [scope];

/** The operations that are on and draw something of the parts that are wanted. */
const drawingIn = ({ operations }: JobResult, { partIds }: ExportScope): string[] =>
  operations
    .filter(({ operation, drawn }) => operation.on && drawn.some((d) => partIds === null || partIds.includes(d.partId)))
    .map(({ operation }) => operation.id);

const counted = (n: number): string => n.toLocaleString('en');

/** A file that was made for a machine, with what it is meant to be: the drawing with its curves as they are, what its layers are of, and where it lies. */
export type MeantFile = WrittenFile & {
  readonly format: FileFormat;
  readonly meant: LaidOut;
  /** Whether its curves are to be as they are; otherwise they stray by the tolerance of their layer. */
  readonly keepsCurves: boolean;
};

/** The files for the machine of a job: all of them, or none and why. Yields how many are done. */
export function* machineFiles(job: Job, result: JobResult, scope: ExportScope): Generator<Progress, MadeFiles> {
  if (!job.machine) return { files: [], refused: ['No machine is given for this job.'] };
  const { files, refused } = yield* meantFiles(job, result, scope);
  return { files: files.map(({ name, bytes }) => ({ name, bytes })), refused };
}

/** What is given where a job has no machine: one file of curves, in the job's own colours. */
const ANY_MACHINE = jobMachineSchema.parse({ name: 'Any machine', kind: 'laser', areas: {} });

/** The machine that files are proved on: that of the job, or where it has none one that reads whatever is written. */
export const provedOn = ({ machine, sheet }: Pick<Job, 'machine' | 'sheet'>): JobMachine =>
  machine ?? { ...ANY_MACHINE, bed: { width: Math.max(sheet.width, 1), height: Math.max(sheet.height, 1) } };

/** The files for the machine of a job, or for any where it has none, with what each is meant to be. */
export function* meantFiles(
  job: Job,
  result: JobResult,
  scope: ExportScope,
): Generator<Progress, { readonly files: readonly MeantFile[]; readonly refused: readonly string[] }> {
  const machine = provedOn(job);
  const asked = asItReads(job, machine);
  const faulty = faultyWork(asked, result, scope);
  if (faulty) return { files: [], refused: [`Nothing is written. ${faulty}`] };
  const id = formatOf(machine);
  const format = writtenFormat(id);
  const scopes = scopesFor(machine, drawingIn(result, scope), scope);
  const names = machineFileNames({ ...job, machine }, drawingIn(result, scope), scope);
  const made: (MeantFile | { readonly refused: string })[] = [];
  for (const [i, own] of scopes.entries()) {
    yield { done: made.length, of: scopes.length };
    const laid = laidOut(asked, result, own, format.frame(asked.export));
    if (!laid) continue;
    const named = namedAsItReads(laid.drawing, machine);
    // Plotters are given chords in any case: of the curves as they are, not of what stands for them.
    const drawing = id === 'hpgl' ? named : inCurveKinds(named, machine.file.curves);
    const tooMany = overSegments(drawing, id, machine);
    const written = tooMany
      ? { refused: tooMany }
      : writtenAndRead(drawing, id, { job: asked, name: names[i] ?? fileName(job, id, own) });
    const keepsCurves = format.keeps.curves && machine.file.curves === 'curves';
    made.push(
      'refused' in written ? written : { ...written, format: id, meant: { ...laid, drawing: named }, keepsCurves },
    );
  }
  return allOrNone(made);
}

/** The job with the settings of files, and the colours by kind, that its machine reads. */
export const asItReads = (job: Job, { file }: JobMachine): Job => ({
  ...job,
  export: { ...job.export, dxf: file.dxf, dxfUnit: file.unit },
  colourKey: file.colours ?? job.colourKey,
});

/** A drawing whose layers are called what the machine reads, and by the side it is to keep on; several alike are numbered as they are written. */
export const namedAsItReads = (drawing: Drawing, { file: { layers } }: JobMachine): Drawing =>
  layers === null
    ? drawing
    : {
        ...drawing,
        layers: drawing.layers.map((layer) => ({
          ...layer,
          name: [layers[layer.kind], layer.side].filter(Boolean).join(' '),
        })),
      };

/** What is said where a file has more segments than the machine takes; null where it does not. */
function overSegments(drawing: Drawing, id: FileFormat, { name, file }: JobMachine): string | null {
  if (file.mostSegments === null) return null;
  const count = drawing.layers.reduce(
    (sum, { drawn, tolerance }) =>
      sum +
      drawn.reduce((own, d) => {
        if (d.kind === 'dot') return own + 1;
        const paths = drawnPaths(d);
        const isMadeArcs = id === 'dxf' && !isHatch(d);
        return (
          own + (isMadeArcs ? paths.reduce((n, p) => n + pathToArcs(p, tolerance).length, 0) : countSegments(paths))
        );
      }, 0),
    0,
  );
  if (count <= file.mostSegments) return null;
  const more = file.perOperation ? '' : ', or write one file for each operation';
  return `${name} takes ${counted(file.mostSegments)} segments in a file and this one has ${counted(count)}: let curves stray farther${more}.`;
}
