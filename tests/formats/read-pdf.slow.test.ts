/**
 * Pages of PDF by several writers, read and drawn again by an independent renderer, against what poppler makes of the same pages; and
 * files spoiled at random.
 *
 * @module-tag slow
 */
import { execFileSync } from 'node:child_process';
import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { cmyk, degrees, PDFDocument, rgb, StandardFonts } from 'pdf-lib';
import { PNG } from 'pngjs';
import { describe, expect, test } from 'vitest';
import { readJob } from '../../src/core/document/read';
import { openDrawing } from '../../src/core/formats/read';
import type { ReadDrawing } from '../../src/core/formats/read-drawing';
import { Evaluator } from '../../src/core/job/evaluate';
import { makeFiles } from '../../src/core/job/files';
import { anyDocument, DRAWINGS } from '../support/any-document';
import { folder } from '../support/checkers';
import { drawFound } from '../support/draw-found';
import { faces, wasmEngine } from '../support/faces';
import { figure } from '../support/figures';
import { finished } from '../support/generators';
import { chance } from '../support/random';
import { inFull, sample } from '../support/scale';
import { strayColours } from '../support/stray-colours';

const out = folder();
const PX_PER_MM = 6;

async function readPage(file: string, page: number): Promise<ReadDrawing> {
  const opened = await openDrawing(new Uint8Array(readFileSync(file)));
  if (!opened.ok) throw new Error(`${file}: ${opened.sentence}`);
  const read = await opened.read(page, () => {});
  await opened.close();
  if (!read.ok) throw new Error(`${file}: ${read.sentence}`);
  return read.found;
}

/** Pixels of a page that are another colour in ours, outside a band of a pixel. */
async function strays(file: string, page = 0): Promise<{ readonly count: number; readonly found: ReadDrawing }> {
  const found = await readPage(file, page);
  const { width, height } = found.page as { width: number; height: number };
  const [w, h] = [String(Math.round(width * PX_PER_MM)), String(Math.round(height * PX_PER_MM))];
  const [theirs, ours] = [path.join(out, 'theirs.svg'), path.join(out, 'ours.svg')];
  const number = String(page + 1);
  // As lines of letters too, not fitted to pixels as its own pictures are.
  execFileSync('pdftocairo', ['-svg', '-noshrink', '-nocenter', '-f', number, '-l', number, file, theirs]);
  writeFileSync(ours, drawFound(found));
  const drawn = (svg: string): PNG => {
    execFileSync('rsvg-convert', ['--unlimited', '-w', w, '-h', h, '-b', 'white', '-o', `${svg}.png`, svg]);
    return PNG.sync.read(readFileSync(`${svg}.png`));
  };
  return { count: strayColours(drawn(theirs), drawn(ours)), found };
}

/** What pages hold that is not outlines, and is told: where there is any, pictures differ. */
const toldOf = (found: ReadDrawing): string[] => [
  ...found.unread.map((u) => u.kind),
  ...(found.texts.length > 0 ? ['words to be set anew'] : []),
  ...(found.pictures.length > 0 ? ['pictures, which lie on the sheet'] : []),
];

const off: string[] = [];
let tried = 0;
const toldKinds = new Map<string, number>();

async function judge(file: string, page = 0): Promise<void> {
  const { count, found } = await strays(file, page);
  const told = toldOf(found);
  for (const kind of told) toldKinds.set(kind, (toldKinds.get(kind) ?? 0) + 1);
  if (told.length > 0) return;
  tried++;
  if (count > 0) off.push(`${path.basename(file)} p. ${page + 1}: ${count}`);
}

describe('pages drawn again from our reading', () => {
  test('by cairo: words, clips, dashes, turned and mirrored', { timeout: 300_000 }, async () => {
    const names = JSON.parse(
      execFileSync('/usr/bin/python3', ['tests/formats/make_pdf.py', out, '7', String(sample(5, 100))], {
        encoding: 'utf8',
      }),
    ) as string[];
    for (const name of names) await judge(name);
    expect(off).toEqual([]);
    expect(tried).toBe(names.length);
  });

  test('by an SVG renderer: the W3C’s static files', { timeout: 300_000 }, async () => {
    const dir = '/usr/libexec/installed-tests/RSVG/fixtures/reftests/svg1.1';
    const isStatic =
      /^(coords|masking-path|painting-control|painting-stroke|paths|shapes|struct|styling|types)-.*\.svg$/;
    // Back at the start after closing, poppler draws the square end of a line that is not there.
    const files = readdirSync(dir).filter((f) => isStatic.test(f) && !f.startsWith('paths-data-10-t'));
    const before = off.length;
    for (const file of files.filter((_, i) => i % sample(10, 1) === 0)) {
      const pdf = path.join(out, `${file}.pdf`);
      execFileSync('rsvg-convert', ['-f', 'pdf', '-o', pdf, path.join(dir, file)]);
      await judge(pdf);
    }
    expect(off.slice(before)).toEqual([]);
  });

  test('by pdf-lib: turned pages, other colours, typefaces of every reader', async () => {
    const document = await PDFDocument.create();
    for (const turn of [0, 90, 180, 270]) {
      const page = document.addPage([200, 300]);
      page.setRotation(degrees(turn));
      page.drawRectangle({ x: 20, y: 30, width: 80, height: 50, rotate: degrees(12), color: rgb(0.8, 0.1, 0.2) });
      page.drawEllipse({ x: 120, y: 200, xScale: 40, yScale: 25, borderWidth: 4, borderColor: rgb(0, 0, 1) });
      page.drawSvgPath('M0 0C20 40 60 -40 90 0L90 60Q40 20 0 60Z', { x: 40, y: 180, color: cmyk(0, 0, 0, 1) });
      page.drawLine({ start: { x: 5, y: 5 }, end: { x: 190, y: 280 }, thickness: 2, dashArray: [9, 4] });
    }
    const words = document.addPage([200, 100]);
    words.drawText('Alder Lane', { x: 20, y: 40, size: 24, font: await document.embedFont(StandardFonts.TimesRoman) });
    const file = path.join(out, 'pdf-lib.pdf');
    writeFileSync(file, await document.save());
    const before = off.length;
    for (let page = 0; page < 4; page++) await judge(file, page);
    expect(off.slice(before)).toEqual([]);
    const { found } = await strays(file, 4);
    expect(found.texts.map((t) => t.text)).toEqual(['Alder Lane']);
  });

  test('by us: documents by chance', { timeout: 300_000 }, async () => {
    const before = off.length;
    for (let i = 0; i < sample(4, 60); i++) {
      const read = readJob(JSON.stringify(anyDocument(i, 20_271_129)));
      if (!read.ok) throw new Error(read.sentences.join(' '));
      const evaluator = new Evaluator(wasmEngine);
      for (const [id, text] of DRAWINGS) evaluator.addDrawing(id, text);
      // Lines as wide as a pen’s, so that they can be compared.
      const job = { ...read.job, export: { ...read.job.export, lineWidth: 0.5 } };
      const { files } = finished(makeFiles(job, evaluator.evaluate(job, faces), ['pdf'], { partIds: null }));
      if (!files[0]) continue;
      const file = path.join(out, `ours-${i}.pdf`);
      writeFileSync(file, files[0].bytes);
      await judge(file);
    }
    expect(off.slice(before)).toEqual([]);
  });

  test('in the documentation of other packages', { timeout: 300_000 }, async () => {
    const files = execFileSync('find', ['/usr/share/doc', '-name', '*.pdf'], { encoding: 'utf8' }).split('\n');
    const before = off.length;
    for (const file of files.filter((f) => f && existsSync(f)))
      for (const page of inFull ? [0, 1, 2, 3, 4, 5, 6, 7] : [0, 2]) await judge(file, page);
    expect(off.slice(before)).toEqual([]);
  });

  test('in figures', () => {
    figure({
      name: `Pages of PDF by five writers that differ from poppler’s outside one pixel, of ${tried}`,
      value: off.length,
      digits: 0,
      aim: { most: 0 },
      note: `told and not compared: ${[...toldKinds].map(([kind, n]) => `${n} with ${kind}`).join(', ') || 'none'}`,
    });
    expect(tried).toBeGreaterThan(15);
  });
});

test('spoiled at random and cut off anywhere, PDF files are answered', { timeout: 900_000 }, async () => {
  const sources = readdirSync(out)
    .filter((f) => /\.pdf$/.test(f))
    .slice(0, 12)
    .map((f) => new Uint8Array(readFileSync(path.join(out, f))));
  expect(sources.length).toBeGreaterThan(0);
  const next = chance(20_271_130);
  let longest = 0;
  const count = sample(30, 2_000);
  for (let i = 0; i < count; i++) {
    const source = sources[i % sources.length] as Uint8Array;
    const bytes = source.slice(0, next() < 0.3 ? Math.floor(next() * source.length) : source.length);
    const changes = 1 + Math.floor(next() * 20);
    for (let k = 0; k < changes; k++) bytes[Math.floor(next() * bytes.length)] = Math.floor(next() * 256);
    const began = performance.now();
    const opened = await openDrawing(bytes);
    if (opened.ok) {
      const read = await opened.read(0, () => {});
      await opened.close();
      if (!read.ok) expect(read.sentence).toMatch(/^[A-Z].*\.$/);
    } else expect(opened.sentence).toMatch(/^[A-Z].*\.$/);
    longest = Math.max(longest, performance.now() - began);
  }
  figure({
    name: `Longest that one of ${count} spoiled PDF files takes to be answered`,
    value: longest / 1000,
    digits: 1,
    unit: 's',
    aim: { most: 60 },
  });
});

test('a locked file is told to be locked', async () => {
  const file = path.join(out, 'pdf-lib.pdf');
  const locked = path.join(out, 'locked.pdf');
  execFileSync('qpdf', ['--encrypt', 'oak', 'board', '256', '--', file, locked]);
  const opened = await openDrawing(new Uint8Array(readFileSync(locked)));
  expect(opened).toEqual({
    ok: false,
    sentence: 'This PDF is locked with a password. Save it without one, or print it into a new PDF, and bring that in.',
  });
});
