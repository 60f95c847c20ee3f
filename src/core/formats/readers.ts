/** The formats that are read, in the order they are tried. */
import { DXF } from './dxf-read/format';
import type { FormatToRead } from './read-format';
import { SVG } from './svg-read/format';

export const READ_FORMATS: readonly FormatToRead[] = [DXF, SVG];
