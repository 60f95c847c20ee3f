/**
 * Lines that fill parts, on a canvas over the work: there may be hundreds of thousands. Only those in sight are drawn; where they
 * stand closer than the screen can show they are an area.
 */
import { useEffect, useRef } from 'react';
import type { Job } from '@/core/document/schema';
import { useScheme } from '@/ui/scheme';
import type { HatchView } from '@/worker/hatch-view';
import type { JobView, PartView } from '@/worker/view';
import type { Look } from '../state';

import type { Camera } from './camera';
import styles from './sheet.module.css';

type Props = {
  readonly camera: Camera;
  readonly job: Job;
  readonly view: JobView;
  readonly look: Look;
  readonly only: string | null;
};

/** Lines closer than this many pixels are drawn as an area. */
const CLOSE_PX = 1.3;
/** What is out of reach is tinted from this share on: less is the rounding of curves. */
const BEYOND_SHOWN = 0.001;
/** The width of the tip is shown from so many pixels on. */
const WIDE_PX = 2.5;

const pathsHeld = new WeakMap<PartView, { readonly area: Path2D; readonly beyond: Path2D; readonly edge: Path2D }>();

function canvasPathsOf(part: PartView, hatch: HatchView) {
  let cachedPaths = pathsHeld.get(part);
  if (!cachedPaths) {
    cachedPaths = {
      area: new Path2D(part.d),
      // What is in one and not in the other: the tool never leaves the letter.
      beyond: new Path2D(part.d + hatch.reachedD),
      edge: new Path2D(hatch.pathsD),
    };
    pathsHeld.set(part, cachedPaths);
  }
  return cachedPaths;
}

/** Hatch lines, which may be too many to be elements of the page. */
export function HatchCanvas({ camera, job, view, look, only }: Props) {
  const ref = useRef<HTMLCanvasElement>(null);
  useScheme();
  const operations = view.operations.filter((o) => o.hatchedParts.length > 0 && (only === null || o.id === only));
  const isShown = look === 'drawing' || look === 'worked';
  useEffect(() => {
    const canvas = ref.current;
    const context = canvas?.getContext('2d');
    if (!canvas || !context) return;
    const scale = window.devicePixelRatio || 1;
    const { k, x, y, width, height } = camera;
    canvas.width = Math.round(width * scale);
    canvas.height = Math.round(height * scale);
    if (!isShown) return;
    const css = getComputedStyle(canvas);
    const colour = (name: string) => css.getPropertyValue(`--nf-${name}`).trim();
    const parts = new Map(view.parts.map((p) => [p.id, p]));
    for (const operation of operations)
      for (const { id, d: only } of operation.hatchedParts) {
        const part = parts.get(id);
        if (!part?.hatch) continue;
        const isOn = job.operations.find((o) => o.id === operation.id)?.on !== false;
        context.setTransform(scale * k, 0, 0, -scale * k, scale * x, scale * y);
        context.save();
        // Of letters by themselves what lies in them is drawn.
        if (only !== null) context.clip(new Path2D(only), 'nonzero');
        draw(context, part, part.hatch, {
          k,
          sight: { minX: -x / k, maxX: (width - x) / k, minY: (y - height) / k, maxY: y / k },
          worked: look === 'worked',
          alpha: isOn ? 1 : 0.35,
          colour: colour(operation.kind),
          left: colour('fault'),
          done: colour('ink'),
        });
        context.restore();
      }
  });
  if (operations.length === 0) return null;
  return (
    <canvas
      ref={ref}
      className={styles.fills}
      data-fills={operations.flatMap((o) => o.hatchedParts.map((of) => of.id)).join(' ')}
      style={{ width: camera.width, height: camera.height }}
    />
  );
}

type Drawn = {
  readonly k: number;
  readonly sight: { readonly minX: number; readonly maxX: number; readonly minY: number; readonly maxY: number };
  readonly worked: boolean;
  readonly alpha: number;
  readonly colour: string;
  /** Of what is left in the letter, and of what is worked, in the finished look. */
  readonly left: string;
  readonly done: string;
};

function draw(context: CanvasRenderingContext2D, part: PartView, hatch: HatchView, d: Drawn): void {
  const { area, beyond, edge } = canvasPathsOf(part, hatch);
  const { k, sight, worked, alpha } = d;
  const colour = worked ? d.done : d.colour;
  const { box } = part;
  if (box.maxX < sight.minX || box.minX > sight.maxX || box.maxY < sight.minY || box.minY > sight.maxY) return;
  context.lineCap = 'round';
  context.lineJoin = 'round';
  context.fillStyle = worked ? d.left : colour;
  context.globalAlpha = alpha * (worked ? 0.8 : 0.1);
  context.fill(area, 'nonzero');
  const isClose = hatch.spacingMm * k < CLOSE_PX;
  context.strokeStyle = colour;
  if (worked) {
    // What the tip covers, as wide as it is; from afar all it reaches is covered.
    context.globalAlpha = alpha;
    context.lineWidth = hatch.widthMm;
    if (isClose) {
      context.fillStyle = colour;
      context.fill(new Path2D(hatch.reachedD), 'nonzero');
      return;
    }
    context.stroke(edge);
    strokes(context, { xy: hatch.xy, start: hatch.start, box: sight, widthMm: hatch.widthMm });
    strokes(context, { xy: hatch.restXy, start: hatch.restStart, box: sight, widthMm: hatch.widthMm });
    return;
  }
  if (isClose) {
    context.globalAlpha = alpha * 0.5;
    context.fillStyle = colour;
    context.fill(area, 'nonzero');
    return;
  }
  if (hatch.widthMm * k > WIDE_PX) {
    context.globalAlpha = alpha * 0.16;
    context.lineWidth = hatch.widthMm;
    context.stroke(edge);
    strokes(context, { xy: hatch.xy, start: hatch.start, box: sight, widthMm: hatch.widthMm });
    strokes(context, { xy: hatch.restXy, start: hatch.restStart, box: sight, widthMm: hatch.widthMm });
  }
  if (hatch.beyond > BEYOND_SHOWN) {
    context.globalAlpha = alpha * 0.55;
    context.fillStyle = d.left;
    context.fill(beyond, 'evenodd');
  }
  context.globalAlpha = alpha;
  context.lineWidth = 1 / k;
  context.stroke(edge);
  strokes(context, { xy: hatch.xy, start: hatch.start, box: sight, widthMm: 0 });
  context.lineWidth = 2 / k;
  strokes(context, { xy: hatch.restXy, start: hatch.restStart, box: sight, widthMm: 0 });
}

/** The stretches of polylines that are in sight. */
function strokes(
  context: CanvasRenderingContext2D,
  {
    xy,
    start,
    box: { minX, maxX, minY, maxY },
    widthMm,
  }: { readonly xy: Float32Array; readonly start: Int32Array; readonly box: Drawn['sight']; readonly widthMm: number },
): void {
  const [left, right, low, high] = [minX - widthMm, maxX + widthMm, minY - widthMm, maxY + widthMm];
  context.beginPath();
  for (let s = 0; s + 1 < start.length; s++) {
    let isDown = false;
    for (let i = (start[s] as number) + 1; i < (start[s + 1] as number); i++) {
      const [x0, y0] = [xy[2 * i - 2] as number, xy[2 * i - 1] as number];
      const [x1, y1] = [xy[2 * i] as number, xy[2 * i + 1] as number];
      if (
        (x0 < left && x1 < left) ||
        (x0 > right && x1 > right) ||
        (y0 < low && y1 < low) ||
        (y0 > high && y1 > high)
      ) {
        isDown = false;
        continue;
      }
      if (!isDown) context.moveTo(x0, y0);
      context.lineTo(x1, y1);
      isDown = true;
    }
  }
  context.stroke();
}
