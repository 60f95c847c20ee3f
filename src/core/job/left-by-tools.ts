/** What the tools of a part leave of its shape, where they are so wide that letters look otherwise for it. */
import type { Job, Part } from '../document/schema';
import type { ClipEngine } from '../geometry/boolean/engine';
import { determinant } from '../geometry/point';
import { type Linework, stepIn } from '../kinds/steps';
import { isCut } from '../kinds/works';
import type { Memory, Stage } from '../memo';
import { offsetOutlines } from '../prepare/offset-outlines';
import { type Outline, weighOutlines } from '../prepare/outline';
import type { PreparedPart } from '../prepare/prepared';
import { widthOf } from '../toolpath/hatch/tool';

/** A tool is looked at from this share of a capital on: thinner ones change nothing that is seen of a letter. */
const SEEN = 1 / 50;

type AfterKerfInput = { readonly part: PreparedPart; readonly kerf: number; readonly engine: ClipEngine };

/** A shape with half of the kerf taken off what stays, as a beam along its outlines does. */
const AFTER_KERF: Stage<AfterKerfInput, readonly Outline[]> = {
  name: 'shape after the kerf',
  key: ({ part, kerf }, idOf) => `${idOf(part)}|${kerf}`,
  run: ({ part: { solid, keep }, kerf, engine }, memory) =>
    offsetOutlines(engine, solid, { by: keep === 'inside' ? -kerf / 2 : kerf / 2, corners: 'round' }, memory),
  weigh: weighOutlines,
};

type Tooled = {
  /** The part in its own coordinates, and where it lies on the sheet. */
  readonly made: PreparedPart;
  readonly ready: PreparedPart;
  readonly linework: Linework;
  readonly job: Job;
  readonly engine: ClipEngine;
  readonly memory: Memory;
};

/**
 * What a part's letters are read by: the part in the coordinates that `left` is in, and what its tool leaves of it; null for its
 * outlines as they are. A filling counts before a cut.
 */
export function leftByTools(
  part: Part,
  { made, ready, linework, job, engine, memory }: Tooled,
): { readonly part: PreparedPart; readonly left: readonly Outline[] | null } {
  const step = stepIn(part, 'hatch');
  const smallest = smallestCapital(made);
  if (linework.hatch && step && widthOf(step.tool) >= SEEN * smallest)
    return { part: ready, left: linework.hatch.reached };
  const kerf = job.sheet.kerf ?? 0;
  if (linework.hatch || kerf < SEEN * smallest || !isCut(part.work, job.operations)) return { part: made, left: null };
  return { part: made, left: memory.get(AFTER_KERF, { part: made, kerf, engine }) };
}

/** The height of the smallest capital of a part's letters, in mm; Infinity without letters. */
function smallestCapital({ frames }: PreparedPart): number {
  let least = Infinity;
  for (const { glyphs, matrix } of frames)
    if (glyphs) least = Math.min(least, Math.sqrt(Math.abs(determinant(matrix))));
  return least;
}
