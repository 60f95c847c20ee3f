/**
 * The commands of a plotter file: two letters and what belongs to them. Escape sequences for the plotter’s own buffers and for
 * printers around the drawing are passed over, and so are pages of a printer’s language between stretches of HPGL.
 */

/** A command as it stands in a file. */
export type PlotterCommand = {
  /** Two capitals. */
  readonly name: string;
  readonly numbers: readonly number[];
  /** Words of a label, or what a polyline is encoded as. */
  readonly text: string;
  /** Where it ends, in characters of the file. */
  readonly end: number;
};

const ESCAPE = '\x1b';
/** Ends a label where a file names no other; others may be printed themselves. */
const USUAL_END = { sign: '\x03', isPrinted: false };
/** How a file names another: a sign, and 0 where it is printed too. */
const LABEL_END = /([^;])(?:\s*,\s*([01]))?/y;
/** Longer lists of numbers come as several commands of the same name: a multiple of what any takes at a time. */
const NUMBERS_AT_ONCE = 6_000;
/** No sequence for a printer is longer, but for the data it announces. */
const ESCAPE_CHARACTERS = 256;

/** What follows ESC. For the plotter itself, with numbers up to a colon or alone: a point and a sign. */
const DEVICE = /\.(?:[@HIMNPST][\d; ]*:?|[\s\S])/y;
/** To another language and back, and the end of all: % and a number. */
const LANGUAGE = /%(-?\d*)([A-Za-z])/y;
/** To a printer: a sign and numbers with letters, of which a capital is the last. */
const PRINTER = /[&*()]\S?(?:[-+\d.]*[a-z])*?([-+\d.]*)([@A-Z])/y;
const NUMBER = /[+-]?(?:\d+\.?\d*|\.\d+)/y;
const JOB_LANGUAGE = /@PJL[^\n]*\n?/y;

const isLetter = (code: number): boolean => (code >= 65 && code <= 90) || (code >= 97 && code <= 122);

/** Reads commands one by one. `strange` hears how many characters belong to none. */
export function* plotterCommands(text: string, strange: (count: number) => void): Generator<PlotterCommand> {
  let at = 0;
  let labelEnd: { readonly sign: string; readonly isPrinted: boolean } = USUAL_END;
  let isPlotter = true;
  const matchAt = (pattern: RegExp): RegExpExecArray | null => {
    pattern.lastIndex = at;
    return pattern.exec(text);
  };

  const passEscape = (): void => {
    at++;
    const language = matchAt(LANGUAGE);
    if (language) {
      // 0A and 1A go over to a printer’s language, 0B and 1B come back; the end of all leaves what follows to be read.
      isPlotter = language[2] !== 'A';
      at += language[0].length;
      return;
    }
    const device = matchAt(DEVICE);
    const printer = device ? null : matchAt(PRINTER);
    const found = device ?? printer;
    at += found && found[0].length <= ESCAPE_CHARACTERS ? found[0].length : 1;
    // So many bytes of a picture or a letter follow.
    if (printer?.[2] === 'W') at += Math.max(0, Math.min(text.length - at, Math.floor(Number(printer[1])) || 0));
  };

  const upTo = (end: string): string => {
    const found = text.indexOf(end, at);
    const words = text.slice(at, found < 0 ? text.length : found);
    at = found < 0 ? text.length : found + end.length;
    return words;
  };

  function* numbered(name: string): Generator<PlotterCommand> {
    let numbers: number[] = [];
    let isFirst = true;
    for (;;) {
      const code = text.charCodeAt(at);
      // Blanks and commas part numbers; anything else ends the command.
      if (code <= 32 && code !== 27) at++;
      else if (code === 44) at++;
      else {
        const number = matchAt(NUMBER);
        if (!number) break;
        numbers.push(Number(number[0]));
        at += number[0].length;
        if (numbers.length === NUMBERS_AT_ONCE) {
          yield { name, numbers, text: '', end: at };
          numbers = [];
          isFirst = false;
        }
      }
    }
    if (text[at] === ';') at++;
    if (isFirst || numbers.length > 0) yield { name, numbers, text: '', end: at };
  }

  while (at < text.length) {
    const code = text.charCodeAt(at);
    if (code === 27) passEscape();
    else if (!isPlotter) at = text.indexOf(ESCAPE, at) < 0 ? text.length : text.indexOf(ESCAPE, at);
    else if (code === 64 && matchAt(JOB_LANGUAGE)) at += (matchAt(JOB_LANGUAGE) as RegExpExecArray)[0].length;
    else if (!isLetter(code) || !isLetter(text.charCodeAt(at + 1))) {
      // Signs that end or part commands are as good as blanks.
      if (code > 32 && code !== 59 && code !== 44) strange(1);
      at++;
    } else {
      const name = text.slice(at, at + 2).toUpperCase();
      at += 2;
      if (name === 'LB' || name === 'BL') {
        const words = upTo(labelEnd.sign);
        yield { name, numbers: [], text: labelEnd.isPrinted ? words + labelEnd.sign : words, end: at };
      } else if (name === 'DT') {
        const [said = '', sign, isSilent] = matchAt(LABEL_END) ?? [];
        labelEnd = sign === undefined ? USUAL_END : { sign, isPrinted: isSilent === '0' };
        at += said.length;
      } else if (name === 'SM') {
        const sign = text[at] === ';' ? '' : (text[at] ?? '');
        at += sign.length;
        yield { name, numbers: [], text: sign, end: at };
      } else if (name === 'PE') yield { name, numbers: [], text: upTo(';'), end: at };
      else if (name === 'CO') {
        if (text[at] === '"') {
          at++;
          upTo('"');
        } else upTo(';');
      } else if (name === 'BP' || name === 'MG' || name === 'WD') upTo(';');
      else yield* numbered(name);
    }
  }
}
