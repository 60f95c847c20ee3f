/** The bench's state: the document with its history, what is selected, what the worker has computed. */
import { create } from 'zustand';
import { changed } from '@/core/commands/changed';
import { isOnSheet } from '@/core/document/on-sheet';
import type { Job, Part } from '@/core/document/schema';
import type { Station } from '@/core/inspect/stations';
import type { AreaGo } from '@/core/job/areas-apart';
import type { RunView } from '@/worker/run-view';
import type { CutPieceView, JobView } from '@/worker/view';
import type { AtCut, AtDot, AtIsland } from './at';
import { Histories } from './histories';

/** How the sheet is looked at. `worked`: what the lines that fill leave on the stock. */
export type Look = 'drawing' | 'outlines' | 'worked' | 'cut';

/** How far the document is kept on the server. */
export type SaveState =
  | { readonly kind: 'saved'; readonly at: string }
  | { readonly kind: 'waiting' }
  | { readonly kind: 'saving' }
  | { readonly kind: 'away'; readonly sentence: string }
  | { readonly kind: 'refused'; readonly sentence: string }
  | { readonly kind: 'stale'; readonly stored: { readonly version: number; readonly document: unknown } }
  | { readonly kind: 'gone' };

/** A step of undo: the document on its other side, and what was chosen when it was changed. */
type Change = {
  readonly job: Job;
  readonly selection: Selection;
  readonly merge: string | null;
  readonly at: number;
};

/** One part and one of its members; `others` are further parts chosen along with it. */
export type Selection = {
  readonly partId: string | null;
  readonly memberId: string | null;
  readonly others: readonly string[];
};

/** What the next press on the sheet says; null for nothing. */
export type Pointing =
  | 'region'
  | 'panel'
  | 'bridge'
  | 'hang'
  | 'tab'
  | 'letter'
  | 'tone belongs'
  | 'tone apart'
  | 'level'
  | 'distance'
  | null;

/** Whose nodes are worked on: a path that was drawn, or a whole part; and the pen while it draws. */
export type AtNodes = {
  readonly partId: string;
  readonly memberId: string | null;
  /** The letter whose middle lines are worked on; null for outlines. */
  readonly letter: string | null;
  /** Chosen nodes, as "path:node". */
  readonly chosen: ReadonlySet<string>;
};

/** The document with its history, and how far it is kept. */
type DocumentSlice = {
  readonly id: string;
  readonly job: Job;
  /** Version on the server that the document was last in step with. */
  readonly version: number;
  readonly past: readonly Change[];
  readonly future: readonly Change[];
  readonly save: SaveState;
  /** Whether this browser keeps what the server does not have; null before that was tried. */
  readonly isKept: boolean | null;
};

/** What is chosen, and what is worked on in it. */
type ChosenSlice = {
  readonly selection: Selection;
  /** Letters picked one by one in the selected lettering, by where they start in its text; null when not picking. */
  readonly picked: readonly number[] | null;
  /** The next press on the sheet says which region to arrange to, or where to put a bridge in. */
  readonly pointing: Pointing;
  /** The island chosen at station Hold, and which of its bridges. */
  readonly atIsland: AtIsland | null;
  readonly atNodes: AtNodes | null;
  /** The dot chosen at station Fill. */
  readonly atDot: AtDot | null;
  /** Where a cut begins, or a tab, chosen at station Assign. */
  readonly atCut: AtCut | null;
  /** The picture on the sheet that is chosen. */
  readonly atPicture: string | null;
  /** A path is being drawn on the sheet. */
  readonly pen: boolean;
  /** The words that the path being drawn is for: they run along it; null for a path of its own. */
  readonly penFor: { readonly partId: string; readonly memberId: string } | null;
  /** Whether the pen keeps to edges of pictures that are near it. */
  readonly keepsToEdges: boolean;
  /** Whether sizing makes larger what would stay as it was set, and whether a shape's proportions are freed. */
  readonly everything: boolean;
  readonly freed: boolean;
};

/** What is looked at. */
type ShownSlice = {
  readonly station: Station;
  readonly look: Look;
  /** The only operation shown, or null for all. */
  readonly only: string | null;
  /** Whether the order in which things are run is shown on the sheet, at station Assign. */
  readonly showsOrder: boolean;
  /** Goes over areas that are shown on the sheet, and of which operation they are told; null for none. */
  readonly areaGoes: { readonly operation: string; readonly goes: readonly AreaGo[] } | null;
  /** A place on the sheet to bring into sight; a new object each time. */
  readonly goTo: { minX: number; minY: number; maxX: number; maxY: number } | null;
  /** What is said of the last thing that was done; null when there is nothing to say. */
  readonly said: string | null;
};

/** What the worker has computed. */
type ComputedSlice = {
  readonly view: JobView | null;
  /** The view that what stands beside the sheet speaks of: it follows when the frame with the new sheet was drawn. */
  readonly viewBeside: JobView | null;
  /** The document the view was computed from; another one while newer work is under way. */
  readonly viewOf: Job | null;
  /** The pieces after the cut, while that look is chosen. */
  readonly cutPieces: readonly CutPieceView[] | null;
  /** The document as it is run; null before that was asked. */
  readonly run: RunView | null;
  /** How much longer, in seconds, it takes since it was last changed; null where that was a while ago. */
  readonly runDiffers: number | null;
  readonly progress: { done: number; of: number } | null;
  readonly workerFault: string | null;
};

/** All there is to know of an open bench. */
export type BenchState = DocumentSlice & ChosenSlice & ShownSlice & ComputedSlice;

/** Changes of one kind within this time are one step of undo, in ms. */
const MERGE_MS = 1_200;
const MOST_STEPS = 1_000;

const NOTHING: Selection = { partId: null, memberId: null, others: [] };

/** A bench on which nothing was opened yet; one that was just opened differs from it by its document and its place. */
const INITIAL: BenchState = {
  id: '',
  job: null as unknown as Job,
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
  if (before.id !== '') histories.leave(before.id, before);
  const history = histories.of(id, job) ?? { job, past: [], future: [] };
  set({
    ...INITIAL,
    id,
    job: history.job,
    past: history.past,
    future: history.future,
    version,
    selection: checked(history.job, { ...selection, others: [] }),
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
 * Put what a command makes of the document in its place; nothing happens where that is the document itself. Changes with the
 * same `merge` word that follow each other quickly are undone together.
 */
export function dispatch(command: (job: Job) => Job, merge: string | null = null): void {
  const { job, past, selection } = get();
  const next = command(job);
  if (next === job) return;
  const now = Date.now();
  const last = past[past.length - 1];
  const joins = merge !== null && last !== undefined && last.merge === merge && now - last.at < MERGE_MS;
  const step: Change = joins ? { ...last, at: now } : { job, selection, merge, at: now };
  set({
    job: next,
    past: [...(joins ? past.slice(0, -1) : past), step].slice(-MOST_STEPS),
    future: [],
    said: null,
    ...stillThere(next),
  });
}

/** The document before the changes that a change with this `merge` word would be undone with: as it is, if none. */
export function baseOf(merge: string): Job {
  const { job, past } = get();
  const last = past[past.length - 1];
  return last?.merge === merge && Date.now() - last.at < MERGE_MS ? last.job : job;
}

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
  const { job, past, future } = get();
  const last = past[past.length - 1];
  if (!last) return;
  set({
    job: last.job,
    past: past.slice(0, -1),
    future: [...future, { ...last, job }],
    ...stillThere(last.job, actedOn(job, last.job, last.selection)),
  });
}

/** Make the change again that was taken back last. */
export function redo(): void {
  const { job, past, future } = get();
  const next = future[future.length - 1];
  if (!next) return;
  set({
    job: next.job,
    past: [...past, { ...next, job, merge: null }],
    future: future.slice(0, -1),
    ...stillThere(next.job, actedOn(job, next.job, next.selection)),
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
