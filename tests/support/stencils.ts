/** Stencils for the tests of bridges: words cut out of a sheet, with a bridge step. */
import type { BridgeNow } from '../../src/core/commands/bridges';
import type { Job, Part, StepOf } from '../../src/core/document/schema';
import type { Segment } from '../../src/core/geometry/segment';
import { Evaluator } from '../../src/core/job/evaluate';
import { stepIn } from '../../src/core/kinds/steps';
import type { PreparedPart } from '../../src/core/prepare/prepared';
import { faces, wasmEngine } from './faces';
import { type Draft, jobWith, lettering, partOf } from './jobs';

export const evaluator = new Evaluator(wasmEngine);
export const weld = { kind: 'weld' };
export const sheet = { width: 1500, height: 400 };
export const stencilJob = (
  text: string,
  bridge: Draft | null,
  face = 'Archivo Black',
  more: Draft = {},
  of: Draft = sheet,
) =>
  jobWith(
    [
      partOf([lettering(text, face, { placement: { x: 750, y: 200 }, ...more })], {
        keep: 'outside',
        steps: [weld, ...(bridge ? [{ kind: 'bridge', ...bridge }] : [])],
      }),
    ],
    { sheet: of },
  );
export const partIn = (job: Job): PreparedPart => {
  const [part] = evaluator.evaluate(job, faces).parts;
  if (!part) throw new Error('no part');
  return part;
};
export const stencil = (...args: Parameters<typeof stencilJob>) => partIn(stencilJob(...args));
export const notesOf = (part: PreparedPart) => {
  const { bridged } = part;
  if (!bridged) throw new Error('no bridges');
  return bridged;
};
export const turnOf = (b: { own: { turn: number } }) => ((b.own.turn % 180) + 180) % 180;
export const key = (s: Segment) => JSON.stringify(s);
export const area = (part: PreparedPart) => part.outlines.reduce((sum, o) => sum + o.area, 0);

/** The step of the only part, to be edited. */
export const stepOf = (job: Job): StepOf<'bridge'> => stepIn(job.parts[0] as Part, 'bridge') as StepOf<'bridge'>;
export const edited = (job: Job, recipe: (step: StepOf<'bridge'>, job: Job) => void): Job => {
  const copy = structuredClone(job);
  recipe(stepOf(copy), copy);
  return copy;
};
export const bridgesOf = (job: Job): BridgeNow[] => [...notesOf(partIn(job)).bridges];
export const O = { letter: 'words:1', island: 0 };
