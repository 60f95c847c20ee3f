/** HPGL as a format that is read: commands of two letters, in whatever wrappings for plotters and printers. */
import type { WholeFormat } from '../read-format';
import { readHpgl } from './hpgl-read';

/** Stands for the escape sign, so that what it introduces can be searched for. */
const ESC = '␛';
/** What may stand before the first command: blanks, what is said to the plotter or printer, lines of its job language. */
const WRAPPING =
  /^(?:[\s;\p{Cc}]|␛(?:\.(?:[@HIMNPST][\d; ]*:?|.)|%-?\d*[A-Za-z]|E|[&*()][^␛]{0,40}?[@A-Z])|@PJL[^\n]*\n)*/u;
/** Two commands in a row that a plotter file begins with, the second nearly always with numbers or an end. */
const COMMANDS =
  /^(?:BP|CA|CO|CS|DF|DT|FT|IN|IP|IR|IW|LT|MC|NP|NR|OW|PA|PC|PD|PE|PG|PM|PR|PS|PU|PW|RO|SC|SI|SP|SR|TR|VS|WU)[\s\d.,+-]*(?:;\s*|(?=[A-Za-z]{2}))(?:$|["A-Za-z]{2}[\s\d.,+;"-]|[A-Za-z]{2}[A-Za-z]{2})/i;

/** Reading HPGL. */
export const hpglReader: WholeFormat = {
  word: 'HPGL',
  endings: ['.plt', '.hpgl', '.hpg', '.hgl'],
  recognises: ({ start }) => COMMANDS.test(start.replaceAll('\x1b', ESC).replace(WRAPPING, '')),
  mayBe: ({ start }) => /(?:^|[;\s])(?:PU|PD|PA|PR)\s*(?:-?\d[\d.]*\s*,\s*-?\d|;)/i.test(start),
  read: ({ bytes }, progress) => readHpgl(new TextDecoder('latin1').decode(bytes), progress),
};
