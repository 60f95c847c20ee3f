/**
 * Where cuts begin and end: in scrap, away from what is kept, running into the outline and out of it by a line or an arc. Of all places on
 * an outline the best is taken at which the whole way lies in scrap: far from corners, on straight stretches, low rather than high, and
 * where what is kept behind the cut is no thinner than asked.
 */
import { ArcLength } from '../geometry/arc-length';
import { turnInto } from '../geometry/measure';
import { cutOpen, type OnPath, type Path, pathBox } from '../geometry/path';
import { type Box, boxHeight, type Point } from '../geometry/point';
import { arcAbout, curvatureAt, line, pointAt, reverseSegment, type Segment, tangentAt } from '../geometry/segment';
import { segmentLength } from '../geometry/segment-measures';

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

/** Places looked at along an outline: one for so many mm, and no more or less than these. */
const STEP_MM = 1;
const LEAST_PLACES = 24;
const MOST_PLACES = 240;
/** A node that turns by more is a corner, in radians. */
const CORNER = (10 * Math.PI) / 180;
/** Ways are looked at in so many places. */
const LOOKED_AT = 12;
/** Outlines are on the way themselves: as much less room than asked is none too little, in mm. */
const ON_MM = 0.01;
/** Lines run in at this angle to the outline. */
const ANGLE = Math.PI / 4;
/** Where there is no room, shorter ways are tried: shares of the length asked. */
const SHORTER = [1, 0.6, 0.35];
/** What counts how much: away from corners, low on the outline, straight. */
const WEIGHTS = { corner: 1, low: 0.5, straight: 0.5 } as const;

type Place = OnPath & { readonly at: Point; readonly tangent: Point; readonly worth: number };

/** A cut with its lead-in and lead-out, open, begun and ended in scrap; null where there is no room for it anywhere. */
export function withLead(outline: Path, settings: LeadSettings, about: Surroundings): Path | null {
  const places = placesOn(outline, settings);
  for (const share of SHORTER) {
    const asked = { ...settings, inMm: share * settings.inMm, outMm: share * settings.outMm };
    // Where nothing is thick enough it begins at what there is.
    for (const backing of about.backing > 0 ? [about.backing, about.backing / 2, 0] : [0])
      for (const place of places) {
        const path = leadAt(outline, place, asked, { ...about, backing });
        if (path) return path;
      }
  }
  return null;
}

/** Places on an outline, the best first. */
function placesOn({ segments, ...outline }: Path, { inMm }: LeadSettings): Place[] {
  const lengths = segments.map(segmentLength);
  const whole = lengths.reduce((sum, l) => sum + l, 0);
  const count = Math.min(MOST_PLACES, Math.max(LEAST_PLACES, Math.ceil(whole / STEP_MM)));
  const far = Math.max(2 * inMm, 1);
  const corners: number[] = [];
  let along = 0;
  segments.forEach((s, i) => {
    const length = lengths[i] as number;
    if (turnInto(segments[(i + segments.length - 1) % segments.length] as Segment, s) > CORNER) corners.push(along);
    // A corner that is rounded, as where a cut runs beside it, is one all the same.
    if (length < far && turned(s) > CORNER) corners.push(along, along + length / 2, along + length);
    along += length;
  });
  const fromCorner = (at: number): number =>
    corners.reduce((least, c) => {
      const d = Math.abs(at - c);
      return Math.min(least, d, whole - d);
    }, far);
  const box = pathBox({ segments, ...outline });
  const high = Math.max(boxHeight(box), 1e-9);
  along = 0;
  const places = segments.flatMap((s, segment) => {
    const length = lengths[segment] as number;
    const n = Math.max(1, Math.round((count * length) / whole));
    const from = along;
    along += length;
    return Array.from({ length: n }, (_, k): Place => {
      // Even steps along a curve are even enough to choose among them.
      const t = (k + 0.5) / n;
      const at = pointAt(s, t);
      const bent = Math.min(1, Math.abs(curvatureAt(s, t)) * far);
      const worth =
        WEIGHTS.corner * (fromCorner(from + t * length) / far) +
        WEIGHTS.low * ((box.maxY - at.y) / high) +
        WEIGHTS.straight * (1 - bent);
      return { segment, t, at, tangent: tangentAt(s, t), worth };
    });
  });
  return places.sort((p, q) => q.worth - p.worth);
}

/** How far the direction at the end of a segment is from that at its start, in radians. */
function turned(s: Segment): number {
  const [p, q] = [tangentAt(s, 0), tangentAt(s, 1)];
  return Math.abs(Math.atan2(p.x * q.y - p.y * q.x, p.x * q.x + p.y * q.y));
}

/** The cut begun at a place, if the whole way there and away lies in scrap and on the sheet. */
function leadAt(outline: Path, place: Place, settings: LeadSettings, about: Surroundings): Path | null {
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
  return wayOut.every(isFree) ? { segments: [...wayIn, ...body, ...wayOut], closed: false } : null;
}
/** Room that a piercing wants about itself, in mm, beyond half the width of the cut, for a lead-in of so many mm. */
export const piercingRoom = (inMm: number): number => Math.max(PIERCED_MM, PIERCED * inMm);
const PIERCED_MM = 0.25;
const PIERCED = 0.25;

const back = ({ x, y }: Point): Point => ({ x: -x, y: -y });

/** An outline from a place all round to it, gone on beyond it by so many mm, or ended before where they are less than 0. */
function withOverrun(round: readonly Segment[], mm: number): readonly Segment[] {
  if (mm === 0) return round;
  const measured = new ArcLength({ segments: round, closed: true });
  return measured.between(0, Math.max(measured.length / 2, measured.length + mm)).segments;
}

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
