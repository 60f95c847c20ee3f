/**
 * Rows of a roster looked over: each is prepared like a job of its own, and told with its picture, what is found about it and whether
 * it comes off as one piece. What a row comes to is remembered by its content.
 */
import type { Job } from '../document/schema';
import { type Box, isEmptyBox } from '../geometry/point';
import type { Finding } from '../inspect/finding';
import type { FaceLookup } from '../prepare/prepared';
import { type FilledWith, fillWords, hasFields, wordsOfRow } from '../roster/fields';
import { jobInRow, ownWordsOf } from '../roster/in-row';
import { COMES_AWAY } from '../rules/hold';
import type { Evaluator, JobResult, Progress } from './evaluate';
import { type Picture, pictureOf } from './picture';

/** What a row comes to. */
export type RowSeen = {
  readonly picture: Picture;
  readonly findings: readonly Finding[];
  /** Whether all that is to hang together does. */
  readonly isOnePiece: boolean;
  /** Width and height of what is cut or drawn, in mm; null where nothing is. */
  readonly size: { readonly width: number; readonly height: number } | null;
  /** Bounds of its parts on its own sheet, of those that anything is cut or drawn of. */
  readonly bounds: readonly { readonly part: string; readonly box: Box }[];
};

/** A row that was looked over. */
export type RowDone = { readonly rowId: string; readonly seen: RowSeen };

/** A finding about fields: words that a row leaves empty, and fields without a column. */
function fieldFinding(
  code: 'empty-cell' | 'missing-column',
  severity: Finding['severity'],
  sentence: string,
  at: { readonly partId: string; readonly memberId: string; readonly field: string },
  left: ReadonlyMap<string, string>,
): Finding {
  const { partId, memberId, field } = at;
  const key = `${code}:${partId}:${memberId}:${field}`;
  return {
    key,
    code,
    severity,
    sentence,
    station: 'compose',
    partId,
    memberId,
    box: null,
    mend: null,
    leftReason: left.get(key) ?? null,
  };
}

/** What is found about the fields that a row fills: a cell without words, a field without a column. */
export function fieldFindings(job: Job, nth: number, filling: FilledWith): Finding[] {
  const { roster } = job;
  const row = roster?.rows[nth];
  if (!roster || !row) return [];
  const words = wordsOfRow(roster, nth, filling);
  const left = new Map([...job.leftAsIs, ...(row.own?.leftAsIs ?? [])].map((l) => [l.finding, l.reason]));
  return job.parts.flatMap((part) =>
    part.members.flatMap((member) => {
      if (member.kind !== 'lettering') return [];
      const text = ownWordsOf(job, nth, part.id, member.id) ?? member.text;
      if (!hasFields(text)) return [];
      const { missing, empty } = fillWords(text, words);
      const at = (field: string) => ({ partId: part.id, memberId: member.id, field });
      return [
        ...missing.map((field) =>
          fieldFinding('missing-column', 'fault', `There is no column “${field}” for ‹${field}›.`, at(field), left),
        ),
        ...empty.map((field) =>
          fieldFinding('empty-cell', 'caution', `“${field}” is empty in this row.`, at(field), left),
        ),
      ];
    }),
  );
}

/** The job of a row, and what it came to. */
export type RowResult = { readonly job: Job; readonly result: JobResult; readonly findings: readonly Finding[] };

/** Codes of findings about where a row lies on its sheet. */
const OF_PLACE = new Set(['off-sheet', 'off-bed']);

/** Of what is found about a row's job what is about the row: where it lies by itself says nothing where names are laid on sheets. */
export const ofRow = (job: Job, findings: readonly Finding[]): readonly Finding[] =>
  job.layout === null ? findings : findings.filter(({ code }) => !OF_PLACE.has(code));

/** Prepare a row like a job of its own; yields how far it has come. */
export function* rowSteps(
  job: Job,
  nth: number,
  filling: FilledWith,
  { evaluator, faces }: { readonly evaluator: Evaluator; readonly faces: FaceLookup },
): Generator<Progress, RowResult> {
  const own = jobInRow(job, nth, filling);
  const result = yield* evaluator.steps(own, faces);
  return { job: own, result, findings: [...fieldFindings(job, nth, filling), ...ofRow(job, result.findings)] };
}

const sizeOf = (box: Box): RowSeen['size'] =>
  isEmptyBox(box) ? null : { width: box.maxX - box.minX, height: box.maxY - box.minY };

/** What is shown of a row. */
function* seenOf({ job, result, findings }: RowResult): Generator<Progress, RowSeen> {
  return {
    picture: yield* pictureOf(job, result),
    findings,
    isOnePiece: !findings.some((finding) => COMES_AWAY.has(finding.code)),
    size: sizeOf(result.workBox),
    bounds: result.parts.flatMap(({ id, size }) => (isEmptyBox(size) ? [] : [{ part: id, box: size }])),
  };
}

/** Prepare a row like a job of its own, and see what it comes to; yields how far it has come. */
export function* rowSeenSteps(
  job: Job,
  nth: number,
  filling: FilledWith,
  means: { readonly evaluator: Evaluator; readonly faces: FaceLookup },
): Generator<Progress, RowSeen> {
  return yield* seenOf(yield* rowSteps(job, nth, filling, means));
}

/** A row that could not be computed, with the sentence that says why. */
export const rowFault = (sentence: string): RowSeen => ({
  picture: { width: 1, height: 1, shapes: [] },
  findings: [
    {
      key: 'row-not-computed',
      code: 'row-not-computed',
      severity: 'fault',
      sentence,
      station: 'compose',
      partId: null,
      memberId: null,
      box: null,
      mend: null,
      leftReason: null,
    },
  ],
  isOnePiece: false,
  size: null,
  bounds: [],
});

/** Documents whose rows are remembered: the newest, and those before it, for going back. */
const DOCUMENTS = 3;

/** What rows came to, by all that they hang on: the document without its roster, and what a row puts in. */
export class RowsSeen {
  private readonly documents = new Map<string, Map<string, RowSeen>>();

  /**
   * Look over the rows of a document that are made, in their order; `tell` hears of each as it is there. Yields how many there are
   * after each. `about` tells typefaces and files at hand apart.
   */
  *steps(
    job: Job,
    {
      filling,
      about,
      tell,
      ...means
    }: {
      readonly filling: FilledWith;
      readonly about: string;
      readonly tell: (done: RowDone) => void;
      readonly evaluator: Evaluator;
      readonly faces: FaceLookup;
    },
  ): Generator<Progress, void> {
    const { roster } = job;
    if (!roster) return;
    const known = this.of(`${about}${contentBesideRows(job)}`);
    const made = roster.rows.flatMap((row, nth) => (row.out ? [] : [{ row, nth }]));
    let done = 0;
    for (const { row, nth } of made) {
      const key = rowContent(job, nth, filling);
      let seen = known.get(key);
      if (!seen) {
        const steps = rowSteps(job, nth, filling, means);
        let step = steps.next();
        for (; !step.done; step = steps.next()) yield { done: done + step.value.done / step.value.of, of: made.length };
        seen = yield* at(seenOf(step.value), { done: done + 1, of: made.length });
        known.set(key, seen);
      }
      tell({ rowId: row.id, seen });
      yield { done: ++done, of: made.length };
    }
    // Rows that are no longer there are let go.
    const keys = new Set(made.map(({ nth }) => rowContent(job, nth, filling)));
    for (const key of known.keys()) if (!keys.has(key)) known.delete(key);
  }

  private of(document: string): Map<string, RowSeen> {
    const known = this.documents.get(document) ?? new Map<string, RowSeen>();
    this.documents.delete(document);
    this.documents.set(document, known);
    const [oldest] = this.documents.keys();
    if (this.documents.size > DOCUMENTS && oldest !== undefined) this.documents.delete(oldest);
    return known;
  }
}

/** Steps whose own progress counts for nothing. */
function* at<T>(steps: Generator<Progress, T>, progress: Progress): Generator<Progress, T> {
  let step = steps.next();
  for (; !step.done; step = steps.next()) yield progress;
  return step.value;
}

/** All that what a row comes to hangs on beside `rowContent` of that row. */
export const contentBesideRows = (job: Job): string =>
  JSON.stringify({ ...job, roster: null, layout: job.layout !== null });

/** All that a row puts into the document. */
export function rowContent(job: Job, nth: number, filling: FilledWith): string {
  const { roster } = job;
  const row = roster?.rows[nth];
  if (!roster || !row) return '';
  const words = wordsOfRow(roster, nth, filling);
  return JSON.stringify([roster.columns.map(({ name }) => [name, words.of(name)]), row.own]);
}
