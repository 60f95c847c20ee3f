/** `needlefile prepare`: a job document, or a job taken along, in, machine files and a report out. No browser, no database. */

import { createHash } from 'node:crypto';
import { readFile, stat } from 'node:fs/promises';
import path from 'node:path';
import { allHanging } from '../core/commands/hangs';
import { eachSheet } from '../core/commands/sheets';
import { documentTooLarge, readJob } from '../core/document/read';
import type { Job } from '../core/document/schema';
import type { FileFormat } from '../core/formats/written';
import { scriptEngine } from '../core/geometry/boolean/engine-script';
import { loadWasmEngine } from '../core/geometry/boolean/engine-wasm';
import { Evaluator } from '../core/job/evaluate';
import { allFiles, makeFiles } from '../core/job/files';
import { type Report, reportOf, type SheetReports } from '../core/job/report';
import { openTaken, TAKEN_ALONG, type TakenFile, takenTooLarge } from '../core/job/taken-along';
import { LIMITS } from '../core/limits';
import { finished } from '../core/memo';
import { facesOf } from '../core/schema/lettering';
import { readMachine } from './machine-file';
import { type Refused, refuse } from './refused';
import { diskFaces } from './typefaces';
import { type FileToWrite, writeAll } from './write-all';

/** What the command is asked to do. */
export type PrepareOptions = {
  readonly job: string;
  readonly out: string | null;
  readonly formats: readonly FileFormat[];
  readonly report: string | null;
  readonly typefaces: string | null;
  /** Folder with the drawings and pictures the job names, each called by its id; null: where the job is. */
  readonly assets: string | null;
  readonly strict: boolean;
  /** The day the files are given out, "2026-05-04"; null where it is not said. */
  readonly date: string | null;
  /** A machine as JSON, that the job is run on in place of its own; null for its own. */
  readonly machine: string | null;
};

/**
 * Exit codes: 0 done, 1 a file that is not given out because it is not what was drawn, or findings that would spoil the work
 * (these only with --strict), 2 the input can't be used.
 */
export type ExitCode = 0 | 1 | 2;

type Say = (line: string) => void;

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

/** Prepares a job document: writes its files, and says its report. Returns how the process is to end. */
export async function prepare(options: PrepareOptions, say: Say, complain: Say): Promise<ExitCode> {
  const given = await readGiven(options.job);
  if ('sentences' in given) {
    for (const sentence of given.sentences) complain(sentence);
    return 2;
  }
  // A machine that runs by itself does not ask: what was never said is to hang together.
  const asked = options.strict ? allHanging(given.job) : given.job;
  const machine = options.machine === null ? asked.machine : await readMachine(options.machine);
  if (machine && 'sentences' in machine) {
    for (const sentence of machine.sentences) complain(sentence);
    return 2;
  }
  const job: Job = { ...asked, machine };
  if (
    options.typefaces &&
    !(await stat(options.typefaces).then(
      (s) => s.isDirectory(),
      () => false,
    ))
  ) {
    complain(`There is no folder ${options.typefaces}.`);
    return 2;
  }
  const named = job.parts.flatMap((p) => p.members.flatMap((m) => (m.kind === 'lettering' ? facesOf(m) : [])));
  const came = given.files.flatMap(({ id, as, bytes }) => (as === 'typeface' ? [{ content: id, bytes }] : []));
  const faces = await diskFaces(named, options.typefaces, complain, came);
  const engine = await loadWasmEngine().catch(() => scriptEngine);
  const evaluator = new Evaluator(engine);
  const folder = options.assets ?? path.dirname(path.resolve(options.job));
  await bringFiles(given, evaluator, folder);
  // A job with several sheets is as many jobs, one after the other.
  const sheets = eachSheet(job).map((one) => ({ job: one, result: evaluator.evaluate(one, faces) }));

  const toWrite: FileToWrite[] = [];
  let isRefused = false;
  if (options.out && options.formats.length > 0) {
    const scope = { partIds: null, ...(options.date && { date: options.date }) };
    const { files, refused } = allFiles(
      sheets.map((one) => finished(makeFiles(one.job, one.result, options.formats, scope))),
    );
    if (options.date === null && job.export.nameFields.includes('date'))
      complain('Names of this job’s files have the date in them: say it with --date, or they go without.');

    for (const sentence of refused) complain(sentence);
    isRefused = refused.length > 0;
    if (files.length + refused.length === 0)
      complain('Nothing is given to an operation that is on, so no file is written.');
    for (const { name, bytes } of files) toWrite.push({ file: path.join(options.out, name), bytes, isSaid: true });
  }
  if (options.report && !isRefused) {
    const reports = sheets.map((one) => reportOf(one.job, one.result));
    const [only] = reports;
    const report: Report | SheetReports | undefined = reports.length > 1 ? { title: job.title, sheets: reports } : only;
    const text = `${JSON.stringify(report, null, 2)}\n`;
    toWrite.push({ file: options.report, bytes: new TextEncoder().encode(text), isSaid: false });
  }
  const trouble = await writeAll(toWrite);
  if (trouble) {
    complain(trouble);
    return 2;
  }
  for (const { file, isSaid } of toWrite) if (isSaid) say(file);
  const findings = sheets.flatMap((one) => one.result.findings);
  for (const finding of findings) if (finding.leftReason === null) say(`${finding.severity}: ${finding.sentence}`);
  const spoiled = findings.some((f) => f.severity === 'fault' && f.leftReason === null);
  return isRefused || (options.strict && spoiled) ? 1 : 0;
}
