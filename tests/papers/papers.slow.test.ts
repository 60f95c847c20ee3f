/** Papers as they are printed: their sizes, scales and words measured in what poppler paints of them. */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { decode } from 'fast-png';
import { describe, expect, test } from 'vitest';
import type { Job } from '../../src/core/document/schema';
import type { PaperAsked } from '../../src/worker/papers';
import { hostHere } from '../support/bench';
import { demoJobs, jobWith, lettering, partOf } from '../support/jobs';

const host = hostHere();
const folder = mkdtempSync(path.join(tmpdir(), 'needlefile-papers-'));
const demo = (name: string): Job => demoJobs().get(name) as Job;

async function made(job: Job, asked: PaperAsked) {
  const paper = await host.paper(job, asked);
  if (!paper || 'sentence' in paper) throw new Error(paper?.sentence ?? 'nothing was made');
  const file = path.join(folder, paper.name);
  writeFileSync(file, paper.bytes);
  return { ...paper, file };
}
const sheetOf = (differences: readonly string[] | null = []): PaperAsked => ({
  which: 'proof sheet',
  paper: 'a4',
  date: '2026-05-04',
  proof: { machine: 'Laser', differences, files: [{ name: 'a.svg', sha256: 'a'.repeat(64) }] },
});

/** A page painted, dark where something is drawn: 4 pixels a mm. */
const PX = 4;
function painted(file: string, page: number, { width, height }: { width: number; height: number }) {
  const out = path.join(folder, `p${page}`);
  execFileSync('pdftocairo', [
    '-png',
    '-gray',
    '-antialias',
    'none',
    '-singlefile',
    '-f',
    `${page}`,
    '-l',
    `${page}`,
    '-scale-to-x',
    `${Math.round(width * PX)}`,
    '-scale-to-y',
    `${Math.round(height * PX)}`,
    file,
    out,
  ]);
  const { data, width: w, height: h, channels } = decode(readFileSync(`${out}.png`));
  const isDark = (xMm: number, yMm: number) => {
    const [x, y] = [Math.round(xMm * PX), h - 1 - Math.round(yMm * PX)];
    return x >= 0 && x < w && y >= 0 && y < h && (data[(y * w + x) * channels] as number) < 160;
  };
  return { isDark };
}
/** The longest dark run along a row of the page near a height, in mm. */
function longestRun(isDark: (x: number, y: number) => boolean, from: number, to: number, y: number): number {
  let [run, longest] = [0, 0];
  for (let x = from; x <= to; x += 1 / PX) {
    run = isDark(x, y) ? run + 1 : 0;
    longest = Math.max(longest, run);
  }
  return longest / PX;
}
const boxes = (file: string) =>
  [
    ...execFileSync('pdfinfo', ['-f', '1', '-l', '99', file], { encoding: 'utf8' }).matchAll(
      /size:\s+([\d.]+) x ([\d.]+)/g,
    ),
  ].map(([, w, h]) => [Math.round((Number(w) * 25.4 * 10) / 72) / 10, Math.round((Number(h) * 25.4 * 10) / 72) / 10]);

describe('the proof sheet', () => {
  test('is A4, whole to qpdf, and its measure is 50 mm long on paper', async () => {
    const { file, name } = await made(demo('bench-plaque'), sheetOf());
    expect(name).toBe('bench-plaque_oak-6mm_proof-sheet.pdf');
    execFileSync('qpdf', ['--check', file]);
    expect(boxes(file)).toEqual([[210, 297]]);
    const { isDark } = painted(file, 1, { width: 210, height: 297 });
    const runs = Array.from({ length: 1000 }, (_, i) => longestRun(isDark, 10, 80, 60 + i * 0.22));
    // The measure is the only line of that length that begins at the margin.
    expect(runs.some((mm) => Math.abs(mm - 50) <= 0.6)).toBe(true);
  });

  test('its picture is at the scale it states: a plaque of 200 × 100 mm is 100 mm wide at 1 : 2', async () => {
    const { file } = await made(demo('bench-plaque'), sheetOf());
    const { isDark } = painted(file, 1, { width: 210, height: 297 });
    let [left, right] = [Infinity, -Infinity];
    // Across the middle of the picture its edges are the outermost that is drawn.
    for (let y = 230; y < 240; y += 0.25)
      for (let x = 20; x < 190; x += 0.25) if (isDark(x, y)) [left, right] = [Math.min(left, x), Math.max(right, x)];
    expect(right - left).toBeCloseTo(100, 0);
  });

  test('goes on with further pages where there is much to say, numbered', async () => {
    const words = Array.from({ length: 90 }, (_, i) =>
      partOf([lettering(`Bed ${i}`)], { id: `p${i}`, hangsTogether: 'no' }),
    );
    const { file } = await made(jobWith(words, { title: 'Beds' }), sheetOf(['One thing differs.', 'And another.']));
    execFileSync('qpdf', ['--check', file]);
    expect(boxes(file).length).toBeGreaterThan(1);
  });

  test('letters of other scripts, and none at all, are no obstacle', async () => {
    const job = jobWith([partOf([lettering('Wеide  Łódź שלום 漢')], { hangsTogether: 'no' })], {
      title: 'Žluťoučký 漢字 שלום',
    });
    const { file } = await made(job, sheetOf(null));
    execFileSync('qpdf', ['--check', file]);
    expect(await host.paper(jobWith([]), sheetOf())).toEqual({ sentence: expect.stringContaining('nothing to draw') });
  });
});

describe('at true size', () => {
  test('on the fewest pages, lying where that takes fewer', async () => {
    const { file } = await made(demo('bench-plaque'), { which: 'true size', paper: 'a4' });
    execFileSync('qpdf', ['--check', file]);
    expect(boxes(file)).toEqual([[297, 210]]);
    const { isDark } = painted(file, 1, { width: 297, height: 210 });
    // The plaque of 200 × 100 mm lies 10 mm from the corner of the page.
    for (const x of [10, 210])
      expect(
        [-0.25, 0, 0.25].some((d) => isDark(x + d, 60)),
        `${x}`,
      ).toBe(true);
    for (const y of [10, 110])
      expect(
        [-0.25, 0, 0.25].some((d) => isDark(110, y + d)),
        `${y}`,
      ).toBe(true);
  });

  test('a gate sign of 560 mm goes over several pages, and is drawn twice where they lie over each other', async () => {
    const { file } = await made(demo('gate-sign'), { which: 'true size', paper: 'letter' });
    const pages = boxes(file);
    expect(pages.length).toBeGreaterThan(2);
    const size = { width: pages[0]?.[0] as number, height: pages[0]?.[1] as number };
    // The lower edge of the plate runs on from one page to the next at the same height.
    const at = (page: number, x: number) => [-0.25, 0, 0.25].some((d) => painted(file, page, size).isDark(x, 10 + d));
    expect(at(1, size.width - 12)).toBe(true);
    expect(at(2, 12)).toBe(true);
  });

  test('mirrored where files are', async () => {
    const plain = demo('bench-plaque');
    const front = await made(plain, { which: 'true size', paper: 'a4' });
    const behind = await made(
      { ...plain, export: { ...plain.export, mirrored: true } },
      { which: 'true size', paper: 'a4' },
    );
    const [a, b] = [front, behind].map(({ file }) => painted(file, 1, { width: 297, height: 210 }).isDark);
    let [same, turned] = [0, 0];
    for (let x = 40; x < 180; x += 0.5)
      for (let y = 30; y < 90; y += 0.5) {
        if (a?.(x, y) && b?.(x, y)) same++;
        if (a?.(x, y) && b?.(220 - x, y)) turned++;
      }
    expect(turned).toBeGreaterThan(3 * same);
  });
});

describe('for the customer', () => {
  test('the picture is at true size, with measures or without', async () => {
    const sizeOf = async (measures: boolean) => {
      const { bytes } = await made(demo('bench-plaque'), { which: 'picture', measures });
      const text = new TextDecoder().decode(bytes);
      const [, w, h] = /width="([\d.]+)mm" height="([\d.]+)mm"/.exec(text) ?? [];
      return [Number(w), Number(h)];
    };
    const [plain, measured] = [await sizeOf(false), await sizeOf(true)];
    expect(plain).toEqual([216, 116]);
    expect(measured[0]).toBeGreaterThan(plain[0] as number);
    expect(measured[1]).toBeGreaterThan(plain[1] as number);
  });

  test('the words in several faces, each under its name; the same face twice draws the same', async () => {
    const text = async (faces: readonly string[]) =>
      new TextDecoder().decode((await made(demo('bench-plaque'), { which: 'faces', faces })).bytes);
    const six = await text([
      'Poppins',
      'Pacifico',
      'Alfa Slab One',
      'Caveat',
      'Bebas Neue',
      'Libre Baskerville',
      'Fredoka',
    ]);
    execFileSync('rsvg-convert', ['-o', path.join(folder, 'faces.png')], { input: six });
    const engraved = (svg: string) => [...svg.matchAll(/fill="#5B381A"[^>]*d="([^"]*)"/g)].map(([, d]) => d);
    // A seventh is one too many.
    expect(new Set(engraved(six)).size).toBe(6);
  });
});
