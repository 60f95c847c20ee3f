/** `needlefile check`: files in, what a machine understands of each out, in lines or as JSON. */
import { readFile, stat } from 'node:fs/promises';
import path from 'node:path';
import type { ReadDrawing } from '../core/formats/read-drawing';
import { WRITTEN_FORMATS } from '../core/formats/written';
import { boxHeight, boxWidth, isEmptyBox } from '../core/geometry/point';
import { meantFiles, provedOn } from '../core/job/machine-files';
import { LIMITS } from '../core/limits';
import { finished } from '../core/memo';
import { comparedWithNow } from '../core/proof/compare-file';
import { setOf } from '../core/proof/prove';
import type { JobMachine } from '../core/schema/shop/machine';
import { formatSeconds } from '../core/units/duration';
import type { LayerSet } from '../machine/set';
import { readAndUnderstood, type Understood, type UnderstoodOperation } from '../machine/understand';
import { type EvaluatedSheet, evaluated, type JobOptions } from './evaluated';
import { readMachine } from './machine-file';
import type { Refused } from './refused';

/** What the command is asked to do. */
export type CheckOptions = {
  readonly files: readonly string[];
  /** A machine as JSON that the files are held against; null for any, or for that of the job. */
  readonly machine: string | null;
  readonly json: boolean;
  /** The job that the files are to be of, and where what it names is found; null where that does not matter. */
  readonly job: (Omit<JobOptions, 'machine' | 'strict'> & { readonly row: number | null }) | null;
};

type Say = (line: string) => void;
type Checked =
  | { readonly file: string; readonly understood: Understood; readonly differences: readonly string[] }
  | { readonly file: string; readonly sentence: string };

const round = (value: number): number => Number(value.toFixed(3));

/** A sheet of a job that files may be of, and what the machine is set to for it. */
type MeantSheet = EvaluatedSheet & { readonly set: readonly LayerSet[] };

/** What files are held against: a machine, and the sheets of a job that they are to be of. */
type Against = {
  readonly machine: JobMachine | null;
  /** Whether the machine stands for any, in whatever format it is given files. */
  readonly readsAny: boolean;
  readonly sheets: readonly MeantSheet[];
};

async function checkFile(file: string, { machine, readsAny, sheets }: Against): Promise<Checked> {
  const size = await stat(file).then(
    (s) => (s.isFile() ? s.size : null),
    () => null,
  );
  if (size === null) return { file, sentence: `There is no file ${file}.` };
  if (size > LIMITS.drawingBytes)
    return { file, sentence: `${file} has more than ${LIMITS.drawingBytes / 1024 / 1024} MB; it was not read.` };
  const bytes = await readFile(file).catch(() => null);
  if (!bytes) return { file, sentence: `${file} can’t be read.` };
  const format = WRITTEN_FORMATS.find((f) => file.toLowerCase().endsWith(`.${f.ending}`))?.id;
  const profile = machine && readsAny && format ? { ...machine, file: { ...machine.file, format } } : machine;
  let nearest: Nearest | null = null;
  const made = await readAndUnderstood(new Uint8Array(bytes), profile, (read) => {
    nearest = nearestSheet(path.basename(file), read, sheets);
    return nearest?.set ?? [];
  });
  if ('sentence' in made) return { file, sentence: made.sentence };
  return { file, understood: made.understood, differences: (nearest as Nearest | null)?.differences ?? [] };
}

/** What a file is not of a sheet, and what the machine is set to for that. */
type Nearest = { readonly differences: readonly string[]; readonly set: readonly LayerSet[] };

/** The sheet that a file has least otherwise than; null where it is held against none. */
function nearestSheet(name: string, read: ReadDrawing, sheets: readonly MeantSheet[]): Nearest | null {
  let nearest: Nearest | null = null;
  for (const { job, result, set } of sheets) {
    const found = comparedWithNow(job, result, { partIds: null }, { name, read });
    if (found === null) return { differences: [NO_ENDING], set };
    if (nearest === null || found.length < nearest.differences.length)
      nearest = { differences: found.map((d) => d.sentence), set };
  }
  return nearest;
}

const NO_ENDING = 'Its name has no ending of a format that jobs are written in, so that it is compared with nothing.';

/** The machine of files, with what a job sets it to; or why the job can’t be used. */
async function againstOf({ machine, job }: CheckOptions, complain: Say): Promise<Against | Refused> {
  if (job === null) {
    const read = machine === null ? null : await readMachine(machine);
    return read && 'sentences' in read ? read : { machine: read, readsAny: false, sheets: [] };
  }
  const made = await evaluated({ ...job, machine, strict: false }, complain);
  if ('sentences' in made) return made;
  const sheets = made.sheets.map((one): MeantSheet => {
    const { files, refused } = finished(meantFiles(one.job, one.result, { partIds: null }));
    for (const sentence of refused) complain(sentence);
    return { ...one, set: setOf(one.job, files) };
  });
  return { machine: provedOn(made.job), readsAny: made.job.machine === null, sheets };
}

const sizeOf = ({ box }: Pick<Understood, 'box'>) =>
  isEmptyBox(box)
    ? null
    : { x: round(box.minX), y: round(box.minY), width: round(boxWidth(box)), height: round(boxHeight(box)) };

/** Whether a file would run, and is what it is to be. */
const isAsMeant = (checked: Checked): boolean =>
  !('sentence' in checked) && checked.understood.troubles.length + checked.differences.length === 0;

/** What all operations take, in seconds; null where that of one is not known. */
function secondsOf({ operations }: Understood): number | null {
  let sum = 0;
  for (const { seconds } of operations) {
    if (seconds === null) return null;
    sum += seconds;
  }
  return operations.length === 0 ? null : round(sum);
}

/** What is printed as JSON of a file. Lengths in mm. */
const asJson = (checked: Checked) =>
  'sentence' in checked
    ? { file: checked.file, runs: false, sentence: checked.sentence }
    : {
        file: checked.file,
        runs: isAsMeant(checked),
        format: checked.understood.format,
        unit: checked.understood.unit,
        unitStated: checked.understood.isUnitStated,
        size: sizeOf(checked.understood),
        segments: checked.understood.segments,
        operations: checked.understood.operations.map((o) => ({
          name: o.name,
          colour: o.colour,
          pen: o.pen,
          kind: o.kind,
          filled: o.isFilled,
          paths: o.paths,
          open: o.open,
          lengthMm: round(o.lengthMm),
          travelMm: round(o.travelMm),
          seconds: o.seconds === null ? null : round(o.seconds),
          size: sizeOf(o),
        })),
        seconds: secondsOf(checked.understood),
        troubles: checked.understood.troubles,
        differences: checked.differences,
        notes: checked.understood.notes,
      };

function operationLine(o: UnderstoodOperation, n: number): string {
  const called = o.pen === null ? [o.name, o.colour].filter(Boolean).join(', ') : `Pen ${o.pen}`;
  const paths = `${o.paths.toLocaleString('en')} ${o.paths === 1 ? 'path' : 'paths'}`;
  return [
    `  ${n}. ${called}${o.kind ? ` (${o.kind})` : ''}${o.isFilled ? ', filled' : ''}: ${paths}`,
    o.open > 0 && !o.isFilled ? `${o.open.toLocaleString('en')} open` : '',
    `${round(o.lengthMm)} mm`,
    `${round(o.travelMm)} mm between`,
    o.seconds === null ? '' : formatSeconds(o.seconds),
  ]
    .filter(Boolean)
    .join(', ');
}

function* linesOf(checked: Checked): Generator<string> {
  if ('sentence' in checked) {
    yield `${checked.file}: ${checked.sentence}`;
    return;
  }
  const { understood } = checked;
  const size = sizeOf(understood);
  const seconds = secondsOf(understood);
  const takes = seconds === null ? '' : `, ${formatSeconds(seconds)}`;
  yield `${checked.file}: ${understood.format}${size ? `, ${size.width} × ${size.height} mm` : ''}${takes}`;
  for (const [n, o] of understood.operations.entries()) yield operationLine(o, n + 1);
  for (const note of understood.notes) yield `  Note: ${note}`;
  for (const trouble of understood.troubles) yield `  ! ${trouble}`;
  for (const sentence of checked.differences) yield `  ! Not as the job is now: ${sentence}`;
  if (isAsMeant(checked)) yield '  It runs as it is.';
}

/** Checks files. 0: all of them would run as meant, 1: one would not, 2: the machine or the job can't be used. */
export async function check(options: CheckOptions, say: Say, complain: Say): Promise<0 | 1 | 2> {
  const against = await againstOf(options, complain);
  if ('sentences' in against) {
    for (const sentence of against.sentences) complain(sentence);
    return 2;
  }
  const checked: Checked[] = [];
  for (const file of options.files) checked.push(await checkFile(file, against));
  if (options.json) say(JSON.stringify(checked.map(asJson), null, 2));
  else for (const one of checked) for (const line of linesOf(one)) say(line);
  return checked.every(isAsMeant) ? 0 : 1;
}
