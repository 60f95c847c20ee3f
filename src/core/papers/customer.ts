/** A picture for the customer: the work in the colours of its stock, with its measures or without; and the same words in several faces. */
import { materialNamed } from '../document/material';
import type { Path } from '../geometry/path';
import { transformPath } from '../geometry/path';
import { FILE_DIGITS, pathData } from '../geometry/path-data';
import { boxHeight, boxWidth, compose, scaling, translation } from '../geometry/point';
import { line } from '../geometry/segment';
import { decimal } from '../units/decimal';
import { formatLength, type LengthUnit } from '../units/quantity';
import { type JobShapes, movedShapes } from './job-picture';
import { type PaperFaces, wordOutlines } from './words';

/** What stock looks like, by the names materials are listed under: its face, and where it was worked. */
const STOCK_COLOURS = [
  { name: 'Birch plywood', face: '#E3C796', worked: '#7A4E23' },
  { name: 'Poplar plywood', face: '#EAD9B5', worked: '#80582E' },
  { name: 'MDF', face: '#C3A078', worked: '#5E4126' },
  { name: 'Hardwood', face: '#C69A64', worked: '#5B381A' },
  { name: 'Cork', face: '#C99B6B', worked: '#6A4526' },
  { name: 'Card', face: '#F1E9D8', worked: '#8A7A5C' },
  { name: 'Acrylic', face: '#CFE6EE', worked: '#F7FBFC' },
  { name: 'Engraving laminate', face: '#2F3B42', worked: '#F4F1E8' },
  { name: 'Leather', face: '#A9714B', worked: '#4F2E1B' },
  { name: 'Felt', face: '#9FA6A0', worked: '#5F6762' },
  { name: 'Mild steel', face: '#8E979C', worked: '#50585C' },
  { name: 'Stainless steel', face: '#C2C9CC', worked: '#6F787C' },
  { name: 'Aluminium', face: '#D3D8DA', worked: '#7E878B' },
  { name: 'Vinyl film', face: '#B9413A', worked: '#7A2420' },
] as const;
const PLAIN = { face: '#DDD2BD', worked: '#6B5637' };

/** What a stock looks like. */
const stockColours = (material: string): { readonly face: string; readonly worked: string } =>
  materialNamed(material, STOCK_COLOURS) ?? PLAIN;

/** What is drawn, and how. */
export type CustomerPicture = {
  readonly title: string;
  readonly material: string;
  readonly units: LengthUnit;
  /** Whether its width and height stand beside it. */
  readonly measures: boolean;
};

const MARGIN = 8;
/** Room for a measure beside the work. */
const MEASURE = 14;
const INK = '#1F2A30';

const escapeXml = (text: string): string =>
  text.replace(/[\p{Cc}\p{Cs}\p{Noncharacter_Code_Point}]/gu, '').replace(/[&<>"']/g, (c) => `&#${c.charCodeAt(0)};`);

/** A picture being put together, y upwards. */
class Picture {
  readonly elements: string[] = [];
  constructor(readonly height: number) {}

  fill(paths: readonly Path[], colour: string): void {
    if (paths.length > 0)
      this.elements.push(
        `<path fill="${colour}" fill-rule="nonzero" d="${pathData(paths, this.height, FILE_DIGITS)}"/>`,
      );
  }

  stroke(path: Path, colour: string, width: number): void {
    this.elements.push(
      `<path fill="none" stroke="${colour}" stroke-width="${decimal(width, 3)}" stroke-linecap="round" stroke-linejoin="round" d="${pathData([path], this.height, FILE_DIGITS)}"/>`,
    );
  }
}

/** The work in the colours of its stock; what is cut away is left white. */
function drawShapes(
  picture: Picture,
  shapes: Pick<JobShapes, 'kept' | 'areas' | 'lines'>,
  material: string,
  lineMm: number,
): void {
  const { face, worked } = stockColours(material);
  for (const paths of shapes.kept) picture.fill(paths, face);
  for (const { kind, paths } of shapes.areas) if (kind !== 'cut') picture.fill(paths, worked);
  for (const { kind, path } of shapes.lines) if (kind !== 'cut') picture.stroke(path, worked, lineMm);
  // The edge of what is kept is seen against paper of its own colour.
  for (const paths of shapes.kept) for (const path of paths) picture.stroke(path, worked, lineMm / 3);
}

const svgOf = (title: string, width: number, height: number, { elements }: Picture): string =>
  [
    '<?xml version="1.0" encoding="UTF-8"?>',
    `<svg xmlns="http://www.w3.org/2000/svg" width="${decimal(width, 3)}mm" height="${decimal(height, 3)}mm" viewBox="0 0 ${decimal(width, 3)} ${decimal(height, 3)}">`,
    `<title>${escapeXml(title)}</title>`,
    `<rect width="100%" height="100%" fill="#FFFFFF"/>`,
    ...elements,
    '</svg>',
    '',
  ].join('\n');

/** The picture as SVG, at true size. */
export function customerSvg(
  shapes: JobShapes,
  faces: PaperFaces,
  { title, material, units, measures }: CustomerPicture,
): string {
  const [w, h] = [boxWidth(shapes.box), boxHeight(shapes.box)];
  // Words and lines are as large beside a small thing as beside a large one.
  const k = Math.max(w, h, 1) / 200;
  const beside = measures ? MEASURE * k : 0;
  const [width, height] = [w + 2 * MARGIN * k + beside, h + 2 * MARGIN * k + beside];
  const picture = new Picture(height);
  const [left, low] = [MARGIN * k + beside, MARGIN * k + beside];
  drawShapes(
    picture,
    movedShapes(shapes, translation(left - shapes.box.minX, low - shapes.box.minY)),
    material,
    0.5 * k,
  );
  if (measures) {
    const across = low - (MEASURE / 2) * k;
    const upright = left - (MEASURE / 2) * k;
    const lineOf = (x0: number, y0: number, x1: number, y1: number) =>
      picture.stroke({ closed: false, segments: [line(x0, y0, x1, y1)] }, INK, 0.3 * k);
    lineOf(left, across, left + w, across);
    lineOf(upright, low, upright, low + h);
    const tick = 1.6 * k;
    for (const x of [left, left + w]) lineOf(x, across - tick, x, across + tick);
    for (const y of [low, low + h]) lineOf(upright - tick, y, upright + tick, y);
    const label = (text: string, x: number, y: number, turned: boolean) => {
      const set = wordOutlines(faces.plain, text, 5 * k);
      const middle = translation(-set.widthMm / 2, 0);
      const turn = turned ? { a: 0, b: 1, c: -1, d: 0, e: 0, f: 0 } : scaling(1);
      const m = compose(compose(middle, turn), translation(x, y));
      picture.fill(
        set.paths.map((p) => transformPath(p, m)),
        INK,
      );
    };
    label(formatLength(w, units), left + w / 2, across - 5.6 * k, false);
    label(formatLength(h, units), upright - 1.8 * k, low + h / 2, true);
  }
  return svgOf(title, width, height, picture);
}

/** A work in one of several faces. */
export type InFace = { readonly face: string; readonly shapes: JobShapes };

/** The same words in several faces on one page, two beside each other, each under the name of its face. */
export function facesSvg(title: string, all: readonly InFace[], faces: PaperFaces, material: string): string {
  const columns = all.length > 1 ? 2 : 1;
  const cell = { width: 130, height: 75 };
  const rows = Math.ceil(all.length / columns);
  const [width, height] = [columns * cell.width + 2 * MARGIN, rows * cell.height + 2 * MARGIN];
  const picture = new Picture(height);
  all.forEach(({ face, shapes }, i) => {
    const left = MARGIN + (i % columns) * cell.width;
    const top = height - MARGIN - Math.floor(i / columns) * cell.height;
    const label = wordOutlines(faces.bold, `${i + 1}  ${face}`, 4.5);
    picture.fill(
      label.paths.map((p) => transformPath(p, translation(left + 2, top - 7))),
      INK,
    );
    const [w, h] = [boxWidth(shapes.box), boxHeight(shapes.box)];
    if (!(w > 0 && h > 0)) return;
    const k = Math.min((cell.width - 10) / w, (cell.height - 18) / h);
    const m = compose(
      compose(translation(-(shapes.box.minX + w / 2), -(shapes.box.minY + h / 2)), scaling(k)),
      translation(left + cell.width / 2, top - 10 - (cell.height - 14) / 2),
    );
    drawShapes(picture, movedShapes(shapes, m), material, 0.3);
  });
  return svgOf(title, width, height, picture);
}
