/** The good places for bridges of one island: every place around it is tried coarsely, the best are refined. */
import { numberAt } from '../../geometry/elements';
import type { Point } from '../../geometry/point';
import { costOf, longestAt, type Standard } from './cost';
import type { VoidEdges } from './edges';
import { type Span, spanAt } from './span';

/** A span that was found, with its cost and where it was looked for. */
export type Candidate = {
  readonly span: Span;
  readonly cost: number;
  /** Distance along the island's outline, and direction on the sheet in radians. */
  readonly at: number;
  readonly angle: number;
};

/** An island to be bridged. */
export type Site = {
  readonly island: number;
  readonly standard: Standard;
  /** Width of the span; where it is waisted, at its ends. */
  readonly width: number;
  /** Width of the bridge itself, which is measured at its waist. */
  readonly waist: number;
  /** Outlines from this index on are edges that stock ends at: no bridge lands there. */
  readonly landings: number;
  /** Bridges are no longer than this, in mm. */
  readonly longest: number;
};

/** Places tried around an island: this many, but no closer than a part of the width. */
const PLACES = 60;
const CLOSEST = 1 / 12;
/** Directions tried at each, in degrees from square to the edge. */
const FANS = [0, -14, 14, -28, 28];
/** The letter's own directions are tried where they leave the edge less than this far from square. */
const OWN_DEG = 62;
const OWN_NEAR_DEG = 12;
/** Places within a width of each other compete; this many are refined. */
const REFINED = 5;
/** Refining gains less than this. */
const HOPELESS = 0.5;
const ROUNDS = 26;
const SETTLED_MM = 0.004;

const DEG = Math.PI / 180;
const wayOf = (angle: number): Point => ({ x: Math.cos(angle), y: Math.sin(angle) });

/** The directions that may be taken on the sheet; null when any may. */
export function setWays({ direction, up, along }: Standard): readonly Point[] | null {
  if (direction === 'upright') return [up, { x: -up.x, y: -up.y }];
  if (direction === 'level') return [along, { x: -along.x, y: -along.y }];
  return null;
}

/** The span at a distance along the island's outline in a direction, with its cost. */
export function candidateAt(
  edges: VoidEdges,
  site: Site,
  {
    at,
    angle,
    longest = site.longest,
  }: { readonly at: number; readonly angle: number; readonly longest?: number | undefined },
): Candidate | null {
  const { chord, along } = edges.at(site.island, at);
  const span = spanAt(edges, chord, {
    along,
    way: wayOf(angle),
    width: site.width,
    longest,
    behind: site.standard.behind,
  });
  if (!span || span.to.outline >= site.landings) return null;
  return { span, cost: costOf(span, site.standard), at, angle };
}

/** Of the ways across a void, this share is shorter than what is called usual. */
const USUAL = 0.25;
const USUAL_PLACES = 32;

/**
 * The usual way across the void from an outline, by rays square to it: shorter than most, but not that of a single notch;
 * Infinity when nothing faces it.
 */
export function usualAcross(edges: VoidEdges, outline: number, longest: number): number {
  const whole = numberAt(edges.length, outline);
  const ways: number[] = [];
  for (let k = 0; k < USUAL_PLACES; k++) {
    const { chord, along } = edges.at(outline, (k * whole) / USUAL_PLACES);
    const hit = edges.ray(edges.pointOn(chord, along), edges.intoVoid(chord), longest, chord);
    if (hit) ways.push(hit.distance);
  }
  ways.sort((a, b) => a - b);
  return ways[Math.floor(USUAL * ways.length)] ?? Infinity;
}

/**
 * Candidates that are the best about where they lie, the cheapest first. For a single bridge those that refining can hardly
 * make the best are left as they are.
 */
export function candidatesFor(edges: VoidEdges, site: Site, several: boolean): Candidate[] {
  const whole = numberAt(edges.length, site.island);
  const step = Math.max(whole / PLACES, site.width * CLOSEST);
  const count = Math.max(8, Math.ceil(whole / step));
  const ways = setWays(site.standard);
  const best: (Candidate | null)[] = [];
  for (let k = 0; k < count; k++) {
    const at = ((k + 0.5) * whole) / count;
    best.push(bestWay(edges, site, at, ways));
  }
  const apart = Math.max(1, Math.round((0.7 * site.width * count) / whole));
  const peaks = best.flatMap((c, k) => {
    if (!c) return [];
    for (let j = 1; j <= apart; j++)
      for (const other of [best[(k + j) % count], best[(k + count - (j % count)) % count]])
        if (other && other !== c && (other.cost < c.cost || (other.cost === c.cost && other.at < c.at))) return [];
    return [c];
  });
  peaks.sort((a, b) => a.cost - b.cost);
  let least = Infinity;
  const refined = peaks.map((c, i) => {
    if (i >= REFINED || (!several && c.cost > least + HOPELESS)) return c;
    const found = refine(edges, site, { from: c, stepMm: whole / count, ways });
    least = Math.min(least, found.cost);
    return found;
  });
  return refined.sort((a, b) => a.cost - b.cost || a.at - b.at);
}

function bestWay(edges: VoidEdges, site: Site, at: number, ways: readonly Point[] | null): Candidate | null {
  const { chord } = edges.at(site.island, at);
  const into = edges.intoVoid(chord);
  const square = Math.atan2(into.y, into.x);
  const { up, along } = site.standard;
  const own = (ways ?? [up, { x: -up.x, y: -up.y }, along, { x: -along.x, y: -along.y }]).filter(
    (w) => w.x * into.x + w.y * into.y > Math.cos(OWN_DEG * DEG),
  );
  const angles = [...(ways ? [] : FANS.map((f) => square + f * DEG)), ...own.map((w) => Math.atan2(w.y, w.x))];
  let best: Candidate | null = null;
  for (const angle of angles) {
    // What is so long that its length alone costs more than the best so far is not looked at.
    const most = best ? Math.min(site.longest, longestAt(best.cost, site.standard)) : site.longest;
    const found = candidateAt(edges, site, { at, angle, longest: most });
    if (found && (!best || found.cost < best.cost)) best = found;
  }
  return best;
}

/** The best place and direction near one. */
function refine(
  edges: VoidEdges,
  site: Site,
  { from, stepMm, ways }: { readonly from: Candidate; readonly stepMm: number; readonly ways: readonly Point[] | null },
): Candidate {
  const best = slide(edges, site, { from, stepMm: stepMm / 2, stepAngle: ways ? 0 : 8 * DEG });
  return ways ? best : inOwnWay(edges, site, best);
}

/** Direct search over place and direction: steps are halved when none of them is better (Hooke and Jeeves 1961). */
function slide(
  edges: VoidEdges,
  site: Site,
  { from, stepMm, stepAngle }: { readonly from: Candidate; readonly stepMm: number; readonly stepAngle: number },
): Candidate {
  let best = from;
  let move = stepMm;
  let turn = stepAngle;
  for (let round = 0; round < ROUNDS && move > SETTLED_MM; round++) {
    const tries = [
      [move, 0],
      [-move, 0],
      [0, turn],
      [0, -turn],
      [move, turn],
      [-move, -turn],
    ] as const;
    let better: Candidate | null = null;
    for (const [ds, da] of turn === 0 ? tries.slice(0, 2) : tries) {
      const found = candidateAt(edges, site, { at: best.at + ds, angle: best.angle + da });
      if (found && found.cost < (better ?? best).cost - 1e-9) better = found;
    }
    if (better) best = better;
    else {
      move /= 2;
      turn /= 2;
    }
  }
  return best;
}

/** The same place in the letter's own direction where that is nearly the one it has, if it costs no more. */
function inOwnWay(edges: VoidEdges, site: Site, from: Candidate): Candidate {
  const { up, along } = site.standard;
  let best = from;
  for (const w of [up, { x: -up.x, y: -up.y }, along, { x: -along.x, y: -along.y }]) {
    if (w.x * from.span.way.x + w.y * from.span.way.y < Math.cos(OWN_NEAR_DEG * DEG)) continue;
    const found = candidateAt(edges, site, { at: from.at, angle: Math.atan2(w.y, w.x) });
    if (!found) continue;
    const settled = slide(edges, site, { from: found, stepMm: site.width / 4, stepAngle: 0 });
    if (settled.cost <= best.cost) best = settled;
  }
  return best;
}
