/** Proofs for tests: files of a job made as its machine wants them, spoiled or not, read by the machine and proved. */
import type { Job } from '../../src/core/document/schema';
import type { Drawing } from '../../src/core/formats/drawing';
import { writtenFormat } from '../../src/core/formats/written';
import { Evaluator } from '../../src/core/job/evaluate';
import { type MeantFile, meantFiles, provedOn } from '../../src/core/job/machine-files';
import { finished } from '../../src/core/memo';
import { type Proof, prove } from '../../src/core/proof/prove';
import { readByMachine } from '../../src/machine/read';
import { faces, wasmEngine } from './faces';

const evaluator = new Evaluator(wasmEngine);

/** The files of a job with what they are meant to be. */
export function meantOf(job: Job, partIds: readonly string[] | null = null): readonly MeantFile[] {
  const made = finished(meantFiles(job, evaluator.evaluate(job, faces), { partIds }));
  if (made.refused.length > 0) throw new Error(made.refused.join(' '));
  return made.files;
}

/** The proof of files of a job, as they are or as something made of them. */
export async function proved(
  job: Job,
  spoil: (file: MeantFile) => Uint8Array = ({ bytes }) => bytes,
  files = meantOf(job),
): Promise<Proof> {
  const read = [];
  for (const file of files) {
    const found = await readByMachine(spoil(file), provedOn(job));
    read.push({ ...file, read: 'drawing' in found ? found.drawing : found });
  }
  return finished(prove(wasmEngine, job, evaluator.evaluate(job, faces), read));
}

/** The bytes of another drawing, written as a file of a job was. */
export const writtenAs = (job: Job, { format }: Pick<MeantFile, 'format'>, drawing: Drawing): Uint8Array => {
  const { file } = provedOn(job);
  return writtenFormat(format).write(drawing, { ...job.export, dxf: file.dxf, dxfUnit: file.unit });
};

export const codesOf = ({ findings }: Proof): string[] => [...new Set(findings.map((f) => f.code))];

export const findingsOf = (job: Job) => evaluator.evaluate(job, faces).findings;
