/**
 * A prepared part in another place: moved, turned, mirrored. Nothing is computed anew but bounds, which a turn changes.
 */
import { type Path, regionBox, transformPath } from '../geometry/path';
import { applyMatrix, type Box, compose, isIdentity, type Matrix, transformedBox, uniteBoxes } from '../geometry/point';
import { boundsOf, type Outline, transformOutlines } from './outline';
import type { PreparedPart } from './part';

/**
 * The part after a matrix that moves, turns or mirrors; the part itself when that does nothing. Places that are set by hand keep
 * the part's own coordinates: the middle and direction of a tie, and the bounds of the piece these count from.
 */
export function transformPart(part: PreparedPart, m: Matrix): PreparedPart {
  if (isIdentity(m)) return part;
  // Lists, and outlines, that are one and the same stay so.
  const known = new Map<Outline, Outline>();
  const one = (outline: Outline): Outline => {
    let moved = known.get(outline);
    if (!moved) {
      moved = transformOutlines([outline], m)[0] as Outline;
      known.set(outline, moved);
    }
    return moved;
  };
  const lists = new Map<readonly Outline[], readonly Outline[]>();
  const outlines = (list: readonly Outline[]): readonly Outline[] => {
    let moved = lists.get(list);
    if (!moved) {
      moved = list.map(one);
      lists.set(list, moved);
    }
    return moved;
  };
  const paths = (list: readonly Path[]): Path[] => list.map((path) => transformPath(path, m));
  const { notes } = part;
  const [solid, kept, lines] = [outlines(part.solid), outlines(part.kept), paths(part.lines)];
  const boxOf = (shape: readonly Outline[], open: readonly Path[]): Box => uniteBoxes(boundsOf(shape), regionBox(open));
  return {
    ...part,
    matrix: compose(part.matrix, m),
    solid,
    bare: outlines(part.bare),
    frames: part.frames.map((frame) => ({ ...frame, matrix: compose(frame.matrix, m) })),
    outlines: outlines(part.outlines),
    kept,
    handMade: part.handMade && {
      ...part.handMade,
      under: outlines(part.handMade.under),
      underLines: paths(part.handMade.underLines),
    },
    lines,
    members: part.members.map((member) => {
      const own = { outlines: outlines(member.outlines), lines: paths(member.lines) };
      return {
        ...member,
        ...own,
        matrix: compose(member.matrix, m),
        box: boxOf(own.outlines, own.lines),
        unclosed: paths(member.unclosed),
      };
    }),
    pieces: part.pieces.map((piece) => ({ ...piece, box: kept[piece.outline]?.box ?? transformedBox(piece.box, m) })),
    box: boxOf(solid, lines),
    notes: {
      ...notes,
      heldOpen: notes.heldOpen.map((held) => ({ ...held, hole: one(held.hole) })),
      ties: notes.ties.map((tie) => ({ ...tie, path: transformPath(tie.path, m) })),
      untied: notes.untied && {
        ...notes.untied,
        // They lie in the shape before; of these only bounds are known.
        pieces: notes.untied.pieces.map((piece) => ({ ...piece, box: transformedBox(piece.box, m) })),
      },
      bridged: notes.bridged && {
        ...notes.bridged,
        before: outlines(notes.bridged.before),
        bridges: notes.bridged.bridges.map((bridge) => ({
          ...bridge,
          from: applyMatrix(m, bridge.from),
          to: applyMatrix(m, bridge.to),
        })),
        islands: notes.bridged.islands.map((island) => ({ ...island, outline: one(island.outline) })),
        hairs: notes.bridged.hairs.map((hair) => ({ ...hair, at: applyMatrix(m, hair.at) })),
      },
    },
  };
}
