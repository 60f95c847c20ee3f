/** SVG at true size: the page in millimetres, one group per operation in running order, curves kept. */
import { drawnPaths } from '../geometry/drawable';
import { FILE_DIGITS, pathData } from '../geometry/path-data';
import { decimal } from '../units/decimal';
import { type Drawing, distinctNames, type FormatToWrite, layerWords, scanWords } from './drawing';
import { readBackSvg } from './read-back/svg';

const escapeXml = (text: string): string =>
  text.replace(/[\p{Cc}\p{Cs}\p{Noncharacter_Code_Point}]/gu, '').replace(/[&<>"']/g, (c) => `&#${c.charCodeAt(0)};`);

/** A name that may stand as an XML id. */
const idOf = (name: string): string => {
  const plain = name.replace(/[^\p{L}\p{N}_-]+/gu, '-').replace(/^-+|-+$/g, '');
  return /^[\p{L}_]/u.test(plain) ? plain : `operation-${plain}`;
};

/**
 * A drawing as SVG in mm, y downwards: curves and arcs as they are, one group a layer. The line width is in mm.
 */
export function writeSvg(drawing: Drawing, lineWidthMm: number): string {
  const w = decimal(drawing.width, 5);
  const h = decimal(drawing.height, 5);
  const ids = distinctNames(drawing.layers.map((layer) => idOf(layer.name))).map((id) => id.replace(/ /g, '-'));
  const groups = drawing.layers.map((layer, i) => {
    const elements = layer.drawn.flatMap((d) => {
      if (d.kind === 'area')
        return `  <path fill="${layer.colour}" fill-rule="nonzero" stroke="none" d="${pathData(d.paths, drawing.height)}"/>`;
      if (d.kind !== 'dot') return drawnPaths(d).map((path) => `  <path d="${pathData([path], drawing.height)}"/>`);
      const [x, y] = [decimal(d.at.x, FILE_DIGITS), decimal(drawing.height - d.at.y, FILE_DIGITS)];
      // A line of no length with round ends is a point.
      return d.r === null
        ? `  <path d="M${x} ${y}h0"/>`
        : `  <circle cx="${x}" cy="${y}" r="${decimal(d.r, FILE_DIGITS)}"/>`;
    });
    const words = layerWords(layer).join(' ');
    const scanned =
      scanWords(layer) && layer.scan
        ? ` data-scan-interval-mm="${decimal(layer.scan.interval, 4)}" data-scan-direction-deg="${decimal(layer.scan.direction, 2)}"`
        : '';
    const data = [scanned, ...(layer.settings ?? []).map((s) => ` data-${s.name}="${escapeXml(s.value)}"`)].join('');
    return [
      ` <g id="${escapeXml(ids[i] as string)}" fill="none" stroke="${layer.colour}" stroke-width="${decimal(lineWidthMm, 5)}" stroke-linejoin="round" stroke-linecap="round"${data}>`,
      `  <title>${escapeXml(layer.name)}</title>`,
      ...(words ? [`  <desc>${escapeXml(words)}</desc>`] : []),
      ...elements,
      ' </g>',
    ].join('\n');
  });
  return [
    '<?xml version="1.0" encoding="UTF-8"?>',
    `<svg xmlns="http://www.w3.org/2000/svg" version="1.1" width="${w}mm" height="${h}mm" viewBox="0 0 ${w} ${h}">`,
    ` <title>${escapeXml(drawing.title)}</title>`,
    ...(drawing.date
      ? [` <metadata><date xmlns="http://purl.org/dc/elements/1.1/">${escapeXml(drawing.date)}</date></metadata>`]
      : []),
    ...groups,
    '</svg>',
    '',
  ].join('\n');
}

/** Writing SVG. */
export const svgWriter: FormatToWrite<'svg'> = {
  id: 'svg',
  word: 'SVG',
  ending: 'svg',
  type: 'image/svg+xml',
  frame: ({ page, lineWidth }) => ({ page, origin: 'corner', roomMm: lineWidth / 2 }),
  readBack: readBackSvg,
  keeps: { curves: true, areas: true, names: 'whole', circles: 'circles', gridMm: null },
  write: (drawing, { lineWidth }) => new TextEncoder().encode(writeSvg(drawing, lineWidth)),
};
