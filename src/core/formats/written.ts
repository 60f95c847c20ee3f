/** The formats files are written in, in the order they are offered. */
import { dxfWriter } from './dxf-write';
import { pdfWriter } from './pdf-write';
import { svgWriter } from './svg-write';

export const WRITTEN_FORMATS = [svgWriter, dxfWriter, pdfWriter] as const;

export type WrittenFormat = (typeof WRITTEN_FORMATS)[number];
export type FileFormat = WrittenFormat['id'];

export const writtenFormat = (id: FileFormat): WrittenFormat =>
  WRITTEN_FORMATS.find((f) => f.id === id) ?? WRITTEN_FORMATS[0];
