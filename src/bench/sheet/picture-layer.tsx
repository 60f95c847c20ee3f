/** Pictures on the sheet: under the parts, taken hold of where nothing lies over them. */
import { type PointerEvent, useId } from 'react';
import {
  croppedBox,
  movedPicture,
  pictureMatrix,
  putPicture,
  sizedPicture,
  turnedPicture,
} from '@/core/commands/pictures';
import type { PlacedPicture } from '@/core/document/schema';
import type { Matrix, Point } from '@/core/geometry/point';
import { placeAt, usePressed } from '../picture-edits';
import { usePictureUrl } from '../pictures';
import { cornersOf } from '../seen';
import { choosePicture, dispatch, settle, useBench } from '../store';
import { type Camera, useCamera } from './camera';
import { followPointer } from './drag';
import { FrameHandles, frameOutline, toScreen } from './frame-handles';
import styles from './sheet.module.css';

const LEAST_FACTOR = 0.001;
const TURN_STEP = 15;

const written = ({ a, b, c, d, e, f }: Matrix): string => `matrix(${a} ${b} ${c} ${d} ${e} ${f})`;

/** One picture, in mm with y upwards. */
function Picture({ picture }: { picture: PlacedPicture }) {
  const { columns, rows, strength, pixels } = picture;
  const { url, isAway } = usePictureUrl(pixels);
  const clip = useId();
  const { minX, minY, maxX, maxY } = croppedBox(picture);
  const frame = <rect x={minX} y={minY} width={maxX - minX} height={maxY - minY} />;
  return (
    <g transform={written(pictureMatrix(picture))} data-picture={picture.id}>
      <clipPath id={clip}>{frame}</clipPath>
      {url ? (
        <g clipPath={`url(#${clip})`} opacity={strength}>
          <image
            href={url}
            width={columns}
            height={rows}
            preserveAspectRatio="none"
            transform={`matrix(1 0 0 -1 ${-columns / 2} ${rows / 2})`}
          />
        </g>
      ) : (
        <g className={isAway ? styles.pictureAway : styles.pictureComing}>{frame}</g>
      )}
    </g>
  );
}

/** All pictures that are shown, for under the parts. */
export function Pictures() {
  const pictures = useBench((s) => s.job.pictures);
  return <>{pictures.map((picture) => picture.shown && <Picture key={picture.id} picture={picture} />)}</>;
}

type Props = { readonly camera: Camera; readonly toMm: (x: number, y: number) => Point };

/** Follow the pointer from a press: what becomes of a picture by where it has come, as one step of undo. */
function followPicture(
  event: PointerEvent,
  picture: PlacedPicture,
  toMm: Props['toMm'],
  become: (at: Point, start: Point, isStepped: boolean) => PlacedPicture,
): void {
  const start = toMm(event.clientX, event.clientY);
  followPointer(
    event,
    (e, begins) => {
      if (begins) settle();
      const next = become(toMm(e.clientX, e.clientY), start, e.shiftKey);
      dispatch((job) => putPicture(job, next), `picture:${picture.id}`);
    },
    (begun) => begun && settle(),
  );
}

/** Where pictures can be pressed on: under what parts catch. */
export function PictureHits({ camera: { k, x, y }, toMm }: Props) {
  const pictures = useBench((s) => s.job.pictures);
  const pointing = useBench((s) => s.pointing);
  const press = (event: PointerEvent, picture: PlacedPicture) => {
    if (event.button !== 0 || pointing || useCamera.getState().panning) return;
    choosePicture(picture.id);
    followPicture(event, picture, toMm, (at, start) => movedPicture(picture, at.x - start.x, at.y - start.y));
  };
  return (
    <g transform={`matrix(${k} 0 0 ${-k} ${x} ${y})`}>
      {pictures.map((picture) => {
        if (!picture.shown || picture.locked) return null;
        const { minX, minY, maxX, maxY } = croppedBox(picture);
        return (
          <rect
            key={picture.id}
            data-grab={`picture ${picture.id}`}
            fill="transparent"
            x={minX}
            y={minY}
            width={maxX - minX}
            height={maxY - minY}
            transform={written(pictureMatrix(picture))}
            onPointerDown={(e) => press(e, picture)}
          />
        );
      })}
    </g>
  );
}

/** The frame of the chosen picture, with handles to size and turn it; and the places that are pressed on in it. */
export function PictureFrame({ camera, toMm }: Props) {
  const picture = useBench((s) => s.job.pictures.find((p) => p.id === s.atPicture));
  const pointing = useBench((s) => s.pointing);
  const points = usePressed((s) => s.points);
  if (!picture?.shown) return null;
  const { width, height } = camera;
  const corners = cornersOf(croppedBox(picture), pictureMatrix(picture));
  const size = (event: PointerEvent, about: Point) =>
    followPicture(event, picture, toMm, (at, start) => {
      const [ux, uy] = [start.x - about.x, start.y - about.y];
      const along = ((at.x - about.x) * ux + (at.y - about.y) * uy) / (ux * ux + uy * uy || 1);
      return sizedPicture(picture, Math.max(LEAST_FACTOR, along), about);
    });
  const turn = (event: PointerEvent, about: Point) => {
    followPicture(event, picture, toMm, (at, start, isStepped) => {
      const angle = (to: Point) => (Math.atan2(to.y - about.y, to.x - about.x) * 180) / Math.PI;
      const by = angle(at) - angle(start);
      const now = picture.placement.turn;
      return turnedPicture(picture, isStepped ? TURN_STEP * Math.round((now + by) / TURN_STEP) - now : by, about);
    });
  };
  const isPressing = pointing === 'level' || pointing === 'distance';
  return (
    <g data-frame="picture">
      <path
        className={styles.frame}
        strokeDasharray={picture.locked ? '4 3' : '1 3'}
        d={frameOutline(camera, corners)}
      />
      {!picture.locked && !isPressing && (
        <FrameHandles
          camera={camera}
          corners={corners}
          of="picture"
          onSize={(e, about) => e.button === 0 && size(e, about)}
          onTurn={(e, about) => e.button === 0 && turn(e, about)}
        />
      )}
      {isPressing && (
        <rect
          data-grab="places"
          className={styles.places}
          width={width}
          height={height}
          onPointerUp={(e) => e.button === 0 && placeAt(toMm(e.clientX, e.clientY))}
        />
      )}
      {points.length > 0 && (
        <path
          className={styles.pressed}
          d={points
            .map((p) => toScreen(camera, p))
            .map((p, i) => `${i > 0 ? `L${p.x} ${p.y}` : ''}M${p.x - 6} ${p.y}h12m-6 -6v12M${p.x} ${p.y}`)
            .join('')}
        />
      )}
    </g>
  );
}
