/** The handles of a frame: at its corners to size what is in it, above its upper side to turn it. */
import type { PointerEvent } from 'react';
import type { Point } from '@/core/geometry/point';
import type { Camera } from './camera';
import styles from './sheet.module.css';

/** Side of a handle in pixels. */
export const HANDLE_PX = 9;
/** How far beyond its upper side a frame is turned by. */
const TURN_HANDLE_PX = 26;

/** From the sheet to pixels of the view. */
export const toScreen = ({ k, x, y }: Camera, p: Point): Point => ({ x: x + p.x * k, y: y - p.y * k });

/** The outline of a frame in pixels. */
export const frameOutline = (camera: Camera, corners: readonly Point[]): string =>
  `M${corners
    .map((p) => toScreen(camera, p))
    .map((p) => `${p.x} ${p.y}`)
    .join('L')}Z`;

type Props = {
  readonly camera: Camera;
  /** On the sheet, counter-clockwise from the lower left before it is turned. */
  readonly corners: readonly [Point, Point, Point, Point];
  /** What is in the frame, as `data-grab` says it: nothing for parts. */
  readonly of?: string;
  /** A press on the handle of a corner; `about` is the corner across. */
  readonly onSize: (event: PointerEvent, about: Point) => void;
  readonly onTurn: (event: PointerEvent, about: Point) => void;
};

/** The handles that size a frame away from the corner across, and turn it about its middle. */
export function FrameHandles({ camera, corners, of = '', onSize, onTurn }: Props) {
  const points = corners.map((p) => toScreen(camera, p));
  const [lowLeft, , highRight] = corners;
  const centre = { x: (lowLeft.x + highRight.x) / 2, y: (lowLeft.y + highRight.y) / 2 };
  const [topRight, topLeft] = [points[2], points[3]] as [Point, Point];
  const top = { x: (topRight.x + topLeft.x) / 2, y: (topRight.y + topLeft.y) / 2 };
  const middle = toScreen(camera, centre);
  const reach = Math.hypot(top.x - middle.x, top.y - middle.y) || 1;
  const turnAt = {
    x: top.x + ((top.x - middle.x) / reach) * TURN_HANDLE_PX,
    y: top.y + ((top.y - middle.y) / reach) * TURN_HANDLE_PX,
  };
  const grab = (what: string): string => (of ? `${what} ${of}` : what);
  return (
    <>
      <path className={styles.frame} d={`M${top.x} ${top.y}L${turnAt.x} ${turnAt.y}`} />
      {points.map((p, i) => (
        <rect
          // biome-ignore lint/suspicious/noArrayIndexKey: corners are told apart by their place
          key={i}
          data-grab={grab('size')}
          className={styles.handle}
          style={{ cursor: i % 2 === 0 ? 'nesw-resize' : 'nwse-resize' }}
          x={p.x - HANDLE_PX / 2}
          y={p.y - HANDLE_PX / 2}
          width={HANDLE_PX}
          height={HANDLE_PX}
          onPointerDown={(e) => onSize(e, corners[(i + 2) % 4] as Point)}
        />
      ))}
      <circle
        data-grab={grab('turn')}
        className={styles.handle}
        style={{ cursor: 'crosshair' }}
        cx={turnAt.x}
        cy={turnAt.y}
        r={6}
        onPointerDown={(e) => onTurn(e, centre)}
      />
    </>
  );
}
