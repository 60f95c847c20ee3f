/** Changes to a job document, each one thing a user does. They work on a draft (immer) or on a copy. */

import type { Copy, Job, LetterChange, Lettering, Member, Part, ShapeKind, Step, StepOf } from '@/core/document/schema';
import {
  applyMatrix,
  type Box,
  boxCentre,
  boxHeight,
  isEmptyBox,
  type Matrix,
  type Point,
} from '@/core/geometry/point';
import { newCopy, newLettering, newPart, newShape } from '@/core/job/defaults';
import { moveMember } from '@/core/job/place';
import { putTogether, splitPart } from '@/core/job/regroup';
import { type Measure, newStep, stepIn, withStep } from '@/core/job/steps';
import { isLineFace, SHIPPED_FACES } from '@/core/lettering/catalogue';
import { sameFamily } from '@/core/lettering/pick';
import { LIMITS } from '@/core/limits';
import type { JobView, PartView } from '@/worker/view';
import { partWords } from './part-words';

/** An id that no part, member or operation of the job has yet, nor is among those `also` taken. */
export function freeId(job: Job, stem: string, also: readonly string[] = []): string {
  const taken = new Set([
    ...also,
    ...job.parts.map((p) => p.id),
    ...job.parts.flatMap((p) => p.members.map((m) => m.id)),
    ...job.operations.map((o) => o.id),
  ]);
  for (let n = 1; ; n++) if (!taken.has(`${stem}-${n}`)) return `${stem}-${n}`;
}

const partOf = (job: Job, partId: string | null): Part | undefined => job.parts.find((p) => p.id === partId);

export const memberOf = (job: Job, partId: string | null, memberId: string | null): Member | undefined =>
  partOf(job, partId)?.members.find((m) => m.id === memberId);

/** What can be added; a copy names the part it copies. */
export type NewThing = 'lettering' | ShapeKind | { readonly copyOf: string };

function makeMember(job: Job, kind: NewThing): Member {
  if (typeof kind === 'object') return newCopy(freeId(job, 'copy'), kind.copyOf, job.sheet);
  const id = freeId(job, kind);
  return kind === 'lettering' ? newLettering(id, job.sheet, '') : newShape(kind, id, job.sheet);
}

/** A new part with one member; returns what to select. */
export function addPart(job: Job, kind: NewThing): { partId: string; memberId: string } {
  const member = makeMember(job, kind);
  const partId = freeId(job, 'part');
  job.parts.push(newPart(partId, '', [member], job));
  return { partId, memberId: member.id };
}

/** A new member at the end of a part, where the part is; returns its id. */
export function addMember(job: Job, partId: string, kind: NewThing, where: Point | null): string | null {
  const part = partOf(job, partId);
  if (!part) return null;
  const member = makeMember(job, kind);
  if (where) {
    member.placement.x = Math.round(where.x * 1e3) / 1e3;
    member.placement.y = Math.round(where.y * 1e3) / 1e3;
  }
  part.members.push(member);
  return member.id;
}

/** Put a step into a part, or change the one it has. */
export function editStep<K extends Step['kind']>(
  job: Job,
  partId: string,
  kind: K,
  measure: Measure,
  recipe: (step: StepOf<K>) => void,
): void {
  const part = partOf(job, partId);
  if (!part) return;
  const step = plain(stepIn(part, kind) ?? newStep(kind, measure));
  recipe(step);
  part.steps = withStep(part.steps, step as Step);
}

/** What the first values of a part's steps are made from: its largest capital, or a third of its height. */
export function measureOf(job: Job, view: PartView | undefined): Measure {
  const capitals = (view?.members ?? []).flatMap((m) => (m.capHeightMm === null ? [] : [m.capHeightMm]));
  const box = view?.box;
  const height = box && box.maxY > box.minY ? (box.maxY - box.minY) / 3 : 10;
  return {
    capHeightMm: capitals.length > 0 ? Math.max(...capitals) : height,
    leastWidthMm: job.sheet.leastWidth,
    kerfMm: job.sheet.kerf,
  };
}

/** The middle of a part as drawn; where nothing is, the sheet's corner. */
function middleOf(view: JobView | null, partId: string): Point {
  const box = view?.parts.find((p) => p.id === partId)?.box;
  return box && !isEmptyBox(box) ? boxCentre(box) : { x: 0, y: 0 };
}

/** A border around a part, as a part of its own that goes along with it; returns what to select. */
export function addBorder(job: Job, partId: string, view: JobView | null): { partId: string; memberId: string } | null {
  const at = job.parts.findIndex((p) => p.id === partId);
  const original = job.parts[at];
  if (!original) return null;
  const copy = { ...newCopy(freeId(job, 'copy'), partId, job.sheet), follows: true };
  copy.placement = { x: 0, y: 0, turn: 0, mirror: false };
  const measure = measureOf(
    job,
    view?.parts.find((p) => p.id === partId),
  );
  const part = newPart(freeId(job, 'part'), `Border of ${partWords(original)}`.slice(0, 100), [copy], job);
  part.steps = withStep(part.steps, newStep('border', measure));
  job.parts.splice(at + 1, 0, part);
  setBackingUse(job, part.id, 'engraved', view);
  return { partId: part.id, memberId: copy.id };
}

/** What becomes of the words on a backing. */
export type BackingUse = 'glued' | 'engraved';

/** The part a border goes around, and the copy of it. */
function bordered(job: Job, part: Part): { original: Part; copy: Copy } | null {
  const copy = part.members.find((m): m is Copy => m.kind === 'copy');
  const original = copy && partOf(job, copy.of);
  return copy && original ? { original, copy } : null;
}

/** Whether the words of a border's part are cut to be glued on, or engraved; null for a part that is no border. */
export function backingUse(job: Job, part: Part): BackingUse | null {
  const pair = bordered(job, part);
  if (!pair || !stepIn(part, 'border')) return null;
  return pair.original.work.some((w) => w.what === 'fill') && pair.copy.follows ? 'engraved' : 'glued';
}

/** Distance between two pieces laid side by side, in mm. */
const BESIDE_MM = 5;

/** Cut the words too and lay the backing below them, or engrave them on it. */
export function setBackingUse(job: Job, partId: string, use: BackingUse, view: JobView | null): void {
  const part = partOf(job, partId);
  const pair = part && bordered(job, part);
  if (!part || !pair) return;
  const { original, copy } = pair;
  const operation = (kind: 'cut' | 'engrave') => job.operations.find((o) => o.kind === kind)?.id;
  const [cut, engrave] = [operation('cut'), operation('engrave')];
  const kindOf = (work: Part['work'][number]) => job.operations.find((o) => o.id === work.operation)?.kind;
  // Only cutting and engraving change places; what else is done to the words stays.
  const other = original.work.filter((w) => kindOf(w) !== 'cut' && kindOf(w) !== 'engrave');
  if (cut) part.work = [{ what: 'outline', operation: cut }];
  if (use === 'engraved') {
    if (engrave) original.work = [...other, { what: 'fill', operation: engrave }];
    copy.follows = true;
    copy.placement.x = copy.placement.y = 0;
    return;
  }
  if (cut) original.work = [...other, { what: 'outline', operation: cut }];
  const box = view?.parts.find((p) => p.id === original.id)?.box;
  const own = view?.parts.find((p) => p.id === partId)?.box;
  if (!copy.follows || !box || isEmptyBox(box)) return;
  const middle = boxCentre(box);
  const half =
    own && !isEmptyBox(own) ? boxHeight(own) / 2 : boxHeight(box) / 2 + (stepIn(part, 'border')?.distance ?? 0);
  copy.follows = false;
  copy.placement.x = Math.round(middle.x * 1e3) / 1e3;
  copy.placement.y = Math.round((box.minY - BESIDE_MM - half) * 1e3) / 1e3;
}

/** Let a copy go along with what it copies, or stay where it is; it does not move by this. */
export function setFollows(job: Job, partId: string, memberId: string, follows: boolean, view: JobView | null): void {
  const copy = memberOf(job, partId, memberId);
  if (copy?.kind !== 'copy' || copy.follows === follows) return;
  const middle = middleOf(view, copy.of);
  const way = follows ? -1 : 1;
  copy.placement.x += way * middle.x;
  copy.placement.y += way * middle.y;
  copy.follows = follows;
}

/** Take a member out; a part without members goes too. */
export function removeMember(job: Job, partId: string, memberId: string): void {
  const part = partOf(job, partId);
  if (!part) return;
  part.members = part.members.filter((m) => m.id !== memberId);
  if (part.members.length === 0) job.parts = job.parts.filter((p) => p.id !== partId);
}

/** Change the place of one entry in a list. */
export const moveEntry = <T>(list: T[], from: number, to: number): void => {
  list.splice(to, 0, ...list.splice(from, 1));
};

/** Take a part apart into one for every joined member; its place in the list is theirs. A sentence when it can't be. */
export function splitInPlace(job: Job, partId: string): string | null {
  const at = job.parts.findIndex((p) => p.id === partId);
  const part = job.parts[at];
  if (!part) return null;
  const copying = job.parts.find((p) => p.members.some((m) => m.kind === 'copy' && m.of === partId));
  if (copying) return `${partWords(copying)} copies it; taken apart, only the first piece would be copied.`;
  job.parts.splice(at, 1, ...splitPart(plain(part), (taken) => freeId(job, 'part', taken)));
  return null;
}

/** Put another part into this one; a sentence when that would change what is cut. */
export function takeIn(job: Job, partId: string, otherId: string): string | null {
  const part = partOf(job, partId);
  const other = partOf(job, otherId);
  if (!part || !other || part === other) return null;
  const together = putTogether(plain(part), plain(other), (taken) => freeId(job, 'member', taken));
  if (!together.ok) return together.sentence;
  part.members = together.members;
  job.parts = job.parts.filter((p) => p.id !== otherId);
  return null;
}

/** Put several parts into the first of them; a sentence when that would change what is cut, and then nothing changes. */
export function groupParts(job: Job, ids: readonly string[]): string | null {
  const [first, ...rest] = ids;
  if (!first) return null;
  const before = plain(job.parts);
  for (const id of rest) {
    const sentence = takeIn(job, first, id);
    if (sentence) {
      job.parts = before;
      return sentence;
    }
  }
  return null;
}

/** Move all of a part; what goes along with another part that moves too is left to that. */
export function moveWholePart(job: Job, partId: string, dx: number, dy: number): void {
  const part = partOf(job, partId);
  if (!part || part.locked) return;
  for (const m of part.members) {
    if (m.kind === 'copy' && m.follows) continue;
    moveMember(m, dx, dy);
    // A drag is many small moves; what they sum up to is kept readable.
    m.placement.x = Math.round(m.placement.x * 1e6) / 1e6;
    m.placement.y = Math.round(m.placement.y * 1e6) / 1e6;
  }
}

/** The change of one letter, made when it has none yet; `settleLetters` takes it out again if it stays without effect. */
export function letterChange(member: Lettering, at: number): LetterChange {
  let known = member.letters.find((c) => c.at === at);
  if (!known) {
    known = { at, dx: 0, dy: 0, turn: 0, scale: 1 };
    member.letters.push(known);
  }
  return known;
}

/** Takes out changes that change nothing, and rounds the others. */
export function settleLetters(member: Lettering): void {
  const round = (value: number, per: number) => Math.round(value * per) / per;
  for (const c of member.letters) {
    c.dx = round(c.dx, 1e6);
    c.dy = round(c.dy, 1e6);
    c.turn = round(c.turn, 100);
    c.scale = round(c.scale, 1e4);
  }
  member.letters = member.letters.filter((c) => c.dx !== 0 || c.dy !== 0 || c.turn !== 0 || c.scale !== 1);
}

/** Move picked letters by mm on the sheet. */
export function nudgeLetters(
  member: Lettering,
  picked: readonly number[],
  dx: number,
  dy: number,
  view: JobView | null,
): void {
  const computed = view?.parts.flatMap((p) => p.members).find((m) => m.id === member.id);
  const capital = computed?.capHeightMm;
  if (!computed || !capital) return;
  // Back through the turn and mirror of the lettering, whose axes the changes are in.
  const { a, b, c, d } = computed.matrix;
  const det = a * d - b * c || 1;
  const ox = (d * dx - c * dy) / det;
  const oy = (-b * dx + a * dy) / det;
  for (const at of picked) {
    const change = letterChange(member, at);
    change.dx += ox / capital;
    change.dy += oy / capital;
  }
  settleLetters(member);
}

/** More room between the letters of a lettering. */
export function spaceLetters(job: Job, partId: string, memberId: string, byMm: number, view: JobView | null): void {
  const capital = view?.parts.flatMap((p) => p.members).find((m) => m.id === memberId)?.capHeightMm;
  const member = memberOf(job, partId, memberId);
  if (capital && member?.kind === 'lettering')
    member.letterSpacing = Math.min(10, Math.ceil((member.letterSpacing + byMm / capital) * 1e3 + 1) / 1e3);
}

/** A copy without the draft around it. */
const plain = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T;

/** How far a copy lies from the original, in mm. */
const COPY_OFFSET_MM = 10;

export function duplicatePart(job: Job, partId: string): string | null {
  const at = job.parts.findIndex((p) => p.id === partId);
  const part = job.parts[at];
  if (!part) return null;
  const copy = plain(part);
  copy.id = freeId(job, 'part');
  copy.locked = false;
  copy.name = part.name ? `${part.name} copy` : '';
  for (const member of copy.members) {
    member.placement.x += COPY_OFFSET_MM;
    member.placement.y -= COPY_OFFSET_MM;
  }
  job.parts.splice(at + 1, 0, copy);
  return copy.id;
}

/** The four corners of a box after a matrix, counter-clockwise from the lower left. */
export function cornersOf(b: Box, m: Matrix): [Point, Point, Point, Point] {
  const at = (x: number, y: number) => applyMatrix(m, { x, y });
  return [at(b.minX, b.minY), at(b.maxX, b.minY), at(b.maxX, b.maxY), at(b.minX, b.maxY)];
}

/** Say what becomes of one gap of a drawing. */
export function answerGap(job: Job, partId: string, memberId: string, gap: string, how: 'close' | 'leave'): void {
  const member = memberOf(job, partId, memberId);
  if (member?.kind !== 'artwork') return;
  forgetGap(job, partId, memberId, gap);
  if (member.close.answers.length < LIMITS.gapAnswers) member.close.answers.push({ gap, how });
}

/** Take back what was said about a gap. */
export function forgetGap(job: Job, partId: string, memberId: string, gap: string): void {
  const member = memberOf(job, partId, memberId);
  if (member?.kind !== 'artwork') return;
  member.close.answers = member.close.answers.filter((answer) => answer.gap !== gap);
}

/** Back from outlines worked on by hand to what the words and steps give. */
export function leaveHandMade(job: Job, partId: string): void {
  const part = partOf(job, partId);
  if (part) part.steps = part.steps.filter((step) => step.kind !== 'nodes');
}

const isOneLine = (family: string): boolean => SHIPPED_FACES.some((f) => isLineFace(f) && sameFamily(f.family, family));

/**
 * Set a lettering in another typeface. A part that becomes nothing but one-line lettering is marked instead of cut, and cut
 * again when it gets outlines.
 */
export function setFace(job: Job, partId: string, memberId: string, face: string): void {
  const part = partOf(job, partId);
  const member = memberOf(job, partId, memberId);
  if (!part || member?.kind !== 'lettering') return;
  const isLines = () => part.members.every((m) => m.kind === 'lettering' && isOneLine(m.face));
  const before = isLines();
  member.face = face;
  const after = isLines();
  if (before === after) return;
  const [from, to] = after ? (['cut', 'mark'] as const) : (['mark', 'cut'] as const);
  const kindOf = (id: string) => job.operations.find((o) => o.id === id)?.kind;
  const target = job.operations.find((o) => o.kind === to);
  for (const work of part.work)
    if (work.what === 'outline' && kindOf(work.operation) === from && target) work.operation = target.id;
}
