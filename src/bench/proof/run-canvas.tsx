/**
 * The run on the sheet: what is still to come is faint, what is done is in the colours of its operations and as wide as it works, what has
 * come free has fallen away, and where the tool is now is marked. In layers, so that a frame draws only what it adds.
 */
import { useEffect, useRef } from 'react';
import { useScheme } from '@/ui/scheme';
import type { PlayedRun } from '@/worker/proof-view';
import type { Camera } from '../sheet/camera';
import styles from '../sheet/sheet.module.css';
import { useProof } from './proving';

/** Widths smaller than this many pixels are not shown beside the line. */
const WIDE_PX = 2;
const DASHES_PX: Readonly<Record<string, readonly number[]>> = { score: [7, 4], mark: [0.1, 4] };
const TOOL_PX = 5;

/** The run at the time it is looked at. */
export function RunCanvas({ camera, run }: { camera: Camera; run: PlayedRun }) {
  const under = useRef<HTMLCanvasElement>(null);
  const done = useRef<HTMLCanvasElement>(null);
  const now = useRef<HTMLCanvasElement>(null);
  const scheme = useScheme();
  // biome-ignore lint/correctness/useExhaustiveDependencies: colours are those of the scheme
  useEffect(() => {
    const layers = [under, done, now].map((layer) => layer.current);
    if (layers.some((layer) => layer === null)) return;
    const drawer = new Drawer(layers as HTMLCanvasElement[], camera, run);
    drawer.draw(useProof.getState().at);
    return useProof.subscribe((state, before) => {
      if (state.at !== before.at) drawer.draw(state.at);
    });
  }, [camera, run, scheme]);
  const size = { width: camera.width, height: camera.height };
  return (
    <>
      <canvas ref={under} className={styles.fills} style={size} data-run="stock" />
      <canvas ref={done} className={styles.fills} style={size} data-run="done" />
      <canvas ref={now} className={styles.fills} style={size} data-run="now" />
    </>
  );
}

/** Draws a run as it goes on, for one camera. */
class Drawer {
  private readonly under: CanvasRenderingContext2D;
  private readonly done: CanvasRenderingContext2D;
  private readonly now: CanvasRenderingContext2D;
  private readonly colour: (name: string) => string;
  private readonly pieces: readonly { readonly path: Path2D; readonly free: number; readonly isKept: boolean }[];
  private readonly areas: ReadonlyMap<number, { readonly path: Path2D; readonly area: PlayedRun['areas'][number] }>;
  /** How many things are drawn as done, and how many pieces as fallen. */
  private drawn = 0;
  private fallen = -1;

  constructor(
    layers: readonly HTMLCanvasElement[],
    private readonly camera: Camera,
    private readonly run: PlayedRun,
  ) {
    const scale = window.devicePixelRatio || 1;
    const contexts = layers.map((canvas) => {
      canvas.width = Math.round(camera.width * scale);
      canvas.height = Math.round(camera.height * scale);
      const context = canvas.getContext('2d') as CanvasRenderingContext2D;
      this.place(context);
      return context;
    });
    [this.under, this.done, this.now] = contexts as [
      CanvasRenderingContext2D,
      CanvasRenderingContext2D,
      CanvasRenderingContext2D,
    ];
    const css = getComputedStyle(layers[0] as HTMLCanvasElement);
    this.colour = (name) => css.getPropertyValue(`--nf-${name}`).trim();
    this.pieces = run.pieces
      .flatMap((p) => (p.free === null ? [] : [{ path: new Path2D(p.d), free: p.free, isKept: p.isKept }]))
      .sort((a, b) => a.free - b.free);
    this.areas = new Map(run.areas.map((area) => [area.thing, { path: new Path2D(area.d), area }]));
  }

  draw(at: number): void {
    this.drawFallen(at);
    this.drawDone(at);
    this.drawNow(at);
  }

  private place(context: CanvasRenderingContext2D): void {
    const scale = window.devicePixelRatio || 1;
    const { k, x, y } = this.camera;
    context.setTransform(scale * k, 0, 0, -scale * k, scale * x, scale * y);
    context.lineCap = 'round';
    context.lineJoin = 'round';
  }

  private clear(context: CanvasRenderingContext2D): void {
    context.setTransform(1, 0, 0, 1, 0, 0);
    context.clearRect(0, 0, context.canvas.width, context.canvas.height);
    this.place(context);
  }

  /** What has come free, over the stock, and what is still to be run, faintly. */
  private drawFallen(at: number): void {
    const { under, pieces, run } = this;
    const fallen = pieces.filter((p) => p.free <= at).length;
    if (fallen === this.fallen) return;
    this.fallen = fallen;
    this.clear(under);
    for (const { path, isKept } of pieces.slice(0, fallen)) {
      under.fillStyle = this.colour(isKept ? 'kept' : 'bench');
      under.fill(path, 'evenodd');
    }
    under.strokeStyle = this.colour('muted');
    under.globalAlpha = 0.45;
    under.lineWidth = 0.7 / this.camera.k;
    under.beginPath();
    for (let i = 0; i < run.operation.length; i++) this.trace(under, i, 1);
    under.stroke();
    for (const { path } of this.areas.values()) under.stroke(path);
    under.globalAlpha = 1;
  }

  private drawDone(at: number): void {
    const { done, run } = this;
    let end = this.drawn;
    if (end > 0 && (run.ends[end - 1] as number) > at) {
      this.clear(done);
      this.drawn = 0;
      end = 0;
    }
    while (end < run.ends.length && (run.ends[end] as number) <= at) end++;
    for (let i = this.drawn; i < end; ) {
      // Those of one operation together.
      const operation = run.operation[i] as number;
      let next = i;
      while (next < end && run.operation[next] === operation) next++;
      this.drawThings(done, i, next, 1);
      i = next;
    }
    this.drawn = end;
  }

  private drawNow(at: number): void {
    const { now, run, camera } = this;
    this.clear(now);
    const i = this.drawn;
    if (i >= run.ends.length) return;
    const [begin, end] = [run.begins[i] as number, run.ends[i] as number];
    const share = at <= begin ? 0 : Math.min(1, (at - begin) / (end - begin));
    if (share > 0) this.drawThings(now, i, i + 1, share);
    const tool = this.toolAt(i, at, share);
    if (!tool) return;
    now.beginPath();
    now.arc(tool.x, tool.y, TOOL_PX / camera.k, 0, 2 * Math.PI);
    now.fillStyle = this.colour('accent');
    now.fill();
    now.lineWidth = 1.5 / camera.k;
    now.strokeStyle = this.colour('sheet');
    now.stroke();
  }

  /** Things of one operation, the last of them up to a share. */
  private drawThings(context: CanvasRenderingContext2D, from: number, to: number, share: number): void {
    const { run, camera } = this;
    const operation = run.operations[run.operation[from] as number];
    const kind = operation?.kind ?? 'muted';
    context.strokeStyle = this.colour(kind);
    context.fillStyle = this.colour(kind);
    for (let i = from; i < to; i++) {
      const area = this.areas.get(i);
      if (area) this.fillArea(context, area, i === to - 1 ? share : 1);
    }
    context.beginPath();
    for (let i = from; i < to; i++) if (!this.areas.has(i)) this.trace(context, i, i === to - 1 ? share : 1);
    const widthMm = operation?.widthMm ?? 0;
    if (widthMm * camera.k > WIDE_PX) {
      context.globalAlpha = 0.3;
      context.lineWidth = widthMm;
      context.stroke();
      context.globalAlpha = 1;
    }
    context.lineWidth = (kind === 'mark' ? 2.4 : 1.6) / camera.k;
    context.setLineDash((DASHES_PX[kind] ?? []).map((px) => px / camera.k));
    context.stroke();
    context.setLineDash([]);
  }

  /** Areas are gone over from below upwards. */
  private fillArea(
    context: CanvasRenderingContext2D,
    { path, area: { box } }: { readonly path: Path2D; readonly area: PlayedRun['areas'][number] },
    share: number,
  ): void {
    context.save();
    context.beginPath();
    context.rect(
      box.minX - 1,
      box.minY - 1,
      box.maxX - box.minX + 2,
      (box.maxY - box.minY) * share + (share < 1 ? 1 : 2),
    );
    context.clip();
    context.globalAlpha = 0.75;
    context.fill(path, 'nonzero');
    context.restore();
  }

  /** The line of a thing up to a share of its length. */
  private trace(context: CanvasRenderingContext2D, i: number, share: number): void {
    const { xy, start } = this.run;
    const [first, end] = [start[i] as number, start[i + 1] as number];
    if (end <= first) return;
    context.moveTo(xy[2 * first] as number, xy[2 * first + 1] as number);
    if (share >= 1) {
      for (let p = first + 1; p < end; p++) context.lineTo(xy[2 * p] as number, xy[2 * p + 1] as number);
      return;
    }
    for (const p of this.along(i, share)) context.lineTo(p.x, p.y);
  }

  /** Places of a line from its second on, up to a share of its length. */
  private *along(i: number, share: number): Generator<{ readonly x: number; readonly y: number }> {
    const { xy, start } = this.run;
    const [first, end] = [start[i] as number, start[i + 1] as number];
    const lengths: number[] = [];
    let whole = 0;
    for (let p = first + 1; p < end; p++) {
      const length = Math.hypot(
        (xy[2 * p] as number) - (xy[2 * p - 2] as number),
        (xy[2 * p + 1] as number) - (xy[2 * p - 1] as number),
      );
      lengths.push(length);
      whole += length;
    }
    let left = share * whole;
    for (let p = first + 1; p < end; p++) {
      const length = lengths[p - first - 1] as number;
      const t = length > 0 ? Math.min(1, left / length) : 1;
      const [x0, y0] = [xy[2 * p - 2] as number, xy[2 * p - 1] as number];
      yield { x: x0 + t * ((xy[2 * p] as number) - x0), y: y0 + t * ((xy[2 * p + 1] as number) - y0) };
      left -= length;
      if (left <= 0) return;
    }
  }

  /** Where the tool is: on its line, or on the way to it. */
  private toolAt(i: number, at: number, share: number): { readonly x: number; readonly y: number } | null {
    const { run } = this;
    const area = this.areas.get(i)?.area;
    if (area) {
      const { box } = area;
      return share > 0 ? { x: (box.minX + box.maxX) / 2, y: box.minY + share * (box.maxY - box.minY) } : null;
    }
    const first = run.start[i] as number;
    const begin = { x: run.xy[2 * first] as number, y: run.xy[2 * first + 1] as number };
    if (share > 0) {
      let last = begin;
      for (const p of this.along(i, share)) last = p;
      return last;
    }
    if (i === 0 || this.areas.has(i - 1)) return begin;
    const before = (run.start[i] as number) - 1;
    const from = { x: run.xy[2 * before] as number, y: run.xy[2 * before + 1] as number };
    const [left, next] = [run.ends[i - 1] as number, run.begins[i] as number];
    const t = next > left ? (at - left) / (next - left) : 1;
    return { x: from.x + t * (begin.x - from.x), y: from.y + t * (begin.y - from.y) };
  }
}
