/** Pictures on the sheet: laid there, placed, sized, cropped, straightened, and traced. */
import type { Crop, Job, PlacedPicture, Trace } from '../document/schema';
import {
  applyMatrix,
  type Box,
  compose,
  invert,
  type Matrix,
  type Point,
  scaling,
  transformedBox,
} from '../geometry/point';
import { newStep, withStep } from '../kinds/steps';
import { workBy } from '../kinds/works';
import { LIMITS } from '../limits';
import { placementMatrix, placementOf } from '../prepare/placement';
import { leastOf, type StartId, startOf } from '../tracing/starts';
import { changed, type Done, memberOf } from './changed';
import { newPart } from './defaults';
import { freeId } from './ids';

/** A picture that is kept beside the jobs: its name, what it and its pixels are called there, and its size in pixels. */
export type PictureAtHand = Pick<PlacedPicture, 'name' | 'original' | 'pixels' | 'columns' | 'rows'> &
  Partial<Pick<PlacedPicture, 'likely'>>;

const NO_CROP: Crop = { left: 0, right: 0, top: 0, bottom: 0 };
const round = (value: number): number => Math.round(value * 1e3) / 1e3;

/** From pixels of a picture, counted from the middle of all of it with y upwards, to the sheet. */
export const pictureMatrix = ({ scale, placement }: Pick<PlacedPicture, 'scale' | 'placement'>): Matrix =>
  compose(scaling(scale), placementMatrix(placement));

/** Bounds of what is left of a picture, in pixels from the middle of all of it, y upwards. */
export function croppedBox({ columns, rows, crop }: Pick<PlacedPicture, 'columns' | 'rows' | 'crop'>): Box {
  const [right, top] = [columns / 2 - crop.right, rows / 2 - crop.top];
  return {
    minX: Math.min(crop.left - columns / 2, right - 1),
    minY: Math.min(crop.bottom - rows / 2, top - 1),
    maxX: right,
    maxY: top,
  };
}

/** Bounds on the sheet of what is left of a picture. */
export const pictureBox = (picture: PlacedPicture): Box => transformedBox(croppedBox(picture), pictureMatrix(picture));

/** Lay a picture on the sheet, its middle at a place, a pixel so many mm wide. With as many as may lie there, nothing changes and `pictureId` is null. */
export function layPicture(
  job: Job,
  kept: PictureAtHand,
  scale: number,
  at: Point,
): Done<{ readonly pictureId: string | null }> {
  if (job.pictures.length >= LIMITS.placedPictures) return { job, pictureId: null };
  const pictureId = freeId(job, 'picture');
  const { name, original, pixels, columns, rows, likely = 'dark' } = kept;
  const picture: PlacedPicture = {
    id: pictureId,
    name,
    original,
    pixels,
    columns,
    rows,
    likely,
    crop: NO_CROP,
    scale,
    placement: { x: round(at.x), y: round(at.y), turn: 0, mirror: false },
    shown: true,
    strength: 0.6,
    locked: false,
  };
  return { job: changed(job, (draft) => void draft.pictures.push(picture)), pictureId };
}

/** Trace a picture from a start: a part over it, cut round about, or with a line down the middle of its strokes. */
export function tracePicture(job: Job, pictureId: string, startId: StartId): Done<{ readonly partId: string | null }> {
  const picture = job.pictures.find((p) => p.id === pictureId);
  if (!picture) return { job, partId: null };
  const { name, pixels, original, columns, rows, crop, scale, placement } = picture;
  const start = startOf(startId);
  const trace: Trace = {
    id: freeId(job, 'trace'),
    kind: 'trace',
    role: 'join',
    placement: { ...placement },
    name,
    pixels,
    original,
    columns,
    rows,
    crop: { ...crop },
    scale,
    tones: { by: picture.likely, picks: [], evenLight: start.evenLight },
    least: Math.min(LIMITS.offsetMostMm, round(leastOf(start, columns, rows) * scale)),
    follow: null,
    dropRim: true,
  };
  const partId = freeId(job, 'part', [trace.id]);
  const stem = name.replace(/\.[^.]{1,5}$/, '').trim();
  const made = newPart(partId, stem, [trace], job);
  const mark = job.operations.find((o) => o.kind === 'mark') ?? job.operations[0];
  const part =
    start.isMiddle && mark
      ? {
          ...made,
          steps: withStep(
            made.steps,
            newStep('centerline', { capHeightMm: (rows * scale) / 4, leastWidthMm: null, kerfMm: null }),
          ),
          work: [workBy('centerline', mark.id)],
        }
      : made;
  return { job: changed(job, (draft) => void draft.parts.push(part)), partId };
}

/** Change a picture on the sheet. */
export const editPicture = (job: Job, pictureId: string, recipe: (picture: PlacedPicture) => void): Job =>
  changed(job, (draft) => {
    const picture = draft.pictures.find((p) => p.id === pictureId);
    if (picture) recipe(picture);
  });

/** Take a picture off the sheet. What was traced from it stays. */
export const removePicture = (job: Job, pictureId: string): Job =>
  job.pictures.some((p) => p.id === pictureId)
    ? changed(job, (draft) => {
        draft.pictures = draft.pictures.filter((p) => p.id !== pictureId);
      })
    : job;

/** A picture moved. */
export const movedPicture = (picture: PlacedPicture, dx: number, dy: number): PlacedPicture => ({
  ...picture,
  placement: {
    ...picture.placement,
    x: round(picture.placement.x + dx),
    y: round(picture.placement.y + dy),
  },
});

/** A picture so many times as large about a point of the sheet. */
export function sizedPicture(picture: PlacedPicture, factor: number, about: Point): PlacedPicture {
  const scale = Math.min(LIMITS.pixelMostMm, Math.max(LIMITS.pixelLeastMm, picture.scale * factor));
  const by = scale / picture.scale;
  const { x, y } = picture.placement;
  const place = { x: round(about.x + (x - about.x) * by), y: round(about.y + (y - about.y) * by) };
  return { ...picture, scale, placement: { ...picture.placement, ...place } };
}

/** A picture turned by degrees about a point of the sheet. */
export function turnedPicture(picture: PlacedPicture, degrees: number, about: Point): PlacedPicture {
  const angle = (degrees * Math.PI) / 180;
  const { placement } = picture;
  const [x, y] = [placement.x - about.x, placement.y - about.y];
  const turn = placement.turn + degrees;
  return {
    ...picture,
    placement: {
      ...placement,
      x: round(about.x + x * Math.cos(angle) - y * Math.sin(angle)),
      y: round(about.y + x * Math.sin(angle) + y * Math.cos(angle)),
      turn: Math.round((turn - 360 * Math.round(turn / 360)) * 1e4) / 1e4,
    },
  };
}

/** A picture turned so that a line between two points of the sheet is level, or upright where it is nearer to that. */
export function straightenedPicture(picture: PlacedPicture, from: Point, to: Point): PlacedPicture {
  const angle = (Math.atan2(to.y - from.y, to.x - from.x) * 180) / Math.PI;
  const nearest = 90 * Math.round(angle / 90);
  return turnedPicture(picture, nearest - angle, { x: (from.x + to.x) / 2, y: (from.y + to.y) / 2 });
}

/** Put a picture in the place of the one with its id. */
export const putPicture = (job: Job, picture: PlacedPicture): Job => ({
  ...job,
  pictures: job.pictures.map((p) => (p.id === picture.id ? picture : p)),
});

/** Where a place of the sheet is in a picture: in pixels from its top left; null outside of what is left of it. */
export function pixelAt(
  picture: Pick<PlacedPicture, 'columns' | 'rows' | 'crop'>,
  toSheet: Matrix,
  at: Point,
): Point | null {
  const own = applyMatrix(invert(toSheet), at);
  const box = croppedBox(picture);
  if (own.x < box.minX || own.x > box.maxX || own.y < box.minY || own.y > box.maxY) return null;
  return { x: round(own.x + picture.columns / 2), y: round(picture.rows / 2 - own.y) };
}

/** Change a trace. */
export const editTrace = (job: Job, partId: string, memberId: string, recipe: (trace: Trace) => void): Job =>
  changed(job, (draft) => {
    const member = memberOf(draft, partId, memberId);
    if (member?.kind === 'trace') recipe(member);
  });

/** Say of a place in the picture of a trace whether its tone belongs to the shape. The first said of one kind of tone also makes these count. */
export const pickTone = (job: Job, partId: string, memberId: string, at: Point, belongs: boolean): Job =>
  editTrace(job, partId, memberId, ({ tones }) => {
    if (tones.by !== 'picked') tones.picks = [];
    tones.by = 'picked';
    tones.picks = [...tones.picks, { ...at, belongs }].slice(-LIMITS.tonePicks);
  });

/** Take back what was last said of a tone. With nothing said any more the dark tones count, so that there is a shape all the same. */
export const unpickTone = (job: Job, partId: string, memberId: string): Job =>
  editTrace(job, partId, memberId, ({ tones }) => {
    tones.picks = tones.picks.slice(0, -1);
    if (tones.picks.length === 0 && tones.by === 'picked') tones.by = 'dark';
  });

/** Lay the picture of a trace on the sheet again, under it. `matrix` is where the trace lies: from its own mm to the sheet. */
export function layPictureOf(job: Job, trace: Trace, matrix: Matrix): Done<{ readonly pictureId: string | null }> {
  const done = layPicture(job, trace, trace.scale, { x: matrix.e, y: matrix.f });
  if (done.pictureId === null) return done;
  return {
    ...done,
    job: editPicture(done.job, done.pictureId, (picture) => {
      picture.crop = { ...trace.crop };
      picture.placement = placementOf(matrix);
    }),
  };
}

/** Lay pictures of a drawing on the sheet, where they lie in it: its middle goes to `at`, so many times as large; those beyond as many as may lie there are left out. */
export function layPicturesOf(
  job: Job,
  pictures: readonly (PictureAtHand & Pick<PlacedPicture, 'scale' | 'placement'>)[],
  { factor, middle, at }: { readonly factor: number; readonly middle: Point; readonly at: Point },
): Job {
  return pictures.reduce((now, picture) => {
    const { x, y } = picture.placement;
    const done = layPicture(now, picture, picture.scale * factor, {
      x: at.x + (x - middle.x) * factor,
      y: at.y + (y - middle.y) * factor,
    });
    if (done.pictureId === null) return now;
    return editPicture(done.job, done.pictureId, ({ placement }) => {
      placement.turn = picture.placement.turn;
      placement.mirror = picture.placement.mirror;
    });
  }, job);
}
