/** What is done to the picture on the sheet that is chosen, and what a press says of one. */
import { create } from 'zustand';
import {
  layPictureOf,
  movedPicture,
  pickTone,
  pixelAt,
  putPicture,
  removePicture,
  sizedPicture,
  straightenedPicture,
  tracePicture,
} from '@/core/commands/pictures';
import type { PlacedPicture, Trace } from '@/core/document/schema';
import { compose, distance, type Point, scaling } from '@/core/geometry/point';
import { LIMITS } from '@/core/limits';
import type { StartId } from '@/core/tracing/starts';
import { memberView, partView } from './seen';
import { choosePicture, dispatch, say, select, setPointing, useBench } from './store';

/** The picture that is chosen; undefined where none is. */
const chosenPicture = (): PlacedPicture | undefined => {
  const { job, atPicture } = useBench.getState();
  return atPicture === null ? undefined : job.pictures.find((p) => p.id === atPicture);
};

/** Move the chosen picture; false where none is chosen. */
export function nudgePicture(dx: number, dy: number): boolean {
  const picture = chosenPicture();
  if (!picture) return false;
  if (!picture.locked) dispatch((job) => putPicture(job, movedPicture(picture, dx, dy)), 'nudge');
  return true;
}

/** Take the chosen picture off the sheet; false where none is chosen. */
export function removeChosenPicture(): boolean {
  const picture = chosenPicture();
  if (!picture) return false;
  if (!picture.locked) {
    dispatch((job) => removePicture(job, picture.id));
    choosePicture(null);
  }
  return true;
}

/** Trace a picture on the sheet, from a start, and choose what comes of it. */
export function traceNow(pictureId: string, start: StartId): void {
  const made = tracePicture(useBench.getState().job, pictureId, start);
  if (made.partId === null) return;
  dispatch(() => made.job);
  select(made.partId);
}

/** What is said where no more pictures may lie on the sheet. */
export const SHEET_IS_FULL = `There are ${LIMITS.placedPictures} pictures on the sheet: take one off first.`;

/** Width of a pixel of a trace as it is shown: a part with an overall width is made larger than its members say. */
const shownScale = (partId: string, { scale }: Trace): number => scale * (partView(partId)?.scale ?? 1);

/** Lay the picture of a trace under it again. */
export function showPictureOf(partId: string, trace: Trace): void {
  const seen = memberView(partId, trace.id);
  if (!seen) return;
  const { job } = useBench.getState();
  const done = layPictureOf(job, { ...trace, scale: shownScale(partId, trace) }, seen.matrix);
  if (done.pictureId === null) say(SHEET_IS_FULL);
  else dispatch(() => done.job);
}

/** A press that says of a tone in the picture of the chosen trace whether it belongs to the shape. */
export function toneAt(at: Point, belongs: boolean): void {
  const { job, selection } = useBench.getState();
  const part = job.parts.find((p) => p.id === selection.partId);
  const trace = part?.members.find((m): m is Trace => m.kind === 'trace' && (selection.memberId ?? m.id) === m.id);
  const seen = trace && memberView(part?.id ?? null, trace.id);
  if (!part || !trace || !seen) {
    setPointing(null);
    return;
  }
  const toSheet = compose(scaling(shownScale(part.id, trace)), seen.matrix);
  const pixel = pixelAt(trace, toSheet, at);
  if (!pixel) say('Press on the picture that was traced.');
  else dispatch((now) => pickTone(now, part.id, trace.id, pixel, belongs));
}

/** Two places are at least so far apart, in mm. */
const LEAST_APART_MM = 0.01;

/** Places pressed on in the chosen picture: none, one, or the two of a distance that is asked for. */
export const usePressed = create<{ readonly points: readonly Point[] }>(() => ({ points: [] }));

/** Begin to press two places on the chosen picture, or leave that. */
export function pressPlaces(what: 'level' | 'distance' | null): void {
  usePressed.setState({ points: [] });
  setPointing(what);
}

/** A press on a place of the chosen picture. Two say what is to be level; of a distance they wait until it is said. */
export function placeAt(at: Point): void {
  const { pointing } = useBench.getState();
  const picture = chosenPicture();
  if (!picture) {
    pressPlaces(null);
    return;
  }
  const [before] = usePressed.getState().points.slice(-1);
  // The second press of a double click says nothing.
  if (before && distance(before, at) < LEAST_APART_MM) return;
  const points = [...usePressed.getState().points, at].slice(-2);
  usePressed.setState({ points });
  const [from, to] = points;
  if (!from || !to) return;
  setPointing(null);
  if (pointing !== 'level') return;
  dispatch((job) => putPicture(job, straightenedPicture(picture, from, to)));
  usePressed.setState({ points: [] });
}

/** Make the chosen picture as large as a distance between the two places says. */
export function setDistance(mm: number): void {
  const picture = chosenPicture();
  const [from, to] = usePressed.getState().points;
  if (!picture || !from || !to) return;
  const factor = mm / distance(from, to);
  dispatch((job) => putPicture(job, sizedPicture(picture, factor, from)), 'distance');
  const moved = { x: from.x + (to.x - from.x) * factor, y: from.y + (to.y - from.y) * factor };
  usePressed.setState({ points: [from, moved] });
}
