/** Chords found by where they lie. */
import Flatbush from 'flatbush';

type Put = (ax: number, ay: number, bx: number, by: number) => void;

/**
 * An index over `count` chords by their bounds: `chord` puts the ends of one. `search` and `neighbors` give their numbers; of none
 * there is nothing to be found.
 */
export function indexChords(count: number, chord: (i: number, put: Put) => void): Flatbush {
  const index = new Flatbush(Math.max(1, count));
  const put: Put = (ax, ay, bx, by) => {
    index.add(Math.min(ax, bx), Math.min(ay, by), Math.max(ax, bx), Math.max(ay, by));
  };
  for (let i = 0; i < count; i++) chord(i, put);
  // An index of nothing is not made; one box that nothing meets stands for it.
  if (count === 0) index.add(Infinity, Infinity, Infinity, Infinity);
  index.finish();
  return index;
}
