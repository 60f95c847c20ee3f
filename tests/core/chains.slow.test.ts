/**
 * Long chains of booleans on shapes that coincide, touch and repeat, at any size and turn, judged by shapely.
 *
 * @module-tag slow
 */
import { execFileSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import path from 'node:path';
import { expect, test } from 'vitest';
import type { ClipOperation } from '../../src/core/geometry/boolean/engine';
import { FLATTEN_MM } from '../../src/core/geometry/boolean/session';
import { combine, unite } from '../../src/core/geometry/boolean/union';
import {
  countSegments,
  flattenPath,
  isContinuous,
  type Path,
  regionArea,
  transformPath,
} from '../../src/core/geometry/path';
import { compose, rotation, scaling, translation } from '../../src/core/geometry/point';
import { ellipsePath, roundedRectangle } from '../../src/core/prepare/shape';
import { folder } from '../support/checkers';
import { wasmEngine } from '../support/faces';
import { figure } from '../support/figures';
import { type Chance, chance } from '../support/random';
import { inFull, sample } from '../support/scale';

type Link = { readonly operation: ClipOperation; readonly shape: Path };
const ROLES = { union: 'join', difference: 'punch', intersection: 'clip' } as const;
/** Share of the largest area in the chain that may be lost. */
const LOST = 2e-4;

/** Shapes on a grid of a tenth of the chain's size, so that edges and corners coincide; all turned by one odd angle. */
function anyChain(next: Chance): { links: Link[]; size: number } {
  const pick = <T>(from: readonly T[]): T => from[Math.floor(next() * from.length)] as T;
  const size = 10 ** (-2 + next() * 5.7);
  const turn = pick([0, 7, 33.3, 45, 61.3, 90, next() * 360]);
  const place = compose(scaling(size / 10), rotation(turn));
  const grid = (least: number, most: number) => least + Math.floor(next() * (most - least + 1));
  const links: Link[] = [];
  const count = 2 + Math.floor(next() * 7);
  for (let i = 0; i < count; i++) {
    const before = links[Math.floor(next() * links.length)];
    // The same shape again: A ∪ A, A − A, A ∩ A.
    if (before && next() < 0.25) {
      links.push({ operation: pick(['union', 'union', 'difference', 'intersection']), shape: before.shape });
      continue;
    }
    const kind = pick(['square', 'square', 'circle', 'rounded', 'ellipse'] as const);
    const [w, h] = [grid(2, 10), grid(2, 10)];
    const shape = {
      square: () => roundedRectangle(w, h, 0),
      circle: () => ellipsePath(w, w),
      rounded: () => roundedRectangle(w, h, 1),
      ellipse: () => ellipsePath(w, h),
    }[kind]();
    links.push({
      operation: i === 0 ? 'union' : pick(['union', 'union', 'difference', 'intersection']),
      shape: transformPath(shape, compose(translation(grid(-6, 6), grid(-6, 6)), place)),
    });
  }
  return { links, size };
}

test(
  'nothing is lost, nothing is open, and a union said twice adds no node',
  () => {
    const next = chance(4711);
    const count = sample(80, 2000);
    const cases = Array.from({ length: count }, () => anyChain(next));
    const tolerance = (size: number) => Math.min(FLATTEN_MM, Math.max(5e-4, size / 4000));
    const results = cases.map(({ links, size }) =>
      links.reduce<readonly Path[]>(
        (region, { operation, shape }) =>
          combine(wasmEngine, operation, { subject: region, other: [shape], toleranceMm: tolerance(size) }),
        [],
      ),
    );
    const file = path.join(folder(), 'chains.json');
    // The judge sees every chain at one size, so that its own limits don't matter.
    const points = (p: Path, size: number) =>
      flattenPath(transformPath(p, scaling(100 / size)), 0.0005).map(({ x, y }) => [x, y]);
    writeFileSync(
      file,
      JSON.stringify(
        cases.map(({ links, size }) => ({
          sheet: [1, 1],
          keep: 'inside',
          members: links.map(({ operation, shape }) => ({
            role: ROLES[operation],
            outlines: [{ depth: 0, points: points(shape, size) }],
          })),
        })),
      ),
    );
    const verdicts = JSON.parse(
      execFileSync('/usr/bin/python3', ['tests/core/check_regions.py', file], { encoding: 'utf8', maxBuffer: 1 << 28 }),
    ) as { area: number }[];
    const bad: string[] = [];
    let worst = 0;
    cases.forEach(({ links, size }, i) => {
      const region = results[i] as readonly Path[];
      const scale = (100 / size) ** 2;
      const largest = Math.max(...links.map((l) => Math.abs(regionArea([l.shape])))) * scale;
      const off = Math.abs(regionArea(region) * scale - (verdicts[i] as { area: number }).area) / largest;
      // What is smaller than a grid step of the clipper can't be told apart from nothing.
      const grid = (links.length * 4e-4) / size;
      worst = Math.max(worst, off - grid);
      const again = unite(wasmEngine, [...region, ...region], tolerance(size));
      const faults = [
        off > LOST + grid ? `area off by ${off}` : '',
        region.some((p) => !isContinuous(p)) ? 'open' : '',
        countSegments(again) > countSegments(region) ? `${countSegments(region)} → ${countSegments(again)} nodes` : '',
        Math.abs(regionArea(again) * scale - regionArea(region) * scale) / largest > LOST + grid
          ? 'united again differs'
          : '',
      ].filter(Boolean);
      if (faults.length > 0) bad.push(`${i}: ${size.toPrecision(3)} mm, ${links.length} shapes: ${faults.join(', ')}`);
    });
    figure({
      name: `Chains of booleans (${count}): area lost, of the largest shape`,
      value: 100 * worst,
      digits: 4,
      unit: '%',
      aim: { most: 0.02 },
    });
    expect(bad).toEqual([]);
  },
  inFull ? 900_000 : 120_000,
);
