/** What all of a DXF file is written with: tags, numbers, handles, names. */
import { decimal } from '../units/decimal';

/** A release of DXF: R12 has POLYLINE and numbered colours only, 2000 and 2007 LWPOLYLINE, 2007 true colours and UTF-8. */
export type DxfVersion = 'R12' | '2000' | '2007';

/** A group code and its value, as DXF has everything. */
export type Tag = readonly [code: number, value: string | number];

/** Handles fixed by the structure below; entities count on from FIRST_FREE_HANDLE. */
const FIRST_FREE_HANDLE = 0x100;

/** A number as DXF writes it: with a decimal point. */
export const real = (value: number): string => {
  const text = decimal(value, 9);
  return text.includes('.') ? text : `${text}.0`;
};

/** The three tags of a point, on the plane z = 0. */
export const xyz = (code: number, x: number, y: number): Tag[] => [
  [code, real(x)],
  [code + 10, real(y)],
  [code + 20, '0.0'],
];

const inAscii = (text: string): string =>
  text
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .replace(/°/g, ' deg')
    .replace(/[^\u0020-\u007e]/g, '_');

/** Lines of a comment are no longer than this. */
const COMMENT_CHARACTERS = 200;

/** A file that is being written: its release, and the handles given out so far. */
export class DxfFile {
  private handle = FIRST_FREE_HANDLE;
  readonly r12: boolean;
  constructor(readonly version: DxfVersion) {
    this.r12 = version === 'R12';
  }

  nextHandle(): string {
    return (this.handle++).toString(16).toUpperCase();
  }

  /** Words as lines of comments, which hold no line breaks, and before 2007 only ASCII. */
  comments(words: string): string[] {
    const line = words.replace(/\p{Cc}/gu, ' ');
    const plain = this.version === '2007' ? line : inAscii(line);
    return plain.match(new RegExp(`.{1,${COMMENT_CHARACTERS}}`, 'gu')) ?? [];
  }

  /** Layer names can't hold some signs at all, before 2007 only ASCII, in R12 no more than 31 of these. */
  layerName(value: string): string {
    const plain = value.replace(/[<>/\\":;?*|=,`\p{Cc}]/gu, '-').trim() || 'Layer';
    if (this.version === '2007') return plain.slice(0, 200);
    const ascii = inAscii(plain);
    return this.r12 ? ascii.replace(/[^A-Za-z0-9_$-]/g, '_').slice(0, 28) : ascii.slice(0, 200);
  }
}
