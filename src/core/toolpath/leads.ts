/**
 * Where cuts begin and end: in scrap, away from what is kept, running into the outline and out of it by a line or an arc. Of all places on
 * an outline the best is taken at which the whole way lies in scrap: far from corners, on straight stretches, low rather than high, and
 * where what is kept behind the cut is no thinner than asked.
 */
import { ArcLength } from '../geometry/arc-length';
import { cutOpen, type Path } from '../geometry/path';
import type { Box, Point } from '../geometry/point';
import { arcAbout, line, pointAt, reverseSegment, type Segment, tangentAt } from '../geometry/segment';
import { type MeasuredOutline, type OutlinePlace, placeNear, placesAlong } from './outline-places';

/** How cuts run in and out; lengths in mm. */
export type LeadSettings = {
  readonly shape: 'line' | 'arc';
  /** How long the way in and the way out are; 0 for none. */
  readonly inMm: number;
  readonly outMm: number;
  /** How far a cut goes on beyond where it began; negative: how far it stops before. */
  readonly overMm: number;
};

/** What a place is asked: how much room there is for the middle of the beam, in mm; negative within what is kept. */
export type ScrapRoom = (at: Point) => number;

/** What a cut that is to begin in scrap is told of its surroundings; lengths in mm. */
export type Surroundings = {
  /** Whether scrap lies to the right of the outline, going along it. */
  readonly scrapIsRight: boolean;
  readonly room: ScrapRoom;
  /** The least room there must be anywhere on the way: half the width of the cut. */
  readonly half: number;
  /** What is kept behind the place at which the cut begins is to be this thick. */
  readonly backing: number;
  readonly sheet: Box;
};

/** Ways are looked at in so many places. */
const LOOKED_AT = 12;
/** Outlines are on the way themselves: as much less room than asked is none too little, in mm. */
const ON_MM = 0.01;
/** Lines run in at this angle to the outline. */
const ANGLE = Math.PI / 4;
/** Where there is no room, shorter ways are tried: shares of the length asked. */
const SHORTER = [1, 0.6, 0.35];
/** What counts how much: away from corners, rather in the middle of an edge, low on the outline, straight. */
const WEIGHTS = { corner: 1, middle: 0.2, low: 0.5, straight: 0.5 } as const;

/** A cut that begins in scrap: where its lead-in meets the outline, the ways in and out, and the way round between them. */
export type Lead = {
  readonly place: OutlinePlace;
  readonly wayIn: readonly Segment[];
  readonly body: readonly Segment[];
  readonly wayOut: readonly Segment[];
};

/** Where a cut is to begin: as near as can be to a point, and nowhere where it must not. */
export type Wish = { readonly near: Point | null; readonly mayBeAt: (at: Point) => boolean };

/** The lead-in and lead-out of a cut; null where there is no room for them anywhere. */
export function leadOn(
  measured: MeasuredOutline,
  settings: LeadSettings,
  about: Surroundings,
  wish: Wish,
): Lead | null {
  const outline = measured.path;
  const places = placesFor(measured, settings, wish);
  for (const share of SHORTER) {
    const asked = { ...settings, inMm: share * settings.inMm, outMm: share * settings.outMm };
    // Where nothing is thick enough it begins at what there is, and so it does where it was told to.
    const backings = about.backing > 0 && !wish.near ? [about.backing, about.backing / 2, 0] : [0];
    for (const backing of backings)
      for (const place of places) {
        const lead = leadAt(outline, place, asked, { ...about, backing });
        if (lead) return lead;
      }
  }
  return null;
}

/** Places on an outline, the best first: where a point is given those nearest to it. */
function placesFor(measured: MeasuredOutline, { inMm }: LeadSettings, { near, mayBeAt }: Wish): OutlinePlace[] {
  const { places: all } = placesAlong(measured, Math.max(2 * inMm, 1));
  const places = all.filter(({ at }) => mayBeAt(at));
  if (!near)
    return places
      .map((place) => ({ place, worth: worthOf(place) }))
      .sort((p, q) => q.worth - p.worth)
      .map(({ place }) => place);
  const distance = ({ at }: OutlinePlace): number => Math.hypot(at.x - near.x, at.y - near.y);
  const exact = placeNear(measured.path, near);
  return [...(exact && mayBeAt(exact.at) ? [exact] : []), ...places.sort((p, q) => distance(p) - distance(q))];
}

const worthOf = ({ fromCorner, middle, low, straight }: OutlinePlace): number =>
  WEIGHTS.corner * fromCorner + WEIGHTS.middle * middle + WEIGHTS.low * low + WEIGHTS.straight * straight;

/** The ways to a place and away from where the cut ends, if the whole of them lies in scrap and on the sheet. */
function leadAt(outline: Path, place: OutlinePlace, settings: LeadSettings, about: Surroundings): Lead | null {
  const { room, half, backing, sheet, scrapIsRight } = about;
  const side = scrapIsRight ? 1 : -1;
  const intoScrap = ({ x, y }: Point): Point => ({ x: side * y, y: -side * x });
  const n = intoScrap(place.tangent);
  // What is kept behind: thick enough where it is gone along first.
  const behind = { x: place.at.x - (half + backing) * n.x, y: place.at.y - (half + backing) * n.y };
  if (backing > 0 && room(behind) > 0) return null;
  const wayIn = ways(place.at, place.tangent, n, settings.inMm, settings.shape, -side);
  const isFree = (s: Segment): boolean =>
    Array.from({ length: LOOKED_AT + 1 }, (_, k) => pointAt(s, k / LOOKED_AT)).every(
      (p) =>
        p.x >= sheet.minX && p.x <= sheet.maxX && p.y >= sheet.minY && p.y <= sheet.maxY && room(p) >= half - ON_MM,
    );
  const [first] = wayIn;
  // Where the beam goes through there is room around it, not only beside it.
  const pierced = first ? room({ x: first.x0, y: first.y0 }) : Infinity;
  if (pierced < half + piercingRoom(settings.inMm) || !wayIn.every(isFree)) return null;
  const body = withOverrun(cutOpen(outline, place.segment, place.t), settings.overMm);
  const last = body[body.length - 1] as Segment;
  const end = { at: pointAt(last, 1), tangent: tangentAt(last, 1) };
  const wayOut =
    settings.overMm < 0
      ? []
      : reversed(ways(end.at, back(end.tangent), intoScrap(end.tangent), settings.outMm, settings.shape, side));
  return wayOut.every(isFree) ? { place, wayIn, body, wayOut } : null;
}

/** An outline from a place all round to it, gone on beyond it by so many mm, or ended before where they are less than 0. */
function withOverrun(round: readonly Segment[], mm: number): readonly Segment[] {
  if (mm === 0) return round;
  const measured = new ArcLength({ segments: round, closed: true });
  return measured.between(0, Math.max(measured.length / 2, measured.length + mm)).segments;
}

/** Room that a piercing wants about itself, in mm, beyond half the width of the cut, for a lead-in of so many mm. */
export const piercingRoom = (inMm: number): number => Math.max(PIERCED_MM, PIERCED * inMm);
const PIERCED_MM = 0.25;
const PIERCED = 0.25;

const back = ({ x, y }: Point): Point => ({ x: -x, y: -y });

/** The way of so many mm that comes to a place, going along a tangent there, from the side that `n` points to. */
function ways(at: Point, tangent: Point, n: Point, mm: number, shape: 'line' | 'arc', turn: number): Segment[] {
  if (!(mm > 0)) return [];
  if (shape === 'line') {
    const [c, s] = [mm * Math.cos(ANGLE), mm * Math.sin(ANGLE)];
    return [line(at.x - c * tangent.x + s * n.x, at.y - c * tangent.y + s * n.y, at.x, at.y)];
  }
  // A quarter of a circle that touches the outline.
  const r = (2 * mm) / Math.PI;
  const [cx, cy] = [at.x + r * n.x, at.y + r * n.y];
  const end = Math.atan2(at.y - cy, at.x - cx);
  const sweep = (turn * Math.PI) / 2;
  return [arcAbout(cx, cy, r, end - sweep, sweep)];
}

const reversed = (segments: readonly Segment[]): Segment[] => [...segments].reverse().map(reverseSegment);
