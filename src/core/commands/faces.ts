/** What words use of their typeface: places along its axes, features, and other forms of letters. */
import type { Job, LetterChange, Lettering } from '../document/schema';
import { changed, memberOf, partOf } from './changed';
import { letterChange, settleLetters } from './letters';

/** Change a lettering that is not locked. */
const editWords = (job: Job, partId: string, memberId: string, recipe: (member: Lettering) => void): Job =>
  changed(job, (draft) => {
    const member = memberOf(draft, partId, memberId);
    if (member?.kind === 'lettering' && !partOf(draft, partId)?.locked) recipe(member);
  });

/** Set words at places along the axes of their face; others stay. `style` is the name of that place, null where it has none. */
export const setAxes = (
  job: Job,
  partId: string,
  memberId: string,
  axes: Readonly<Record<string, number>>,
  style: string | null = null,
): Job =>
  editWords(job, partId, memberId, (member) => {
    Object.assign(member.axes, axes);
    member.style = style;
  });

/** Switch a feature of the face: 0 off, 1 on, or which of several; null: as the face has it. */
export const setFeature = (job: Job, partId: string, memberId: string, tag: string, value: number | null): Job =>
  editWords(job, partId, memberId, (member) => {
    if (value === null) delete member.features[tag];
    else member.features[tag] = value;
  });

/** Set letters, by where they stand in the text, in another form that the face has; null: in the usual one. */
export const setForm = (
  job: Job,
  partId: string,
  memberId: string,
  picked: readonly number[],
  form: LetterChange['form'],
): Job =>
  editWords(job, partId, memberId, (member) => {
    for (const at of picked) letterChange(member, at).form = form;
    settleLetters(member);
  });
