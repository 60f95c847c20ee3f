/**
 * A prepared part in another place: moved, turned, mirrored. Nothing is computed anew but bounds, which a turn changes; and
 * what few ask for is moved when it is asked for.
 */
import { type Path, regionBox } from '../geometry/path';
import { applyMatrix, type Box, compose, isIdentity, type Matrix, transformedBox, uniteBoxes } from '../geometry/point';
import { once } from '../memo';
import type { BridgeNotes } from './bridges/notes';
import { Mover } from './mover';
import { boundsOf, type Outline } from './outline';
import type { PreparedMember, PreparedPart } from './prepared';

/** The part, called `id`, after a matrix that moves, turns or mirrors. */
export function transformPart(part: PreparedPart, m: Matrix, id: string = part.id): PreparedPart {
  if (isIdentity(m)) return part.id === id ? part : { ...part, id };
  return new MovedPart(part, new Mover(m), id);
}

class MovedMember implements PreparedMember {
  readonly id: string;
  readonly matrix: Matrix;
  readonly ownBox: Box;
  readonly layout: PreparedMember['layout'];
  readonly shift: PreparedMember['shift'];
  readonly lacks: PreparedMember['lacks'];
  readonly missing: PreparedMember['missing'];
  readonly broken: PreparedMember['broken'];
  readonly copied: PreparedMember['copied'];
  readonly closing: PreparedMember['closing'];
  readonly traced: PreparedMember['traced'];
  readonly trouble: PreparedMember['trouble'];

  constructor(
    private readonly member: PreparedMember,
    private readonly mover: Mover,
  ) {
    this.id = member.id;
    this.matrix = compose(member.matrix, mover.matrix);
    this.ownBox = member.ownBox;
    this.layout = member.layout;
    this.shift = member.shift;
    this.lacks = member.lacks;
    this.missing = member.missing;
    this.broken = member.broken;
    this.copied = member.copied;
    this.closing = member.closing;
    this.traced = member.traced;
    this.trouble = member.trouble;
  }

  get outlines(): readonly Outline[] {
    return this.mover.outlines(this.member.outlines);
  }
  get openPaths(): readonly Path[] {
    return this.linesMoved();
  }
  private readonly linesMoved = once(() => this.mover.paths(this.member.openPaths));
  get unclosed(): readonly Path[] {
    return this.unclosedMoved();
  }
  private readonly unclosedMoved = once(() => this.mover.paths(this.member.unclosed));
  get box(): Box {
    return this.boxMoved();
  }
  private readonly boxMoved = once(() =>
    this.mover.bounds(this.member.outlines, this.member.openPaths, this.member.box),
  );
}

class MovedPart implements PreparedPart {
  readonly matrix: Matrix;
  readonly keep: PreparedPart['keep'];
  readonly sources: PreparedPart['sources'];
  readonly members: readonly PreparedMember[];
  readonly overlaps: boolean;
  readonly ownBox: Box;
  readonly overall: PreparedPart['overall'];

  constructor(
    private readonly part: PreparedPart,
    private readonly mover: Mover,
    readonly id: string,
  ) {
    this.matrix = compose(part.matrix, mover.matrix);
    this.keep = part.keep;
    this.sources = part.sources;
    this.members = part.members.map((member) => new MovedMember(member, mover));
    this.overlaps = part.overlaps;
    this.ownBox = part.ownBox;
    this.overall = part.overall;
  }

  get solid(): readonly Outline[] {
    return this.mover.outlines(this.part.solid);
  }
  get bare(): readonly Outline[] {
    return this.mover.outlines(this.part.bare);
  }
  get outlines(): readonly Outline[] {
    return this.mover.outlines(this.part.outlines);
  }
  get kept(): readonly Outline[] {
    return this.mover.outlines(this.part.kept);
  }
  get frames(): PreparedPart['frames'] {
    return this.framesMoved();
  }
  private readonly framesMoved = once(() =>
    this.part.frames.map((frame) => ({ ...frame, matrix: compose(frame.matrix, this.mover.matrix) })),
  );
  get openPaths(): readonly Path[] {
    return this.linesMoved();
  }
  private readonly linesMoved = once(() => this.mover.paths(this.part.openPaths));
  get pieces(): PreparedPart['pieces'] {
    return this.piecesMoved();
  }
  private readonly piecesMoved = once(() =>
    this.part.pieces.map((piece) => ({
      ...piece,
      box: this.kept[piece.outline]?.box ?? transformedBox(piece.box, this.mover.matrix),
    })),
  );
  get box(): Box {
    return this.boxMoved();
  }
  private readonly boxMoved = once(() => uniteBoxes(boundsOf(this.solid), regionBox(this.openPaths)));
  get handMade(): PreparedPart['handMade'] {
    return this.handMadeMoved();
  }
  private readonly handMadeMoved = once(() => {
    const { handMade } = this.part;
    return (
      handMade && {
        ...handMade,
        under: this.mover.outlines(handMade.under),
        underLines: this.mover.paths(handMade.underLines),
      }
    );
  });
  get notes(): PreparedPart['notes'] {
    return this.notesMoved();
  }
  private readonly notesMoved = once(
    () => new Map([...this.part.notes].map(([kind, note]) => [kind, note.moved(this.mover)])),
  );
  get bridged(): PreparedPart['bridged'] {
    return this.bridgedMoved();
  }
  private readonly bridgedMoved = once(() => this.part.bridged && movedBridges(this.part.bridged, this.mover));
}

const movedBridges = (bridged: BridgeNotes, mover: Mover): BridgeNotes => ({
  ...bridged,
  before: mover.outlines(bridged.before),
  bridges: bridged.bridges.map((bridge) => ({
    ...bridge,
    from: applyMatrix(mover.matrix, bridge.from),
    to: applyMatrix(mover.matrix, bridge.to),
  })),
  islands: bridged.islands.map((island) => ({ ...island, outline: mover.outline(island.outline) })),
  small: bridged.small.map((island) => ({ ...island, outline: mover.outline(island.outline) })),
  hairs: bridged.hairs.map((hair) => ({ ...hair, at: applyMatrix(mover.matrix, hair.at) })),
});
