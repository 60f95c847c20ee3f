/** Reading back the SVG we write: one group a layer, in it paths and circles; mm, y downwards. */
import {
  NotAsWritten,
  numberOf,
  type ReadBack,
  type ReadItem,
  type ReadPath,
  type ReadPiece,
  textOf,
} from './read-back';

const PAGE = /<svg [^>]*\bwidth="([^"]*)mm" height="([^"]*)mm" viewBox="0 0 ([^" ]*) ([^" ]*)">/;
/** The start of a layer: its id, colour, line width and name. */
const LAYER = /<g id="([^"]*)"[^>]*\bstroke="([^"]*)" stroke-width="([^"]*)"[^>]*>\s*<title>([^<]*)<\/title>/g;

const unescaped = (text: string): string =>
  text.replace(/&#(\d+);/g, (_, code: string) => String.fromCodePoint(Number(code)));

function attribute(attributes: string, name: string): string | undefined {
  const label = ` ${name}="`;
  const at = attributes.indexOf(label);
  return at < 0 ? undefined : attributes.slice(at + label.length, attributes.indexOf('"', at + label.length));
}

/** The bytes of an SVG as what is drawn in it; `NotAsWritten` where they are none of ours. */
export function readBackSvg(bytes: Uint8Array): ReadBack {
  const text = textOf(bytes);
  const page = PAGE.exec(text);
  if (!page || !text.endsWith('</svg>\n')) throw new NotAsWritten('the page or the end is missing');
  const [width, height, across, down] = page.slice(1).map(numberOf) as [number, number, number, number];
  if (width !== across || height !== down) throw new NotAsWritten('the page has another scale');
  const layers = [...text.matchAll(LAYER)].map(([, id, colour, width, title]) => {
    const name = unescaped(title as string);
    if (!isIdOf(unescaped(id as string), name)) throw new NotAsWritten(`“${name}” has the id of another layer`);
    return { name, colour: colour as string, lineMm: numberOf(width) };
  });
  return { head: { page: { width, height }, layers }, items: itemsOf(text, height) };
}

/** Whether an id has the letters and digits of a name, but for what is put before or behind to make it an id of its own. */
function isIdOf(id: string, name: string): boolean {
  const plain = (text: string) => text.replace(/[^\p{L}\p{N}]/gu, '');
  return [id, id.replace(/^operation-/, '')].some(
    (shown) => /^\d*$/.test(plain(shown).slice(plain(name).length)) && plain(shown).startsWith(plain(name)),
  );
}

function* itemsOf(text: string, height: number): Generator<ReadItem> {
  let layer = -1;
  let isInside = false;
  for (let at = text.indexOf('\n <g '); at >= 0; at = text.indexOf('<', at + 1)) {
    if (text.startsWith('<path ', at) || text.startsWith('<circle ', at)) {
      if (!isInside) throw new NotAsWritten('something is drawn outside a layer');
      const end = text.indexOf('/>', at);
      const attributes = text.slice(text.indexOf(' ', at), end);
      yield text.startsWith('<circle ', at) ? circleOf(attributes, layer, height) : pathOf(attributes, layer, height);
      at = end;
    } else if (text.startsWith('<g ', at)) {
      layer++;
      isInside = true;
    } else if (text.startsWith('</g>', at)) isInside = false;
  }
}

function circleOf(attributes: string, layer: number, height: number): ReadItem {
  const value = (name: string) => numberOf(attribute(attributes, name));
  return { kind: 'dot', layer, x: value('cx'), y: height - value('cy'), r: value('r') };
}

function pathOf(attributes: string, layer: number, height: number): ReadItem {
  const data = attribute(attributes, 'd');
  if (!data) throw new NotAsWritten('a path has no data');
  const point = /^M(\S+) (\S+)h0$/.exec(data);
  if (point) return { kind: 'dot', layer, x: numberOf(point[1]), y: height - numberOf(point[2]), r: null };
  return { kind: 'path', layer, filled: attribute(attributes, 'fill') !== undefined, paths: pathsOf(data, height) };
}

const POWERS = [1, 10, 100, 1e3, 1e4, 1e5, 1e6, 1e7, 1e8, 1e9];

/** Puts the number that starts at a place into a list, and gives the place after it and the blank behind it. */
function numberInto(n: number[], data: string, from: number): number {
  let at = from;
  const isNegative = data.charCodeAt(at) === 45;
  if (isNegative) at++;
  const first = at;
  let value = 0;
  let places = -1;
  for (; at < data.length; at++) {
    const code = data.charCodeAt(at);
    if (code >= 48 && code <= 57) {
      value = 10 * value + code - 48;
      if (places >= 0) places++;
    } else if (code === 46 && places < 0) places = 0;
    else break;
  }
  const power = POWERS[Math.max(0, places)];
  const isPlain = at > first && places !== 0 && at - first < 16 && power !== undefined;
  if (!isPlain || (data.charCodeAt(at) !== 32 && at < data.length && !isLetter(data.charCodeAt(at))))
    throw new NotAsWritten(`“${data.slice(from, at + 1)}” is no number`);
  n.push((isNegative ? -value : value) / power);
  return data.charCodeAt(at) === 32 ? at + 1 : at;
}

/** How many numbers a command takes. */
const ARGUMENTS: Readonly<Record<string, number>> = { M: 2, L: 2, Q: 4, C: 6, A: 7, Z: 0 };

function pathsOf(data: string, height: number): ReadPath[] {
  const paths: { x: number; y: number; pieces: ReadPiece[]; closed: boolean }[] = [];
  let [x, y] = [0, 0];
  let at = 0;
  const n: number[] = [];
  while (at < data.length) {
    const command = data[at] as string;
    n.length = 0;
    let end = at + 1;
    while (end < data.length && !isLetter(data.charCodeAt(end))) end = numberInto(n, data, end);
    if (n.length !== ARGUMENTS[command]) throw new NotAsWritten(`“${data.slice(at, end)}” is no command`);
    at = end;
    const path = paths[paths.length - 1];
    if (command === 'M') paths.push({ x: n[0] as number, y: height - (n[1] as number), pieces: [], closed: false });
    else if (!path || path.closed) throw new NotAsWritten('a path does not begin');
    else if (command === 'Z') path.closed = true;
    else path.pieces.push(pieceOf(command, n, x, y, height));
    if (command !== 'Z') [x, y] = [n[n.length - 2] as number, height - (n[n.length - 1] as number)];
  }
  return paths;
}

const isLetter = (code: number): boolean => code >= 65;

function pieceOf(command: string, n: readonly number[], fromX: number, fromY: number, height: number): ReadPiece {
  const [a, b, c, d, e, f, g] = n as [number, number, number, number, number, number, number];
  switch (command) {
    case 'L':
      return { kind: 'line', x: a, y: height - b };
    case 'Q':
      return { kind: 'quadratic', ax: a, ay: height - b, x: c, y: height - d };
    case 'C':
      return { kind: 'cubic', ax: a, ay: height - b, bx: c, by: height - d, x: e, y: height - f };
    default: {
      const y = height - g;
      if (!(a > 0) || a !== b) throw new NotAsWritten('an arc is not round');
      const small = 2 * Math.asin(Math.min(1, Math.hypot(f - fromX, y - fromY) / (2 * a)));
      const sweep = d === 1 ? 2 * Math.PI - small : small;
      // Drawn with y downwards, what turns to the right on the page is counter-clockwise to nobody but the file.
      return { kind: 'arc', x: f, y, sweep: e === 1 ? -sweep : sweep };
    }
  }
}
