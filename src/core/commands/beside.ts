/** Where new things go, and how they are: beside what is there, alike to it, on the sheet. */
import type { Job, Lettering, Member, Part, Shape, Sheet } from '../document/schema';
import { mapLengths } from '../document/shapes';
import { type Box, boxCentre, boxesMeet, boxHeight, boxWidth, isEmptyBox, type Point } from '../geometry/point';
import { carryLetters, kindOf } from '../kinds/steps';
import { faceOf } from '../schema/lettering';
import { partOf, plain } from './changed';

/** What is there, as it was computed. */
export type Around = {
  /** The part that new things come beside; null for the last one. */
  readonly beside: string | null;
  /** Bounds on the sheet of what is cut or drawn of each part, in mm; parts of which nothing is are left out. */
  readonly boxes: ReadonlyMap<string, Box>;
  /** Height of a capital of a lettering, in mm. */
  readonly capHeightOf: (partId: string, memberId: string) => number | undefined;
};

/** Distance to what is there, as a share of the height of what comes. */
const GAP = 0.35;
const LEAST_GAP_MM = 2;
/** Words that are not typed yet are taken to be so many capitals wide. */
const CAPITALS = 5;
/** How far letters reach above and below the baseline, in capitals. */
const REACH = { up: 1.1, down: 0.35 };
/** So many things in the way are gone around. */
const TRIES = 200;

/** The part that new things come beside. */
export function besideIn(job: Job, { beside, boxes }: Around): Part | undefined {
  const chosen = partOf(job, beside);
  if (chosen && boxes.has(chosen.id)) return chosen;
  return job.parts.findLast((part) => boxes.has(part.id) && !part.hidden);
}

const wordsOf = (part: Part | undefined): Lettering | undefined =>
  part?.members.findLast((m): m is Lettering => m.kind === 'lettering' && m.text.trim() !== '');

/** The part whose words new words are set as: the one they come beside, else the last with words. */
export function wordsBeside(
  job: Job,
  around: Around,
): { readonly part: Part; readonly words: Lettering; readonly capHeightMm: number } | null {
  const beside = besideIn(job, around);
  for (const part of [beside, ...job.parts.toReversed()]) {
    const words = wordsOf(part);
    const capital = part && words && around.capHeightOf(part.id, words.id);
    if (part && words && capital && capital > 0) return { part, words, capHeightMm: capital };
  }
  return null;
}

/** New words set as others are: typeface, size of capitals in mm, spacing and alignment. */
export function setAlike(member: Lettering, words: Lettering, capHeightMm: number): Lettering {
  const { features, letterSpacing, lineSpacing, align } = plain(words);
  const size = { by: 'capital' as const, mm: Math.round(capHeightMm * 1e3) / 1e3 };
  return { ...member, ...faceOf(plain(words)), features, size, letterSpacing, lineSpacing, align };
}

/** What is done to a part, for another of its kind: its operations, and the steps that draw what they work. */
export function workAlike(part: Part): Pick<Part, 'steps' | 'work'> {
  const { steps, work } = plain(part);
  const drawn = steps.filter((step) => step.kind === 'weld' || kindOf(step).place === 'drawn');
  // What was corrected on letters of the other words stays with these.
  for (const step of drawn) carryLetters(step, { keyOf: () => null });
  return { steps: drawn.length > 0 ? drawn : [{ kind: 'weld', on: true }], work: work.filter((w) => w.only === null) };
}

/** Room that a panel leaves around what it comes to, as a share of that. */
const PANEL_ROOM = 1 / 3;

/** A shape about as high as what it comes beside, its proportions kept; a rectangle as a panel that has room for that. */
export function sizedAlike(shape: Shape, beside: Box): Shape {
  const sized = plain(shape);
  if (sized.kind === 'rectangle') {
    const room = 2 * PANEL_ROOM * boxHeight(beside);
    const whole = (mm: number) => Math.max(1, Math.round(mm));
    return { ...sized, width: whole(boxWidth(beside) + room), height: whole(boxHeight(beside) + room) };
  }
  const height = 'height' in shape ? shape.height : shape.width;
  const factor =
    shape.kind === 'bar'
      ? boxWidth(beside) / shape.width
      : Math.min(boxHeight(beside) / height, (2 * boxWidth(beside)) / shape.width);
  mapLengths(sized, (mm) => Math.max(0.1, Math.round(mm * factor * 100) / 100));
  return sized;
}

/** Bounds of a new thing about its origin, as far as they are known before it is computed. */
export function roughBounds(member: Member, wordsWidth: number): Box {
  if (member.kind === 'lettering') {
    const { mm } = member.size;
    const width = Math.max(wordsWidth, CAPITALS * mm);
    const from = { left: 0, centre: -width / 2, right: -width }[member.align];
    return { minX: from, maxX: from + width, minY: -REACH.down * mm, maxY: REACH.up * mm };
  }
  if (member.kind === 'spike')
    return { minX: -member.width / 2, maxX: member.width / 2, minY: -member.height, maxY: 0 };
  const width = 'width' in member ? member.width : 0;
  const height = 'height' in member ? member.height : width;
  return { minX: -width / 2, maxX: width / 2, minY: -height / 2, maxY: height / 2 };
}

const moved = (box: Box, by: Point): Box => ({
  minX: box.minX + by.x,
  maxX: box.maxX + by.x,
  minY: box.minY + by.y,
  maxY: box.maxY + by.y,
});

/**
 * Where the origin of a new thing goes: beneath what it comes beside, in line with it, else above it or to a side; past what lies
 * there, and on the sheet. The middle of the sheet where there is no room.
 */
export function placeBeside(own: Box, job: Job, around: Around): Point {
  const middle = { x: job.sheet.width / 2, y: job.sheet.height / 2 };
  const part = besideIn(job, around);
  const near = part && around.boxes.get(part.id);
  if (!near || isEmptyBox(near)) return middle;
  const gap = Math.max(LEAST_GAP_MM, GAP * boxHeight(own));
  const taken = [...around.boxes.values()].filter((box) => !isEmptyBox(box));
  // Words line up with words by their side, other things by their middle.
  const { x: cx, y: cy } = boxCentre(near);
  const alongX = own.minX === 0 ? near.minX : own.maxX === 0 ? near.maxX : cx - (own.minX + own.maxX) / 2;
  const alongY = cy - (own.minY + own.maxY) / 2;
  const ways: readonly ((past: Box) => Point)[] = [
    (past) => ({ x: alongX, y: past.minY - gap - own.maxY }),
    (past) => ({ x: alongX, y: past.maxY + gap - own.minY }),
    (past) => ({ x: past.maxX + gap - own.minX, y: alongY }),
    (past) => ({ x: past.minX - gap - own.maxX, y: alongY }),
  ];
  for (const way of ways) {
    const at = firstFree(own, taken, near, way, job.sheet);
    if (at) return at;
  }
  return middle;
}

function firstFree(
  own: Box,
  taken: readonly Box[],
  near: Box,
  way: (past: Box) => Point,
  sheet: Pick<Sheet, 'width' | 'height'>,
): Point | null {
  let past = near;
  for (let i = 0; i < TRIES; i++) {
    const at = way(past);
    const box = moved(own, at);
    if (box.minX < 0 || box.minY < 0 || box.maxX > sheet.width || box.maxY > sheet.height) return null;
    const inTheWay = taken.find((other) => boxesMeet(other, box));
    if (!inTheWay) return { x: Math.round(at.x * 1e3) / 1e3, y: Math.round(at.y * 1e3) / 1e3 };
    past = inTheWay;
  }
  return null;
}
