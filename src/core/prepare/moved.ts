/** A prepared part, and what was found about it, in another place: nothing is computed anew. */
import { transformPath } from '../geometry/path';
import { type Box, compose, isEmptyBox, type Matrix, type Point, translation } from '../geometry/point';
import { type Outline, transformOutlines } from './outline';
import type { PreparedPart } from './part';

/** The part moved by (dx, dy) mm; the part itself when that is nothing. */
export function movedPart(part: PreparedPart, dx: number, dy: number): PreparedPart {
  if (dx === 0 && dy === 0) return part;
  const m = translation(dx, dy);
  // Lists that are one and the same stay so.
  const lists = new Map<readonly Outline[], readonly Outline[]>();
  const outlines = (list: readonly Outline[]): readonly Outline[] => {
    let moved = lists.get(list);
    if (!moved) {
      moved = transformOutlines(list, m);
      lists.set(list, moved);
    }
    return moved;
  };
  const box = (b: Box): Box => movedBox(b, dx, dy);
  const { notes } = part;
  return {
    ...part,
    solid: outlines(part.solid),
    bare: outlines(part.bare),
    frames: part.frames.map((frame) => ({ ...frame, matrix: movedMatrix(frame.matrix, m) })),
    outlines: outlines(part.outlines),
    kept: outlines(part.kept),
    handMade: part.handMade && {
      ...part.handMade,
      under: outlines(part.handMade.under),
      underLines: part.handMade.underLines.map((path) => transformPath(path, m)),
    },
    lines: part.lines.map((path) => transformPath(path, m)),
    members: part.members.map((member) => ({
      ...member,
      matrix: movedMatrix(member.matrix, m),
      box: box(member.box),
      outlines: outlines(member.outlines),
      lines: member.lines.map((path) => transformPath(path, m)),
      unclosed: member.unclosed.map((path) => transformPath(path, m)),
    })),
    pieces: part.pieces.map((piece) => ({ ...piece, box: box(piece.box) })),
    box: box(part.box),
    notes: {
      ...notes,
      heldOpen: notes.heldOpen.map((held) => ({ ...held, hole: outlines([held.hole])[0] as Outline })),
      ties: notes.ties.map((tie) => ({
        ...tie,
        path: transformPath(tie.path, m),
        centre: movedPoint(tie.centre, dx, dy),
        pieceBox: box(tie.pieceBox),
      })),
      untied: notes.untied && {
        ...notes.untied,
        pieces: notes.untied.pieces.map((piece) => ({ ...piece, box: box(piece.box) })),
      },
      bridged: notes.bridged && {
        ...notes.bridged,
        before: outlines(notes.bridged.before),
        bridges: notes.bridged.bridges.map((bridge) => ({
          ...bridge,
          from: movedPoint(bridge.from, dx, dy),
          to: movedPoint(bridge.to, dx, dy),
        })),
        islands: notes.bridged.islands.map((island) => ({
          ...island,
          outline: outlines([island.outline])[0] as Outline,
        })),
        hairs: notes.bridged.hairs.map((hair) => ({ ...hair, at: movedPoint(hair.at, dx, dy) })),
      },
    },
  };
}

const movedMatrix = (matrix: Matrix, by: Matrix): Matrix => compose(matrix, by);

export const movedPoint = (p: Point, dx: number, dy: number): Point => ({ x: p.x + dx, y: p.y + dy });

export const movedBox = (b: Box, dx: number, dy: number): Box =>
  isEmptyBox(b) ? b : { minX: b.minX + dx, minY: b.minY + dy, maxX: b.maxX + dx, maxY: b.maxY + dy };
