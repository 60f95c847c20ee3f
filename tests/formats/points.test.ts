/** Points of files: of no use to those who bring a drawing in, run by machines. Written by our writers and by hand, read by all readers. */
import { expect, test } from 'vitest';
import type { Layer } from '../../src/core/formats/drawing';
import { openDrawing } from '../../src/core/formats/read';
import { type FileFormat, writtenFormat } from '../../src/core/formats/written';
import { dot, polyline } from '../../src/core/geometry/drawable';
import { line } from '../../src/core/geometry/segment';
import { programOf } from '../../src/machine/program';
import { readByMachine } from '../../src/machine/read';
import { jobWith } from '../support/jobs';

const layer = (name: string, pen: number, drawn: Layer['drawn']): Layer => ({
  name,
  kind: 'mark',
  colour: '#501528',
  tolerance: 0.01,
  scan: null,
  pen,
  drawn,
});
const bar = (y: number) => polyline({ closed: false, segments: [line(10, y, 30, y)] });
const drawing = {
  title: 'Points',
  width: 60,
  height: 40,
  layers: [
    layer('Stones', 1, [dot({ x: 5, y: 6 }, null), bar(10), dot({ x: 25.5, y: 30.25 }, null)]),
    layer('Pecks', 2, [dot({ x: 40, y: 20 }, null)]),
  ],
};

test.each(['svg', 'dxf', 'pdf', 'hpgl'] as FileFormat[])(
  'in %s: each where it is, in its order, on its layer',
  async (id) => {
    const bytes = writtenFormat(id).write(drawing, jobWith([]).export);
    const read = await readByMachine(bytes, null);
    if ('sentence' in read) throw new Error(read.sentence);
    expect(read.drawing.unread).toEqual([]);
    const { operations, items } = programOf(read.drawing);
    const places = items.map(({ operation, kind, from }) => [
      operation,
      kind,
      Math.round(1000 * from.x),
      Math.round(1000 * from.y),
    ]);
    expect(places).toEqual([
      [0, 'point', 5000, 6000],
      [0, 'line', 10_000, 10_000],
      [0, 'point', 25_500, 30_250],
      [1, 'point', 40_000, 20_000],
    ]);
    expect(operations.map((o) => [o.paths, o.open])).toEqual([
      [3, 1],
      [1, 0],
    ]);
    // To those who bring it in they are no outlines, and no layer of theirs is offered.
    const opened = await openDrawing(bytes);
    const whole = opened.ok ? await opened.read(0, () => {}) : null;
    if (!whole?.ok) throw new Error('it is read');
    expect(whole.found.unread).toEqual([{ kind: 'points', count: 3 }]);
    expect(whole.found.groups).toHaveLength(1);
  },
);

test('a line of no length with flat ends is seen by nobody', async () => {
  const svg = (cap: string) =>
    new TextEncoder().encode(
      `<svg xmlns="http://www.w3.org/2000/svg" width="20mm" height="10mm" viewBox="0 0 20 10"><path d="M5 5h0" stroke="#000" stroke-linecap="${cap}"/></svg>`,
    );
  const points = async (cap: string) => {
    const read = await readByMachine(svg(cap), null);
    return 'drawing' in read ? read.drawing.points.length : -1;
  };
  expect(await points('butt')).toBe(0);
  expect(await points('round')).toBe(1);
});
