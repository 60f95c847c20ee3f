/**
 * Joining letters that stand along a curve: each pair in the way that costs the word least on a straight line. What touches is moved
 * until it does where it stands; a strip ends in each of its letters as it does there, and is turned with them.
 */
import { convexHull } from '../../geometry/centroid';
import { applyMatrix, type Matrix, type Point } from '../../geometry/point';
import { type AlongInput, closeAlong, type JoinAs } from '../close-along';
import type { DrawnLetter, LetterJoint, LineCloseUp, SetLetter } from '../set-letter';
import { drawnLetter, heldJoints, type Joined, waysToJoin } from './join-neighbours';
import type { Way } from './neighbours';

/** Corners of a strip: along its lower side from left to right, and back along its upper one. */
type Strip = readonly [Point, Point, Point, Point];

/** A strip whose lower edge lies higher than this, in capital heights, hangs from its line. */
const HIGH = 0.4;
/** Where its ends are turned against each other it is made so much wider at most, to be as wide as asked where it is narrowest. */
const WIDEST = 1.5;

/** How far each letter is moved back along a curve, the joints that makes, and what is drawn of each where they come to stand. */
export type ClosedAlong = {
  readonly moves: readonly number[];
  readonly joints: readonly LetterJoint[];
  /** Given from where each letter's own coordinates lie; null where letters are drawn by their glyphs. */
  readonly drawnAt: ((matrices: readonly Matrix[]) => (DrawnLetter | null)[]) | null;
};

/** Each letter joined to the one before it where it stands; free parts of letters held to these. In the lettering's units. */
export function joinAlong(letters: readonly SetLetter[], input: AlongInput & Pick<LineCloseUp, 'pairs'>): ClosedAlong {
  const { text, face, memory, overlap, words, capital, pairs } = input;
  // A letter that is moved by itself leaves its joints where they are.
  const unmoved = letters.map((set): SetLetter => {
    const { letter, moved } = set;
    return moved ? { ...set, letter: { ...letter, x: letter.x - moved.x, y: letter.y - moved.y } } : set;
  });
  const closeUp: LineCloseUp = { overlap, words, capital, joints: 'best', pairs };
  const { made, ways } = waysToJoin(unmoved, { text, face, closeUp, memory });
  const held = letters.map((set, i) => ({ ...set, letter: { ...set.letter, drawn: (made[i] as Joined).drawn } }));
  const { moves, joints } = closeAlong(
    held,
    input,
    ways.map((way) => joinAs(way, capital)),
  );
  const stood = unmoved.map(
    ({ letter, advance }, i) => input.standing(letter.x - (moves[i] ?? 0) + advance / 2, advance).matrix,
  );
  /** A strip is thinner in the middle than at its ends, which are turned or moved against each other. */
  const thinned = (joint: LetterJoint): LetterJoint => {
    const i = letters.findIndex(({ letter }) => letter.start === joint.start);
    const strip = stripAlong(i, unmoved, ways[i] ?? null, stood, capital);
    return strip ? { ...joint, joint: Math.min(joint.joint, widthOf(strip)) } : joint;
  };
  const free = letters.flatMap(({ letter }, i) => heldJoints(letter, made[i] as Joined, capital));
  return {
    moves,
    joints: [...free, ...joints.map(thinned)].sort((a, b) => a.start - b.start),
    drawnAt: (matrices) =>
      letters.map(({ letter }, i) => {
        const strip = stripAlong(i, unmoved, ways[i] ?? null, matrices, capital);
        const { letter: joined, key } = made[i] as Joined;
        // Ends that lie across each other would turn it over.
        return drawnLetter(joined, key, letter.own, strip && convexHull(strip), capital, {
          ...(matrices[i] as Matrix),
          e: 0,
          f: 0,
        });
      }),
  };
}

const joinAs = (way: Way | null, capital: number): JoinAs | null => {
  if (!way) return null;
  if (!way.strip) return 'touch';
  return { move: way.slide * capital, joint: way.width * capital, kind: way.kind };
};

/** How wide a strip is where it is narrowest; its first and last corners are those of one end. */
function widthOf(strip: Strip): number {
  const [a, b, c, d] = strip;
  const along = { x: (b.x + c.x - a.x - d.x) / 2, y: (b.y + c.y - a.y - d.y) / 2 };
  const length = Math.hypot(along.x, along.y);
  return Math.min(
    ...(
      [
        [a, d],
        [b, c],
      ] as const
    ).map(([p, q]) => {
      const across = { x: q.x - p.x, y: q.y - p.y };
      const width = Math.hypot(across.x, across.y);
      // Ends that lie on each other are joined all along.
      return length < width ? width : Math.abs(along.x * across.y - along.y * across.x) / length;
    }),
  );
}

/** The corners of a strip on a straight line, made wider: where it stands on a line or hangs from one it stays on that. */
function wider({ strip, kind, level }: Way, by: number): Strip {
  const corners = strip as unknown as Strip;
  const [a, b, c, d] = corners;
  const heldAt = (lower: number, upper: number): number =>
    kind === 'tie' || level === null ? (lower + upper) / 2 : level < HIGH ? lower : upper;
  const [left, right] = [heldAt(a.y, d.y), heldAt(b.y, c.y)];
  const moved = ({ x, y }: Point, at: number): Point => ({ x, y: at + by * (y - at) });
  return [moved(a, left), moved(b, right), moved(c, right), moved(d, left)];
}

/** The strip to the letter before, about the letter's origin: each end as it lies in its letter on a straight line. */
function stripAlong(
  i: number,
  letters: readonly SetLetter[],
  way: Way | null,
  matrices: readonly Matrix[],
  capital: number,
): Strip | null {
  const [left, right] = [letters[i - 1], letters[i]];
  const [there, here] = [matrices[i - 1], matrices[i]];
  if (!way?.strip || !left || !right || !there || !here) return null;
  const by = left.letter.x - right.letter.x + way.slide * capital;
  const placed = ([a, b, c, d]: Strip): Strip => {
    const inLeft = ({ x, y }: Point) => applyMatrix(there, { x: x * capital, y: y * capital });
    const inRight = ({ x, y }: Point) => applyMatrix(here, { x: x * capital + by, y: y * capital });
    const about = ({ x, y }: Point): Point => ({ x: x - here.e, y: y - here.f });
    return [about(inLeft(a)), about(inRight(b)), about(inRight(c)), about(inLeft(d))];
  };
  const narrow = widthOf(placed(wider(way, 1)));
  return placed(wider(way, Math.min(WIDEST, Math.max(1, (way.width * capital) / narrow))));
}
