/** The bench's state: the document with its history, what is selected, what the worker has computed. */
import { create } from 'zustand';
import { changed } from '@/core/commands/changed';
import { isOnSheet } from '@/core/document/on-sheet';
import type { Job, Part } from '@/core/document/schema';
import type { Station } from '@/core/inspect/stations';
import { placeOfRow } from '@/core/roster/in-row';
import { type ChangeFor, keptInDocument } from '@/core/roster/kept';
import type { AtCut, AtDot, AtIsland } from './at';
import { Histories } from './histories';
import { ShownOf } from './shown';
import type { AtNodes, BenchState, Change, Look, Pointing, Selection } from './state';

/** Changes of one kind within this time are one step of undo, in ms. */
const MERGE_MS = 1_200;
const MOST_STEPS = 1_000;

const NOTHING: Selection = { partId: null, memberId: null, others: [] };

/** A bench on which nothing was opened yet; one that was just opened differs from it by its document and its place. */
const INITIAL: BenchState = {
  id: '',
  document: null as unknown as Job,
  job: null as unknown as Job,
  rowId: null,
  changeFor: 'all',
  version: 0,
  past: [],
  future: [],
  save: { kind: 'saved', at: '' },
  isKept: null,
  selection: NOTHING,
  picked: null,
  pointing: null,
  atIsland: null,
  atNodes: null,
  atDot: null,
  atCut: null,
  atPicture: null,
  pen: false,
  penFor: null,
  keepsToEdges: true,
  everything: false,
  freed: false,
  station: 'compose',
  look: 'drawing',
  only: null,
  showsOrder: false,
  areaGoes: null,
  goTo: null,
  said: null,
  view: null,
  viewBeside: null,
  viewOf: null,
  cutPieces: null,
  run: null,
  runDiffers: null,
  progress: null,
  workerFault: null,
};

/** The state of the bench; there is one bench in a window. */
export const useBench = create<BenchState>(() => INITIAL);

const set = useBench.setState;
const get = useBench.getState;

const histories = new Histories<Change>();
const shown = new ShownOf();

/** What there is of a document on the bench, with a row of its roster in hand. */
const onBench = (document: Job, rowId = get().rowId): Pick<BenchState, 'document' | 'job'> => ({
  document,
  job: shown.of(document, rowId),
});

/** Start with a document from the server (or a kept draft of it); what could be undone when it was left, as it is, can be undone again. */
export function openBench(
  id: string,
  job: Job,
  {
    version,
    savedAt,
    selection,
    station,
  }: {
    readonly version: number;
    readonly savedAt: string;
    readonly selection: Pick<Selection, 'partId' | 'memberId'>;
    readonly station: Station;
  },
): void {
  const before = get();
  if (before.id !== '') histories.leave(before.id, { ...before, job: before.document });
  const history = histories.of(id, job) ?? { job, past: [], future: [] };
  const there = onBench(history.job, null);
  set({
    ...INITIAL,
    id,
    ...there,
    past: history.past,
    future: history.future,
    version,
    selection: checked(there.job, { ...selection, others: [] }),
    station,
    save: { kind: 'saved', at: savedAt },
  });
}

/** A selection that still exists in the document. */
function checked(job: Job, selection: Selection): Selection {
  const part = job.parts.find((p) => p.id === selection.partId);
  if (!part || !isOnSheet(job, part)) return NOTHING;
  const member = part.members.find((m) => m.id === selection.memberId);
  const others = selection.others.filter(
    (id) => id !== part.id && job.parts.some((p) => p.id === id && isOnSheet(job, p)),
  );
  return { partId: part.id, memberId: member?.id ?? null, others };
}

/** Change the document by a recipe that works on a draft and returns nothing; see `dispatch`. */
export const change = (recipe: (job: Job) => undefined, merge: string | null = null): void =>
  dispatch((job) => changed(job, recipe), merge);

/**
 * Put what a command makes of what is on the sheet in its place; nothing happens where that is the same. With a row of the roster in
 * hand it is kept for all rows, or for that row alone, as the user says. Changes with the same `merge` word that follow each other
 * quickly are undone together.
 */
export function dispatch(command: (job: Job) => Job, merge: string | null = null): void {
  const { job, document, rowId, changeFor } = get();
  const next = command(job);
  if (next === job) return;
  if (job === document) put(next, merge);
  else put(keptInDocument(document, { nth: placeOfRow(document, rowId), before: job, after: next, changeFor }), merge);
}

/** The same with a command on the document itself: its roster, and words with their fields. */
export function dispatchDocument(command: (document: Job) => Job, merge: string | null = null): void {
  const { document } = get();
  const next = command(document);
  if (next !== document) put(next, merge);
}

function put(next: Job, merge: string | null): void {
  const { document: job, past, selection } = get();
  const now = Date.now();
  const last = past[past.length - 1];
  const joins = merge !== null && last !== undefined && last.merge === merge && now - last.at < MERGE_MS;
  const step: Change = joins ? { ...last, at: now } : { job, selection, merge, at: now };
  const there = onBench(next);
  set({
    ...there,
    past: [...(joins ? past.slice(0, -1) : past), step].slice(-MOST_STEPS),
    future: [],
    said: null,
    ...stillThere(there.job),
  });
}

/** What was on the sheet before the changes that a change with this `merge` word would be undone with: as it is, if none. */
export function baseOf(merge: string): Job {
  const { job, past, rowId } = get();
  const last = past[past.length - 1];
  return last?.merge === merge && Date.now() - last.at < MERGE_MS ? new ShownOf().of(last.job, rowId) : job;
}

/** The id of the row in hand; null where there is no roster. */
export const rowInHand = ({ document, rowId }: Pick<BenchState, 'document' | 'rowId'>): string | null =>
  document.roster?.rows[placeOfRow(document, rowId)]?.id ?? null;

/** Take a row of the roster in hand: it is on the sheet. */
export const takeRow = (rowId: string | null): void => {
  if (rowId === get().rowId) return;
  const there = onBench(get().document, rowId);
  set({ ...there, rowId, picked: null, ...stillThere(there.job) });
};

/** Say whether changes are for all rows, or for the one in hand. */
export const setChangeFor = (changeFor: ChangeFor): void => set({ changeFor });

/** What is selected and shown alone, as far as a changed document still has it. */
const stillThere = (job: Job, selection = get().selection): Pick<BenchState, 'selection' | 'only' | 'atPicture'> => ({
  selection: checked(job, selection),
  only: job.operations.some((o) => o.id === get().only) ? get().only : null,
  atPicture: job.pictures.some((p) => p.id === get().atPicture) ? get().atPicture : null,
});

/** Ends merging, so that the next change is a step of its own. */
export function settle(): void {
  const { past } = get();
  const last = past[past.length - 1];
  if (last?.merge) set({ past: [...past.slice(0, -1), { ...last, merge: null }] });
}

/** Take the last change back, and choose what it acted on. */
export function undo(): void {
  const { document, past, future } = get();
  const last = past[past.length - 1];
  if (!last) return;
  const there = onBench(last.job);
  set({
    ...there,
    past: past.slice(0, -1),
    future: [...future, { ...last, job: document }],
    ...stillThere(there.job, actedOn(document, last.job, last.selection)),
  });
}

/** Make the change again that was taken back last. */
export function redo(): void {
  const { document, past, future } = get();
  const next = future[future.length - 1];
  if (!next) return;
  const there = onBench(next.job);
  set({
    ...there,
    past: [...past, { ...next, job: document, merge: null }],
    future: future.slice(0, -1),
    ...stillThere(there.job, actedOn(document, next.job, next.selection)),
  });
}

/**
 * What a step of undo acts on, as it is after it: what was chosen when the change was made, if that is among the parts that it
 * changes, else those parts; what is chosen now, if it changes no part.
 */
function actedOn(from: Job, to: Job, chosen: Selection): Selection {
  const before = new Map(from.parts.map((part) => [part.id, part]));
  const touched = to.parts.filter((part) => before.get(part.id) !== part);
  if (touched.length === 0) return get().selection;
  const ids = touched.map((part) => part.id);
  const parts = selectedParts(chosen);
  if (parts.length > 0 && parts.every((id) => ids.includes(id))) return chosen;
  const [head, ...tail] = touched as [Part, ...Part[]];
  return { partId: head.id, memberId: null, others: tail.map((part) => part.id) };
}

/** Choose a part, or one of its members; null for nothing. */
export const select = (partId: string | null, memberId: string | null = null): void => {
  const { selection, picked } = get();
  const same = picked !== null && partId === selection.partId && memberId === selection.memberId;
  set({
    selection: checked(get().job, { partId, memberId, others: [] }),
    picked: same ? picked : null,
    pointing: null,
    atDot: null,
    atCut: null,
    atPicture: null,
    ...(partId === selection.partId ? {} : { atIsland: null }),
  });
};

/** Choose a further part along with the one selected, or let it go again. */
export function selectAlso(partId: string): void {
  const { job, selection } = get();
  const { partId: first, others } = selection;
  if (first === null) {
    select(partId);
    return;
  }
  const all = [first, ...others];
  const next = all.includes(partId) ? all.filter((id) => id !== partId) : [...all, partId];
  const [head = null, ...tail] = next;
  set({ selection: checked(job, { partId: head, memberId: null, others: tail }), picked: null, atPicture: null });
}

/** Choose all parts that are neither hidden nor locked. */
export const selectAll = (): void =>
  selectParts(
    get()
      .job.parts.filter((p) => isOnSheet(get().job, p) && !p.hidden && !p.locked)
      .map((p) => p.id),
  );

/** Choose parts as wholes; none for nothing. */
export const selectParts = (ids: readonly string[]): void => {
  const [head = null, ...others] = ids;
  set({
    selection: checked(get().job, { partId: head, memberId: null, others }),
    picked: null,
    pointing: null,
    atDot: null,
    atCut: null,
    atPicture: null,
    atIsland: null,
  });
};

/** The parts selected, the first one first. */
export const selectedParts = ({ partId, others }: Selection): string[] => (partId === null ? [] : [partId, ...others]);

/** Say something of what was just done; null for nothing. */
export const say = (said: string | null): void => set({ said });

/** Whether sizing makes larger what would stay as it was set. */
export const sizeEverything = (everything: boolean): void => set({ everything });

/** Whether a shape is sized without keeping its proportions. */
export const freeProportions = (freed: boolean): void => set({ freed });

/** Pick letters by where they start in the text; null for not picking. */
export const pick = (picked: readonly number[] | null): void => set({ picked });

/** What the next press on the sheet says. */
export const setPointing = (pointing: Pointing): void => set({ pointing });

/** Choose an island, or a bridge of it; null for none. */
export const chooseIsland = (atIsland: AtIsland | null): void =>
  set({ atIsland, ...(atIsland && { atPicture: null }) });

/** Go to a station; what was worked on at another is left. */
export const goToStation = (station: Station): void =>
  set({
    station,
    pointing: null,
    atIsland: null,
    atDot: null,
    atCut: null,
    atPicture: null,
    atNodes: null,
    pen: false,
  });

/** Work on the nodes of a path or part; null for none. */
export const workOnNodes = (atNodes: AtNodes | null): void =>
  set({ atNodes, pen: false, ...(atNodes && { atPicture: null }) });

/** Choose a dot; null for none. */
export const chooseDot = (atDot: AtDot | null): void => set({ atDot, ...(atDot && { atPicture: null }) });

/** Choose where a cut begins, or one of its tabs; null for none. */
export const chooseCut = (atCut: AtCut | null): void => set({ atCut, ...(atCut && { atPicture: null }) });

/** Choose a picture that lies on the sheet; null for none. */
export const choosePicture = (atPicture: string | null): void =>
  set({ selection: NOTHING, picked: null, pointing: null, atDot: null, atCut: null, atIsland: null, atPicture });

/** Whether a path is being drawn on the sheet, and the words it is for. */
export const setPen = (pen: boolean, penFor: BenchState['penFor'] = null): void => set({ pen, penFor, atNodes: null });

/** Whether the pen keeps to edges of pictures. */
export const keepToEdges = (keepsToEdges: boolean): void => set({ keepsToEdges });

/** How the sheet is looked at. */
export const setLook = (look: Look): void => set({ look });

/** Show one operation alone; null for all. */
export const showOnly = (only: string | null): void => set({ only });

/** Bring a place of the sheet into sight. */
export const bringIntoSight = (box: BenchState['goTo']): void => set({ goTo: box && { ...box } });
