/** A job from disk, evaluated: read, its typefaces, drawings and pictures brought, each of its sheets by itself. */
import { createHash } from 'node:crypto';
import { readFile, stat } from 'node:fs/promises';
import path from 'node:path';
import { allHanging } from '../core/commands/hangs';
import { eachSheet } from '../core/commands/sheets';
import { documentTooLarge, readJob } from '../core/document/read';
import type { Job } from '../core/document/schema';
import type { ClipEngine } from '../core/geometry/boolean/engine';
import { scriptEngine } from '../core/geometry/boolean/engine-script';
import { loadWasmEngine } from '../core/geometry/boolean/engine-wasm';
import { Evaluator, type JobResult } from '../core/job/evaluate';
import { openTaken, TAKEN_ALONG, type TakenFile, takenTooLarge } from '../core/job/taken-along';
import { LIMITS } from '../core/limits';
import { Memo } from '../core/memo';
import type { FaceLookup } from '../core/prepare/prepared';
import { jobInRow, withPartsOfRows } from '../core/roster/in-row';
import { facesOf } from '../core/schema/lettering';
import { readMachine } from './machine-file';
import { type Refused, refuse } from './refused';
import { diskFaces, ReadFaces } from './typefaces';

/** Which job, and where what it names is found. */
export type JobOptions = {
  readonly job: string;
  readonly typefaces: string | null;
  /** Folder with the drawings and pictures the job names, each called by its id; null: where the job is. */
  readonly assets: string | null;
  readonly strict: boolean;
  /** A machine as JSON, that the job is run on in place of its own; null for its own. */
  readonly machine: string | null;
};

/** A sheet of a job, and what it comes to. */
export type EvaluatedSheet = { readonly job: Job; readonly result: JobResult };

/** A job to prepare, with the files that came along with it. */
type Given = { readonly job: Job; readonly files: readonly TakenFile[] };

/** A document, or a job taken along; or sentences why it can't be used. */
async function readGiven(file: string): Promise<Given | Refused> {
  const size = await stat(file).then(
    (s) => (s.isFile() ? s.size : null),
    () => null,
  );
  if (size === null) return refuse(`There is no file ${file}.`);
  const isPacked = file.toLowerCase().endsWith(TAKEN_ALONG);
  if (isPacked && size > LIMITS.takenBytes) return refuse(takenTooLarge());
  if (!isPacked && size > LIMITS.documentBytes) return refuse(documentTooLarge(size));
  const bytes = await readFile(file).catch(() => null);
  if (!bytes) return refuse(`${file} can’t be read.`);
  if (isPacked) {
    const opened = openTaken(new Uint8Array(bytes));
    if (!opened.ok) return refuse(opened.sentence);
    for (const { id, bytes: taken } of opened.files)
      if (createHash('sha256').update(taken).digest('hex') !== id)
        return refuse('One of the files in this job taken along is not what it should be: it did not arrive whole.');
    return opened;
  }
  const read = readJob(bytes.toString('utf8'));
  return read.ok ? { job: read.job, files: [] } : { sentences: read.sentences };
}

/** Put drawings and pixels of pictures at hand: those that came along, and those of a folder where each is called by its id. */
async function bringFiles({ job, files }: Given, evaluator: Evaluator, folder: string): Promise<void> {
  const members = job.parts.flatMap((p) => p.members);
  const bytesOf = async (id: string, ending: string): Promise<Uint8Array | null> =>
    files.find((f) => f.id === id)?.bytes ??
    (await readFile(path.join(folder, `${id}${ending}`)).then(
      (bytes) => new Uint8Array(bytes),
      () => null,
    ));
  for (const id of new Set(members.flatMap((m) => (m.kind === 'artwork' ? [m.drawing] : [])))) {
    const bytes = await bytesOf(id, '.json');
    if (bytes) evaluator.addDrawing(id, new TextDecoder().decode(bytes));
  }
  for (const id of new Set(members.flatMap((m) => (m.kind === 'trace' ? [m.pixels] : [])))) {
    const bytes = await bytesOf(id, '.png');
    if (bytes) evaluator.addPicture(id, bytes);
  }
}

/** A job read with all that it names at hand: what it is evaluated with. */
export type AtHand = {
  readonly engine: ClipEngine;
  readonly job: Job;
  readonly evaluator: Evaluator;
  readonly faces: FaceLookup;
};

/** What lasts from one job to the next, where several are prepared: what was computed, the typefaces that were read, the engine. */
export class Lasting {
  readonly memo = new Memo();
  readonly faces = new ReadFaces();
  readonly engine = loadWasmEngine().catch(() => scriptEngine);
}

/** A job with what it names at hand; `change` is what is made of it as soon as it is read. Or sentences why it can’t be used. */
export async function atHand(
  options: JobOptions,
  complain: (line: string) => void,
  change: (job: Job) => Job | Refused = (job) => job,
  lasting = new Lasting(),
): Promise<AtHand | Refused> {
  const given = await readGiven(options.job);
  if ('sentences' in given) return given;
  const changed = change(given.job);
  if ('sentences' in changed) return changed;
  // A machine that runs by itself does not ask: what was never said is to hang together.
  const asked = options.strict ? allHanging(changed) : changed;
  const machine = options.machine === null ? asked.machine : await readMachine(options.machine);
  if (machine && 'sentences' in machine) return machine;
  const job: Job = { ...asked, machine };
  if (
    options.typefaces &&
    !(await stat(options.typefaces).then(
      (s) => s.isDirectory(),
      () => false,
    ))
  )
    return refuse(`There is no folder ${options.typefaces}.`);
  const { parts } = withPartsOfRows(job, { today: '' });
  const named = parts.flatMap((p) => p.members.flatMap((m) => (m.kind === 'lettering' ? facesOf(m) : [])));
  const came = given.files.flatMap(({ id, as, bytes }) => (as === 'typeface' ? [{ content: id, bytes }] : []));
  const faces = await diskFaces(named, options.typefaces, complain, came, lasting.faces);
  const engine = await lasting.engine;
  const evaluator = new Evaluator(engine, lasting.memo);
  const folder = options.assets ?? path.dirname(path.resolve(options.job));
  await bringFiles(given, evaluator, folder);
  return { engine, job, evaluator, faces };
}

/** What a job comes to, sheet by sheet: one with several is as many, one after the other. */
export const sheetsEvaluated = (
  job: Job,
  { evaluator, faces }: Pick<AtHand, 'evaluator' | 'faces'>,
): EvaluatedSheet[] => eachSheet(job).map((one) => ({ job: one, result: evaluator.evaluate(one, faces) }));

/** A job evaluated; or sentences why it can’t be used. One that is made for a list of names is that of one of its rows, from 1. */
export async function evaluated(
  options: JobOptions & { readonly row: number | null },
  complain: (line: string) => void,
): Promise<{ readonly engine: ClipEngine; readonly job: Job; readonly sheets: readonly EvaluatedSheet[] } | Refused> {
  const ready = await atHand(options, complain, (job) => {
    if (!job.roster) return options.row === null ? job : refuse('This job is not made for a list of names.');
    const { length } = job.roster.rows;
    if (options.row === null)
      return refuse('This job is made for a list of names: say which of them with --row, from 1.');
    return options.row >= 1 && options.row <= length
      ? jobInRow(job, options.row - 1, { today: '' })
      : refuse(`There is no row ${options.row} in the list of names; it has ${length}.`);
  });
  if ('sentences' in ready) return ready;
  return { engine: ready.engine, job: ready.job, sheets: sheetsEvaluated(ready.job, ready) };
}
