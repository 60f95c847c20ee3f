/**
 * Judges an offset by distances alone: every point of the result must lie at the distance from the outlines it was made
 * of, and every point at that distance (along the normals of the outlines, and around their corners) must be on the
 * result. Shares nothing with the offset but points on segments. For round corners.
 */
import Flatbush from 'flatbush';
import { flattenPath, type Path } from '../../src/core/geometry/path';
import type { Point } from '../../src/core/geometry/point';
import { windingNumber } from './area';

const STEP_MM = 0.05;
const SIDE_ASKED = 16;
const CHORD_MM = 0.0005;
/** Stretches of the true offset between which there is less than this need not be met. */
const THREAD_MM = 0.012;

/** Distance to a set of closed paths, over their chords. */
class Edges {
  private readonly ax: number[] = [];
  private readonly ay: number[] = [];
  private readonly bx: number[] = [];
  private readonly by: number[] = [];
  private readonly index: Flatbush;

  constructor(polygons: readonly (readonly Point[])[]) {
    for (const points of polygons)
      points.forEach((p, i) => {
        const q = points[(i + 1) % points.length] as Point;
        this.ax.push(p.x);
        this.ay.push(p.y);
        this.bx.push(q.x);
        this.by.push(q.y);
      });
    this.index = new Flatbush(Math.max(1, this.ax.length));
    this.ax.forEach((ax, i) => {
      const [ay, bx, by] = [this.ay[i] as number, this.bx[i] as number, this.by[i] as number];
      this.index.add(Math.min(ax, bx), Math.min(ay, by), Math.max(ax, bx), Math.max(ay, by));
    });
    if (this.ax.length === 0) this.index.add(1e9, 1e9, 1e9, 1e9);
    this.index.finish();
  }

  /** Distance up to `most`; infinite beyond. */
  distance(x: number, y: number, most: number): number {
    let best = Infinity;
    for (const i of this.index.search(x - most, y - most, x + most, y + most)) {
      if (i >= this.ax.length) continue;
      const [ax, ay] = [this.ax[i] as number, this.ay[i] as number];
      const dx = (this.bx[i] as number) - ax;
      const dy = (this.by[i] as number) - ay;
      const l = dx * dx + dy * dy;
      const u = l === 0 ? 0 : Math.min(1, Math.max(0, ((x - ax) * dx + (y - ay) * dy) / l));
      best = Math.min(best, Math.hypot(ax + u * dx - x, ay + u * dy - y));
    }
    return best <= most ? best : Infinity;
  }
}

const samples = (points: readonly Point[]): Point[] =>
  points.flatMap((p, i) => {
    const q = points[(i + 1) % points.length] as Point;
    const n = Math.max(1, Math.ceil(Math.hypot(q.x - p.x, q.y - p.y) / STEP_MM));
    return Array.from({ length: n }, (_, k) => ({ x: p.x + ((q.x - p.x) * k) / n, y: p.y + ((q.y - p.y) * k) / n }));
  });

const inside = (polygons: readonly (readonly Point[])[], x: number, y: number): boolean =>
  polygons.reduce((w, polygon) => w + windingNumber(polygon, x, y), 0) > 0;

export type Verdict = {
  /** Greatest distance of a point of the result from the true offset, in mm. */
  readonly stray: number;
  /** Greatest distance of a point of the true offset from the result, in mm. */
  readonly missed: number;
  /** Vertices of the flattened true offset, about. */
  readonly vertices: number;
};

/** `clean` is a clean region (counter-clockwise outlines, clockwise holes), `result` its offset by `by` mm. */
export function judgeOffset(clean: readonly Path[], by: number, result: readonly Path[]): Verdict {
  const source = clean.map((p) => flattenPath(p, CHORD_MM));
  const got = result.map((p) => flattenPath(p, CHORD_MM));
  const from = new Edges(source);
  const to = new Edges(got);
  const reach = Math.abs(by);
  let stray = 0;
  for (const polygon of got)
    for (const [i, p] of samples(polygon).entries()) {
      const d = from.distance(p.x, p.y, reach + 1);
      // An outline that is at the distance all along is on one side all along: a point here and there tells which.
      const wrongSide = i % SIDE_ASKED === 0 && inside(source, p.x, p.y) !== by < 0;
      stray = Math.max(stray, wrongSide ? reach + d : Math.abs(d - reach));
    }
  let missed = 0;
  let vertices = 0;
  // (nx, ny) is the unit normal the offset went along. What is thinner than a thread there need not be in the result.
  const ask = (x: number, y: number, nx: number, ny: number) => {
    if (from.distance(x, y, reach) < reach - CHORD_MM) return;
    const beyond = from.distance(x + THREAD_MM * nx, y + THREAD_MM * ny, reach + THREAD_MM);
    if (beyond < reach + THREAD_MM / 2) return;
    const away = to.distance(x, y, 1);
    // An edge that runs backwards over a hair points to the wrong side; what lies there is no offset.
    if (away > missed && inside(source, x, y) === by < 0) missed = away;
  };
  for (const polygon of source) {
    polygon.forEach((p, i) => {
      const before = polygon[(i + polygon.length - 1) % polygon.length] as Point;
      const q = polygon[(i + 1) % polygon.length] as Point;
      const l = Math.hypot(q.x - p.x, q.y - p.y);
      if (l === 0) return;
      const n = Math.max(1, Math.ceil(l / STEP_MM));
      const way = Math.sign(by);
      const nx = ((q.y - p.y) / l) * way;
      const ny = (-(q.x - p.x) / l) * way;
      for (let k = 0; k <= n; k++)
        ask(p.x + ((q.x - p.x) * k) / n + reach * nx, p.y + ((q.y - p.y) * k) / n + reach * ny, nx, ny);
      const turn = Math.atan2(
        (p.x - before.x) * (q.y - p.y) - (p.y - before.y) * (q.x - p.x),
        (p.x - before.x) * (q.x - p.x) + (p.y - before.y) * (q.y - p.y),
      );
      if (turn * by <= 0) return;
      // Around the corner: from the normal before it to the normal after it.
      const steps = Math.max(1, Math.ceil(Math.abs(turn) / Math.sqrt((8 * CHORD_MM) / reach)));
      vertices += steps;
      for (let k = 1; k < steps; k++) {
        const angle = (-turn * k) / steps;
        const mx = nx * Math.cos(angle) - ny * Math.sin(angle);
        const my = nx * Math.sin(angle) + ny * Math.cos(angle);
        ask(p.x + reach * mx, p.y + reach * my, mx, my);
      }
    });
  }
  return { stray, missed, vertices };
}
