/** The typeface of words and of their lines: which it is, places along its axes, features, and other forms of letters. */
import type { Job, LetterChange, Lettering } from '../document/schema';
import { isLineFace, SHIPPED_FACES } from '../lettering/catalogue';
import { textLines } from '../lettering/draft-lines';
import { sameFamily } from '../lettering/pick';
import { type FaceNamed, faceInLine, type LineFace } from '../schema/lettering';
import { changed, memberOf, partOf } from './changed';
import { letterChange, settleLetters } from './letters';
import { chosenLines, copyOfFace, editWords, type LinesAt, setOfLines, type WordsAt } from './own-lines';

/** Whether a face is one of those that ship which are single lines. */
export const isOneLine = ({ face, content }: FaceNamed): boolean =>
  content === null && SHIPPED_FACES.some((f) => isLineFace(f) && sameFamily(f.family, face));

/** A typeface to set words in, and whether it is of single lines. */
type NewFace = FaceNamed & { readonly isLine: boolean };

const areSame = (a: Pick<FaceNamed, 'face' | 'content'>, b: Pick<FaceNamed, 'face' | 'content'>): boolean =>
  a.face === b.face && a.content === b.content;

/**
 * Change the typefaces of words. A part that becomes nothing but one-line lettering is marked instead of cut, and cut again when it
 * gets outlines.
 */
const changeFaces = (
  job: Job,
  { partId, memberId }: WordsAt,
  { isLine, ...named }: NewFace,
  recipe: (member: Lettering) => void,
): Job =>
  changed(job, (draft) => {
    const part = partOf(draft, partId);
    const member = memberOf(draft, partId, memberId);
    if (!part || member?.kind !== 'lettering') return;
    const areLines = (isOne: (face: FaceNamed) => boolean): boolean =>
      part.members.every(
        (m) => m.kind === 'lettering' && textLines(m.text).every((_, line) => isOne(faceInLine(m, line))),
      );
    const before = areLines(isOneLine);
    recipe(member);
    const after = areLines((face) => isOneLine(face) || (isLine && areSame(face, named)));
    if (before === after) return;
    const [from, to] = after ? (['cut', 'mark'] as const) : (['mark', 'cut'] as const);
    const kindOf = (id: string) => draft.operations.find((o) => o.id === id)?.kind;
    const target = draft.operations.find((o) => o.kind === to);
    for (const work of part.work)
      if (work.what === 'outline' && kindOf(work.operation) === from && target) work.operation = target.id;
  });

/** Set words, or lines of them, in another typeface. */
export const setFace = (job: Job, at: LinesAt, to: NewFace): Job =>
  changeFaces(job, at, to, (member) => {
    const { isLine: _, ...named } = to;
    const chosen = chosenLines(member.text, at.lines);
    if (chosen === null) setOfLines(member, null, { face: null }, (all) => Object.assign(all, named));
    else
      for (const line of chosen)
        setOfLines(member, [line], { face: { ...named, features: faceInLine(member, line).features } }, () => {});
  });

/** Set all of the words that name a typeface in another. */
export const replaceFace = (job: Job, at: WordsAt, from: Pick<FaceNamed, 'face' | 'content'>, to: NewFace): Job =>
  changeFaces(job, at, to, (member) => {
    const { isLine: _, ...named } = to;
    for (const face of [member, ...member.lines.map((own) => own.face)])
      if (face && areSame(face, from)) Object.assign(face, named);
  });

/** Change the faces that chosen lines have, in place: each its own, made from that of the words where it has none. */
function editFaces(member: Lettering, lines: readonly number[] | null, recipe: (face: LineFace) => void): void {
  const chosen = chosenLines(member.text, lines);
  if (chosen === null) {
    recipe(member);
    return;
  }
  for (const line of chosen) {
    const face = copyOfFace(faceInLine(member, line));
    recipe(face);
    setOfLines(member, [line], { face }, () => {});
  }
}

/** Set words at places along the axes of their face; others stay. `style` is the name of that place, null where it has none. */
export const setAxes = (
  job: Job,
  at: LinesAt,
  axes: Readonly<Record<string, number>>,
  style: string | null = null,
): Job =>
  editWords(job, at, (member) =>
    editFaces(member, at.lines, (face) => {
      Object.assign(face.axes, axes);
      face.style = style;
    }),
  );

/** Switch a feature of the face: 0 off, 1 on, or which of several; null: as the face has it. */
export const setFeature = (job: Job, at: LinesAt, tag: string, value: number | null): Job =>
  editWords(job, at, (member) =>
    editFaces(member, at.lines, ({ features }) => {
      if (value === null) delete features[tag];
      else features[tag] = value;
    }),
  );

/** Set letters, by where they stand in the text, in another form that the face has; null: in the usual one. */
export const setForm = (job: Job, at: WordsAt, picked: readonly number[], form: LetterChange['form']): Job =>
  editWords(job, at, (member) => {
    for (const letter of picked) letterChange(member, letter).form = form;
    settleLetters(member);
  });
