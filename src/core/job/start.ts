/** A job started from a starter: with words, stock and size of its own, in the middle of its sheet. */

import { type Chosen, moveChosen } from '../commands/chosen';
import { setStock, strongEnough } from '../commands/stock';
import { setWords } from '../commands/words';
import type { Job } from '../document/schema';
import { type Box, boxCentre, boxHeight, boxWidth, isEmptyBox } from '../geometry/point';
import { LIMITS } from '../limits';
import { finished } from '../memo';
import type { FaceLookup } from '../prepare/prepared';
import type { Material } from '../schema/shop/material';
import { cutTo } from '../units/text';
import type { Evaluator, Progress } from './evaluate';
import { sized, sizingTo } from './size';

/** Words that a starter asks for: where they are, what is asked, and what stands there. */
export type AskedWords = {
  readonly partId: string;
  readonly memberId: string;
  readonly asked: string;
  readonly text: string;
};

/** What is answered to a starter; lengths in mm. */
export type StartAnswers = {
  /** Words by their place in `askedIn`; those that are not there stay. */
  readonly words: readonly (string | null)[];
  readonly material: string;
  readonly thickness: number | null;
  /** The thickness as a fraction of an inch where it was typed so. */
  readonly thicknessAs: string | null;
  /** How wide or high all of the work is to be; null for as large as it comes. */
  readonly size: { readonly side: 'width' | 'height'; readonly mm: number } | null;
  /** The sheet; null for that of the starter, larger where the work asks for it. */
  readonly sheet: { readonly width: number; readonly height: number } | null;
  readonly units: Job['units'];
};

/** A job as it would be started, and how wide and high its work is in mm. */
export type Started = { readonly job: Job; readonly width: number; readonly height: number };

/** Stock left around the work where the sheet is made larger for it, and what its sides are rounded up to, in mm. */
const ROOM_MM = 10;

/** The words that a starter asks for, in their order. */
export const askedIn = (starter: Pick<Job, 'parts'>): AskedWords[] =>
  starter.parts
    .flatMap((part) =>
      part.members.flatMap((member) =>
        member.kind === 'lettering' && member.asked !== null
          ? [{ partId: part.id, memberId: member.id, asked: member.asked, text: member.text }]
          : [],
      ),
    )
    .slice(0, LIMITS.starterWords);

/** What is answered before anything is. */
export const unanswered = ({ parts, sheet }: Job, units: Job['units']): StartAnswers => ({
  words: askedIn({ parts }).map(() => null),
  material: sheet.material,
  thickness: sheet.thickness,
  thicknessAs: sheet.thicknessAs,
  size: null,
  sheet: null,
  units,
});

/** A starter as a job before anything is answered. */
export const asBegun = (starter: Job, means: { readonly evaluator: Evaluator; readonly faces: FaceLookup }): Job =>
  finished(startJob(starter, unanswered(starter, starter.units), { materials: [], ...means })).job;

/** A new job from a starter and what was answered to it; yields the rounds of sizing done. */
export function* startJob(
  starter: Job,
  answers: StartAnswers,
  {
    materials,
    evaluator,
    faces,
  }: { readonly materials: readonly Material[]; readonly evaluator: Evaluator; readonly faces: FaceLookup },
): Generator<Progress, Started> {
  const asked = askedIn(starter);
  let job: Job = {
    ...starter,
    starter: null,
    units: answers.units,
    // What is locked is moved and sized with the rest.
    parts: starter.parts.map((part) => ({ ...part, locked: false })),
  };
  for (const [i, { partId, memberId }] of asked.entries()) {
    const text = answers.words[i];
    if (typeof text === 'string' && text.trim() !== '') job = setWords(job, partId, memberId, text);
  }
  job = titled(
    strongEnough(
      setStock(
        job,
        { material: answers.material, thickness: answers.thickness, thicknessAs: answers.thicknessAs },
        materials,
      ),
    ),
    asked,
    answers.words,
  );
  const all: Chosen = { partIds: job.parts.filter((p) => !p.hidden).map((p) => p.id), memberId: null };
  if (answers.size) {
    const { side, mm } = answers.size;
    const sizing = yield* sizingTo(job, all, { side, mm, everything: false, evaluator, faces });
    if (sizing) job = sized(job, all, sizing, false);
  }
  const box = evaluator.boxOf(job, all, faces);
  const locked = new Map(starter.parts.map((part) => [part.id, part.locked]));
  const lying = inMiddle(
    { ...job, sheet: { ...job.sheet, ...sheetFor(starter, box, answers), offCut: null } },
    all,
    box,
  );
  return {
    job: { ...lying, parts: lying.parts.map((part) => ({ ...part, locked: locked.get(part.id) === true })) },
    width: isEmptyBox(box) ? 0 : boxWidth(box),
    height: isEmptyBox(box) ? 0 : boxHeight(box),
  };
}

/** Called by its first words, where these are other than the starter's. */
function titled(job: Job, asked: readonly AskedWords[], words: StartAnswers['words']): Job {
  const own = asked.flatMap(({ text }, i) => {
    const typed = words[i]?.trim();
    return typed && typed !== text ? [typed] : [];
  })[0];
  const title = own?.split(/\s*\n\s*/).join(' ');
  return title ? { ...job, title: cutTo(title, LIMITS.nameCharacters) } : job;
}

/** The sheet that was asked for; else that of the starter, as large as the work with some room. */
function sheetFor(
  starter: Job,
  box: Box,
  { sheet }: StartAnswers,
): { readonly width: number; readonly height: number } {
  if (sheet) return sheet;
  const side = (now: number, work: number) => {
    const needed = Math.ceil((work + 2 * ROOM_MM) / ROOM_MM) * ROOM_MM;
    return work + 2 * ROOM_MM <= now ? now : Math.min(LIMITS.sheetMostMm, needed);
  };
  const { width, height } = starter.sheet;
  return isEmptyBox(box)
    ? { width, height }
    : { width: side(width, boxWidth(box)), height: side(height, boxHeight(box)) };
}

function inMiddle(job: Job, all: Chosen, box: Box): Job {
  if (isEmptyBox(box)) return job;
  const { x, y } = boxCentre(box);
  const whole = (mm: number) => Math.round(mm * 1e3) / 1e3;
  return moveChosen(job, all, whole(job.sheet.width / 2 - x), whole(job.sheet.height / 2 - y));
}
