/** Jobs as commands leave them, and what they come to. */
import type { Job, Lettering, Part } from '../../src/core/document/schema';
import { boxCentre, isEmptyBox, type Point } from '../../src/core/geometry/point';
import { Evaluator } from '../../src/core/job/evaluate';
import { type JobView, viewOf } from '../../src/worker/view';
import { faces, wasmEngine } from './faces';
import type { Draft } from './jobs';

export const rectangle = (id: string, x: number, more: Draft = {}): Draft => ({
  id,
  kind: 'rectangle',
  placement: { x, y: 100 },
  width: 20,
  height: 10,
  ...more,
});

export const viewed = (job: Job): JobView => viewOf(new Evaluator(wasmEngine).evaluate(job, faces));

export const partIn = (job: Job, id = 'part'): Part => {
  const part = job.parts.find((p) => p.id === id);
  if (!part) throw new Error(`no part ${id}`);
  return part;
};

export const wordsIn = (job: Job, id = 'part'): Lettering => {
  const member = partIn(job, id).members.find((m): m is Lettering => m.kind === 'lettering');
  if (!member) throw new Error('no words');
  return member;
};

export const boxOf = (job: Job, id: string) => {
  const box = viewed(job).parts.find((p) => p.id === id)?.box;
  if (!box) throw new Error(`no box of ${id}`);
  return box;
};

/** The middles of parts in their own coordinates, as they are computed. */
export const middlesIn = (job: Job): ((partId: string) => Point) => {
  const view = viewed(job);
  return (partId) => {
    const box = view.parts.find((p) => p.id === partId)?.ownBox;
    return box && !isEmptyBox(box) ? boxCentre(box) : { x: 0, y: 0 };
  };
};
