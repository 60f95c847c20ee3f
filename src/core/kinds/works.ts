/** The kinds of work, in the order in which their lines are put together. */
import { z } from 'zod';
import { type Box, EMPTY_BOX, isEmptyBox, uniteBoxes } from '../geometry/point';
import { LIMITS } from '../limits';
import type { PreparedPart } from '../prepare/prepared';
import { about, id, letterKey } from '../schema/fields';
import type { Operation } from '../schema/operations';
import type { DrawKind, Linework } from './steps';
import type { WorkKind } from './work';
import { centerlineWork } from './works/centerline';
import { dotsWork } from './works/dots';
import { fillWork } from './works/fill';
import { hatchWork } from './works/hatch';
import { outlineWork } from './works/outline';
import { studsWork } from './works/studs';

/** The kinds of work, in the order they are offered in. */
export const WORKS = [outlineWork, fillWork, hatchWork, centerlineWork, dotsWork, studsWork] as const;

type WhatsOf<T extends readonly { readonly what: unknown }[]> = { -readonly [I in keyof T]: T[I]['what'] };

/** Work on a part: what is done, and by which operation. */
export const workSchema = z.strictObject({
  what: about(
    z.enum(WORKS.map((w) => w.what) as unknown as WhatsOf<typeof WORKS>),
    `What of the part is worked: ${WORKS.map((w) => w.describes).join('; ')}.`,
  ),
  operation: about(id, 'Id of the operation that does it.'),
  only: about(
    z
      .strictObject({
        letters: about(z.array(letterKey).max(LIMITS.lettersAlone).default([]), 'These letters.'),
        dots: about(z.boolean().default(false), 'All dots of i and j.'),
      })
      .nullable()
      .default(null),
    'Only some letters, which no other work of its kind then does; null: all that is not given by itself.',
  ),
});

/** Which operation does what to a part. */
export type Work = z.infer<typeof workSchema>;

const BY_WHAT = new Map<string, WorkKind<Work['what']>>(WORKS.map((w) => [w.what, w]));

/** All there is to say about a kind of work. */
export const workKind = (what: Work['what']): WorkKind<Work['what']> => BY_WHAT.get(what) as WorkKind<Work['what']>;

/** The kinds of steps whose lines some work on a part draws. */
export const drawnBy = (work: readonly Work[]): ReadonlySet<DrawKind['kind']> =>
  new Set(work.flatMap(({ what }) => workKind(what).draws ?? []));

/** Work of a kind by an operation, on all of a part that is not given by itself. */
export const workBy = (what: Work['what'], operation: string): Work => ({ what, operation, only: null });

/** Which operation does a kind of work on a part, but for letters by themselves; undefined for none. */
export const workOn = (work: readonly Work[], what: Work['what']): Work | undefined =>
  work.find((w) => w.what === what && w.only === null);

/** Bounds of what is cut or drawn of a part, where it lies; those of its shape when nothing is. */
export function workBox(whats: readonly Work['what'][], part: PreparedPart, linework: Linework): Box {
  const boxOf = (what: Work['what']) => workKind(what).box?.(linework) ?? part.box;
  const box = whats.reduce<Box>((all, what) => uniteBoxes(all, boxOf(what)), EMPTY_BOX);
  return isEmptyBox(box) ? part.box : box;
}

/**
 * Whether a part comes out of the stock: an operation that cuts goes along its outline, whether it is on or not. What has no
 * work yet is asked for as if it were cut.
 */
export const isCut = (work: readonly Work[], operations: readonly Pick<Operation, 'id' | 'kind'>[]): boolean =>
  work.length === 0 ||
  work.some((w) => workKind(w.what).comesOff && operations.some((o) => o.id === w.operation && o.kind === 'cut'));
