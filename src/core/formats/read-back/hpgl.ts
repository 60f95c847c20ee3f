/** Reading back the HPGL we write: pens, and what each draws from where it is set down to where it is lifted; 0.025 mm a step. */
import { NotAsWritten, type ReadBack, type ReadItem, type ReadPiece, textOf } from './read-back';

const MM_PER_STEP = 0.025;
const START = 'IN;PA;\n';
const END = 'PU;SP0;\n';
const [COMMA, MINUS, SEMICOLON, NEWLINE] = [44, 45, 59, 10];

/** The bytes of a plotter file as what is drawn in it; `NotAsWritten` where they are none of ours. */
export function readBackHpgl(bytes: Uint8Array): ReadBack {
  const text = textOf(bytes);
  if (!text.startsWith(START) || !text.endsWith(END)) throw new NotAsWritten('the start or the end is missing');
  const layers = [...text.matchAll(/^SP(\d+);$/gm)].map(([, pen]) => ({
    name: pen as string,
    colour: null,
    lineMm: null,
  }));
  return { head: { page: null, layers }, items: itemsOf(text) };
}

function* itemsOf(text: string): Generator<ReadItem> {
  let layer = -1;
  const end = text.length - END.length;
  for (let at = START.length; at < end; ) {
    if (text.startsWith('SP', at)) {
      layer++;
      at = text.indexOf('\n', at) + 1;
    } else if (layer < 0) throw new NotAsWritten('something is drawn without a pen');
    else {
      const { places, next } = lineAt(text, at);
      const [x, y] = [places[0] as number, places[1] as number];
      at = next;
      if (places.length === 2) yield { kind: 'dot', layer, x, y, r: null };
      else yield { kind: 'path', layer, filled: false, paths: [{ x, y, pieces: piecesOf(places), closed: false }] };
    }
  }
}

/** The places of a pen set down at the first and drawn to the others, as x, y pairs in mm, and where the next line begins. */
function lineAt(text: string, from: number): { readonly places: number[]; readonly next: number } {
  const places: number[] = [];
  let at = from;
  const isNo = (what: string): never => {
    throw new NotAsWritten(`“${text.slice(from, from + 40).split('\n')[0]}” ${what}`);
  };
  for (let command = 0; text.charCodeAt(at) !== NEWLINE; command++) {
    if (!text.startsWith(command === 0 ? 'PU' : 'PD', at)) isNo('is no line');
    at += 2;
    const before = places.length;
    // A pen set down where it is has no places.
    while (text.charCodeAt(at) !== SEMICOLON) {
      if (places.length > before) {
        if (text.charCodeAt(at) !== COMMA) isNo('has something between its places');
        at++;
      }
      at = stepsInto(places, text, at);
    }
    at++;
    const isWhole = places.length % 2 === 0 && (command > 0 || places.length === 2);
    if (!isWhole) isNo('has a place of one number, or sets the pen down nowhere');
  }
  if (!text.startsWith(';', at - 1) || places.length === 0) isNo('is no line');
  return { places, next: at + 1 };
}

/** Puts the whole number at a place of a text into a list, in mm, and gives the place behind it. */
function stepsInto(places: number[], text: string, from: number): number {
  let at = from;
  const isNegative = text.charCodeAt(at) === MINUS;
  if (isNegative) at++;
  const first = at;
  let steps = 0;
  for (let code = text.charCodeAt(at); code >= 48 && code <= 57; code = text.charCodeAt(++at))
    steps = 10 * steps + code - 48;
  if (at === first || at - first > 15) throw new NotAsWritten(`“${text.slice(from, at + 1)}” is no number of steps`);
  places.push((isNegative ? -steps : steps) * MM_PER_STEP);
  return at;
}

const piecesOf = (places: readonly number[]): ReadPiece[] =>
  Array.from({ length: places.length / 2 - 1 }, (_, i) => ({
    kind: 'line' as const,
    x: places[2 * i + 2] as number,
    y: places[2 * i + 3] as number,
  }));
