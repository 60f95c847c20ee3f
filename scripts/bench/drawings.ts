/**
 * Speed of reading drawings against just splitting the same file into its tags, the memory that takes at most, and closing
 * loose lines against a bare spatial sort of their ends.
 */
import { spawnSync } from 'node:child_process';
import Flatbush from 'flatbush';
import { SaxesParser } from 'saxes';
import { textTags } from '../../src/core/formats/dxf-read/tags';
import { readDrawing } from '../../src/core/formats/read';
import { line } from '../../src/core/geometry/segment';
import { closeLines, type LooseLine } from '../../src/core/prepare/closing/closing';
import { figure } from '../../tests/support/figures';
import { chance } from '../../tests/support/random';
import { median } from './median';

const MB = 1024 * 1024;
const RUNS = 3;

/** Lines, arcs and polylines as drawing programs write them. */
function dxf(bytes: number): Uint8Array {
  const next = chance(1);
  const n = () => (next() * 1000).toFixed(6);
  const out = [
    '0',
    'SECTION',
    '2',
    'HEADER',
    '9',
    '$ACADVER',
    '1',
    'AC1015',
    '9',
    '$INSUNITS',
    '70',
    '4',
    '0',
    'ENDSEC',
    '0',
    'SECTION',
    '2',
    'ENTITIES',
  ];
  const head = (type: string, name: string) => [
    '0',
    type,
    '5',
    (out.length + 256).toString(16),
    '330',
    '1F',
    '100',
    'AcDbEntity',
    '8',
    'FRAME',
    '100',
    name,
  ];
  let size = 0;
  for (let i = 0; size < bytes; i++) {
    const entity =
      i % 3 === 0
        ? [...head('LINE', 'AcDbLine'), '10', n(), '20', n(), '30', '0.0', '11', n(), '21', n(), '31', '0.0']
        : i % 3 === 1
          ? [
              ...head('ARC', 'AcDbCircle'),
              '10',
              n(),
              '20',
              n(),
              '30',
              '0.0',
              '40',
              n(),
              '100',
              'AcDbArc',
              '50',
              '10.0',
              '51',
              '200.0',
            ]
          : [
              ...head('LWPOLYLINE', 'AcDbPolyline'),
              '90',
              '4',
              '70',
              '1',
              ...Array.from({ length: 4 }, () => ['10', n(), '20', n()]).flat(),
            ];
    for (const tag of entity) {
      out.push(tag);
      size += tag.length + 1;
    }
  }
  return new TextEncoder().encode(`${[...out, '0', 'ENDSEC', '0', 'EOF'].join('\n')}\n`);
}

function svg(bytes: number): Uint8Array {
  const next = chance(2);
  const n = () => (next() * 1000).toFixed(3);
  const out = [
    '<svg xmlns="http://www.w3.org/2000/svg" width="1000mm" height="1000mm" viewBox="0 0 1000 1000"><g id="frame" fill="none" stroke="#000">',
  ];
  for (let size = 0; size < bytes; ) {
    const path = `<path class="a" d="M${n()} ${n()}C${n()} ${n()} ${n()} ${n()} ${n()} ${n()}L${n()} ${n()}A5 5 0 0 1 ${n()} ${n()}Z"/>`;
    out.push(path);
    size += path.length + 1;
  }
  out.push('</g></svg>');
  return new TextEncoder().encode(out.join('\n'));
}

/** A child of this script: reads a file of a kind and says how much memory that took at most, in bytes. */
function peak(kind: 'dxf' | 'svg', bytes: number): number {
  const child = spawnSync(process.execPath, [...process.execArgv, process.argv[1] as string, kind, String(bytes)], {
    encoding: 'utf8',
  });
  if (child.status !== 0) throw new Error(child.stderr);
  return Number(child.stdout.trim());
}

const [kind, size] = process.argv.slice(2);
if (kind && size) {
  const bytes = kind === 'dxf' ? dxf(Number(size)) : svg(Number(size));
  global.gc?.();
  const before = process.memoryUsage().rss;
  let most = before;
  // Reading holds the thread, so that memory is looked at whenever it tells how far it is.
  const reading = readDrawing(bytes, () => {
    most = Math.max(most, process.memoryUsage().rss);
  });
  most = Math.max(most, process.memoryUsage().rss);
  if (!reading.ok) throw new Error(reading.sentence);
  process.stdout.write(String(most - before));
} else {
  const drawing = dxf(27 * MB);
  const text = new TextDecoder().decode(drawing);
  const count = { tags: 0 };
  const tokens = median(
    RUNS,
    () => null,
    () => {
      for (const tags = textTags(text); tags.next(); ) count.tags++;
    },
  );
  const whole = median(
    RUNS,
    () => null,
    () => {
      if (!readDrawing(drawing).ok) throw new Error('not read');
    },
  );
  figure({
    name: 'Reading a 27 MB DXF, against just splitting it into tags',
    value: whole / tokens,
    digits: 2,
    aim: { most: 2.5 },
    note: `${Math.round(whole)} ms`,
  });
  figure({
    name: 'Memory for that, against the file (DXF)',
    value: peak('dxf', 27 * MB) / drawing.length,
    digits: 1,
    aim: { most: 12 },
    note: 'resident memory at most, less that before',
  });

  const page = svg(6 * MB);
  const source = new TextDecoder().decode(page);
  const parsed = median(
    RUNS,
    () => null,
    () => {
      new SaxesParser({ xmlns: true }).write(source).close();
    },
  );
  const read = median(
    RUNS,
    () => null,
    () => {
      if (!readDrawing(page).ok) throw new Error('not read');
    },
  );
  figure({
    name: 'Reading a 6 MB SVG, against just parsing its markup',
    value: read / parsed,
    digits: 2,
    aim: { most: 4 },
    note: `${Math.round(read)} ms`,
  });
  figure({
    name: 'Memory for that, against the file (SVG)',
    value: peak('svg', 6 * MB) / page.length,
    digits: 1,
    aim: { most: 12 },
    note: 'SVG',
  });

  const next = chance(3);
  const loose: LooseLine[] = [];
  for (let i = 0; i < 25_000; i++) {
    const [x, y] = [(i % 160) * 12, Math.floor(i / 160) * 12];
    const g = next() < 0.3 ? 0.2 * next() : 0;
    const sides = [
      line(x, y, x + 10 - g, y),
      line(x + 10, y, x + 10, y + 10),
      line(x + 10, y + 10, x, y + 10),
      line(x, y + 10, x, y),
    ];
    for (const s of sides) loose.push({ key: `${loose.length}.0`, path: { closed: false, segments: [s] } });
  }
  for (let i = loose.length - 1; i > 0; i--) {
    const j = Math.floor(next() * (i + 1));
    [loose[i], loose[j]] = [loose[j] as LooseLine, loose[i] as LooseLine];
  }
  const sorted = median(
    RUNS,
    () => null,
    () => {
      const index = new Flatbush(2 * loose.length);
      for (const { path } of loose)
        for (const s of path.segments) {
          index.add(s.x0, s.y0, s.x0, s.y0);
          index.add(s.x1, s.y1, s.x1, s.y1);
        }
      index.finish();
    },
  );
  const closed = median(
    RUNS,
    () => null,
    () => {
      const { loops } = closeLines(loose, { gap: 0.5, findUpTo: 0.5, doubles: 0.02, specks: 0.05, answers: [] });
      if (loops.length !== 25_000) throw new Error(`${loops.length} closed`);
    },
  );
  figure({
    name: 'Closing 100,000 loose lines, against a bare spatial sort of their ends',
    value: closed / sorted,
    digits: 1,
    aim: { most: 8 },
    note: `${Math.round(closed)} ms`,
  });
}
