/** The formats files are written in, in the order they are offered. */
import { DXF } from './dxf-write';
import { PDF } from './pdf-write';
import { SVG } from './svg-write';

export const WRITTEN_FORMATS = [SVG, DXF, PDF] as const;

export type WrittenFormat = (typeof WRITTEN_FORMATS)[number];
export type FileFormat = WrittenFormat['id'];

export const writtenFormat = (id: FileFormat): WrittenFormat =>
  WRITTEN_FORMATS.find((f) => f.id === id) ?? WRITTEN_FORMATS[0];
