/** Bridges placed by hand: found again on their letter, as near as there is a place for them. */

import { numberAt } from '../../geometry/elements';
import { applyMatrix, type Point, turnWith } from '../../geometry/point';
import type { LetterFrame } from '../frames';
import { widthsFrom } from './choose';
import type { VoidEdges } from './edges';
import type { PinnedBridge } from './notes';
import { type Candidate, candidateAt, type Site, setWays } from './search';

/** A bridge is moved up to so many capital heights along the edge to where it fits, in this many steps. */
const MOVED_MOST = 0.75;
const STEPS = 90;
/** Directions tried for a bridge without one of its own, in degrees from square to the edge. */
const FAN = [0, 6, -6, 12, -12, 20, -20, 30, -30];
/** The letter's own directions are tried where they are this near to square. */
const OWN_DEG = 32;
const DEG = Math.PI / 180;

const angleOf = (p: Point): number => Math.atan2(p.y, p.x);

/** Where a bridge placed by hand starts on the sheet. */
export const placeOf = (pinned: PinnedBridge, frame: LetterFrame): Point =>
  applyMatrix(frame.matrix, { x: pinned.x, y: pinned.y });

/**
 * The bridge nearest to the place asked for that fits, first of the width asked for and then narrower; null when there is
 * none within reach. The site is that of the outline it starts on.
 */
export function placedCandidate(
  edges: VoidEdges,
  site: Site,
  { pinned, frame, leastMm }: { readonly pinned: PinnedBridge; readonly frame: LetterFrame; readonly leastMm: number },
): Candidate | null {
  const nearest = edges.nearest(placeOf(pinned, frame), [site.island]);
  if (!nearest) return null;
  const at = numberAt(edges.start, nearest.chord) + nearest.along * edges.chordLength(nearest.chord);
  const capital = Math.hypot(frame.matrix.a, frame.matrix.b);
  const most = Math.min(MOVED_MOST * capital, numberAt(edges.length, site.island) / 2);
  const turn = pinned.turn;
  const own =
    turn === null ? null : angleOf(turnWith(frame.matrix, { x: Math.cos(turn * DEG), y: Math.sin(turn * DEG) }));
  const flare = site.width - site.waist;
  const wanted = pinned.width ?? site.waist;
  for (const width of widthsFrom(wanted, Math.min(wanted, leastMm))) {
    const here = { ...site, width: width + flare, waist: width };
    for (let k = 0; k <= STEPS; k++)
      for (const by of k === 0 ? [0] : [k, -k]) {
        const found = bestAt(edges, here, at + (by * most) / STEPS, own);
        if (found) return found;
      }
  }
  return null;
}

/** In its own direction, the step's or the one that is most nearly square to both edges. */
function bestAt(edges: VoidEdges, site: Site, at: number, turned: number | null): Candidate | null {
  if (turned !== null) return candidateAt(edges, site, { at, angle: turned });
  const ways = setWays(site.standard);
  if (ways) {
    const { chord } = edges.at(site.island, at);
    const into = edges.intoVoid(chord);
    const [a, b] = ways as readonly [Point, Point];
    return candidateAt(edges, site, { at, angle: angleOf(a.x * into.x + a.y * into.y >= 0 ? a : b) });
  }
  const { chord } = edges.at(site.island, at);
  const into = edges.intoVoid(chord);
  const { up, along } = site.standard;
  const own = [up, { x: -up.x, y: -up.y }, along, { x: -along.x, y: -along.y }].filter(
    (w) => w.x * into.x + w.y * into.y > Math.cos(OWN_DEG * DEG),
  );
  let best: Candidate | null = null;
  for (const angle of [...FAN.map((off) => angleOf(into) + off * DEG), ...own.map(angleOf)]) {
    const found = candidateAt(edges, site, { at, angle });
    if (found && (!best || found.cost < best.cost)) best = found;
  }
  for (let turn = 3 * DEG; best && turn > 0.05 * DEG; turn /= 2) {
    const bestCandidate: Candidate = best;
    for (const off of [turn, -turn]) {
      const found = candidateAt(edges, site, { at, angle: bestCandidate.angle + off });
      if (found && found.cost < best.cost) best = found;
    }
  }
  return best;
}
