/**
 * Speed of centerlines: a twelve-letter script word, traced letter by letter, against just triangulating the same points on
 * its outlines. The letters differ, so that none is taken from another.
 */
import Delaunator from 'delaunator';
import { uniteLabelled } from '../../src/core/geometry/boolean/union';
import { medialAxis } from '../../src/core/geometry/medial';
import { nestPaths } from '../../src/core/geometry/nesting';
import { type Path, pathLength, regionArea, transformRegion } from '../../src/core/geometry/path';
import { scaling } from '../../src/core/geometry/point';
import { layoutLettering } from '../../src/core/lettering/layout';
import { letterOutlines } from '../../src/core/lettering/set-letter';
import { centerlineOf } from '../../src/core/toolpath/centerline/centerline';
import { spec, typeface, wasmEngine } from '../../tests/support/faces';
import { figure } from '../../tests/support/figures';
import { median } from './median';

const WORD = 'Marjoleinbuds';
// Enough that both are compiled by then: with few runs the ratio says more about the compiler.
const RUNS = 60;

const face = typeface('Pacifico');
const layout = layoutLettering(spec(WORD), face);
const regions = layout.letters.flatMap((letter): Path[][] => {
  const drawn = transformRegion(letterOutlines(letter, face), scaling(layout.scale));
  const clean = uniteLabelled(wasmEngine, [drawn], 0.005).map((o) => o.path);
  const { parent, depth } = nestPaths(clean);
  return clean.flatMap((path, i) =>
    (depth[i] as number) % 2 === 0 ? [[path, ...clean.filter((_, k) => parent[k] === i)]] : [],
  );
});
const points = regions.map((region) => {
  const width = (2 * regionArea(region)) / region.reduce((sum, p) => sum + pathLength(p), 0);
  const samples = medialAxis(region, width / 10)?.samples;
  return Float64Array.from({ length: 2 * (samples?.x.length ?? 0) }, (_, i) =>
    Number((i % 2 === 0 ? samples?.x : samples?.y)?.[i >> 1]),
  );
});
const bare = median(
  RUNS,
  () => null,
  () => {
    for (const p of points) new Delaunator(p);
  },
);
const settings = { detail: 0.45, smooth: 0.01, ends: 'tip' } as const;
const whole = median(
  RUNS,
  () => null,
  () => {
    for (const region of regions) centerlineOf(region, settings);
  },
);
figure({
  name: 'centerline of a twelve-letter script word: time against triangulating the same points (delaunator)',
  value: whole / bare,
  digits: 1,
  aim: { most: 4 },
  note: `${whole.toFixed(1)} ms, ${points.reduce((n, p) => n + p.length / 2, 0)} points`,
});
if (process.argv[2] === 'parts') {
  const axis = median(
    RUNS,
    () => null,
    () => {
      for (const region of regions)
        medialAxis(region, (2 * regionArea(region)) / region.reduce((sum, p) => sum + pathLength(p), 0) / 10);
    },
  );
  console.log({ bare, axis, whole });
}
