/** SVG as a format that is read: an element `svg`, whatever stands before it. */
import type { WholeFormat } from '../read-format';
import { readSvg } from './svg-read';

const MARKUP = /^\uFEFF?\s*</;

/** Reading SVG. */
export const svgReader: WholeFormat = {
  word: 'SVG',
  endings: ['.svg', '.svgz'],
  recognises: ({ text }) => MARKUP.test(text()) && /<(?:\w+:)?svg[\s>]/.test(text()),
  mayBe: ({ text }) => /<svg[\s>]/.test(text()),
  read({ text }, progress) {
    const source = text();
    return readSvg(
      MARKUP.test(source) ? source.replace(/^\uFEFF?\s*/, '') : source.slice(source.indexOf('<svg')),
      progress,
    );
  },
};
