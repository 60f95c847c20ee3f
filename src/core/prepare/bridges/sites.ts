/** What bridges that start on an outline are looked for in, and what they are measured by. */
import {
  boxCentre,
  boxHeight,
  boxWidth,
  determinant,
  invert,
  type Matrix,
  type Point,
  turnWith,
} from '../../geometry/point';
import { type Evidence, inkUnder } from '../../lettering/evidence';
import type { LetterFrame } from '../frames';
import type { Outline } from '../outline';
import type { Standard } from './cost';
import { VoidEdges } from './edges';
import { halfExtent } from './islands';
import type { BridgeSetting } from './notes';
import { flareOf } from './rewire';
import type { Site } from './search';
import type { Landing } from './span';

/** The least width of a bridge where no least safe width is given. */
const LEAST_MM = 1;
/** Chords stray from the curves by up to this. */
export const CHORD_MM = 0.01;
/** What turns within this share of a bridge's width is a corner. */
const CORNER = 0.25;

/** The frame of what is no letter. */
export const NO_FRAME: LetterFrame = {
  key: '',
  alike: null,
  line: '',
  matrix: { a: 1, b: 0, c: 0, d: 1, e: 0, f: 0 },
  slantDeg: 0,
  glyphs: null,
};

/** What makes a letter itself, about the middle of its outlines. */
export type LetterEvidence = { readonly evidence: Evidence; readonly middle: number };

/** What a span is to be asked about what it takes of a letter. */
type Strip = { readonly from: Pick<Landing, 'middle'>; readonly to: Pick<Landing, 'middle'>; readonly width: number };

/** Tells the share of what makes a letter itself that a span takes; `matrix` is that of the letter's frame. */
export function evidenceUnder({ evidence, middle }: LetterEvidence, matrix: Matrix): (strip: Strip) => number {
  const back = invert(matrix);
  const scale = Math.sqrt(Math.abs(determinant(back)));
  const own = (p: Point): Point => ({
    x: back.a * p.x + back.c * p.y + back.e - middle,
    y: back.b * p.x + back.d * p.y + back.f,
  });
  return ({ from, to, width }) => inkUnder(evidence, own(from.middle), own(to.middle), width * scale);
}

/** The narrowest a bridge is made. */
export const leastBridge = (width: number, leastMm: number | null): number => leastMm ?? Math.min(width, LEAST_MM);

/** The edges that bridges of a width are looked for in. */
export const edgesFor = (shape: readonly Outline[], { stockInside, rims }: BridgeSetting, width: number): VoidEdges =>
  new VoidEdges([...shape.map((o) => o.path), ...rims], !stockInside, CHORD_MM, CORNER * width);

/** No bridge is longer than the void is across, in mm. */
export function longestAcross(shape: readonly Outline[], outline: number): number {
  const { box } = outlineAround(shape, outline);
  return Math.hypot(boxWidth(box), boxHeight(box));
}

const outlineAround = (shape: readonly Outline[], outline: number): Outline => {
  const o = shape[outline] as Outline;
  return o.parent < 0 ? o : (shape[o.parent] as Outline);
};

/** What bridges of a width that start on an outline are measured by; `usual` is the usual way across from there. */
export function siteOn(
  shape: readonly Outline[],
  { step, frames, leastMm, stockInside }: BridgeSetting,
  {
    outline,
    label,
    width,
    usual,
    evidence,
  }: {
    readonly outline: number;
    readonly label: number;
    readonly width: number;
    readonly usual: number;
    /** What makes the letter itself; null where that does not count, or there is no letter. */
    readonly evidence: LetterEvidence | null;
  },
): Site {
  const o = shape[outline] as Outline;
  const asked = Math.max(step.width, leastMm ?? 0);
  const { matrix, slantDeg } = frames[label] ?? NO_FRAME;
  const lean = step.slanted ? Math.tan((slantDeg * Math.PI) / 180) : 0;
  const flare = flareOf({ shape: step.sides, joints: step.joints }, width, usual);
  const islandDepth = stockInside ? 0 : 1;
  const standard: Standard = {
    // A hairline is as good as half a bridge's width; nothing is gained by less.
    usual: Math.max(usual, 0.5 * asked),
    behind: Math.max(width, leastBridge(asked, leastMm)),
    middle: boxCentre(o.box),
    reach: Math.max(1e-3, halfExtent(o)),
    up: turnWith(matrix, { x: lean, y: 1 }),
    along: turnWith(matrix, { x: 1, y: 0 }),
    direction: step.direction,
    evidence: evidence && evidenceUnder(evidence, matrix),
    isIsland: (i) => {
      const other = shape[i];
      return other !== undefined && other.parent >= 0 && other.depth % 2 === islandDepth;
    },
  };
  const longest = longestAcross(shape, outline);
  return { island: outline, standard, width: width + 2 * flare, waist: width, landings: shape.length, longest };
}
