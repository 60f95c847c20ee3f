/** What to call a piece: "the middle of O", "the dot of i", "“Lane”". */

import type { BridgedIsland } from '../prepare/bridges/notes';
import type { Piece } from '../prepare/pieces';
import type { Source } from '../prepare/source';

/** The pieces of a shape and where they come from. */
export type NamedPieces = { readonly sources: readonly Source[]; readonly pieces: readonly Piece[] };

const ORDINALS = ['first', 'second', 'third', 'fourth', 'fifth', 'sixth', 'seventh', 'eighth', 'ninth', 'tenth'];

/** "second", "11th". */
export function ordinal(n: number): string {
  const word = ORDINALS[n - 1];
  if (word) return word;
  const tail = n % 100 >= 11 && n % 100 <= 13 ? 'th' : (['th', 'st', 'nd', 'rd'][n % 10] ?? 'th');
  return `${n}${tail}`;
}

const MARKS: Readonly<Record<string, string>> = {
  '\u0308': 'dots',
  '\u0307': 'dot',
  '\u030a': 'ring',
  '\u0327': 'cedilla',
  '\u0328': 'tail',
  '\u0303': 'tilde',
  '\u030c': 'caron',
  '\u0302': 'circumflex',
};

/** The small part of a letter that stands apart from its body. */
function smallPart(text: string): string {
  const [base = '', ...marks] = [...text.normalize('NFD')];
  const mark = marks.find((m) => /\p{M}/u.test(m));
  if (mark) return mark === '\u0308' ? 'a dot' : `the ${MARKS[mark] ?? 'accent'}`;
  if ([...text].some((c) => 'ij!?;'.includes(c))) return 'the dot';
  if (':…÷'.includes(base)) return 'a dot';
  if ('"“”„«»'.includes(base)) return 'a half';
  if ('='.includes(base)) return 'a stroke';
  return 'a part';
}

/** Letters of one text, or shapes of one kind; no letter is called as a shape is. */
const kindOf = (source: Source): string => (source.shape === 'letter' ? source.text : `a ${source.shape}`);

const ranks = new WeakMap<readonly Source[], { readonly rank: number[]; readonly count: Map<string, number> }>();

/** The how-manieth of its kind a source is, from 1; null when it is the only one. */
function rankOf(label: number, sources: readonly Source[]): number | null {
  let known = ranks.get(sources);
  if (!known) {
    const count = new Map<string, number>();
    const rank = sources.map((source) => {
      const before = count.get(kindOf(source)) ?? 0;
      count.set(kindOf(source), before + 1);
      return before + 1;
    });
    known = { rank, count };
    ranks.set(sources, known);
  }
  const alone = known.count.get(kindOf(sources[label] as Source)) === 1;
  return alone ? null : (known.rank[label] as number);
}

/** "O", or "the second O" where the part has several of that letter. */
export function sourceName(label: number, sources: readonly Source[]): string {
  const source = sources[label] as Source;
  const rank = rankOf(label, sources);
  const name = source.shape === 'letter' ? source.text : source.shape;
  if (rank !== null) return `the ${ordinal(rank)} ${name}`;
  return source.shape === 'letter' ? name : `the ${name}`;
}

const gathered = new WeakMap<NamedPieces, ReadonlyMap<number, readonly Piece[]>>();

/** All pieces of a part that a source has a share in. */
function piecesWith(label: number, part: NamedPieces): readonly Piece[] {
  let known = gathered.get(part);
  if (!known) {
    const map = new Map<number, Piece[]>();
    for (const piece of part.pieces)
      for (const l of piece.labels) {
        const list = map.get(l);
        if (list) list.push(piece);
        else map.set(l, [piece]);
      }
    known = map;
    gathered.set(part, known);
  }
  return known.get(label) ?? [];
}

/** The letters of a piece as read: "“Lane”"; long ones are cut short. */
function wordName(labels: readonly number[], sources: readonly Source[]): string {
  const letters = labels.map((label) => sources[label] as Source).filter((s) => s.shape === 'letter');
  const shape = labels.map((label) => sources[label] as Source).find((s) => s.shape !== 'letter');
  const text = letters.map((s) => s.text).join('');
  const short = [...text].length > 24 ? `${[...text].slice(0, 23).join('')}…` : text;
  if (!shape) return `“${short}”`;
  return text ? `the ${shape.shape} with “${short}”` : `the ${shape.shape}`;
}

const uprightness = (a: Piece, b: Piece): 'upper' | 'left' => {
  const dx = Math.abs((a.box.minX + a.box.maxX) / 2 - (b.box.minX + b.box.maxX) / 2);
  const dy = Math.abs((a.box.minY + a.box.maxY) / 2 - (b.box.minY + b.box.maxY) / 2);
  return dy >= dx ? 'upper' : 'left';
};

/** "the middle of O", "the upper middle of B": stock left standing inside a letter. */
function islandName(piece: Piece, part: NamedPieces): string {
  const { sources } = part;
  const around = piece.labels;
  if (around.length === 0) return 'a piece inside the sheet';
  const first = sources[around[0] as number] as Source;
  if (around.length > 1) {
    const names = around
      .slice(0, 3)
      .map((label) => (sources[label] as Source).text || (sources[label] as Source).shape);
    return `the piece enclosed by ${names.slice(0, -1).join(', ')} and ${names[names.length - 1]}`;
  }
  const label = around[0] as number;
  const name = sourceName(label, sources);
  if (!first.takesAway && first.shape === 'drawing') return `a piece inside ${name}`;
  if (!first.takesAway) return first.shape === 'letter' ? `the inner part of ${name}` : name;
  const siblings = piecesWith(label, part).filter((p) => p.kind === 'island' && p.labels.length === 1);
  const other = siblings.find((p) => p !== piece);
  if (!other) return `the middle of ${name}`;
  if (siblings.length > 2) return `a middle of ${name}`;
  const way = uprightness(piece, other);
  const before = way === 'upper' ? piece.box.minY > other.box.minY : piece.box.minX < other.box.minX;
  const where = way === 'upper' ? (before ? 'upper' : 'lower') : before ? 'left' : 'right';
  return `the ${where} middle of ${name}`;
}

/** "the dot of i", "“L”", "“ane”": a piece of a positive that hangs on nothing. */
function looseName(piece: Piece, part: NamedPieces): string {
  const { sources } = part;
  if (piece.labels.length === 0) return 'a piece of the sheet';
  const label = piece.labels[0] as number;
  const source = sources[label] as Source;
  if (source.takesAway) return 'a piece of the sheet';
  if (piece.labels.length === 1 && source.shape === 'letter') {
    const body = piecesWith(label, part).some((p) => p !== piece && (p.area > piece.area || p.labels.length > 1));
    if (body) return `${smallPart(source.text)} of ${sourceName(label, sources)}`;
    const rank = rankOf(label, sources);
    return rank === null ? `“${source.text}”` : `the ${ordinal(rank)} “${source.text}”`;
  }
  if (piece.labels.length === 1 && source.shape === 'drawing') return `a piece of ${sourceName(label, sources)}`;
  return wordName(piece.labels, sources);
}

/** The name of a piece, small initial, for use inside a sentence. */
export function pieceName(piece: Piece, part: NamedPieces): string {
  if (piece.kind === 'island') return islandName(piece, part);
  if (piece.kind === 'loose') return looseName(piece, part);
  if (piece.labels.length === 0) return 'the sheet';
  if (part.pieces.length === 1 || piece.labels.length > 1) return wordName(piece.labels, part.sources);
  return sourceName(piece.labels[0] as number, part.sources);
}

/** The names of islands before they were bridged, in their order. */
export function islandNames(sources: readonly Source[], islands: readonly BridgedIsland[]): string[] {
  const pieces = islands.map(
    ({ outline }): Piece => ({
      kind: 'island',
      outline: -1,
      box: outline.box,
      area: Math.abs(outline.area),
      labels: [...new Set(outline.labels.filter((l) => l >= 0))].sort((a, b) => a - b),
    }),
  );
  const part: NamedPieces = { sources, pieces };
  return pieces.map((piece) => pieceName(piece, part));
}

export const startSentence = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);
