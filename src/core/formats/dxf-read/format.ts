/** DXF as a format that is read: binary, or text that starts with a section, comments before it or not. */
import type { WholeFormat } from '../read-format';
import { readDxf } from './dxf-read';
import { isBinaryDxf } from './tags';

/** Reading DXF. */
export const dxfReader: WholeFormat = {
  word: 'DXF',
  endings: ['.dxf'],
  recognises: ({ bytes, start }) =>
    isBinaryDxf(bytes) || /^(?:ï»¿)?\s*(?:999[^\S\n]*\n[^\n]*\n\s*)*0\s*\r?\n\s*SECTION/.test(start),
  read: ({ bytes }, progress) => readDxf(bytes, progress),
};
