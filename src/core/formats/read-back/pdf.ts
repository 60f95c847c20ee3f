/** Reading back the PDF we write: one page, its content between marks of optional content; mm, y upwards. */
import { unzlibSync } from 'fflate';
import { NotAsWritten, numberOf, type ReadBack, type ReadItem, type ReadPath, type ReadPiece } from './read-back';

const MM_PER_POINT = 25.4 / 72;
/** Numbers in points as the page has them stand for the same mm within this. */
const PAGE_DIGITS = 1e-4;

const latin1 = new TextDecoder('latin1');

/** The objects of a file by their number, found by its table of places. */
function objectsOf(bytes: Uint8Array): Map<number, { readonly text: string; readonly at: number }> {
  const tail = latin1.decode(bytes.subarray(Math.max(0, bytes.length - 64)));
  const start = /startxref\n(\d+)\n%%EOF\n$/.exec(tail)?.[1];
  if (start === undefined) throw new NotAsWritten('the end is missing');
  const table = latin1.decode(bytes.subarray(Number(start)));
  const count = Number(/^xref\n0 (\d+)\n/.exec(table)?.[1]);
  if (!(count > 1)) throw new NotAsWritten('there is no table of objects');
  const places = [...table.matchAll(/(\d{10}) 00000 n \n/g)].map(([, at]) => Number(at));
  if (places.length !== count - 1) throw new NotAsWritten('objects are missing');
  return new Map(
    places.map((at, i) => {
      // What is asked of an object stands before its stream.
      const text = latin1.decode(bytes.subarray(at, Math.min(bytes.length, at + OBJECT_BYTES)));
      const head = `${i + 1} 0 obj\n`;
      if (!text.startsWith(head)) throw new NotAsWritten('an object is not where it is said to be');
      return [i + 1, { text: text.slice(head.length), at: at + head.length }];
    }),
  );
}

/** Objects that are no stream are no longer than this: 64 operations with names of 200 letters. */
const OBJECT_BYTES = 128 * 1024;

/** A text string in hexadecimal UTF-16BE. */
function textStringOf(hex: string): string {
  const units = hex.match(/.{4}/g) ?? [];
  return units
    .slice(1)
    .map((unit) => String.fromCharCode(Number.parseInt(unit, 16)))
    .join('');
}

/** The bytes of a PDF as what is drawn in it; `NotAsWritten` where they are none of ours. */
export function readBackPdf(bytes: Uint8Array): ReadBack {
  const objects = objectsOf(bytes);
  const page = [...objects.values()].find(({ text }) => text.startsWith('<</Type/Page/'));
  const contentId = /\/Contents (\d+) 0 R/.exec(page?.text ?? '')?.[1];
  const box = /\/MediaBox\[0 0 (\S+) (\S+)\]/.exec(page?.text ?? '');
  const content = objects.get(Number(contentId));
  const length = /^<<\/Length (\d+)\/Filter\/FlateDecode>>\nstream\n/.exec(content?.text ?? '');
  if (!page || !box || !content || !length) throw new NotAsWritten('the page is missing');
  const unit = numberOf(/\/UserUnit (\d+)/.exec(page.text)?.[1] ?? '1');
  const from = content.at + length[0].length;
  const stream = latin1.decode(unzlibSync(bytes.subarray(from, from + Number(length[1]))));
  const scale = /^q\n(\S+) 0 0 (\S+) 0 0 cm\n(\S+) w 1 j 1 J\n/.exec(stream);
  if (!scale) throw new NotAsWritten('the scale is missing');
  const isTrue = [scale[1], scale[2]].every((k) => Math.abs(numberOf(k) * unit * MM_PER_POINT - 1) < PAGE_DIGITS);
  if (!isTrue) throw new NotAsWritten('the page has another scale');
  const properties = /\/Properties<<([^>]*)>>/.exec(page.text)?.[1] ?? '';
  const colours = [...stream.matchAll(/\/OC \/L\d+ BDC\n(\S+ \S+ \S+) RG\n(\S+ \S+ \S+) rg\n/g)];
  const layers = [...properties.matchAll(/\/L(\d+) (\d+) 0 R/g)].map(([, , id], i) => {
    const name = /^<<\/Type\/OCG\/Name <([0-9A-F]*)>>>/.exec(objects.get(Number(id))?.text ?? '')?.[1];
    if (name === undefined) throw new NotAsWritten('a layer has no name');
    return { name: textStringOf(name), colour: colourOf(colours[i]), lineMm: numberOf(scale[3]) };
  });
  return {
    head: {
      page: {
        width: numberOf(box[1]) * MM_PER_POINT * unit,
        height: numberOf(box[2]) * MM_PER_POINT * unit,
      },
      layers,
    },
    items: itemsOf(stream, scale[0].length),
  };
}

function colourOf(found: RegExpMatchArray | undefined): string {
  if (!found || found[1] !== found[2]) throw new NotAsWritten('a layer has no colour, or two');
  const parts = (found[1] as string).split(' ').map((c) => Math.round(255 * numberOf(c)));
  return `#${parts.map((c) => c.toString(16).padStart(2, '0')).join('')}`;
}

type Building = { x: number; y: number; pieces: ReadPiece[]; closed: boolean };

/** What the operators of the page paint, from a place in its content on. */
function* itemsOf(content: string, from: number): Generator<ReadItem> {
  let [layer, isOpen, isEnded] = [-1, false, false];
  let paths: Building[] = [];
  let n: number[] = [];
  for (let at = from; at < content.length; ) {
    let end = at;
    while (end < content.length && content.charCodeAt(end) > 32) end++;
    const word = content.slice(at, end);
    at = end + 1;
    const code = word.charCodeAt(0);
    if (word === '' || isEnded) {
      if (word !== '') throw new NotAsWritten('something follows the end');
      continue;
    }
    if (code === 45 || code === 46 || (code >= 48 && code <= 57)) {
      n.push(numberOf(word));
      continue;
    }
    if (code === 47) {
      if (/^\/L\d+$/.test(word)) {
        layer++;
        if (isOpen || word !== `/L${layer}`) throw new NotAsWritten('a layer is out of turn');
        isOpen = true;
      }
      continue;
    }
    const path = paths[paths.length - 1];
    switch (word) {
      case 'BDC':
      case 'RG':
      case 'rg':
        break;
      case 'EMC':
        isOpen = false;
        break;
      case 'Q':
        isEnded = true;
        break;
      case 'm':
        paths.push({ x: n[0] as number, y: n[1] as number, pieces: [], closed: false });
        break;
      case 'l':
      case 'c':
        if (!path || path.closed || n.length !== (word === 'l' ? 2 : 6))
          throw new NotAsWritten('a path does not begin');
        path.pieces.push(pieceOf(n));
        break;
      case 'h':
        if (!path) throw new NotAsWritten('a path does not begin');
        path.closed = true;
        break;
      case 'f':
      case 'S':
        if (!isOpen) throw new NotAsWritten('something is drawn outside a layer');
        yield itemOf(layer, word === 'f', paths);
        paths = [];
        break;
      default:
        throw new NotAsWritten(`“${word}” is no operator`);
    }
    n = [];
  }
  if (!isEnded || isOpen || paths.length > 0) throw new NotAsWritten('the end of the page is missing');
}

function pieceOf(n: readonly number[]): ReadPiece {
  const [a, b, c, d, x, y] = n as [number, number, number, number, number, number];
  return n.length === 2 ? { kind: 'line', x: a, y: b } : { kind: 'cubic', ax: a, ay: b, bx: c, by: d, x, y };
}

/** A line of no length is a point. */
function itemOf(layer: number, filled: boolean, paths: readonly ReadPath[]): ReadItem {
  const [path] = paths;
  const piece = path?.pieces[0];
  if (!path || !piece) throw new NotAsWritten('nothing is painted');
  const isPoint = paths.length === 1 && path.pieces.length === 1 && piece.x === path.x && piece.y === path.y;
  return isPoint ? { kind: 'dot', layer, x: path.x, y: path.y, r: null } : { kind: 'path', layer, filled, paths };
}
