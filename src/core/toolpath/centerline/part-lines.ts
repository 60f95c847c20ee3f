/**
 * The centerline of a part. Lettering is traced letter by letter, before letters are welded, in capital heights: so the same
 * letter has the same lines wherever it stands and however large it is, and joints between letters cannot disturb it. Lines
 * then run on from letter to letter where these touch. Anything else is traced as it stands.
 */

import type { ClipEngine } from '../../geometry/boolean/engine';
import { uniteLabelled } from '../../geometry/boolean/union';
import { alongOnce } from '../../geometry/doubles';
import { numberAt } from '../../geometry/elements';
import { laid } from '../../geometry/lying';
import { nestPaths } from '../../geometry/nesting';
import { type Path, pathLength, regionArea, regionBox, transformPath, transformRegion } from '../../geometry/path';
import {
  applyMatrix,
  boxCentre,
  compose,
  determinant,
  distance,
  type Matrix,
  type Point,
  scaling,
  translation,
} from '../../geometry/point';
import { pathOf } from '../../geometry/read-path-data';
import type { Typeface } from '../../lettering/face';
import { faceOfLetter, type PlacedLetter } from '../../lettering/layout';
import { LIMITS } from '../../limits';
import type { Memory, Stage } from '../../memo';
import type { LetterFrame } from '../../prepare/frames';
import { type Outline, weighPaths } from '../../prepare/outline';
import type { PreparedPart } from '../../prepare/prepared';
import type { Member } from '../../schema/members';
import { axisLines, type Centerline, centerlineOf, penOf, type StrokeDot } from './centerline';
import { bareLength, depthIn, inkedParts } from './ink';
import { type InlineManner, inlineManner, regionsWithin } from './inlines';
import { retraced } from './retrace';
import { withSerifLines } from './serif-lines';
import { serifReach, withoutSerifs } from './serifs';
import { joinLetters } from './tails';
import type { Uneven } from './uneven';

/** Lines of strokes nearer to each other than this are one: in mm, and in widths of the stroke they were traced in. */
const TWICE_MM = 0.002;
const TWICE_WIDTHS = 0.01;

/** Lines of a letter or shape, on the sheet. */
export type LetterLines = {
  readonly key: string;
  /** The characters; empty for a shape. */
  readonly text: string;
  /** The same for letters that look alike; null for what is no letter. */
  readonly alike: string | null;
  /** From capital heights of the letter, or units of the shape, to the sheet. */
  readonly matrix: Matrix;
  readonly paths: readonly Path[];
  readonly dots: readonly StrokeDot[];
  readonly uneven: readonly Uneven[];
  /** The usual width of its strokes in mm. */
  readonly width: number;
  readonly corrected: boolean;
  /** Whether its face has serifs, and whether its letters are drawn around white: then there is a choice. */
  readonly hasSerifs: boolean;
  readonly hasInlines: boolean;
};

/** The middle lines of a part on the sheet: all of them, and letter by letter. */
export type PartLines = {
  /** What is drawn: lines of all letters, joined where asked. */
  readonly paths: readonly Path[];
  readonly dots: readonly StrokeDot[];
  readonly letters: readonly LetterLines[];
  /** Length of the lines in mm. */
  readonly lengthMm: number;
  /** Letters beyond the limit, whose lines were not looked for. */
  readonly untraced: number;
};

/** What tracing needs of the outside: the boolean engine, and where results are kept. */
export type LinesContext = {
  readonly engine: ClipEngine;
  readonly memory: Memory;
};

/** How lines down the middle are to be. */
export type PartCenterlineSettings = {
  /** How far a branch must reach beyond the stroke it comes from, in halves of that. */
  readonly detail: number;
  /** How far lines may stray to be smooth, in mm; null: as is usual. */
  readonly smooth: number | null;
  readonly ends: 'tip' | 'short';
  readonly loops: 'kept' | 'filled';
  /** Whether serifs are strokes, or left out: stems then end where they would without. */
  readonly serifs: 'drawn' | 'left';
  /** Whether letters drawn around a line, or as outlines, are traced as they are, or in the middle of what they are drawn around. */
  readonly inlines: 'drawn' | 'left';
  readonly retraced: 'once' | 'twice';
  /** Whether lines run on from letter to letter. */
  readonly joined: boolean;
  readonly corrections: readonly LineCorrection[];
};

/** Lines drawn by hand for a letter, in its capital heights; for all that look like `alike` where that is not null. */
export type LineCorrection = { readonly letter: string; readonly alike: string | null; readonly d: string };

/** What lines are traced in. */
export type TracedPart = {
  readonly id: string;
  readonly members: readonly Member[];
  /** Whether no step changed letters, so that they can be read one by one. */
  readonly isAsSet: boolean;
};

/** Letters are traced this many units high, so that the grid of booleans is fine enough. */
const UNITS_PER_CAPITAL = 100;
const UNION_TOLERANCE = UNITS_PER_CAPITAL / 4000;
/** Lines are smooth within this share of the stroke where nothing else is asked. */
const USUAL_SMOOTH = 0.01;

/** Letters that tell whether a typeface is drawn with one pen: straight, round, and few joints. */
export const PEN_LETTERS = 'HVonLZ';
/** The letter that tells whether a face has serifs: eight sides of them. */
const SERIF_LETTER = 'H';
/** Letters that have no hole of their own in any face. */
const SOLID_LETTERS = 'HILT';

/** How a face is drawn, as some of its letters tell. */
function mannerOf(face: Typeface, engine: ClipEngine): FaceManner {
  const regionsOfAll = (letters: string) =>
    [...letters].flatMap((character) =>
      face
        .shape(character, 'ltr', { ligatures: false, features: [] })
        .filter((g) => g.glyph > 0)
        .flatMap(({ glyph }) =>
          cleanRegions(transformRegion(face.outline(glyph), scaling(UNITS_PER_CAPITAL / face.capHeight)), engine),
        ),
    );
  const serifs = serifReach(regionsOfAll(SERIF_LETTER), UNITS_PER_CAPITAL);
  const bare = (region: readonly Path[]) =>
    serifs === null ? region : withoutSerifs(region, serifs, UNITS_PER_CAPITAL).region;
  const inlines = inlineManner([...SOLID_LETTERS].map(regionsOfAll));
  return { pen: penOf(regionsOfAll(PEN_LETTERS).map(bare)), serifs, inlines };
}

const NOTHING: Centerline = { paths: [], dots: [], uneven: [], width: 0 };

/** Regions that hang together, each an outline with its holes. */
function connected(paths: readonly Path[], parent: readonly number[], depth: readonly number[]): Path[][] {
  return paths.flatMap((path, i) =>
    numberAt(depth, i) % 2 === 0 ? [[path, ...paths.filter((_, k) => parent[k] === i)]] : [],
  );
}

/** What is known of a face that its letters are traced by, in units of which its capitals are 100 high. */
type FaceManner = {
  /** Half the width of the pen it is drawn with; null where it is not one pen. */
  readonly pen: number | null;
  /** How far its serifs stand out at most; null where it has none. */
  readonly serifs: number | null;
  /** How its letters are drawn around white; null where they are solid. */
  readonly inlines: InlineManner | null;
};
const PLAIN_MANNER = { serifs: null, inlines: null };

/** The centerline of a connected region, its serifs as asked, if that can be. */
function tracedRegion(
  region: readonly Path[],
  step: PartCenterlineSettings,
  smooth: number | null,
  { pen, serifs }: FaceManner,
  rest: Point | null,
): Centerline {
  const { detail, ends } = step;
  const settings = { detail, smooth: USUAL_SMOOTH, tolerance: smooth, ends, pen, rest };
  const bare = serifs === null ? null : withoutSerifs(region, serifs, UNITS_PER_CAPITAL);
  const plain = centerlineOf(bare?.region ?? region, settings);
  if (!bare || bare.serifs.length === 0 || step.serifs === 'left') return plain;
  const paths = withSerifLines(plain.paths, bare.serifs, plain.width, ends === 'short');
  const { width } = plain;
  const ink = { room: depthIn(laid(region, UNION_TOLERANCE), width), bare: BARE * width, width };
  const out = bareLength(paths, ink);
  // Where the strokes of serifs do not fit, they are drawn as they come.
  return out < OUT * width ? { ...plain, paths: inkedParts(paths, ink, 0) } : centerlineOf(region, settings);
}
/** In usual strokes: lines of serifs may lie beside the ink by this, and so much of them over bare stock. */
const BARE = 0.003;
const OUT = 0.3;

function traceAll(
  regions: readonly (readonly Path[])[],
  step: PartCenterlineSettings,
  smooth: number | null,
  manner: FaceManner,
  isDotted: boolean,
): Centerline {
  const { inlines } = manner;
  const outer = step.inlines === 'left' && inlines !== null ? regionsWithin(regions, inlines) : regions;
  const shapes = step.loops === 'filled' ? outer.map(withoutSmallHoles) : outer;
  // What is drawn around has no pen and no serifs of its own.
  const own = outer === regions ? manner : { ...manner, ...PLAIN_MANNER, pen: null };
  const rests = isDotted ? shapes.map(() => null) : shapes.map((_, i) => nearestOther(shapes, i));
  const made = shapes.map((region, i) => tracedRegion(region, step, smooth, own, rests[i] ?? null));
  const largest = made.reduce((best, one) => (one.width > best.width ? one : best), NOTHING);
  return {
    paths: made.flatMap((m) => {
      const once = alongOnce(m.paths, TWICE_WIDTHS * m.width);
      return step.retraced === 'twice' ? retraced(once, m.width) : once;
    }),
    dots: made.flatMap((m) => m.dots),
    uneven: made.flatMap((m) => m.uneven),
    width: largest.width,
  };
}

/** The middle of the region nearest to one of some; null for a single one. */
function nearestOther(regions: readonly (readonly Path[])[], i: number): Point | null {
  const middles = regions.map((region) => boxCentre(regionBox(region)));
  const own = middles[i] as Point;
  return middles.reduce<Point | null>((best, p, k) => {
    if (k === i) return best;
    return best && distance(best, own) <= distance(p, own) ? best : p;
  }, null);
}

/** Letters and figures of scripts whose letters have no dots of their own, and those of them that do. */
const PLAIN = /^[\p{Script=Latin}\p{Script=Greek}\p{Script=Cyrillic}\p{Nd}]+$/u;
const DOTTED = /[ijĳіјϳ]/;
/** Whether a square piece of what is written may be a dot: of all but plain letters and figures, marks told apart from them. */
function mayHaveDots(text: string): boolean {
  const told = text.normalize('NFD').toLowerCase();
  return !PLAIN.test(told) || DOTTED.test(told);
}

/** A region without the holes that are narrower than half its strokes. */
function withoutSmallHoles(region: readonly Path[]): readonly Path[] {
  const width = meanWidth(region);
  return region.filter((path, i) => i === 0 || meanWidth([path]) > SMALL_LOOP * width);
}
const SMALL_LOOP = 0.5;

const meanWidth = (paths: readonly Path[]): number =>
  (2 * Math.abs(regionArea(paths))) / paths.reduce((sum, p) => sum + pathLength(p), 0);

/** The lines drawn by hand that stand for a letter: its own, else those of letters that look like it. */
export const correctionOf = <C extends LineCorrection>(
  step: { readonly corrections: readonly C[] } | undefined,
  { key, alike }: Pick<LetterFrame, 'key' | 'alike'>,
): C | undefined =>
  step?.corrections.find((c) => c.letter === key && c.alike === null) ??
  step?.corrections.find((c) => c.alike !== null && c.alike === alike);

const scaleOf = (m: Matrix): number => Math.sqrt(Math.abs(determinant(m)));

function placedLine(
  traced: Centerline,
  {
    frame,
    text,
    units,
    step,
  }: {
    readonly frame: Pick<LetterFrame, 'key' | 'alike' | 'matrix'>;
    readonly text: string;
    readonly units: number;
    readonly step: PartCenterlineSettings;
  },
): LetterLines {
  const { key, alike, matrix } = frame;
  const correction = correctionOf(step, frame);
  const toSheet = compose(scaling(1 / units), matrix);
  const k = scaleOf(toSheet);
  return {
    key,
    text,
    alike,
    matrix,
    paths: correction
      ? pathOf(correction.d).paths.map((p) => transformPath(p, matrix))
      : traced.paths.map((p) => transformPath(p, toSheet)),
    dots: traced.dots.map((d) => ({ ...applyMatrix(toSheet, d), r: d.r * k })),
    uneven: correction ? [] : traced.uneven.map((u) => ({ ...u, ...applyMatrix(toSheet, u), r: u.r * k })),
    width: traced.width * k,
    corrected: correction !== undefined,
    hasSerifs: false,
    hasInlines: false,
  };
}

/** A letter as its face draws it, its parts where joining put them, in units of which its capitals are 100 high: clean regions that hang together. */
function letterRegions(letter: PlacedLetter, face: Typeface, engine: ClipEngine): Path[][] {
  const toUnits = scaling(UNITS_PER_CAPITAL / face.capHeight);
  const lowered = letter.drawn?.lowered;
  const outlines = lowered
    ? transformRegion(lowered.paths, toUnits)
    : letter.glyphs.flatMap((g) => transformRegion(face.outline(g.glyph), compose(translation(g.x, g.y), toUnits)));
  return cleanRegions(outlines, engine);
}

function cleanRegions(outlines: readonly Path[], engine: ClipEngine): Path[][] {
  const clean = uniteLabelled(engine, [outlines], UNION_TOLERANCE).map((o) => o.path);
  const { parent, depth } = nestPaths(clean);
  return connected(clean, parent, depth);
}

/** The bare axis of a letter, or of a whole shape, on the sheet. */
export function letterMiddle(part: TracedPart, prepared: PreparedPart, key: string, context: LinesContext): Path[] {
  const at = prepared.frames.findIndex((f) => f.key === key);
  const frame = prepared.frames[at];
  if (!isBareLettering(part, prepared) || !frame) return regionsOf(prepared).flatMap(axisLines);
  let index = at;
  for (const [i, member] of part.members.entries()) {
    const layout = prepared.members[i]?.layout;
    if (member.kind !== 'lettering' || !layout) continue;
    const letter = layout.letters[index];
    if (!letter) {
      index -= layout.letters.length;
      continue;
    }
    const regions = letterRegions(letter, faceOfLetter(layout, letter), context.engine);
    const toSheet = compose(scaling(1 / UNITS_PER_CAPITAL), frame.matrix);
    return regions.flatMap(axisLines).map((p) => transformPath(p, toSheet));
  }
  return [];
}

const regionsOf = (prepared: PreparedPart): Path[][] =>
  connected(
    prepared.solid.map((o: Outline) => o.path),
    prepared.solid.map((o) => o.parent),
    prepared.solid.map((o) => o.depth),
  );

/** Whether a part is words as they are set, so that letters can be traced one by one. */
const isBareLettering = (part: TracedPart, prepared: PreparedPart): boolean =>
  part.isAsSet && prepared.handMade === null && part.members.every((m) => m.kind === 'lettering' && m.role === 'join');

type TracedInput = {
  readonly letter: PlacedLetter;
  /** What letters look like that have the same lines. */
  readonly alike: string | null;
  readonly face: Typeface;
  readonly step: PartCenterlineSettings;
  readonly smooth: number | null;
  readonly manner: FaceManner;
  readonly engine: ClipEngine;
};

/** The centerline of a letter in capital heights, by what it looks like and the settings. */
const TRACED: Stage<TracedInput, Centerline> = {
  name: 'traced letter',
  key: ({ letter, face, alike, step, smooth }, idOf) => {
    const { detail, ends, loops, serifs, inlines, retraced: twice } = step;
    // The same glyph may stand for a colon, whose squares are dots, and for a letter.
    const isDotted = mayHaveDots(letter.text);
    return JSON.stringify([
      idOf(face),
      alike,
      isDotted,
      ...[detail, ends, loops, serifs, inlines, twice],
      smooth?.toPrecision(6),
    ]);
  },
  run: ({ letter, face, engine, step, smooth, manner }) =>
    traceAll(letterRegions(letter, face, engine), step, smooth, manner, mayHaveDots(letter.text)),
  weigh: ({ paths: lines }) => weighPaths(lines),
};

/** The centerline of a prepared part. */
export function partLines(
  part: TracedPart,
  prepared: PreparedPart,
  step: PartCenterlineSettings,
  context: LinesContext,
): PartLines {
  const letters: LetterLines[] = [];
  let untraced = 0;
  if (isBareLettering(part, prepared)) {
    let index = 0;
    part.members.forEach((member, i) => {
      const layout = prepared.members[i]?.layout;
      if (member.kind !== 'lettering' || !layout) return;
      for (const letter of layout.letters) {
        const frame = prepared.frames[index++] as LetterFrame;
        const face = faceOfLetter(layout, letter);
        if (face.isSingleStroke) continue;
        const manner = context.memory.of(face, 'manner', () => mannerOf(face, context.engine));
        if (letters.length >= LIMITS.lettersTraced) {
          untraced++;
          continue;
        }
        const perUnit = scaleOf(frame.matrix) / UNITS_PER_CAPITAL;
        const smooth = step.smooth === null ? null : step.smooth / perUnit;
        const { alike } = frame;
        const { engine } = context;
        const traced = context.memory.get(TRACED, { letter, alike, face, step, smooth, manner, engine });
        const has = { hasSerifs: manner.serifs !== null, hasInlines: manner.inlines !== null };
        letters.push({ ...placedLine(traced, { frame, text: letter.text, units: UNITS_PER_CAPITAL, step }), ...has });
      }
    });
  } else if (prepared.outlines.length > 0) {
    const frame = {
      key: prepared.frames[0]?.key ?? part.id,
      alike: null,
      matrix: prepared.frames[0]?.matrix ?? scaling(1),
    };
    const regions = regionsOf(prepared);
    untraced = Math.max(0, regions.length - LIMITS.lettersTraced);
    const manner = { pen: penOf(regions), ...PLAIN_MANNER };
    const traced = traceAll(regions.slice(0, LIMITS.lettersTraced), step, step.smooth, manner, true);
    letters.push({ ...placedLine(NOTHING, { frame, text: '', units: 1, step }), ...wholeOf(traced, frame, step) });
  }
  const ink = () => context.memory.of(prepared, 'ink', () => laid(prepared.outlines.map((o) => o.path)));
  const drawn = step.joined ? joinLetters(letters, ink) : letters.flatMap((l) => l.paths);
  // Letters that lie on each other have strokes in common.
  const lines = step.retraced === 'once' ? alongOnce(drawn, TWICE_MM) : drawn;
  const lengthMm = lines.reduce((sum, path) => sum + pathLength(path), 0);
  return { paths: lines, dots: letters.flatMap((l) => l.dots), letters, lengthMm, untraced };
}

/** Lines of a whole part are on the sheet already. */
function wholeOf(
  traced: Centerline,
  frame: Pick<LetterFrame, 'key' | 'alike'>,
  step: PartCenterlineSettings,
): Partial<LetterLines> {
  return correctionOf(step, frame)
    ? { dots: traced.dots, width: traced.width }
    : { paths: traced.paths, dots: traced.dots, uneven: traced.uneven, width: traced.width };
}

/** The middle lines of a part that is moved, turned or mirrored. */
export function transformLines(made: PartLines, m: Matrix): PartLines {
  const move = <T extends Point>(p: T): T => ({ ...p, ...applyMatrix(m, p) });
  const paths = (list: readonly Path[]): Path[] => list.map((p) => transformPath(p, m));
  return {
    ...made,
    paths: paths(made.paths),
    dots: made.dots.map(move),
    letters: made.letters.map((l) => ({
      ...l,
      matrix: compose(l.matrix, m),
      paths: paths(l.paths),
      dots: l.dots.map(move),
      uneven: l.uneven.map(move),
    })),
  };
}
