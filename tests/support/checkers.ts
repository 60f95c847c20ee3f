/** Independent programs that read what we write: ezdxf, qpdf, poppler, librsvg. */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { PNG } from 'pngjs';

export const folder = (): string => mkdtempSync(path.join(tmpdir(), 'needlefile-'));

export type ReadDxf = {
  version: string;
  units: number | null;
  extents: [[number, number], [number, number]];
  errors: string[];
  fixes: string[];
  layers: Record<string, [number, number | null]>;
  entities: {
    type: string;
    layer: string;
    closed: boolean;
    points: [number, number][];
    /** Of its lines and arcs, in mm. */
    length: number;
    pieces: number;
    arcs: number;
  }[];
};

/** Debian's modules need Debian's own Python. */
export const readDxf = (files: readonly string[]): ReadDxf[] =>
  JSON.parse(
    execFileSync('/usr/bin/python3', ['tests/formats/check_dxf.py', ...files], {
      encoding: 'utf8',
      maxBuffer: 1 << 29,
    }),
  ) as ReadDxf[];

/** What qpdf says; throws when it finds damage. */
export const checkPdf = (file: string): string => execFileSync('qpdf', ['--check', file], { encoding: 'utf8' });

export const pdfInfo = (file: string): string => execFileSync('pdfinfo', [file], { encoding: 'utf8' });

/** Dark pixels of a rendering, row by row. */
export type Ink = { readonly width: number; readonly height: number; readonly dark: Uint8Array };

function inkOf(png: Buffer): Ink {
  const { width, height, data } = PNG.sync.read(png);
  const dark = new Uint8Array(width * height);
  for (let i = 0; i < dark.length; i++)
    dark[i] =
      ((data[4 * i] as number) * 299 + (data[4 * i + 1] as number) * 587 + (data[4 * i + 2] as number) * 114) / 1000 <
      128
        ? 1
        : 0;
  return { width, height, dark };
}

export function renderSvg(file: string, width: number, height: number): Ink {
  const out = `${file}.png`;
  execFileSync('rsvg-convert', ['-w', String(width), '-h', String(height), '-b', 'white', '-o', out, file]);
  return inkOf(readFileSync(out));
}

export function renderPdf(file: string, width: number, height: number): Ink {
  execFileSync('pdftocairo', [
    '-png',
    '-gray',
    '-antialias',
    'none',
    '-singlefile',
    '-scale-to-x',
    String(width),
    '-scale-to-y',
    String(height),
    file,
    file,
  ]);
  return inkOf(readFileSync(`${file}.png`));
}

/** A DXF drawn from ezdxf's own reading of it. */
export function renderDxf(
  read: ReadDxf,
  file: string,
  mm: { width: number; height: number; line: number },
  width: number,
  height: number,
): Ink {
  const d = read.entities
    .map((e) => `M${e.points.map(([x, y]) => `${x} ${mm.height - y}`).join('L')}${e.closed ? 'Z' : ''}`)
    .join('');
  const svg = `${file}.svg`;
  writeFileSync(
    svg,
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${mm.width} ${mm.height}"><path d="${d}" fill="none" stroke="black" stroke-width="${mm.line}" stroke-linejoin="round"/></svg>`,
  );
  return renderSvg(svg, width, height);
}

/** Dark pixels of one picture that have none of the other within one pixel, both ways. */
export function strayPixels(a: Ink, b: Ink): number {
  if (a.width !== b.width || a.height !== b.height) throw new Error('pictures of different size');
  const strays = (from: Ink, to: Ink): number => {
    let count = 0;
    for (let y = 0; y < from.height; y++)
      for (let x = 0; x < from.width; x++) {
        if (!from.dark[y * from.width + x]) continue;
        let near = false;
        for (let dy = -1; dy <= 1 && !near; dy++)
          for (let dx = -1; dx <= 1 && !near; dx++) {
            const [nx, ny] = [x + dx, y + dy];
            if (nx >= 0 && ny >= 0 && nx < to.width && ny < to.height && to.dark[ny * to.width + nx]) near = true;
          }
        if (!near) count++;
      }
    return count;
  };
  return strays(a, b) + strays(b, a);
}

export const inkCount = (ink: Ink): number => ink.dark.reduce((sum, dark) => sum + dark, 0);

/** How many connected dark areas (over sides, not corners) of more than a few pixels there are. */
export function countDark({ width, dark }: Ink, leastPixels: number): number {
  const seen = new Uint8Array(dark.length);
  const waiting = new Int32Array(dark.length);
  let count = 0;
  for (let start = 0; start < dark.length; start++) {
    if (!dark[start] || seen[start]) continue;
    let held = 0;
    let size = 0;
    const take = (at: number) => {
      if (!dark[at] || seen[at]) return;
      seen[at] = 1;
      waiting[held++] = at;
    };
    take(start);
    while (held > 0) {
      const at = waiting[--held] as number;
      size++;
      const x = at % width;
      if (x > 0) take(at - 1);
      if (x + 1 < width) take(at + 1);
      if (at >= width) take(at - width);
      if (at + width < dark.length) take(at + width);
    }
    if (size >= leastPixels) count++;
  }
  return count;
}
