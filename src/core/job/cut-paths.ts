/**
 * The paths a cut runs along: begun in scrap and ended there, never across what is kept of any part, never off the sheet, and without the
 * tabs that hold a piece. Found part by part, by what lies near it.
 */
import type { Operation, Part, Sheet } from '../document/schema';
import { isIn, type Laid, roomWithin } from '../geometry/lying';
import { cutOpen, type Path, pathLength } from '../geometry/path';
import { type Box, boxesMeet, growBox, type Point } from '../geometry/point';
import { pointAt, type Segment } from '../geometry/segment';
import type { IdOf, Memory, Stage } from '../memo';
import { outlinesLaid } from '../prepare/laid-outlines';
import type { Outline } from '../prepare/outline';
import { settingsOn } from '../shop/in-force';
import { type LeadSettings, leadOn, piercingRoom, type Surroundings } from '../toolpath/leads';
import { measuredOutline, type OutlinePlace, placeNear } from '../toolpath/outline-places';
import { betweenTabs, gapFor, isInTab, type Tab, type TabSettings, tabNear, tabsOn } from '../toolpath/tabs';
import type { CutSide } from './kerf-side';
import type { PartResult } from './part-result';
import { type ByHand, placedOn } from './places-on-outlines';

/** Without a length asked, ways in are so long: this, or by the thickness. In mm. */
const SHORT_MM = 2;
const PER_THICKNESS = 1.2;
/** Tabs keep off where a cut begins by this and by the way in, in mm. */
const OFF_START_MM = 2;

/** The leads of an operation's cuts; null where they have none. */
export function leadSettings(operation: Operation, sheet: Sheet): LeadSettings | null {
  const { kind, lead, kerfSide } = operation;
  // A machine that keeps beside the outlines by itself begins as it does.
  if (lead === null || kind !== 'cut' || kerfSide === 'machine') return null;
  const usual = PER_THICKNESS * (sheet.thickness ?? 0) + (settingsOn(operation, sheet).kerf ?? 0);
  return { shape: lead.shape, inMm: lead.in ?? Math.max(SHORT_MM, usual), outMm: lead.out, overMm: lead.over };
}

/** Tabs of an operation's cuts, with the width of the cut, and whether what falls out of holes gets them too; null where there are none. */
type TabsAsked = TabSettings & { readonly scrap: boolean };

function tabSettings({ kind, tabs, kerfSide }: Operation): TabsAsked | null {
  // A machine that keeps beside closed outlines by itself has no open ones to keep beside.
  if (tabs === null || kind !== 'cut' || kerfSide === 'machine') return null;
  return { widthMm: tabs.width, count: tabs.count, scrap: tabs.scrap };
}

/** A place on an outline with what it is kept by: the letter it is on, and which of the part's places by hand it is, null for one that was found. */
type Anchored = { readonly letter: string; readonly byHand: number | null };

/** Where a cut comes to its outline. */
export type StartOfCut = Anchored & {
  readonly at: Point;
  readonly tangent: Point;
  /** Where the beam goes through: the beginning of the lead-in. */
  readonly pierced: Point;
};

/** A place at which an outline is left uncut. */
export type TabOfCut = Tab & Anchored;

/** How an outline is cut. */
export type CutPath = {
  /** Open paths in their order; null: along the closed outline, begun as `outline` is. */
  readonly paths: readonly Path[] | null;
  readonly outline: Path;
  readonly start: StartOfCut | null;
  readonly tabs: readonly TabOfCut[];
  /** The side it is cut on, with a place on it by which that is kept. */
  readonly side: Anchored & { readonly is: CutSide; readonly at: Point };
  /** What was asked for and has no room. */
  readonly lacks: readonly ('lead' | 'tabs')[];
};

type Input = {
  readonly by: string;
  readonly part: Part;
  readonly result: PartResult;
  /** What is run along of the part. */
  readonly outlines: readonly Outline[];
  /** Parts near this one that are cut too, whose kept stock is not to be crossed. */
  readonly near: readonly PartResult[];
  readonly asked: CutsAsked;
  readonly sheet: Sheet;
};

/** What is asked of all cuts of an operation; lengths in mm. */
export type CutsAsked = {
  readonly lead: LeadSettings | null;
  readonly tabs: TabsAsked | null;
  /** Half the width of the cut where it runs beside what is kept, and its whole width. */
  readonly half: number;
  readonly kerf: number;
};

/** What an operation asks of its cuts. */
export const cutsAsked = (operation: Operation, sheet: Sheet, half: number): CutsAsked => ({
  lead: leadSettings(operation, sheet),
  tabs: tabSettings(operation),
  half,
  kerf: settingsOn(operation, sheet).kerf ?? 0,
});

/** Whether outlines of a part are cut otherwise than along the closed outline from wherever it begins. */
export const isAsked = ({ lead, tabs }: CutsAsked, part: Part): boolean =>
  lead !== null || tabs !== null || part.starts.length > 0;

/** How far from its outlines a part asks what lies there, in mm. */
export const reachFrom = ({ lead, half }: CutsAsked, sheet: Sheet): number =>
  (lead ? 2 * lead.inMm + lead.outMm : 0) + half + (sheet.leastWidth ?? 0) + 1;

/** How each outline of a part is cut. */
export const CUT_PATHS: Stage<Input, readonly CutPath[]> = {
  name: 'lead-ins and tabs',
  key: ({ part, result, outlines, near, asked, sheet }, idOf: IdOf) =>
    [
      idOf(result),
      idOf(outlines),
      near.map((r) => idOf(r)).join(),
      JSON.stringify([asked, part.starts, part.tabs, part.sides, sheet.width, sheet.height, sheet.leastWidth]),
    ].join('|'),
  slot: ({ by, result }) => `${by}|${result.id}`,
  run: (input, memory) => {
    const aboutOf = surroundingsOf(input, memory);
    const starts = placedOn(input.part.starts, input.result.frames, input.outlines);
    const sides = placedOn(input.part.sides, input.result.frames, input.outlines);
    const tabs = placedOn(input.part.tabs, input.result.frames, input.outlines);
    return input.outlines.map((outline, i) =>
      cutAlong(outline, input, { about: aboutOf(outline), starts: starts[i], tabs: tabs[i], sides: sides[i] }),
    );
  },
  weigh: (cuts) =>
    cuts.reduce((sum, { paths }) => sum + 60 + (paths ?? []).reduce((n, p) => n + 10 * p.segments.length, 0), 0),
};

type OfOutline = {
  readonly about: Surroundings;
  readonly starts: readonly ByHand<Part['starts'][number]>[] | undefined;
  readonly tabs: readonly ByHand<Part['tabs'][number]>[] | undefined;
  readonly sides: readonly ByHand<Part['sides'][number]>[] | undefined;
};

function cutAlong(outline: Outline, input: Input, of: OfOutline): CutPath {
  const { starts = [], tabs: placed = [], sides = [] } = of;
  const side = sides[sides.length - 1];
  // On the outline itself the beam has no room beside what is kept, and wants none.
  const about = side?.place.side === 'line' ? { ...of.about, half: 0 } : of.about;
  const { path } = outline;
  const measured = measuredOutline(path);
  const { lead: settings, tabs: wanted, kerf } = input.asked;
  // Of several the last is the one that was moved last.
  const start = starts[starts.length - 1];
  const byHand = wanted ? tabsByHand(path, placed, wanted.widthMm) : [];
  const mayBeAt = (at: Point) => !isInTab(at, byHand, { kerf, more: settings ? OFF_START_MM : 0 });
  const lead = settings && leadOn(measured, settings, about, { near: start?.at ?? null, mayBeAt });
  const place = lead?.place ?? (start ? placeNear(path, start.at) : null);
  const isHeld = wanted !== null && (wanted.scrap || isPiece(outline, input.result));
  const found =
    isHeld && placed.length === 0
      ? tabsOn(measured, wanted, {
          kerf,
          areaMm2: Math.abs(outline.area),
          start: place,
          offStart: OFF_START_MM + (lead ? (settings?.inMm ?? 0) : 0),
          holds: (at) => holdsAt(at, about, { kerf, widthMm: wanted.widthMm }),
        }).map((tab) => ({ ...tab, byHand: null }))
      : byHand;
  const letter = (segment: number) => letterAt(outline, segment, input.result);
  const lacks: ('lead' | 'tabs')[] = [];
  if (settings && !lead) lacks.push('lead');
  if (isHeld && placed.length === 0 && found.length === 0) lacks.push('tabs');
  const first = lead?.wayIn[0];
  return {
    ...along(path, { lead, place, tabs: found, kerf, overMm: lead ? (settings?.overMm ?? 0) : 0 }),
    start: place && {
      at: place.at,
      tangent: place.tangent,
      pierced: first ? { x: first.x0, y: first.y0 } : place.at,
      letter: letter(place.segment),
      byHand: start?.index ?? null,
    },
    tabs: found.map((tab) => ({ ...tab, letter: letter(tab.segment) })),
    side: {
      is: side?.place.side ?? 'usual',
      at: pointAt(path.segments[0] as Segment, 0),
      letter: letter(0),
      byHand: side?.index ?? null,
    },
    lacks,
  };
}

/** An outline as it is cut: closed, or in open paths. */
function along(
  outline: Path,
  {
    lead,
    place,
    tabs,
    kerf,
    overMm,
  }: {
    readonly lead: ReturnType<typeof leadOn>;
    readonly place: OutlinePlace | null;
    readonly tabs: readonly Tab[];
    readonly kerf: number;
    readonly overMm: number;
  },
): Pick<CutPath, 'paths' | 'outline'> {
  const begun: Path = place ? { segments: cutOpen(outline, place.segment, place.t), closed: true } : outline;
  if (tabs.length === 0) {
    if (!lead) return { paths: null, outline: begun };
    return { paths: [{ segments: [...lead.wayIn, ...lead.body, ...lead.wayOut], closed: false }], outline: begun };
  }
  // Without a place to begin at it begins in a tab, so that no path ends in the middle of nothing.
  const first = place ?? placeNear(outline, (tabs[0] as Tab).at);
  const round = lead?.body ?? (first ? cutOpen(outline, first.segment, first.t) : outline.segments);
  const paths = betweenTabs(round, tabs, { kerf, overMm }).map(
    ({ segments }, i, all): Path => ({
      segments: [
        ...(i === 0 ? (lead?.wayIn ?? []) : []),
        ...segments,
        ...(i === all.length - 1 ? (lead?.wayOut ?? []) : []),
      ],
      closed: false,
    }),
  );
  return { paths, outline: begun };
}

/** The key of the letter that a segment of an outline is of; of what is of none, such as a border, that of the part's first. */
export function letterAt({ labels }: Outline, segment: number, { frames }: PartResult): string {
  const own = labels[segment] ?? -1;
  const label = own >= 0 ? own : Math.max(0, ...labels.slice(0, 1));
  return frames[label]?.key ?? frames[0]?.key ?? '';
}

const tabsByHand = (
  path: Path,
  placed: NonNullable<OfOutline['tabs']>,
  widthMm: number,
): (Tab & Pick<Anchored, 'byHand'>)[] =>
  placed.flatMap(({ place, at, index }) => {
    const width = place.width ?? widthMm;
    const tab = width > 0 ? tabNear(path, at, width) : null;
    return tab ? [{ ...tab, byHand: index }] : [];
  });

/** Whether a piece that is kept comes off along an outline, not what falls out of a hole: told by the way it runs, also of one alone. */
const isPiece = ({ area }: Outline, { keep }: PartResult): boolean => area > 0 === (keep === 'inside');

/** How well a tab holds at a place: half for what is kept behind the cut being there, half for the sheet before it. */
function holdsAt(
  { at, tangent }: OutlinePlace,
  { scrapIsRight, room, half, backing, sheet }: Surroundings,
  { kerf, widthMm }: { readonly kerf: number; readonly widthMm: number },
): number {
  const side = scrapIsRight ? 1 : -1;
  const off = (mm: number): Point => ({ x: at.x + mm * side * tangent.y, y: at.y - mm * side * tangent.x });
  const behind = room(off(-(half + Math.max(backing, widthMm)))) < 0;
  const before = off(half + Math.max(kerf, widthMm));
  const isOnSheet =
    before.x >= sheet.minX && before.x <= sheet.maxX && before.y >= sheet.minY && before.y <= sheet.maxY;
  return (behind ? 0.5 : 0) + (isOnSheet && room(before) >= half + Math.min(widthMm, 1) ? 0.5 : 0);
}

/** What lies around each outline of a part. */
function surroundingsOf({ result, near, asked, sheet }: Input, memory: Memory): (of: Outline) => Surroundings {
  const { lead, half, tabs, kerf } = asked;
  const kept = [result, ...near].map((r) => keptOf(r, memory));
  // Farther than a piercing or a tab wants room matters to nobody.
  const reach = half + Math.max(lead ? piercingRoom(lead.inMm) : 0, tabs ? gapFor(tabs.widthMm, kerf) : 0) + 1e-6;
  const asks = reachFrom(asked, sheet);
  const about: Omit<Surroundings, 'room'> = {
    scrapIsRight: result.keep === 'inside',
    half,
    backing: sheet.leastWidth ?? 0,
    sheet: { minX: 0, minY: 0, maxX: sheet.width, maxY: sheet.height },
  };
  return ({ box }) => {
    const wide = growBox(box, asks + (tabs?.widthMm ?? 0) + kerf);
    // What is cut out of the sheet leaves the sheet, and what is far off is in nobody's way.
    const around = kept
      .filter((k) => k.id === result.id || (k.keep === 'inside' && boxesMeet(k.box, wide)))
      .map(({ keep, region }) => ({ keep, region, near: onlyNear(region, wide) }));
    return { ...about, room: (at) => roomIn(around, at, reach) };
  };
}

type Kept = { readonly id: string; readonly keep: PartResult['keep']; readonly box: Box; readonly region: Laid };

const keptOf = (result: PartResult, memory: Memory): Kept => ({
  id: result.id,
  keep: result.keep,
  box: result.box,
  region: outlinesLaid(result, memory),
});

/** The paths of a region that may wind about places in a box. */
function onlyNear({ paths, boxes }: Laid, box: Box): Pick<Laid, 'paths' | 'boxes'> {
  const near = paths.map((_, i) => i).filter((i) => boxesMeet(boxes[i] as Box, box));
  return { paths: near.map((i) => paths[i] as Path), boxes: near.map((i) => boxes[i] as Box) };
}

type Around = Pick<Kept, 'keep' | 'region'> & { readonly near: Pick<Laid, 'paths' | 'boxes'> };

/** Room about a place up to what is kept of any part, as far as `reach`; negative within it. */
function roomIn(around: readonly Around[], at: Point, reach: number): number {
  let room = reach;
  for (const { keep, region, near } of around) {
    const far = roomWithin(at, region, reach);
    const isKept = isIn(at, near) === (keep === 'inside');
    room = Math.min(room, isKept ? -far : far);
  }
  return room;
}

/** Of each of some parts the others that lie within so many mm of it and are kept. */
export function neighbours(results: readonly PartResult[], reach: number): ReadonlyMap<string, readonly PartResult[]> {
  return new Map(
    results.map((result) => [
      result.id,
      results.filter((r) => r !== result && r.keep === 'inside' && boxesMeet(r.box, growBox(result.box, reach))),
    ]),
  );
}

/** How long the paths of a cut are in all, in mm. */
export const cutLength = ({ paths, outline }: CutPath): number =>
  (paths ?? [outline]).reduce((sum, path) => sum + pathLength(path), 0);
