/** The formats files are written in, in the order they are offered. */
import { dxfWriter } from './dxf-write';
import { hpglWriter } from './hpgl-write';
import { pdfWriter } from './pdf-write';
import { svgWriter } from './svg-write';

/** The formats that are written. */
export const WRITTEN_FORMATS = [svgWriter, dxfWriter, pdfWriter, hpglWriter] as const;

/** One of the formats that are written. */
export type WrittenFormat = (typeof WRITTEN_FORMATS)[number];

/** The id of a format that is written: "svg", "dxf", "pdf", "hpgl". */
export type FileFormat = WrittenFormat['id'];

/** The format of an id. */
export const writtenFormat = (id: FileFormat): WrittenFormat =>
  WRITTEN_FORMATS.find((f) => f.id === id) ?? WRITTEN_FORMATS[0];
