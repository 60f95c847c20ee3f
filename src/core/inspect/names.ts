/** What to call a piece: "the middle of O", "the dot of i", "“Lane”". */

import { numberAt } from '../geometry/elements';
import { once } from '../memo';
import type { BridgedIsland } from '../prepare/bridges/notes';
import type { Piece } from '../prepare/pieces';
import type { Source } from '../prepare/source';

/** The pieces of a shape and where they come from. */
type NamedPieces = { readonly sources: readonly Source[]; readonly pieces: readonly Piece[] };

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

/** What the pieces and sources of one part are called, with a small initial, for use inside a sentence. */
export class Names {
  private readonly sources: readonly Source[];
  private readonly pieces: readonly Piece[];

  constructor({ sources, pieces }: NamedPieces) {
    this.sources = sources;
    this.pieces = pieces;
  }

  /** Of each source the how-manieth of its kind it is, from 1, and how many of a kind there are. */
  private readonly ranks = once(() => {
    const count = new Map<string, number>();
    const rank = this.sources.map((source) => {
      const before = count.get(kindOf(source)) ?? 0;
      count.set(kindOf(source), before + 1);
      return before + 1;
    });
    return { rank, count };
  });

  /** By source, the pieces it has a share in. */
  private readonly shares = once(() => {
    const map = new Map<number, Piece[]>();
    for (const piece of this.pieces)
      for (const label of piece.labels) {
        const list = map.get(label);
        if (list) list.push(piece);
        else map.set(label, [piece]);
      }
    return map;
  });

  /** "O", or "the second O" where the part has several of that letter. */
  source(label: number): string {
    const source = this.sources[label] as Source;
    const rank = this.rankOf(label);
    const name = source.shape === 'letter' ? source.text : source.shape;
    if (rank !== null) return `the ${ordinal(rank)} ${name}`;
    return source.shape === 'letter' ? name : `the ${name}`;
  }

  piece(piece: Piece): string {
    if (piece.kind === 'island') return this.island(piece);
    if (piece.kind === 'loose') return this.loose(piece);
    if (piece.labels.length === 0) return 'the sheet';
    if (this.pieces.length === 1 || piece.labels.length > 1) return wordName(piece.labels, this.sources);
    return this.source(numberAt(piece.labels, 0));
  }

  /** The how-manieth of its kind a source is, from 1; null when it is the only one. */
  private rankOf(label: number): number | null {
    const { rank, count } = this.ranks();
    const alone = count.get(kindOf(this.sources[label] as Source)) === 1;
    return alone ? null : numberAt(rank, label);
  }

  /** "the middle of O", "the upper middle of B": stock left standing inside a letter. */
  private island(piece: Piece): string {
    const { sources } = this;
    const around = piece.labels;
    if (around.length === 0) return 'a piece inside the sheet';
    const first = sources[numberAt(around, 0)] as Source;
    if (around.length > 1) {
      const names = around
        .slice(0, 3)
        .map((label) => (sources[label] as Source).text || (sources[label] as Source).shape);
      return `the piece enclosed by ${listed(names)}`;
    }
    const label = numberAt(around, 0);
    const name = this.source(label);
    if (!first.takesAway && first.shape === 'drawing') return `a piece inside ${name}`;
    if (!first.takesAway) return first.shape === 'letter' ? `the inner part of ${name}` : name;
    const siblings = (this.shares().get(label) ?? []).filter((p) => p.kind === 'island' && p.labels.length === 1);
    const other = siblings.find((p) => p !== piece);
    if (!other) return `the middle of ${name}`;
    if (siblings.length > 2) return `a middle of ${name}`;
    const way = uprightness(piece, other);
    const before = way === 'upper' ? piece.box.minY > other.box.minY : piece.box.minX < other.box.minX;
    const where = way === 'upper' ? (before ? 'upper' : 'lower') : before ? 'left' : 'right';
    return `the ${where} middle of ${name}`;
  }

  /** "the dot of i", "“L”", "“ane”": a piece of a positive that hangs on nothing. */
  private loose(piece: Piece): string {
    const { sources } = this;
    if (piece.labels.length === 0) return 'a piece of the sheet';
    const label = numberAt(piece.labels, 0);
    const source = sources[label] as Source;
    if (source.takesAway) return 'a piece of the sheet';
    if (piece.labels.length === 1 && source.shape === 'letter') {
      const body = (this.shares().get(label) ?? []).some(
        (p) => p !== piece && (p.area > piece.area || p.labels.length > 1),
      );
      if (body) return `${smallPart(source.text)} of ${this.source(label)}`;
      const rank = this.rankOf(label);
      return rank === null ? `“${source.text}”` : `the ${ordinal(rank)} “${source.text}”`;
    }
    if (piece.labels.length === 1 && source.shape === 'drawing') return `a piece of ${this.source(label)}`;
    return wordName(piece.labels, sources);
  }
}

/** Letters named one by one before the rest is counted. */
const MOST_NAMED = 4;

/** Names in a row: "B", "B, e and a", "B, e and 4 more". */
export function listed(names: readonly string[]): string {
  if (names.length > MOST_NAMED) return `${names[0]}, ${names[1]} and ${names.length - 2} more`;
  const last = names[names.length - 1] as string;
  return names.length === 1 ? last : `${names.slice(0, -1).join(', ')} and ${last}`;
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
  const names = new Names({ sources, pieces });
  return pieces.map((piece) => names.piece(piece));
}

/** Words with a capital at their start. */
export const startSentence = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);
