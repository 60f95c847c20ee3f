/**
 * Ties: what is loose is joined to its nearest neighbour by a short strip, or moved or enlarged until it touches, or left
 * as a piece of its own, as the step says for each.
 */

import { numberAt } from '../geometry/elements';
import { rowsOfPolygons } from '../geometry/ink-rows';
import { type Path, transformPath } from '../geometry/path';
import {
  applyMatrix,
  type Box,
  boxCentre,
  boxHeight,
  boxWidth,
  compose,
  type Matrix,
  type Point,
  rotation,
  scaling,
  translation,
  turnWith,
} from '../geometry/point';
import { closingMove } from '../lettering/close-up';
import { LIMITS } from '../limits';
import { closestPoints, type PieceLink, type PieceShape, pieceShape, pieceShapes, shortestLinks } from './links';
import type { Outline } from './outline';
import { type Piece, pieceKeys } from './pieces';
import { roundedRectangle } from './shape';
import type { Source } from './source';
import { bestStrip } from './strip';

/** How one piece is treated: by its key. */
export type PieceAnswer = {
  readonly piece: string;
  readonly how: 'tie' | 'move' | 'grow' | 'leave';
  /** Middle of a tie placed by hand, from the middle of the piece, in shares of its size; null: where it is best. */
  readonly x: number | null;
  readonly y: number | null;
  /** In degrees; null: as is best. */
  readonly turn: number | null;
};

/** Lengths in mm. */
export type TieSettings = {
  readonly width: number;
  readonly overlap: number;
  readonly ends: 'square' | 'round';
  readonly direction: 'any' | 'upright' | 'level';
  readonly answers: readonly PieceAnswer[];
};

/** A tie as it was placed. */
export type Tie = {
  /** Key of the loose piece it holds. */
  readonly piece: string;
  readonly path: Path;
  /** Its middle and direction, in the part's own coordinates, which places by hand are kept in. */
  readonly centre: Point;
  readonly angleDeg: number;
  readonly length: number;
  readonly width: number;
  /** Bounds of the piece it holds, in the same coordinates, which places by hand are relative to. */
  readonly pieceBox: Box;
  readonly byHand: boolean;
};

/** Ties that were put in, pieces that were moved, and those that could not be tied. */
export type Tied = {
  /** Keys of all pieces, in their order. */
  readonly keys: readonly string[];
  readonly ties: readonly Tie[];
  /** Where the outlines of moved and enlarged pieces go, by index of the outline. */
  readonly moved: ReadonlyMap<number, Matrix>;
  /** Keys of the pieces that stay loose on purpose. */
  readonly untied: readonly string[];
  /** Pieces there are more of than can be tied; none is. */
  readonly tooMany: number;
};

const NOTHING: Omit<Tied, 'keys'> = { ties: [], moved: new Map(), untied: [], tooMany: 0 };
const AS_IT_IS: Omit<PieceAnswer, 'piece'> = { how: 'tie', x: null, y: null, turn: null };

/** What holds the pieces of a clean shape together; the first piece is the one the others are joined to. */
export function tiesFor(
  outlines: readonly Outline[],
  pieces: readonly Piece[],
  sources: readonly Source[],
  step: TieSettings,
): Tied {
  const keys = pieceKeys(pieces, sources);
  const answerOf = (i: number) => step.answers.find((a) => a.piece === keys[i]) ?? AS_IT_IS;
  const joined = pieces.flatMap((_, i) => (i === 0 || answerOf(i).how !== 'leave' ? [i] : []));
  const untied = pieces.flatMap((_, i) => (joined.includes(i) ? [] : [keys[i] as string]));
  if (joined.length < 2) return { ...NOTHING, keys, untied: untied };
  if (joined.length > LIMITS.piecesTied) return { ...NOTHING, keys, untied: untied, tooMany: joined.length };
  const shapes = pieceShapes(
    outlines,
    joined.map((i) => pieces[i] as Piece),
  );
  const ties: Tie[] = [];
  const moved = new Map<number, Matrix>();
  // A piece that is moved takes along what was joined to it before: links are made from the first piece outwards.
  const motion = new Map<number, Matrix>();
  for (const link of shortestLinks(shapes)) {
    const index = numberAt(joined, link.piece);
    const answer = answerOf(index);
    const carried = motion.get(link.to);
    const target = carried ? movedShape(shapes[link.to] as PieceShape, carried) : (shapes[link.to] as PieceShape);
    const here = [...shapes];
    here[link.to] = target;
    const now: PieceLink = carried ? linkBetween(here, link) : link;
    if (answer.how === 'tie') {
      ties.push(tieAlong(here, { link: now, piece: keys[index] as string, answer, step }));
      continue;
    }
    const matrix = answer.how === 'move' ? touching(here, now, step.overlap) : grownToTouch(here, now, step.overlap);
    motion.set(link.piece, matrix);
    for (const i of outlinesOf(outlines, (shapes[link.piece] as PieceShape).piece)) moved.set(i, matrix);
  }
  return { keys, ties, moved, untied: untied, tooMany: 0 };
}

const outlinesOf = (outlines: readonly Outline[], piece: Piece): number[] =>
  outlines.flatMap((o, i) => (i === piece.outline || (o.parent === piece.outline && o.depth % 2 === 1) ? [i] : []));

function movedShape(shape: PieceShape, m: Matrix): PieceShape {
  const polygons = shape.polygons.map((polygon) => polygon.map((p) => applyMatrix(m, p)));
  const xs = polygons.flatMap((polygon) => polygon.map((p) => p.x));
  const ys = polygons.flatMap((polygon) => polygon.map((p) => p.y));
  const least = (values: readonly number[]) => values.reduce((a, b) => Math.min(a, b), Infinity);
  const most = (values: readonly number[]) => values.reduce((a, b) => Math.max(a, b), -Infinity);
  return pieceShape(shape.piece, polygons, { minX: least(xs), minY: least(ys), maxX: most(xs), maxY: most(ys) });
}

function linkBetween(shapes: readonly PieceShape[], link: PieceLink): PieceLink {
  const { from, at } = closestPoints(shapes[link.piece] as PieceShape, shapes[link.to] as PieceShape);
  return { ...link, from, at };
}

function tieAlong(
  shapes: readonly PieceShape[],
  {
    link,
    piece,
    answer,
    step,
  }: {
    readonly link: PieceLink;
    readonly piece: string;
    readonly answer: Omit<PieceAnswer, 'piece'>;
    readonly step: TieSettings;
  },
): Tie {
  const { box } = shapes[link.piece] as PieceShape;
  const byHand = answer.x !== null && answer.y !== null;
  const size = pieceSize(box);
  const middle = boxCentre(box);
  const strip = bestStrip(shapes, link, {
    widthMm: step.width,
    overlapMm: step.overlap,
    direction: step.direction,
    at: byHand ? { x: middle.x + (answer.x ?? 0) * size, y: middle.y + (answer.y ?? 0) * size } : null,
    turnDeg: answer.turn,
  });
  const corner = step.ends === 'round' ? Math.min(strip.width / 2, Math.max(strip.overlap, 0)) : 0;
  const path = transformPath(
    roundedRectangle(strip.length, strip.width, corner),
    compose(rotation(strip.angleDeg), translation(strip.centre.x, strip.centre.y)),
  );
  return {
    piece,
    path,
    centre: strip.centre,
    angleDeg: strip.angleDeg,
    length: strip.length,
    width: strip.width,
    pieceBox: box,
    byHand: byHand || answer.turn !== null,
  };
}

/** Where the middle of a tie lies, and which way it runs, in degrees, after the matrix of its part. */
export function tieOnSheet({ centre, angleDeg }: Pick<Tie, 'centre' | 'angleDeg'>, m: Matrix) {
  const angle = (angleDeg * Math.PI) / 180;
  const way = turnWith(m, { x: Math.cos(angle), y: Math.sin(angle) });
  return { centre: applyMatrix(m, centre), angleDeg: (Math.atan2(way.y, way.x) * 180) / Math.PI };
}

/** The size that places by hand are shares of. */
export const pieceSize = (box: Box): number => Math.max(boxWidth(box), boxHeight(box), 1e-3);

/** Rows per overlap asked, for moving pieces until they touch. */
const ROWS_PER_OVERLAP = 24;

/** The move along the shortest way after which the piece is joined as strongly as asked. */
function touching(shapes: readonly PieceShape[], link: PieceLink, overlap: number): Matrix {
  const dx = link.at.x - link.from.x;
  const dy = link.at.y - link.from.y;
  const distance = Math.hypot(dx, dy);
  const angle = (Math.atan2(-dy, -dx) * 180) / Math.PI;
  const turn = rotation(-angle);
  const rows = (shape: PieceShape) => {
    const reach = 12 * overlap + 2 * distance;
    const level = applyMatrix(turn, link.at).y;
    return rowsOfPolygons(
      shape.polygons.map((polygon) => polygon.map((p) => applyMatrix(turn, p))),
      overlap / ROWS_PER_OVERLAP,
      [level - reach, level + reach],
    );
  };
  const closing = closingMove(rows(shapes[link.to] as PieceShape), rows(shapes[link.piece] as PieceShape), {
    wanted: overlap,
    farthest: Infinity,
    step: overlap / ROWS_PER_OVERLAP,
  });
  const by = closing?.move ?? distance + overlap;
  return distance === 0 ? translation(0, 0) : translation((dx / distance) * by, (dy / distance) * by);
}

/** The enlargement about the piece's middle after which it reaches over the gap and the overlap. */
function grownToTouch(shapes: readonly PieceShape[], link: PieceLink, overlap: number): Matrix {
  const shape = shapes[link.piece] as PieceShape;
  const target = shapes[link.to] as PieceShape;
  const middle = boxCentre(shape.box);
  const about = (k: number): Matrix =>
    compose(compose(translation(-middle.x, -middle.y), scaling(k)), translation(middle.x, middle.y));
  // The gap left after growing falls as the piece grows; how far it must fall is known, so that it is found by halving.
  const reach = Math.hypot(link.from.x - middle.x, link.from.y - middle.y);
  let lo = 1;
  let hi = 1 + 2 * ((Math.hypot(link.at.x - link.from.x, link.at.y - link.from.y) + overlap) / Math.max(reach, 1e-3));
  for (let k = 0; k < 24; k++) {
    const mid = (lo + hi) / 2;
    if (closestPoints(movedShape(shape, about(mid)), target).distance > 1e-2) lo = mid;
    else hi = mid;
  }
  return about(hi * (1 + overlap / Math.max(reach, overlap)));
}
