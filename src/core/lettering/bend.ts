/**
 * Words set along a line: each letter by the middle of its advance, turned as the line runs there, closed up where they stand.
 * Further lines run on parallel curves; one of a ring along the bottom, the right way up.
 */
import { ArcLength, type PathPlace } from '../geometry/arc-length';
import { numberAt } from '../geometry/elements';
import { type Path, regionBox } from '../geometry/path';
import { compose, IDENTITY, isEmptyBox, type Matrix, translation } from '../geometry/point';
import type { Memory, Stage } from '../memo';
import type { Along } from '../schema/along';
import { closeAlong, type Standing, standingAt } from './close-along';
import { type DraftLine, overlapIn } from './draft-lines';
import { type ClosedAlong, joinAlong } from './joining/join-along';
import {
  inkWidth,
  type LetterJoint,
  type LineCloseUp,
  letterOutlines,
  NUMBERS_PER_LETTER,
  type PlacedLetter,
} from './set-letter';
import type { Alignment } from './spec';
import { bottomOf, type TextPath, textPathOf } from './text-path';

/** A stretch of the curve that a line's baseline lies on, in mm from the start of it. */
export type BaselineTrack = { readonly curve: ArcLength; readonly from: number; readonly to: number };

/** A line along a curve: its letters, in the lettering's units, the joints between them, and the track it stands on. */
type BentLine = {
  readonly letters: readonly PlacedLetter[];
  readonly joints: readonly LetterJoint[];
  readonly track: BaselineTrack;
};

/** Words along a line. */
export type Bent = {
  readonly lines: readonly (BentLine | null)[];
  /** The line they run along, in mm, and how much longer they are than it. */
  readonly path: Path;
  readonly overrunMm: number;
  /** Where the words start from, on the line. */
  readonly start: { readonly x: number; readonly y: number; readonly angle: number };
};

/** How words are bent. */
export type BendInput = {
  readonly along: Along;
  readonly align: Alignment;
  /** The line itself, in the lettering's coordinates, where it is drawn or another part's. */
  readonly drawn: Path | null;
  readonly closeUp: {
    readonly overlapMm: number;
    readonly words: boolean;
    readonly joints: LineCloseUp['joints'];
    readonly pairs: LineCloseUp['pairs'];
  } | null;
  /** Baselines from the first, and mm per unit. */
  readonly baselines: readonly number[];
  readonly scale: number;
};

/** Words along a line; null where there is no such line. */
export function bend(drafts: readonly DraftLine[], input: BendInput, memory: Memory): Bent | null {
  const { along, align, drawn, scale, baselines } = input;
  const lengthMm = Math.max(0, ...drafts.map((d) => inkWidth(d.set))) * scale;
  const textPath = textPathOf({ along, align, lengthMm, drawn });
  if (!textPath) return null;
  const inked = drafts.flatMap((d, i) => (isEmptyBox(d.set.box) ? [] : [i]));
  // An arc is a circle of which only the words' own stretch is meant.
  const isRing = along.bottom && textPath.path.closed && along.line.kind !== 'arc';
  const bottom = isRing && inked.length > 1 ? numberAt(inked, inked.length - 1) : -1;
  const upper = inked.filter((i) => i !== bottom);
  let overrunMm = 0;
  const lines = drafts.map((draft, i): BentLine | null => {
    if (isEmptyBox(draft.set.box)) return null;
    const isBottom = i === bottom;
    const capMm = draft.capital * scale;
    const first = numberAt(upper, 0);
    const last = numberAt(upper, upper.length - 1);
    const down = (other: number) => numberAt(baselines, i) - numberAt(baselines, other);
    // Of what stands on the line the last is nearest, of what hangs from it the first.
    const hung = (drafts[first] as DraftLine).capital * scale;
    const left = isBottom
      ? along.side === 'on'
        ? -(along.distance + capMm)
        : along.distance
      : along.side === 'on'
        ? along.distance + down(last) * scale
        : -(along.distance + hung) + down(first) * scale;
    const on = isBottom ? bottomOf(textPath) : textPath;
    const start = isBottom ? -along.start : along.start;
    const bent = memory.get(BENT, { draft, line: i, on, isBottom, left, start, input });
    const { curve, from, to } = bent.track;
    const over = curve.path.closed ? to - from - curve.length : Math.max(0, -from) + Math.max(0, to - curve.length);
    overrunMm = Math.max(overrunMm, over);
    return bent;
  });
  const curve = new ArcLength(textPath.path);
  const start = curve.at(curve.lengthTo(textPath.from) + along.start);
  return { lines, path: textPath.path, overrunMm, start };
}

type BentInput = {
  readonly draft: DraftLine;
  readonly line: number;
  readonly on: TextPath;
  readonly isBottom: boolean;
  /** How far to the left of the line the baseline lies, and how far along the words start, in mm. */
  readonly left: number;
  readonly start: number;
  readonly input: BendInput;
};

const BENT: Stage<BentInput, BentLine> = {
  name: 'bent line',
  key: ({ draft, line, isBottom, left, start, on, input: { along, align, drawn, closeUp, scale } }, idOf) =>
    JSON.stringify([
      idOf(draft.set),
      idOf(draft.face),
      draft.offset,
      line,
      isBottom,
      left,
      start,
      along,
      align,
      closeUp,
      scale,
      // What a rise or a wave comes to hangs on the length of the words.
      drawn ? idOf(drawn) : on.path.segments,
    ]),
  run: bentLine,
  weigh: ({ letters }) => NUMBERS_PER_LETTER * letters.length,
};

function bentLine({ draft, line, on, left, start, input }: BentInput, memory: Memory): BentLine {
  const { align, closeUp, scale, along } = input;
  const { set, face, text, offset, capital } = draft;
  const curve = new ArcLength(on.path, left);
  const anchor = anchorOn(on, curve, start);
  const isUpright = along.letters === 'upright';
  // A letter that is moved by itself leaves the others where they are.
  const minX = Math.min(...set.letters.map(({ box, moved }) => box.minX - (moved?.x ?? 0)));
  const maxX = Math.max(...set.letters.map(({ box, moved }) => box.maxX - (moved?.x ?? 0)));
  /** How letters stand whose line begins so far before the anchor, in units. */
  const standingFrom =
    (shift: number) =>
    (middle: number, advance: number): Standing => {
      const pose = curve.at(anchor + (middle + shift) * scale);
      return standingAt({ ...pose, x: pose.x / scale, y: pose.y / scale }, advance, isUpright);
    };
  const shiftFor = (closed: number): number =>
    -{ left: minX, centre: (minX + maxX - closed) / 2, right: maxX - closed }[align];
  let shift = shiftFor(0);
  let closed: ClosedAlong = { moves: [], joints: [], drawnAt: null };
  // What is closed up is shorter, and stands elsewhere on the curve: where that bends the same, nothing changes by it.
  const rounds = along.line.kind === 'arc' || along.line.kind === 'circle' ? 1 : 2;
  if (closeUp && !face.isSingleStroke)
    for (let round = 0; round < rounds; round++) {
      const { overlapMm, words, joints } = closeUp;
      const overlap = overlapIn(overlapMm, capital, scale);
      const input = { text, face, overlap, words, capital, standing: standingFrom(shift), memory };
      const pairs = closeUp.pairs.map((p) => (p.at === null ? p : { ...p, at: p.at - offset }));
      closed =
        joints === 'best'
          ? joinAlong(set.letters, { ...input, pairs })
          : { ...closeAlong(set.letters, input), drawnAt: null };
      shift = shiftFor(closed.moves[closed.moves.length - 1] ?? 0);
    }
  const standing = standingFrom(shift);
  const stood = set.letters.map(({ letter, advance, moved }, i) => {
    const nudged = moved ?? { x: 0, y: 0 };
    const middle = letter.x - nudged.x - (closed.moves[i] ?? 0) + advance / 2;
    const { matrix, turnedDeg } = standing(middle, advance);
    return { to: compose(translation(nudged.x, nudged.y), matrix), turnedDeg };
  });
  const drawn = closed.drawnAt?.(stood.map(({ to }) => to)) ?? [];
  const letters = set.letters.map(({ letter }, i): PlacedLetter => {
    const { to, turnedDeg: baselineDeg } = stood[i] as (typeof stood)[number];
    const turned: Matrix = { ...to, e: 0, f: 0 };
    const own = compose(letter.own ?? IDENTITY, turned);
    const placed = {
      ...letter,
      own,
      drawn: drawn[i] ?? null,
      baselineDeg,
      start: letter.start + offset,
      end: letter.end + offset,
      line,
      x: to.e,
      y: to.f,
    };
    const box = regionBox(letterOutlines(placed, face));
    return {
      ...placed,
      box: { minX: box.minX + to.e, maxX: box.maxX + to.e, minY: box.minY + to.f, maxY: box.maxY + to.f },
    };
  });
  const whole = closed.moves[closed.moves.length - 1] ?? 0;
  const track = { curve, from: anchor + (minX + shift) * scale, to: anchor + (maxX - whole + shift) * scale };
  return { letters, joints: closed.joints, track };
}

/** The length on a parallel curve at which words start, so that all lines start side by side. */
function anchorOn({ path, from }: TextPath, curve: ArcLength, start: number): number {
  const base = new ArcLength(path);
  const place: PathPlace = base.placeAt(base.lengthTo(from) + start);
  return curve.lengthTo(place);
}
