/** `needlefile prepare`: a job document in, machine files and a report out. No browser, no database. */
import { mkdir, readFile, stat, writeFile } from 'node:fs/promises';
import path from 'node:path';
import { readJob } from '../core/document/read';
import type { Job } from '../core/document/schema';
import type { FileFormat } from '../core/formats/written';
import { scriptEngine } from '../core/geometry/boolean/engine-script';
import { loadWasmEngine } from '../core/geometry/boolean/engine-wasm';
import { Evaluator } from '../core/job/evaluate';
import { drawingOf, writeFile as fileBytes, fileName } from '../core/job/export';
import { reportOf } from '../core/job/report';
import { LIMITS } from '../core/limits';
import { diskFaces } from './typefaces';

/** What the command is asked to do. */
export type PrepareOptions = {
  readonly job: string;
  readonly out: string | null;
  readonly formats: readonly FileFormat[];
  readonly report: string | null;
  readonly typefaces: string | null;
  /** Folder with the drawings the job names, each called by its id; null: where the job is. */
  readonly assets: string | null;
  readonly strict: boolean;
};

/** Exit codes: 0 done, 1 findings that would spoil the work (only with --strict), 2 the input can't be used. */
export type ExitCode = 0 | 1 | 2;

type Say = (line: string) => void;

async function readText(file: string): Promise<string | null> {
  const size = await stat(file).then(
    (s) => (s.isFile() ? s.size : null),
    () => null,
  );
  if (size === null) return null;
  return size > LIMITS.documentBytes ? ' '.repeat(size) : readFile(file, 'utf8');
}

async function bringDrawings(job: Job, evaluator: Evaluator, folder: string): Promise<void> {
  const ids = new Set(job.parts.flatMap((p) => p.members.flatMap((m) => (m.kind === 'artwork' ? [m.drawing] : []))));
  for (const id of ids)
    await readFile(path.join(folder, `${id}.json`), 'utf8').then(
      (text) => evaluator.addDrawing(id, text),
      () => false,
    );
}

/** Prepares a job document: writes its files, and says its report. Returns how the process is to end. */
export async function prepare(options: PrepareOptions, say: Say, complain: Say): Promise<ExitCode> {
  const text = await readText(options.job);
  if (text === null) {
    complain(`There is no file ${options.job}.`);
    return 2;
  }
  const read = readJob(text);
  if (!read.ok) {
    for (const sentence of read.sentences) complain(sentence);
    return 2;
  }
  const { job } = read;
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
  const families = job.parts.flatMap((p) => p.members.flatMap((m) => (m.kind === 'lettering' ? [m.face] : [])));
  const faces = await diskFaces(families, options.typefaces, complain);
  const engine = await loadWasmEngine().catch(() => scriptEngine);
  const evaluator = new Evaluator(engine);
  await bringDrawings(job, evaluator, options.assets ?? path.dirname(path.resolve(options.job)));
  const result = evaluator.evaluate(job, faces);

  const drawing = drawingOf(job, result);
  if (options.out && options.formats.length > 0) {
    if (!drawing) complain('Nothing is given to an operation that is on, so no file is written.');
    else {
      await mkdir(options.out, { recursive: true });
      for (const format of options.formats) {
        const file = path.join(options.out, fileName(job, format));
        await writeFile(file, fileBytes(drawing, format, job.export));
        say(file);
      }
    }
  }
  if (options.report) {
    await mkdir(path.dirname(path.resolve(options.report)), { recursive: true });
    await writeFile(options.report, `${JSON.stringify(reportOf(job, result), null, 2)}\n`);
  }
  for (const finding of result.findings)
    if (finding.leftReason === null) say(`${finding.severity}: ${finding.sentence}`);
  const spoiled = result.findings.some((f) => f.severity === 'fault' && f.leftReason === null);
  return options.strict && spoiled ? 1 : 0;
}
