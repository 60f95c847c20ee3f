/** `needlefile prepare`: a job document in, machine files and a report out. No browser, no database. */

import { readFile, stat } from 'node:fs/promises';
import path from 'node:path';
import { documentTooLarge, readJob } from '../core/document/read';
import type { Job } from '../core/document/schema';
import type { FileFormat } from '../core/formats/written';
import { scriptEngine } from '../core/geometry/boolean/engine-script';
import { loadWasmEngine } from '../core/geometry/boolean/engine-wasm';
import { Evaluator } from '../core/job/evaluate';
import { makeFiles } from '../core/job/files';
import { reportOf } from '../core/job/report';
import { LIMITS } from '../core/limits';
import { finished } from '../core/memo';
import { facesOf } from '../core/schema/lettering';
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
};

/**
 * Exit codes: 0 done, 1 a file that is not given out because it is not what was drawn, or findings that would spoil the work
 * (these only with --strict), 2 the input can't be used.
 */
export type ExitCode = 0 | 1 | 2;

type Say = (line: string) => void;

/** The text of a document, or a sentence why there is none. */
async function readText(file: string): Promise<{ readonly text: string } | { readonly sentence: string }> {
  const size = await stat(file).then(
    (s) => (s.isFile() ? s.size : null),
    () => null,
  );
  if (size === null) return { sentence: `There is no file ${file}.` };
  if (size > LIMITS.documentBytes) return { sentence: documentTooLarge(size) };
  return readFile(file, 'utf8').then(
    (text) => ({ text }),
    () => ({ sentence: `${file} can’t be read.` }),
  );
}

async function bringDrawings(job: Job, evaluator: Evaluator, folder: string): Promise<void> {
  const ids = new Set(job.parts.flatMap((p) => p.members.flatMap((m) => (m.kind === 'artwork' ? [m.drawing] : []))));
  for (const id of ids)
    await readFile(path.join(folder, `${id}.json`), 'utf8').then(
      (text) => evaluator.addDrawing(id, text),
      () => false,
    );
}

/** The pixels of the pictures that are traced, from a folder where each is called by its id. */
async function bringPictures(job: Job, evaluator: Evaluator, folder: string): Promise<void> {
  const ids = new Set(job.parts.flatMap((p) => p.members.flatMap((m) => (m.kind === 'trace' ? [m.pixels] : []))));
  for (const id of ids)
    await readFile(path.join(folder, `${id}.png`)).then(
      (bytes) => evaluator.addPicture(id, new Uint8Array(bytes)),
      () => false,
    );
}

/** Prepares a job document: writes its files, and says its report. Returns how the process is to end. */
export async function prepare(options: PrepareOptions, say: Say, complain: Say): Promise<ExitCode> {
  const document = await readText(options.job);
  if ('sentence' in document) {
    complain(document.sentence);
    return 2;
  }
  const read = readJob(document.text);
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
  const named = job.parts.flatMap((p) => p.members.flatMap((m) => (m.kind === 'lettering' ? facesOf(m) : [])));
  const faces = await diskFaces(named, options.typefaces, complain);
  const engine = await loadWasmEngine().catch(() => scriptEngine);
  const evaluator = new Evaluator(engine);
  const folder = options.assets ?? path.dirname(path.resolve(options.job));
  await bringDrawings(job, evaluator, folder);
  await bringPictures(job, evaluator, folder);
  const result = evaluator.evaluate(job, faces);

  const toWrite: FileToWrite[] = [];
  let isRefused = false;
  if (options.out && options.formats.length > 0) {
    const { files, refused } = finished(makeFiles(job, result, options.formats, { partIds: null }));
    for (const sentence of refused) complain(sentence);
    isRefused = refused.length > 0;
    if (files.length + refused.length === 0)
      complain('Nothing is given to an operation that is on, so no file is written.');
    for (const { name, bytes } of files) toWrite.push({ file: path.join(options.out, name), bytes, isSaid: true });
  }
  if (options.report && !isRefused) {
    const text = `${JSON.stringify(reportOf(job, result), null, 2)}\n`;
    toWrite.push({ file: options.report, bytes: new TextEncoder().encode(text), isSaid: false });
  }
  const trouble = await writeAll(toWrite);
  if (trouble) {
    complain(trouble);
    return 2;
  }
  for (const { file, isSaid } of toWrite) if (isSaid) say(file);
  for (const finding of result.findings)
    if (finding.leftReason === null) say(`${finding.severity}: ${finding.sentence}`);
  const spoiled = result.findings.some((f) => f.severity === 'fault' && f.leftReason === null);
  return isRefused || (options.strict && spoiled) ? 1 : 0;
}
