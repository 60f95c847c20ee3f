/** SVG fonts (SVG 1.1, chapter 20): outlines, or strokes for a tool to run along. */
import { type SaxesAttributeNS, SaxesParser, type SaxesTagNS } from 'saxes';
import { countSegments, type Path } from '../geometry/path';
import { pathOf } from '../geometry/read-path-data';
import { line } from '../geometry/segment';
import { LIMITS } from '../limits';
import type { Typeface } from './face';
import { glyphFace, type ReadGlyph } from './glyph-face';

/** A typeface read, or a sentence why there is none. */
export type SvgFontRead = { readonly typeface: Typeface } | { readonly sentence: string };

/** Units of a square that letters are drawn in, where a font does not say. */
const UNITS = 1000;
/** A font that claims to lean by more is not believed. */
const MOST_SLANT_DEG = 45;
/** Pairs of characters that are brought nearer to each other, at most. */
const MOST_PAIRS = 200_000;

type Draft = {
  hasFont: boolean;
  advance: number;
  face: ReadonlyMap<string, string>;
  readonly glyphs: Map<string, ReadGlyph>;
  /** Characters by the names of their glyphs. */
  readonly named: Map<string, string>;
  readonly pairs: { readonly first: readonly string[]; readonly second: readonly string[]; readonly by: number }[];
  isBeyond: boolean;
};

/** The first font in a file; what is broken in its markup ends it there. */
export function readSvgFont(markup: string): SvgFontRead {
  const draft: Draft = {
    hasFont: false,
    advance: 0,
    face: new Map(),
    glyphs: new Map(),
    named: new Map(),
    pairs: [],
    isBeyond: false,
  };
  const parser = new SaxesParser({ xmlns: true });
  let isOver = false;
  let depth = 0;
  parser.on('error', () => {
    isOver = true;
  });
  parser.on('opentag', (tag) => {
    if (++depth > LIMITS.markupDepth) isOver = true;
    if (!isOver) takeElement(draft, tag);
  });
  parser.on('closetag', ({ local }) => {
    depth--;
    if (local === 'font' && draft.hasFont) isOver = true;
  });
  for (let at = 0; at < markup.length && !isOver; at += CHUNK) parser.write(markup.slice(at, at + CHUNK));
  if (!draft.hasFont)
    return { sentence: 'The file holds no font: it is a drawing, or something else. Bring it in on the bench.' };
  if (draft.isBeyond)
    return { sentence: `The typeface holds more than ${LIMITS.typefaceGlyphs.toLocaleString('en')} glyphs.` };
  if (draft.glyphs.size === 0) return { sentence: 'The typeface file holds no characters, or is damaged.' };
  return { typeface: faceOf(draft) };
}

const CHUNK = 1 << 16;

function takeElement(draft: Draft, { local, attributes }: SaxesTagNS): void {
  const values = new Map(
    Object.values(attributes as Record<string, SaxesAttributeNS>).map((a) => [a.local, a.value] as const),
  );
  if (local === 'font' && !draft.hasFont) {
    draft.hasFont = true;
    draft.advance = numberIn(values, 'horiz-adv-x', 0);
  } else if (!draft.hasFont) return;
  else if (local === 'font-face') draft.face = values;
  else if (local === 'glyph') takeGlyph(draft, values);
  else if (local === 'hkern' && draft.pairs.length < MOST_PAIRS) {
    const either = (characters: string, glyphs: string) => [
      ...(values.get(characters)?.split(',') ?? []),
      ...(values.get(glyphs)?.split(',') ?? []).flatMap((name) => draft.named.get(name.trim()) ?? []),
    ];
    const by = numberIn(values, 'k', 0);
    if (by !== 0) draft.pairs.push({ first: either('u1', 'g1'), second: either('u2', 'g2'), by });
  }
}

function takeGlyph(draft: Draft, values: ReadonlyMap<string, string>): void {
  const characters = values.get('unicode')?.normalize('NFC');
  const name = values.get('glyph-name');
  // Of forms for the same character the first is meant.
  if (!characters || draft.glyphs.has(characters)) return;
  if (draft.glyphs.size >= LIMITS.typefaceGlyphs) {
    draft.isBeyond = true;
    return;
  }
  const { paths, damaged } = pathOf(values.get('d') ?? '');
  const isBroken = damaged || countSegments(paths) > LIMITS.glyphSegments || !paths.every(isWithin);
  draft.glyphs.set(characters, {
    advance: numberIn(values, 'horiz-adv-x', draft.advance),
    paths: isBroken ? [] : paths,
    isBroken,
  });
  if (name) draft.named.set(name, characters);
}

/** Coordinates beyond this are none of a letter. */
const FARTHEST = 1e6;
const isWithin = ({ segments }: Path): boolean =>
  segments.every((s) => Math.abs(s.x1) < FARTHEST && Math.abs(s.y1) < FARTHEST);

function numberIn(values: ReadonlyMap<string, string>, name: string, otherwise: number): number {
  const value = Number.parseFloat(values.get(name) ?? '');
  return Number.isFinite(value) && Math.abs(value) < FARTHEST ? value : otherwise;
}

function faceOf({ face, glyphs, pairs }: Draft): Typeface {
  const unitsPerEm = Math.max(1, numberIn(face, 'units-per-em', UNITS));
  const slope = numberIn(face, 'slope', 0);
  const drawn = [...glyphs.values()].flatMap(({ paths }) => paths);
  const isSingleStroke = drawn.filter((p) => p.closed).length < drawn.length / 2;
  const kerned = new Map<string, number>();
  for (const { first, second, by } of pairs)
    for (const a of first) for (const b of second) if (kerned.size < MOST_PAIRS) kerned.set(`${a}\n${b}`, by);
  const weight = Number.parseInt(face.get('font-weight') ?? '', 10);
  return glyphFace({
    family: (face.get('font-family') ?? '').trim().slice(0, LIMITS.nameCharacters) || 'Unnamed',
    weight: weight >= 1 && weight <= 1000 ? weight : face.get('font-weight') === 'bold' ? 700 : 400,
    italic: /italic|oblique/.test(face.get('font-style') ?? ''),
    isSingleStroke,
    unitsPerEm,
    ascent: numberIn(face, 'ascent', 0.8 * unitsPerEm),
    descent: -Math.abs(numberIn(face, 'descent', 0.2 * unitsPerEm)),
    slantDeg: Math.abs(slope) <= MOST_SLANT_DEG ? -slope : 0,
    glyphs: isSingleStroke ? glyphs : new Map([...glyphs].map(([c, g]) => [c, { ...g, paths: g.paths.map(closedUp) }])),
    kern: (first, second) => kerned.get(`${first}\n${second}`) ?? 0,
  });
}

/** An outline that was left open, closed by the line that filling it closes it with. */
function closedUp({ segments, closed }: Path): Path {
  const [first, last] = [segments[0], segments.at(-1)];
  if (closed || !first || !last) return { segments, closed: true };
  const isShut = first.x0 === last.x1 && first.y0 === last.y1;
  return { segments: isShut ? segments : [...segments, line(last.x1, last.y1, first.x0, first.y0)], closed: true };
}
