/** Papers and pictures of a document: the proof sheet, the work at true size, a picture for the customer, the words in several faces. */
import type { Job } from '../core/document/schema';
import { pdfWriter, writePages } from '../core/formats/pdf-write';
import type { Evaluator, Progress } from '../core/job/evaluate';
import { paperName } from '../core/job/file-names';
import type { WrittenFile } from '../core/job/files';
import { customerSvg, facesSvg } from '../core/papers/customer';
import { inFaces } from '../core/papers/in-faces';
import { isNothing, shapesOf } from '../core/papers/job-picture';
import { PAPERS } from '../core/papers/paper';
import { proofSheet } from '../core/papers/proof-sheet';
import { trueSizePages } from '../core/papers/true-size';
import type { PaperFaces } from '../core/papers/words';
import type { FaceLookup } from '../core/prepare/prepared';

/** Which paper, and what it says beside the document. */
export type PaperAsked =
  | {
      readonly which: 'proof sheet';
      readonly paper: keyof typeof PAPERS;
      readonly date: string;
      readonly proof: {
        readonly machine: string | null;
        /** Null where it was not proved. */
        readonly differences: readonly string[] | null;
        readonly files: readonly { readonly name: string; readonly sha256: string }[];
      };
    }
  | { readonly which: 'true size'; readonly paper: keyof typeof PAPERS }
  | { readonly which: 'picture'; readonly measures: boolean }
  | { readonly which: 'faces'; readonly faces: readonly string[] };

/** A paper that was made, or a sentence why not. */
export type PaperMade = WrittenFile | { readonly sentence: string };

const LINE_MM = 0.18;
const NOTHING = 'There is nothing to draw: no part is given to an operation that is on.';
const svgBytes = (text: string): Uint8Array => new TextEncoder().encode(text);

/** The documents that a paper is made of: typefaces of all of them are to be at hand. */
export const jobsOfPaper = (job: Job, asked: PaperAsked): readonly Job[] =>
  asked.which === 'faces' ? inFaces(job, asked.faces).map((one) => one.job) : [job];

/** A paper of a document; yields how far it is. */
export function* paperOf(
  job: Job,
  asked: PaperAsked,
  { evaluator, faces, set }: { readonly evaluator: Evaluator; readonly faces: FaceLookup; readonly set: PaperFaces },
): Generator<Progress, PaperMade> {
  const { engine } = evaluator;
  if (asked.which === 'faces') {
    const made = [];
    const all = inFaces(job, asked.faces);
    for (const [done, one] of all.entries()) {
      yield { done, of: all.length };
      const result = yield* evaluator.steps(one.job, faces);
      made.push({ face: one.face, shapes: shapesOf(engine, one.job, result) });
    }
    const title = `${job.title}: typefaces`;
    return {
      name: paperName(job, 'typefaces', 'svg'),
      bytes: svgBytes(facesSvg(title, made, set, job.sheet.material)),
    };
  }
  const result = yield* evaluator.steps(job, faces);
  const shapes = shapesOf(engine, job, result);
  if (isNothing(shapes)) return { sentence: NOTHING };
  switch (asked.which) {
    case 'proof sheet': {
      const running = result.run('full');
      let step = running.next();
      for (; !step.done; step = running.next()) yield { done: step.value, of: 1 };
      const pages = proofSheet(
        { job, shapes, run: step.value, findings: result.findings, date: asked.date, ...asked.proof },
        set,
        PAPERS[asked.paper],
      );
      return { name: paperName(job, 'proof-sheet', pdfWriter.ending), bytes: writePages(pages, LINE_MM) };
    }
    case 'true size': {
      const pages = trueSizePages(job.title, shapes, {
        faces: set,
        paper: PAPERS[asked.paper],
        mirrored: job.export.mirrored,
      });
      if ('sentence' in pages) return pages;
      return { name: paperName(job, 'true-size', pdfWriter.ending), bytes: writePages(pages, LINE_MM) };
    }
    case 'picture': {
      const about = { title: job.title, material: job.sheet.material, units: job.units, measures: asked.measures };
      return { name: paperName(job, 'picture', 'svg'), bytes: svgBytes(customerSvg(shapes, set, about)) };
    }
  }
}
