/** The formats that are read, in the order they are tried. */
import { dxfReader } from './dxf-read/format';
import { hpglReader } from './hpgl-read/format';
import { pdfReader } from './pdf-read/format';
import type { FormatToRead } from './read-format';
import { svgReader } from './svg-read/format';

/** The formats that are read, in the order in which a file is tried. */
export const READ_FORMATS: readonly FormatToRead[] = [dxfReader, pdfReader, svgReader, hpglReader];
