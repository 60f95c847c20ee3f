/**
 * Makes the one-line faces in public/typefaces from the SVG fonts of the package "hersheytext": npx tsx scripts/line-faces.ts [folder]
 * Glyphs stay as they are; the few characters of Latin-1 those fonts lack are put together (line-faces/composed.ts).
 */
import { readFileSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import path from 'node:path';
import { SaxesParser } from 'saxes';
import { pathOf } from '../src/core/geometry/read-path-data';
import { SHIPPED_FACES } from '../src/core/lettering/catalogue';
import type { LineFaceFile, LineStroke } from '../src/core/lettering/line-face';
import { composedGlyphs } from './line-faces/composed';

type Source = { readonly svg: string; readonly family: string; readonly file: string; readonly weight?: number };

/** Which font becomes which face. */
const SOURCES: readonly (Source & { readonly slantDeg?: number })[] = [
  { svg: 'HersheySans1', family: 'Hershey Sans', file: 'hershey-sans' },
  { svg: 'HersheyScript1', family: 'Hershey Script', file: 'hershey-script' },
  { svg: 'EMSReadability', family: 'EMS Readability', file: 'ems-readability' },
  { svg: 'EMSReadabilityItalic', family: 'EMS Readability Italic', file: 'ems-readability-italic', slantDeg: 10 },
  { svg: 'EMSNixish', family: 'EMS Nixish', file: 'ems-nixish' },
  { svg: 'EMSNixishItalic', family: 'EMS Nixish Italic', file: 'ems-nixish-italic', slantDeg: 10 },
  { svg: 'EMSTech', family: 'EMS Tech', file: 'ems-tech' },
  { svg: 'EMSOsmotron', family: 'EMS Osmotron', file: 'ems-osmotron' },
  { svg: 'EMSElfin', family: 'EMS Elfin', file: 'ems-elfin' },
  { svg: 'EMSFelix', family: 'EMS Felix', file: 'ems-felix', slantDeg: 10 },
  { svg: 'EMSAllure', family: 'EMS Allure', file: 'ems-allure', slantDeg: 20 },
  { svg: 'HersheySansMed', family: 'Hershey Sans Medium', file: 'hershey-sans-medium' },
  { svg: 'HersheyScriptMed', family: 'Hershey Script Medium', file: 'hershey-script-medium' },
  { svg: 'HersheySerifMed', family: 'Hershey Serif', file: 'hershey-serif' },
  { svg: 'HersheySerifMedItalic', family: 'Hershey Serif Italic', file: 'hershey-serif-italic', slantDeg: 15 },
  { svg: 'HersheySerifBold', family: 'Hershey Serif Bold', file: 'hershey-serif-bold', weight: 700 },
  {
    svg: 'HersheySerifBoldItalic',
    family: 'Hershey Serif Bold Italic',
    file: 'hershey-serif-bold-italic',
    weight: 700,
  },
  { svg: 'HersheyGothEnglish', family: 'Hershey Gothic', file: 'hershey-gothic' },
];

const fonts = path.join(path.dirname(createRequire(import.meta.url).resolve('hersheytext/package.json')), 'svg_fonts');
const shipped = path.join(import.meta.dirname, '..', 'public', 'typefaces');
const target = process.argv[2] ?? shipped;

const round = (value: number): number => Math.round(value * 100) / 100;

function strokesOf(d: string): LineStroke[] {
  return pathOf(d).paths.map(({ segments, closed }): LineStroke => {
    const first = segments[0] as (typeof segments)[number];
    const rest = segments.map((s) => {
      const end = [round(s.x1), round(s.y1)] as [number, number];
      if (s.kind === 'line') return end;
      if (s.kind !== 'cubic') throw new Error(`a ${s.kind} in a font`);
      return [s.ax, s.ay, s.bx, s.by].map(round).concat(end) as [number, number, number, number, number, number];
    });
    const start: [number, number] = [round(first.x0), round(first.y0)];
    const last = segments[segments.length - 1] as (typeof segments)[number];
    if (closed && (last.x1 !== first.x0 || last.y1 !== first.y0)) rest.push(start);
    return [start, ...rest];
  });
}

function readFont(svg: string) {
  const glyphs: LineFaceFile['glyphs'] = {};
  let notice = '';
  let inNotice = false;
  let [unitsPerEm, ascent, descent, usual] = [1000, 800, -200, 378];
  const parser = new SaxesParser();
  parser.on('text', (text) => {
    if (inNotice) notice += text;
  });
  parser.on('closetag', (tag) => {
    if (tag.name === 'metadata') inNotice = false;
  });
  parser.on('opentag', ({ name, attributes: a }) => {
    if (name === 'metadata') inNotice = true;
    if (name === 'font') usual = Number(a['horiz-adv-x']);
    if (name === 'font-face')
      [unitsPerEm, ascent, descent] = [a['units-per-em'], a.ascent, a.descent].map(Number) as [number, number, number];
    if (name === 'glyph' && a.unicode)
      glyphs[a.unicode] = [round(Number(a['horiz-adv-x'] ?? usual)), strokesOf(a.d ?? '')];
  });
  parser.write(svg).close();
  return {
    glyphs,
    unitsPerEm,
    ascent,
    descent,
    notice: notice
      .trim()
      .split('\n')
      .map((l) => l.trimEnd())
      .join('\n'),
  };
}

for (const { svg, family, file, weight = 400, slantDeg = 0 } of SOURCES) {
  if (!SHIPPED_FACES.some((f) => f.family === family && f.file === `${file}.json`))
    throw new Error(`${family} is not in the catalogue`);
  const font = readFont(readFileSync(path.join(fonts, `${svg}.svg`), 'utf8'));
  const glyphs = { ...font.glyphs, ...composedGlyphs(font.glyphs, slantDeg) };
  const face: LineFaceFile = {
    lineFace: 1,
    family,
    weight,
    italic: false,
    unitsPerEm: font.unitsPerEm,
    ascent: font.ascent,
    descent: font.descent,
    slantDeg,
    notice: font.notice,
    glyphs: Object.fromEntries(Object.entries(glyphs).sort(([a], [b]) => (a < b ? -1 : 1))),
  };
  writeFileSync(path.join(target, `${file}.json`), `${JSON.stringify(face)}\n`);
  writeFileSync(path.join(target, `${file}.LICENSE.txt`), licenceOf(font.notice));
}

/** The notice of a face, and for those under it the licence in full as it lies beside the other typefaces. */
function licenceOf(notice: string): string {
  if (!notice.includes('SIL Open Font License')) return `${notice}\n`;
  const beside = readFileSync(path.join(shipped, 'pacifico.LICENSE.txt'), 'utf8');
  return `${notice}\n\n${beside.slice(beside.indexOf('-----------'))}`;
}
