/** What is chosen, as commands take it: what it is in words, how large it is, and moving, turning, mirroring and sizing it. */
import {
  type Chosen,
  mirrorChosen,
  moveChosen,
  sizeChosen,
  stretchShape,
  turnChosen,
  withPartsOf,
} from '@/core/commands/chosen';
import { memberWords, partWords } from '@/core/document/part-words';
import type { Job, Member, Shape } from '@/core/document/schema';
import { type Box, boxCentre, EMPTY_BOX, isEmptyBox, type Matrix, uniteBoxes } from '@/core/geometry/point';
import { sized } from '@/core/job/size';
import { computing } from '@/worker/client';
import type { JobView } from '@/worker/view';
import type { BenchState, Selection } from './state';
import { baseOf, dispatch, say, selectedParts, useBench } from './store';

/** Parts, or one member: what is moved and sized together. */
export function chosenIn(selection: Selection, view: JobView | null): Chosen {
  const partIds = selectedParts(selection);
  if (partIds.length !== 1 || selection.memberId === null) return { partIds, memberId: null };
  return { partIds, memberId: selection.memberId, scale: view?.parts.find((p) => p.id === partIds[0])?.scale ?? 1 };
}

/** What is chosen, as commands take it. */
export const chosenNow = (): Chosen => {
  const { selection, view } = useBench.getState();
  return chosenIn(selection, view);
};

/** The member whose words, shape or drawing can be changed: the one gone into, else the only one of the part. */
export function memberInHand(job: Job, { partId, memberId, others }: Selection): Member | undefined {
  const members = job.parts.find((p) => p.id === partId)?.members ?? [];
  if (memberId !== null) return members.find((m) => m.id === memberId);
  return others.length === 0 && members.length === 1 ? members[0] : undefined;
}

/** Bounds on the sheet of what is cut or drawn of what is chosen; empty when nothing is. */
export function chosenBox({ partIds, memberId }: Chosen, view: JobView | null): Box {
  const parts = view?.parts.filter((p) => partIds.includes(p.id)) ?? [];
  if (memberId !== null) return parts[0]?.members.find((m) => m.id === memberId)?.box ?? EMPTY_BOX;
  return parts.reduce<Box>((box, part) => uniteBoxes(box, part.size), EMPTY_BOX);
}

/** The frame of what is chosen along its own sides: a box and how it lies on the sheet; null when nothing is drawn. */
export function chosenFrame(
  chosen: Chosen,
  view: JobView | null,
): { readonly box: Box; readonly matrix: Matrix } | null {
  const part = view?.parts.find((p) => p.id === chosen.partIds[0]);
  const member = part?.members.find((m) => m.id === chosen.memberId);
  const found =
    chosen.memberId !== null
      ? member && { box: member.ownBox, matrix: member.matrix }
      : chosen.partIds.length === 1 && part && isTurned(part.matrix)
        ? { box: part.ownBox, matrix: part.matrix }
        : { box: chosenBox(chosen, view), matrix: LEVEL };
  return found && !isEmptyBox(found.box) ? found : null;
}

const LEVEL: Matrix = { a: 1, b: 0, c: 0, d: 1, e: 0, f: 0 };

/** Whether something is turned other than by quarters, so that its bounds on the sheet are larger than itself. */
export const isTurned = ({ a, b }: Matrix): boolean => Math.abs(a) > 1e-9 && Math.abs(b) > 1e-9;

/** How what is chosen is turned: a part or a member counter-clockwise in degrees; several parts are not turned. */
export function turnOf(job: Job, { partIds, memberId }: Chosen): number {
  const part = job.parts.find((p) => p.id === partIds[0]);
  if (!part || partIds.length > 1) return 0;
  return memberId === null ? part.placement.turn : (part.members.find((m) => m.id === memberId)?.placement.turn ?? 0);
}

/** Whether what is chosen lies mirrored: the member, or the part where none is chosen. */
export function isMirrored(job: Job, { partIds, memberId }: Chosen): boolean {
  const part = job.parts.find((p) => p.id === partIds[0]);
  if (!part || partIds.length > 1) return false;
  return memberId === null
    ? part.placement.mirror
    : part.members.find((m) => m.id === memberId)?.placement.mirror === true;
}

/** What is chosen in words, such as "Part Gate sign, 3 things as one". */
export function chosenWords(job: Job, { partIds, memberId }: Chosen): string {
  const part = job.parts.find((p) => p.id === partIds[0]);
  if (!part) return 'Nothing';
  if (partIds.length > 1) return `${partIds.length} parts as one`;
  const member = part.members.find((m) => m.id === memberId);
  if (member) return `${memberWords(member)}, in the part ${partWords(part)}`;
  const many = part.members.length > 1 ? `, ${part.members.length} things as one` : '';
  return `Part ${partWords(part)}${many}`;
}

/** A shape with a width and a height of its own. */
export type Sided = Extract<Shape, { height: number }>;

/** The shape that is chosen by itself, whose proportions can be freed: gone into, or all that a part is. */
export function shapeInHand(job: Job, selection: Selection): { readonly chosen: Chosen; readonly shape: Sided } | null {
  const member = memberInHand(job, selection);
  const part = job.parts.find((p) => p.id === selection.partId);
  if (!part || !member || !('width' in member && 'height' in member)) return null;
  return { chosen: { partIds: [part.id], memberId: member.id }, shape: member };
}

const key = ({ partIds, memberId }: Chosen): string => `${memberId ?? partIds.join()}`;
/** Distances by hand are whole micrometres. */
const roundMm = (mm: number): number => Math.round(mm * 1e3) / 1e3;

/** Move what is chosen by mm on the sheet, which are rounded to a micrometre. */
export const moveBy = (chosen: Chosen, dx: number, dy: number, merge: string | null = null): void =>
  dispatch((job) => moveChosen(job, chosen, roundMm(dx), roundMm(dy)), merge && `${merge}:${key(chosen)}`);

/** Move what is chosen so that the lower left corner of its bounds is at x or y. */
export function moveTo(chosen: Chosen, at: { readonly x?: number; readonly y?: number }): void {
  const box = chosenBox(chosen, useBench.getState().view);
  if (isEmptyBox(box)) return;
  const [dx, dy] = [at.x === undefined ? 0 : at.x - box.minX, at.y === undefined ? 0 : at.y - box.minY];
  dispatch((job) => moveChosen(job, chosen, dx, dy), `${at.x === undefined ? 'y' : 'x'}:${key(chosen)}`);
}

/** Turn about the middle of its bounds, to a direction of its own or by so much. */
export function turnTo(chosen: Chosen, degrees: number): void {
  const { view, job } = useBench.getState();
  const box = chosenBox(chosen, view);
  if (isEmptyBox(box)) return;
  const by = (degrees - turnOf(job, chosen)) * (leadsMirrored(job, chosen) ? -1 : 1);
  dispatch((now) => turnChosen(now, chosen, by, boxCentre(box)), `turn:${key(chosen)}`);
}

/** Whether a member lies in a part that is mirrored, so that its own turn runs the other way on the sheet. */
const leadsMirrored = (job: Job, { partIds, memberId }: Chosen): boolean =>
  memberId !== null && job.parts.find((p) => p.id === partIds[0])?.placement.mirror === true;

/** Mirror left to right about the middle of its bounds. */
export function mirrorNow(chosen: Chosen): void {
  const box = chosenBox(chosen, useBench.getState().view);
  if (!isEmptyBox(box)) dispatch((job) => mirrorChosen(job, chosen, boxCentre(box).x));
}

/** Size by a factor about the middle of its bounds. */
export function sizeBy(chosen: Chosen, factor: number, everything: boolean): void {
  const box = chosenBox(chosen, useBench.getState().view);
  if (!isEmptyBox(box)) dispatch((job) => sizeChosen(job, chosen, { factor, about: boxCentre(box), everything }));
}

let newestSize = 0;

/**
 * Size so that its bounds on the sheet are so wide, or so high, in mm; their lower left corner stays. What does not grow along
 * makes that a search, which the worker does; a newer size overtakes it, and an undo lets it go. What is done while it searches
 * stays done: what that left is sized then.
 */
export async function sizeTo(chosen: Chosen, side: 'width' | 'height', mm: number, everything: boolean): Promise<void> {
  const mine = ++newestSize;
  const merge = `${side}:${key(chosen)}`;
  const { id, rowId } = useBench.getState();
  for (;;) {
    const { future } = useBench.getState();
    // While a number is typed each digit is a size of its own: all of them size what there was before the first.
    const base = baseOf(merge);
    const sizing = await computing()
      .sizingTo(base, chosen, { side, mm, everything })
      .catch(() => null);
    const now = useBench.getState();
    if (sizing === null || mine !== newestSize || now.future.length > future.length) return;
    // What was typed for one job, or one name, is not for another.
    if (now.id !== id) return;
    if (now.rowId !== rowId) return say('The size was not set: another name was taken in hand before it was found.');
    if (now.job !== base && baseOf(merge) !== base) continue;
    return dispatch((job) => withPartsOf(job, sized(base, chosen, sizing, everything), chosen.partIds), merge);
  }
}

/** Give a shape another width or height along its own sides, its proportions freed; the lower left corner stays. */
export function stretchTo(
  chosen: Chosen,
  shape: Sided,
  to: { readonly width?: number; readonly height?: number },
): void {
  const { view } = useBench.getState();
  const member = view?.parts.find((p) => p.id === chosen.partIds[0])?.members.find((m) => m.id === chosen.memberId);
  if (!member || isEmptyBox(member.ownBox)) return;
  const { matrix: m, ownBox: b } = member;
  const corner = { x: m.a * b.minX + m.c * b.minY + m.e, y: m.b * b.minX + m.d * b.minY + m.f };
  dispatch(
    (job) =>
      stretchShape(job, chosen, { width: to.width ?? shape.width, height: to.height ?? shape.height, about: corner }),
    `${to.width === undefined ? 'h' : 'w'}:${key(chosen)}`,
  );
}

/** What is chosen, and the shape of its frame, for the state of the bench. */
export const frameNow = (s: Pick<BenchState, 'selection' | 'view'>) =>
  chosenFrame(chosenIn(s.selection, s.view), s.view);
