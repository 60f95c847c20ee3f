/** What a user does to where cuts begin and to their tabs: the commands with what is chosen and what was computed. */
import { withPartsOf } from '@/core/commands/chosen';
import {
  addTab,
  letGoStart,
  letGoTabs,
  placeStart,
  placeTab,
  setSide,
  type TabNow,
  takeOutTab,
} from '@/core/commands/cut-places';
import type { Job } from '@/core/document/schema';
import { nearestOnLine } from '@/core/geometry/near-lines';
import type { Path } from '@/core/geometry/path';
import { applyMatrix, invert, type Point } from '@/core/geometry/point';
import type { StartPlace } from '@/core/schema/cut-places';
import { computing } from '@/worker/client';
import type { CutView, PlaceView } from '@/worker/view';
import type { AtCut } from './at';
import type { BenchState } from './state';
import { chooseCut, dispatch, setPointing, settle, useBench } from './store';
import { whenComputed } from './when-computed';

/** A cut that is chosen, as it is seen. */
type Seen = { readonly at: AtCut; readonly cut: CutView };

/** The cut as it is seen; undefined where it is not, or not yet. */
export const cutSeen = (view: BenchState['view'], at: AtCut | null): CutView | undefined =>
  at === null
    ? undefined
    : view?.operations
        .find((o) => o.id === at.operationId)
        ?.cuts.find((c) => c.partId === at.partId && c.nth === at.nth);

/** The place of a cut that is chosen: where it begins, or the tab. */
export const placeOf = ({ place }: AtCut, cut: CutView): PlaceView | undefined =>
  place === 'start' ? (cut.start ?? undefined) : cut.tabs[place];

/** A point of the sheet as a place on the letter that some place is on. */
const onLetter = ({ letter, matrix }: Pick<PlaceView, 'letter' | 'matrix'>, at: Point): StartPlace => ({
  letter,
  ...applyMatrix(invert(matrix), at),
});

const tabsNow = ({ tabs }: CutView): TabNow[] =>
  tabs.map((tab) => ({ place: onLetter(tab, tab.at), byHand: tab.byHand }));

/** A job in which a place of a cut is elsewhere on the sheet. */
function moved(job: Job, seen: Seen, to: Point): Job {
  const place = placeOf(seen.at, seen.cut);
  return place ? movedTo(job, seen, onLetter(place, to)) : job;
}

const movedTo = (job: Job, { at, cut }: Seen, to: StartPlace): Job =>
  at.place === 'start'
    ? placeStart(job, at.partId, to, cut.start?.byHand ?? null)
    : placeTab(job, at.partId, { tabs: tabsNow(cut), nth: at.place, to });

/** A place of a cut that is dragged. */
export type Held = {
  /** Puts it at a point of the sheet, from how all lay when it was taken. */
  readonly moveTo: (to: Point) => void;
  /** Lets go of it there: from then on it stays with the letter it lies on. */
  readonly letGo: () => Promise<void>;
};

/** Takes hold of a place of a cut. */
export function takeHold(seen: Seen): Held {
  const from = useBench.getState().job;
  const { partId, operationId, nth } = seen.at;
  let last: Point | null = null;
  // It stays on its own outline, wherever the pointer goes; until that is there it follows the pointer.
  let outline: Path | null = null;
  void computing()
    .cutLine(from, { operationId, partId, nth })
    .then(
      (path) => {
        outline = path;
      },
      () => {},
    );
  const put = (change: (job: Job) => Job) =>
    dispatch((job) => withPartsOf(job, change(from), [partId]), `cut:${partId}`);
  return {
    moveTo(pointer) {
      const to = (outline && nearestOnLine(outline, pointer, Number.POSITIVE_INFINITY)?.at) ?? pointer;
      last = to;
      put((job) => moved(job, seen, to));
    },
    async letGo() {
      const to = last;
      const near =
        to &&
        (await computing()
          .cutNear(useBench.getState().job, to, partId)
          .catch(() => null));
      if (near) put((job) => movedTo(job, seen, near.place));
      settle();
    },
  };
}

/** Runs something on the chosen cut once what is seen is in step with the document; whether one is chosen. */
function onChosen(run: (seen: Seen) => void): boolean {
  const { atCut: at, view, job, viewOf } = useBench.getState();
  if (!at) return false;
  if (job !== viewOf) {
    whenComputed(() => onChosen(run));
    return true;
  }
  const cut = cutSeen(view, at);
  if (cut) run({ at, cut });
  return true;
}

/** Moves the chosen place by mm on the sheet, along its outline; whether there was one. */
export const nudgeChosenCut = (dx: number, dy: number): boolean =>
  onChosen((seen) => {
    const place = placeOf(seen.at, seen.cut);
    if (place) dispatch((job) => moved(job, seen, { x: place.at.x + dx, y: place.at.y + dy }), 'nudge');
  });

/** Takes the chosen tab out, or lets the chosen start go to where it is best; whether one was chosen. */
export const removeChosenCut = (): boolean =>
  onChosen(({ at, cut }) => {
    const { partId, place } = at;
    const start = cut.start?.byHand ?? null;
    chooseCut(null);
    if (place !== 'start') dispatch((job) => takeOutTab(job, partId, { tabs: tabsNow(cut), nth: place }));
    else if (start !== null) dispatch((job) => letGoStart(job, partId, start));
  });

/** Lets the tabs of a cut be placed anew. */
export const letGoTabsOf = ({ partId, tabs }: CutView): void =>
  dispatch((job) =>
    letGoTabs(
      job,
      partId,
      tabs.flatMap((tab) => tab.byHand ?? []),
    ),
  );

/** Says on which side an outline is cut; as the operation says where it is the usual one. */
export const setSideOf = ({ partId, side }: CutView, is: CutView['side']['is']): void =>
  dispatch((job) =>
    setSide(job, partId, {
      place: onLetter(side, side.at),
      side: is === 'usual' ? null : is,
      byHand: side.byHand,
    }),
  );

/** Puts a tab where the sheet was pressed, on the nearest outline: of the selected part, or of any where none is. */
export async function addTabAt(at: Point): Promise<void> {
  const { job, selection } = useBench.getState();
  setPointing(null);
  // What keeps the worker from answering is said by the evaluation of the document.
  const near = await computing()
    .cutNear(job, at, selection.partId)
    .catch(() => null);
  const { view } = useBench.getState();
  const cut = near && cutSeen(view, { ...near, place: 'start' });
  if (near) dispatch((doc) => addTab(doc, near.partId, { tabs: cut ? tabsNow(cut) : [], to: near.place }));
}
