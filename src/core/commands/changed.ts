/**
 * Commands: what can be done to a job, each a pure function from a job and its arguments to the job as it is then. The job
 * given is left as it is; what did not change is the same object, and so is the job when nothing did.
 */
import { produce } from 'immer';
import type { Job, Member, Part } from '../document/schema';
import type { Point } from '../geometry/point';

/** A job after a command, with what there is to say of it. */
export type Done<T> = { readonly job: Job } & T;
/** A job after a command that may be refused: then it is unchanged, and the sentence says why. */
export type Refusable = Done<{ readonly sentence: string | null }>;

/** The middle of a part's outlines in its own coordinates, as it was computed; the origin where nothing is drawn. */
export type MiddleOf = (partId: string) => Point;

/** A job changed by a recipe on a draft (Immer): what the recipe leaves alone stays the same object. */
export const changed = (job: Job, recipe: (draft: Job) => void): Job =>
  produce(job, (draft) => {
    recipe(draft as Job);
  });

/** The part of an id; undefined where there is none. */
export const partOf = (job: Job, partId: string | null): Part | undefined => job.parts.find((p) => p.id === partId);

/** The member of an id in the part of an id; undefined where either is missing. */
export const memberOf = (job: Job, partId: string | null, memberId: string | null): Member | undefined =>
  partOf(job, partId)?.members.find((m) => m.id === memberId);

/** A copy of a draft, or of part of one, without the draft around it. */
export const plain = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T;

/** Change the place of one entry in a list, in place. */
export const moveEntry = <T>(list: T[], from: number, to: number): void => {
  list.splice(to, 0, ...list.splice(from, 1));
};
