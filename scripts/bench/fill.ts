/**
 * Speed of hatching: a word 300 mm wide at 0.1 mm, against nothing but finding where level lines cross its edges, and against
 * clipping the same lines by clipper2-wasm; and a sign of 1 m by 0.6 m from words to cover.
 */
import { checkJob } from '../../src/core/document/read';
import { uniteLabelled } from '../../src/core/geometry/boolean/union';
import { flattenPath } from '../../src/core/geometry/path';
import type { Point } from '../../src/core/geometry/point';
import { Evaluator } from '../../src/core/job/evaluate';
import { layoutLettering, letterPaths } from '../../src/core/lettering/layout';
import { measureOutlines } from '../../src/core/prepare/outline';
import { hatchLines } from '../../src/core/toolpath/hatch/hatch-lines';
import { polygonsOf, turnBy } from '../../src/core/toolpath/hatch/polygons';
import { scanlinesOf } from '../../src/core/toolpath/hatch/scanlines';
import { flatness, tipRoom } from '../../src/core/toolpath/hatch/tip-room';
import { faces, spec, typeface, wasmEngine } from '../../tests/support/faces';
import { figure } from '../../tests/support/figures';
import { finished } from '../../tests/support/generators';
import { SIGN } from '../../tests/support/sign';
import { clipper, readOut, toPaths } from './clipper';
import { median } from './median';

const TIP = 0.1;
const RUNS = 100;
const face = typeface('Pacifico');
const layout = layoutLettering(spec('Hummingbirds', { size: { by: 'width', mm: 300 } }), face);
const outlines = measureOutlines(uniteLabelled(wasmEngine, [letterPaths(layout)], 0.005));
const room = finished(tipRoom(wasmEngine, outlines, TIP));
const paths = room.outlines.map((o) => o.path);
const FLAT = flatness(TIP);
const DEGREES = 30;
const turn = turnBy(DEGREES);
const polygons = polygonsOf(paths, FLAT, turn);
const flattened = paths.map((p) => flattenPath(p, FLAT));
/** The same turned, so that lines are level. */
const rings = flattened.map((ring) =>
  ring.map(({ x, y }) => ({ x: turn.cos * x + turn.sin * y, y: turn.cos * y - turn.sin * x })),
);

/** Where level lines cross edges, sorted: the least that any hatch must find. */
function bareScanline(all: readonly (readonly Point[])[], spacing: number): Float64Array {
  let [low, high, edges] = [Infinity, -Infinity, 0];
  for (const ring of all)
    for (const { y } of ring) {
      low = Math.min(low, y);
      high = Math.max(high, y);
      edges++;
    }
  const first = Math.ceil(low / spacing);
  const count = Math.floor(high / spacing) - first + 1;
  const [x0s, y0s, ks, as, bs] = Array.from({ length: 5 }, () => new Float64Array(edges)) as [
    Float64Array,
    Float64Array,
    Float64Array,
    Float64Array,
    Float64Array,
  ];
  const start = new Int32Array(count + 1);
  let e = 0;
  for (const ring of all) {
    let p = ring[ring.length - 1] as Point;
    for (const q of ring) {
      const [a, b] = p.y < q.y ? [p, q] : [q, p];
      const from = Math.ceil(a.y / spacing) - first;
      const to = Math.ceil(b.y / spacing) - first;
      x0s[e] = a.x;
      y0s[e] = a.y;
      ks[e] = (b.x - a.x) / (b.y - a.y || 1);
      as[e] = from;
      bs[e++] = to;
      for (let k = from; k < to; k++) start[k + 1] = (start[k + 1] as number) + 1;
      p = q;
    }
  }
  for (let k = 0; k < count; k++) start[k + 1] = (start[k + 1] as number) + (start[k] as number);
  const out = new Float64Array(start[count] as number);
  const at = start.slice(0, count);
  for (let i = 0; i < edges; i++)
    for (let k = as[i] as number; k < (bs[i] as number); k++) {
      const slot = at[k] as number;
      at[k] = slot + 1;
      out[slot] = (x0s[i] as number) + ((first + k) * spacing - (y0s[i] as number)) * (ks[i] as number);
    }
  for (let k = 0; k < count; k++)
    for (let i = (start[k] as number) + 1; i < (start[k + 1] as number); i++) {
      const v = out[i] as number;
      let j = i - 1;
      while (j >= (start[k] as number) && (out[j] as number) > v) {
        out[j + 1] = out[j] as number;
        j--;
      }
      out[j + 1] = v;
    }
  return out;
}

const step = {
  kind: 'hatch',
  on: true,
  style: 'parallel',
  joined: true,
  tool: { shape: 'line', tip: TIP, angle: 60, depth: 0.5 },
  overlap: 0,
  angle: DEGREES,
  outline: 'none',
  least: 0,
  fillMissed: false,
  mostMissed: 0.03,
} as const;

const nothing = () => null;
const bare = median(RUNS, nothing, () => bareScanline(rings, TIP));
const rows = median(RUNS, nothing, () => scanlinesOf(polygons, TIP, 0));
const ordered = median(RUNS, nothing, () => finished(hatchLines(wasmEngine, { x: 0, y: 0 }, step, room)));
const lines = scanlinesOf(polygons, TIP, 0).x.length / 2;
figure({
  name: 'hatch of a 300 mm word at 0.1 mm: time against the bare scanline',
  value: rows / bare,
  digits: 1,
  aim: { most: 3 },
  note: `${rows.toFixed(2)} ms, ${lines} lines`,
});
figure({
  name: 'hatch of a 300 mm word at 0.1 mm, with flattening, strips and their order: time against the bare scanline',
  value: ordered / bare,
  digits: 1,
  aim: { most: 10 },
  note: `${ordered.toFixed(2)} ms`,
});

const clipped = clippedBy();
figure({
  name: 'hatch of a 300 mm word at 0.1 mm: time against clipping by clipper2-wasm',
  value: rows / clipped,
  digits: 4,
  aim: { most: 0.05 },
  note: `${clipped.toFixed(0)} ms there`,
});

/** The same lines clipped as open paths, in ms. */
function clippedBy(): number {
  const heights = rings.flatMap((ring) => ring.map((p) => p.y));
  const first = Math.ceil(heights.reduce((a, b) => Math.min(a, b)) / TIP);
  const last = Math.floor(heights.reduce((a, b) => Math.max(a, b)) / TIP);
  const back = (x: number, y: number) => [turn.cos * x - turn.sin * y, turn.sin * x + turn.cos * y, 0];
  const wanted = Array.from({ length: last - first + 1 }, (_, k) =>
    Float64Array.from([...back(-1000, (first + k) * TIP), ...back(1000, (first + k) * TIP)]),
  );
  const shape = flattened.map((ring) => Float64Array.from(ring.flatMap(({ x, y }) => [x, y, 0])));
  return median(3, nothing, () => {
    const [subject, clip] = [toPaths(wanted), toPaths(shape)];
    const session = new clipper.ClipperD(4);
    session.AddOpenSubject(subject);
    session.AddClip(clip);
    const [closed, open] = [new clipper.PathsD(), new clipper.PathsD()];
    session.ExecutePath(clipper.ClipType.Intersection, clipper.FillRule.NonZero, closed, open);
    readOut(open);
    for (const held of [session, subject, clip, closed, open]) held.delete();
  });
}

const read = checkJob(SIGN);
if (!read.ok) throw new Error(read.sentences.join(' '));
const sign = read.job;
const heapBefore = process.memoryUsage().rss;
const began = performance.now();
const evaluator = new Evaluator(wasmEngine);
const steps = evaluator.steps(sign, faces);
let [longest, last, yields, most] = [0, performance.now(), 0, 0];
for (let s = steps.next(); !s.done; s = steps.next()) {
  const now = performance.now();
  longest = Math.max(longest, now - last);
  last = now;
  yields++;
  most = Math.max(most, process.memoryUsage().rss);
}
const took = performance.now() - began;
figure({
  name: 'a sign of 1 m by 0.6 m at 0.1 mm, from words to cover',
  value: took / 1000,
  digits: 1,
  unit: 's',
  note: `${yields} times of progress, the longest wait between two ${(longest / 1000).toFixed(1)} s; ${((most - heapBefore) / 2 ** 20).toFixed(0)} MB`,
});
