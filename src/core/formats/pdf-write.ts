/** PDF 1.7 at true size: one page, a switchable layer per operation, curves kept. The same drawing gives the same bytes. */
import { zlibSync } from 'fflate';
import { drawnPaths } from '../geometry/drawable';
import type { Path } from '../geometry/path';
import { arcToCubics, quadraticToCubic, type Segment } from '../geometry/segment';
import { decimal } from '../units/decimal';
import { circleAt, type Drawing, type FormatToWrite, layerWords, rgbOf } from './drawing';
import { readBackPdf } from './read-back/pdf';

const POINTS_PER_MM = 72 / 25.4;
/** Longest page side in default user units (ISO 32000-1 annex C). */
const LONGEST_SIDE_POINTS = 14_400;
/** Arcs become cubics this close, in mm. */
const ARC_MM = 1e-4;

const latin1 = (text: string): Uint8Array => Uint8Array.from(text, (c) => c.charCodeAt(0) & 0xff);

/** A text string as UTF-16BE in hexadecimal. */
function textString(text: string): string {
  let hex = 'FEFF';
  for (let i = 0; i < text.length; i++) hex += text.charCodeAt(i).toString(16).toUpperCase().padStart(4, '0');
  return `<${hex}>`;
}

const n = (value: number): string => decimal(value, 5);

function segmentOperator(s: Segment): string {
  switch (s.kind) {
    case 'line':
      return `${n(s.x1)} ${n(s.y1)} l`;
    case 'quadratic':
      return segmentOperator(quadraticToCubic(s));
    case 'cubic':
      return `${n(s.ax)} ${n(s.ay)} ${n(s.bx)} ${n(s.by)} ${n(s.x1)} ${n(s.y1)} c`;
    case 'arc':
      return arcToCubics(s, ARC_MM).map(segmentOperator).join('\n');
  }
}

function pathOperators(path: Path): string[] {
  const first = path.segments[0];
  if (!first) return [];
  return [`${n(first.x0)} ${n(first.y0)} m`, ...path.segments.map(segmentOperator), ...(path.closed ? ['h'] : [])];
}

function pageContent(drawing: Drawing, lineWidthMm: number, unit: number): string {
  const scale = decimal(POINTS_PER_MM / unit, 10);
  const out = ['q', `${scale} 0 0 ${scale} 0 0 cm`, `${n(lineWidthMm)} w 1 j 1 J`];
  drawing.layers.forEach((layer, i) => {
    const colour = rgbOf(layer.colour)
      .map((c) => decimal(c / 255, 4))
      .join(' ');
    out.push(`/OC /L${i} BDC`, `${colour} RG`, `${colour} rg`);
    for (const d of layer.drawn) {
      if (d.kind === 'area') out.push(...d.paths.flatMap(pathOperators), 'f');
      else if (d.kind !== 'dot') for (const path of drawnPaths(d)) out.push(...pathOperators(path), 'S');
      else if (d.r !== null) out.push(...pathOperators(circleAt(d.at, d.r)), 'S');
      // A line of no length with round ends is a point.
      else out.push(`${n(d.at.x)} ${n(d.at.y)} m ${n(d.at.x)} ${n(d.at.y)} l S`);
    }
    out.push('EMC');
  });
  out.push('Q', '');
  return out.join('\n');
}

/**
 * A drawing as PDF: curves as they are, arcs as cubics, layers as optional content. The line width is in mm.
 */
export const writePdf = (drawing: Drawing, lineWidthMm: number): Uint8Array => writePages([drawing], lineWidthMm);

/** Drawings as the pages of one PDF, each with the layers that it has; the title is that of the first. */
export function writePages(drawings: readonly Drawing[], lineWidthMm: number): Uint8Array {
  const objects: Uint8Array[] = [];
  const add = (...parts: (string | Uint8Array)[]): number => {
    objects.push(join(parts.map((part) => (typeof part === 'string' ? latin1(part) : part))));
    return objects.length;
  };
  const groupsOf = drawings.map(({ layers }) =>
    layers.map((layer) => add(`<</Type/OCG/Name ${textString(layer.name)}>>`)),
  );
  // A page and what is on it are two objects each; then come those that hold them together.
  const pages = objects.length + 2 * drawings.length + 1;
  const kids = drawings.map((drawing, at) => {
    const longest = Math.max(drawing.width, drawing.height) * POINTS_PER_MM;
    const unit = longest > LONGEST_SIDE_POINTS ? Math.ceil(longest / LONGEST_SIDE_POINTS) : 1;
    const stream = zlibSync(latin1(pageContent(drawing, lineWidthMm, unit)), { level: 6 });
    const content = add(`<</Length ${stream.length}/Filter/FlateDecode>>\nstream\n`, stream, '\nendstream');
    const properties = (groupsOf[at] ?? []).map((id, i) => `/L${i} ${id} 0 R`).join('');
    const side = (mm: number) => decimal((mm * POINTS_PER_MM) / unit, 5);
    return add(
      `<</Type/Page/Parent ${pages} 0 R/MediaBox[0 0 ${side(drawing.width)} ${side(drawing.height)}]`,
      unit > 1 ? `/UserUnit ${unit}` : '',
      `/Contents ${content} 0 R/Resources<</Properties<<${properties}>>>>>>`,
    );
  });
  add(`<</Type/Pages/Count ${kids.length}/Kids[${kids.map((id) => `${id} 0 R`).join(' ')}]>>`);
  const refs = groupsOf
    .flat()
    .map((id) => `${id} 0 R`)
    .join(' ');
  const catalog = add(
    `<</Type/Catalog/Pages ${pages} 0 R/OCProperties<</OCGs[${refs}]/D<</Name ${textString('Operations')}/Order[${refs}]/ON[${refs}]>>>>>>`,
  );
  const words = drawings.flatMap(({ layers }) => layers.flatMap(layerWords)).join(' ');
  const [{ title, date }] = drawings as readonly [Drawing];
  const info = add(
    `<</Title ${textString(title)}${words ? `/Subject ${textString(words)}` : ''}${date ? `/CreationDate(D:${date.replace(/-/g, '')})` : ''}/Creator(Needlefile)>>`,
  );
  return assemble(objects, catalog, info);
}

function assemble(objects: readonly Uint8Array[], catalog: number, info: number): Uint8Array {
  const parts: Uint8Array[] = [latin1('%PDF-1.7\n%\xe2\xe3\xcf\xd3\n')];
  let at = (parts[0] as Uint8Array).length;
  const offsets: number[] = [];
  objects.forEach((body, i) => {
    const whole = join([latin1(`${i + 1} 0 obj\n`), body, latin1('\nendobj\n')]);
    offsets.push(at);
    parts.push(whole);
    at += whole.length;
  });
  const rows = offsets.map((offset) => `${String(offset).padStart(10, '0')} 00000 n \n`).join('');
  parts.push(
    latin1(
      `xref\n0 ${objects.length + 1}\n0000000000 65535 f \n${rows}trailer\n<</Size ${objects.length + 1}/Root ${catalog} 0 R/Info ${info} 0 R>>\nstartxref\n${at}\n%%EOF\n`,
    ),
  );
  return join(parts);
}

function join(parts: readonly Uint8Array[]): Uint8Array {
  const out = new Uint8Array(parts.reduce((sum, part) => sum + part.length, 0));
  let at = 0;
  for (const part of parts) {
    out.set(part, at);
    at += part.length;
  }
  return out;
}

/** Writing PDF. */
export const pdfWriter: FormatToWrite<'pdf'> = {
  id: 'pdf',
  word: 'PDF',
  ending: 'pdf',
  type: 'application/pdf',
  frame: ({ page, lineWidth }) => ({ page, origin: 'corner', roomMm: lineWidth / 2 }),
  readBack: readBackPdf,
  keeps: { curves: true, areas: true, names: 'whole', circles: 'paths', gridMm: null },
  write: (drawing, { lineWidth }) => writePdf(drawing, lineWidth),
};
