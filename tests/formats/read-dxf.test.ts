/** DXF files written by an independent program, read and compared with that program's own flattening. */
import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { describe, expect, test } from 'vitest';
import type { Found } from '../../src/core/formats/found';
import { readDrawing } from '../../src/core/formats/read';
import { flattenPath } from '../../src/core/geometry/path';
import { folder } from '../support/checkers';
import { figure } from '../support/figures';
import { apartAtMost, type Polyline } from '../support/polyline-distance';
import { chance } from '../support/random';
import { inFull, sample } from '../support/scale';

type Written = { file: string; version: string; layers: Record<string, [number, number][][]> };

/** Binary files end in b. */
const VERSIONS = inFull ? 'R12,R2000,R2004,R2007,R2010,R2013,R2018,R12b,R2000b,R2018b' : 'R12,R2007,R12b,R2018b';

const write = (seed: number): Written[] =>
  JSON.parse(
    execFileSync('/usr/bin/python3', ['tests/formats/make_dxf.py', folder(), String(seed), VERSIONS], {
      encoding: 'utf8',
      maxBuffer: 1 << 30,
    }),
  ) as Written[];

const read = (bytes: Uint8Array): Found => {
  const reading = readDrawing(bytes);
  if (!reading.ok) throw new Error(reading.sentence);
  return reading.found;
};

/** Points of what was read, by layer; closed outlines end where they start. */
function byLayer(found: Found): Map<string, Polyline[]> {
  const layers = new Map<string, Polyline[]>();
  for (const shape of found.shapes) {
    const name = found.groups[shape.group]?.name ?? '';
    for (const path of shape.paths) {
      const points = flattenPath(path, 0.002).map((p): [number, number] => [p.x, p.y]);
      if (path.closed && points[0]) points.push(points[0]);
      layers.set(name, [...(layers.get(name) ?? []), points]);
    }
  }
  return layers;
}

describe('DXF', () => {
  const written = Array.from({ length: sample(1, 5) }, (_, i) => write(100 * i)).flat();

  test('every kind of entity, in blocks in blocks, turned, scaled and mirrored, R12 to 2018, text and binary', () => {
    let worst = 0;
    for (const { file, layers } of written) {
      const found = read(readFileSync(file));
      const ours = byLayer(found);
      expect(found.notes, file).toEqual([]);
      expect(found.unread, file).toEqual([]);
      expect([...ours.keys()].sort(), file).toEqual(Object.keys(layers).sort());
      for (const [layer, lines] of Object.entries(layers)) {
        const apart = apartAtMost(lines, ours.get(layer) as Polyline[]);
        expect(apart, `${file} ${layer}`).toBeLessThan(0.01);
        worst = Math.max(worst, apart);
      }
    }
    figure({
      name: 'DXF read, against ezdxf’s own flattening',
      value: worst,
      digits: 5,
      unit: 'mm',
      aim: { most: 0.01 },
      note: `worst of ${written.length} files R12 to 2018, text and binary`,
    });
  }, 600_000);

  test('a file that breaks off anywhere gives what came before, and says so', () => {
    const pictures = new Map(written.map(({ file }) => [file, byLayer(read(readFileSync(file)))]));
    const next = chance(7);
    for (const { file } of written.slice(0, inFull ? 4 : 2)) {
      const whole = pictures.get(file) as Map<string, Polyline[]>;
      const bytes = readFileSync(file);
      for (let i = 0; i < 50; i++) {
        const reading = readDrawing(bytes.subarray(0, Math.floor(next() * bytes.length)));
        if (!reading.ok) {
          expect(reading.sentence).toMatch(/^This .*\.$/);
          continue;
        }
        const ours = byLayer(reading.found);
        expect(reading.found.notes.length, `${i}`).toBeGreaterThan(0);
        // What is read is some of the whole, never anything else.
        for (const [layer, lines] of ours) {
          const all = new Set((whole.get(layer) ?? []).map((line) => JSON.stringify(line)));
          for (const line of lines) expect(all.has(JSON.stringify(line)), `${file} ${i} ${layer}`).toBe(true);
        }
      }
    }
  }, 600_000);
});
