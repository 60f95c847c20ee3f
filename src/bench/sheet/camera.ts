/** What part of the bench is in sight. Screen x = x + k·mm, screen y = y − k·mm (millimetres go upwards). */
import { select } from 'd3-selection';
import { type ZoomBehavior, zoom, zoomIdentity } from 'd3-zoom';
import { create } from 'zustand';
import { boxHeight, boxWidth, growBox, isEmptyBox, uniteBoxes } from '@/core/geometry/point';
import { chosenBox, chosenNow } from '../chosen';
import { useBench } from '../store';

/** How the sheet is seen: pixels per mm, and where its corner lies in the window. */
export type Camera = {
  readonly k: number;
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
  /** The space bar is held: a drag moves the view, whatever it begins on. */
  readonly panning: boolean;
  /** The sheet is fitted, and stays so when the window or a panel changes. */
  readonly fitted: boolean;
};

/** Pixels per millimetre: from metres of sheet in sight to a micrometre per pixel. */
const LEAST_ZOOM = 0.02;
const MOST_ZOOM = 1_000;
/** Room kept around what is fitted, as a share of the view. */
const ROOM = 0.06;
/** Width of the rulers, in pixels. */
export const RULER = { top: 22, left: 30 } as const;
/** Height that the switch of looks covers at the bottom of the view, in pixels. */
const LOOKS = 56;

/** How the sheet is seen now. */
export const useCamera = create<Camera>(() => ({
  k: 1,
  x: 0,
  y: 0,
  width: 0,
  height: 0,
  panning: false,
  fitted: false,
}));

let behaviour: ZoomBehavior<SVGSVGElement, unknown> | null = null;
let surface: SVGSVGElement | null = null;

/** Let the wheel, and drags with the middle button or the space bar held, move the camera; returns how to stop. */
export function attachCamera(svg: SVGSVGElement): () => void {
  surface = svg;
  behaviour = zoom<SVGSVGElement, unknown>()
    .scaleExtent([LEAST_ZOOM, MOST_ZOOM])
    .clickDistance(4)
    .filter(
      (event: MouseEvent) =>
        event.type === 'wheel' || event.button === 1 || (event.button === 0 && useCamera.getState().panning),
    )
    .on('zoom', ({ transform, sourceEvent }) => {
      useCamera.setState({
        k: transform.k,
        x: transform.x,
        y: transform.y,
        // Wheel and drag lead away from it; what is done by ourselves says so itself.
        ...(sourceEvent && { fitted: false }),
      });
    });
  select(svg).call(behaviour).on('dblclick.zoom', null);
  return () => {
    select(svg).on('.zoom', null);
    surface = null;
    behaviour = null;
  };
}

type Box = { readonly minX: number; readonly minY: number; readonly maxX: number; readonly maxY: number };

function lookAt(box: Box, mostZoom: number): void {
  const view = useCamera.getState();
  if (!surface || !behaviour || view.width === 0 || view.height === 0) return;
  const width = Math.max(1, view.width - RULER.left);
  const height = Math.max(1, view.height - RULER.top - LOOKS);
  const w = Math.max(1e-3, box.maxX - box.minX);
  const h = Math.max(1e-3, box.maxY - box.minY);
  const k = Math.min(mostZoom, MOST_ZOOM, (width * (1 - 2 * ROOM)) / w, (height * (1 - 2 * ROOM)) / h);
  const x = RULER.left + width / 2 - (k * (box.minX + box.maxX)) / 2;
  const y = RULER.top + height / 2 + (k * (box.minY + box.maxY)) / 2;
  select(surface).call(behaviour.transform, zoomIdentity.translate(x, y).scale(k));
}

/** See the whole sheet, and the work that lies off it. */
export function fitSheet(): void {
  const { job, view } = useBench.getState();
  const sheet: Box = { minX: 0, minY: 0, maxX: job.sheet.width, maxY: job.sheet.height };
  const all = (view?.parts ?? []).reduce(
    (box, part) => (isEmptyBox(part.size) ? box : uniteBoxes(box, part.size)),
    sheet,
  );
  lookAt(all, Infinity);
  useCamera.setState({ fitted: true });
}

/** Bring what is chosen into sight; the sheet where nothing is. */
export function fitChosen(): void {
  const box = chosenBox(chosenNow(), useBench.getState().view);
  if (isEmptyBox(box)) fitSheet();
  else {
    useCamera.setState({ fitted: false });
    lookAt(growBox(box, Math.max(boxWidth(box), boxHeight(box), 1) * ROOM), Infinity);
  }
}

/** Bring a place into sight with its surroundings. */
export function lookAtPlace(box: Box): void {
  useCamera.setState({ fitted: false });
  const room = Math.max(box.maxX - box.minX, box.maxY - box.minY, 2) * 1.2;
  lookAt({ minX: box.minX - room, minY: box.minY - room, maxX: box.maxX + room, maxY: box.maxY + room }, 60);
}

/** See everything larger, or smaller, about the middle. */
export function zoomBy(factor: number): void {
  useCamera.setState({ fitted: false });
  if (surface && behaviour) select(surface).call(behaviour.scaleBy, factor);
}

/** Millimetres on the sheet under a point of the view. */
export const toSheet = (camera: Camera, px: number, py: number): { x: number; y: number } => ({
  x: (px - camera.x) / camera.k,
  y: (camera.y - py) / camera.k,
});
