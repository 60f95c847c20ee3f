/** Where cuts begin and where they leave tabs, by hand: each command changes a part that is not locked. */
import type { Job, Operation, Part } from '../document/schema';
import { LIMITS } from '../limits';
import type { StartPlace } from '../schema/cut-places';
import { changed, partOf } from './changed';

/** A tab as it lies now: its place on its letter, and which of those by hand it is; null for one that was found. */
export type TabNow = { readonly place: StartPlace; readonly byHand: number | null };

const PLACES_PER_UNIT = 1e5;
const rounded = ({ letter, x, y }: StartPlace): StartPlace => ({
  letter,
  x: Math.round(x * PLACES_PER_UNIT) / PLACES_PER_UNIT,
  y: Math.round(y * PLACES_PER_UNIT) / PLACES_PER_UNIT,
});

const inPart = (job: Job, partId: string, recipe: (part: Part) => void): Job =>
  changed(job, (draft) => {
    const part = partOf(draft, partId);
    if (part && !part.locked) recipe(part);
  });

/** Begin a cut at a place; `byHand` is which of the part's starts by hand it had before, null for none. */
export const placeStart = (job: Job, partId: string, place: StartPlace, byHand: number | null): Job =>
  inPart(job, partId, (part) => {
    if (byHand !== null && part.starts[byHand]) part.starts[byHand] = rounded(place);
    else if (part.starts.length < LIMITS.cutPlaces) part.starts.push(rounded(place));
  });

/** Let a cut begin where it is best again. */
export const letGoStart = (job: Job, partId: string, byHand: number): Job =>
  inPart(job, partId, (part) => {
    part.starts.splice(byHand, 1);
  });

/** Takes the tabs of an outline in hand as they lie; gives which of the part's each of them is then, -1 where there is room for no more. */
function takeInHand(part: Part, tabs: readonly TabNow[]): number[] {
  return tabs.map(({ place, byHand }) => {
    if (byHand !== null) return byHand;
    if (part.tabs.length >= LIMITS.cutPlaces) return -1;
    return part.tabs.push({ ...rounded(place), width: null }) - 1;
  });
}

/** Move one of the tabs of an outline; the others stay as they lie. `tabs` are all of that outline, `nth` says which. */
export const placeTab = (job: Job, partId: string, { tabs, nth, to }: TabMove): Job =>
  inPart(job, partId, (part) => {
    const tab = part.tabs[takeInHand(part, tabs)[nth] ?? -1];
    if (tab) Object.assign(tab, rounded(to));
  });

/** One of the tabs of an outline, and where it is to be. */
export type TabMove = { readonly tabs: readonly TabNow[]; readonly nth: number; readonly to: StartPlace };

/** Put one more tab on an outline; those it has stay as they lie. */
export const addTab = (job: Job, partId: string, { tabs, to }: Omit<TabMove, 'nth'>): Job =>
  inPart(job, partId, (part) => {
    takeInHand(part, tabs);
    if (part.tabs.length < LIMITS.cutPlaces) part.tabs.push({ ...rounded(to), width: null });
  });

/** Take one of the tabs of an outline out; the others stay as they lie, and where it was the last the outline has none. */
export const takeOutTab = (job: Job, partId: string, { tabs, nth }: Omit<TabMove, 'to'>): Job =>
  inPart(job, partId, (part) => {
    const at = takeInHand(part, tabs)[nth] ?? -1;
    const tab = part.tabs[at];
    if (!tab) return;
    if (tabs.length === 1) tab.width = 0;
    else part.tabs.splice(at, 1);
  });

/** Place the tabs of an outline anew: those by hand, of which these are the numbers, are let go. */
export const letGoTabs = (job: Job, partId: string, byHand: readonly number[]): Job =>
  inPart(job, partId, (part) => {
    part.tabs = part.tabs.filter((_, i) => !byHand.includes(i));
  });

/** The side an outline is cut on: `byHand` is which of the part's it had before, null for none; null for `side`: as the operation says. */
export const setSide = (
  job: Job,
  partId: string,
  {
    place,
    side,
    byHand,
  }: { readonly place: StartPlace; readonly side: 'line' | 'other' | null; readonly byHand: number | null },
): Job =>
  inPart(job, partId, (part) => {
    if (byHand !== null) part.sides.splice(byHand, 1);
    if (side !== null && part.sides.length < LIMITS.cutPlaces) part.sides.push({ ...rounded(place), side });
  });

/** Let cuts of a part begin, leave tabs and run where it is best. */
export const letGoCutPlaces = (job: Job, partId: string): Job =>
  inPart(job, partId, (part) => {
    if (part.starts.length > 0) part.starts = [];
    if (part.tabs.length > 0) part.tabs = [];
    if (part.sides.length > 0) part.sides = [];
  });

/** The tabs of an operation, what is left out staying as it is; null: none. */
export const setTabs = (job: Job, operationId: string, tabs: Partial<NonNullable<Operation['tabs']>> | null): Job =>
  changed(job, (draft) => {
    const operation = draft.operations.find((o) => o.id === operationId);
    if (!operation) return;
    operation.tabs = tabs && { ...(operation.tabs ?? { width: 1, count: null, scrap: false }), ...tabs };
  });
