/** Cuts of an operation with their lead-ins and lead-outs: begun in scrap, never across what is kept of any part, never off the sheet. */
import type { Operation, Sheet } from '../document/schema';
import { isIn, type Laid, laid, roomWithin } from '../geometry/lying';
import type { Path } from '../geometry/path';
import { type Box, boxesMeet, growBox, type Point } from '../geometry/point';
import type { IdOf, Memory, Stage } from '../memo';
import type { Outline } from '../prepare/outline';
import { settingsOn } from '../shop/in-force';
import { type LeadSettings, piercingRoom, withLead } from '../toolpath/leads';
import type { PartResult } from './part-result';

/** Without a length asked, ways in are so long: this, or by the thickness. In mm. */
const SHORT_MM = 2;
const PER_THICKNESS = 1.2;

/** The leads of an operation's cuts; null where they have none. */
export function leadSettings(operation: Operation, sheet: Sheet): LeadSettings | null {
  const { kind, lead, kerfSide } = operation;
  // A machine that keeps beside the outlines by itself begins as it does.
  if (lead === null || kind !== 'cut' || kerfSide === 'machine') return null;
  const usual = PER_THICKNESS * (sheet.thickness ?? 0) + (settingsOn(operation, sheet).kerf ?? 0);
  return { shape: lead.shape, inMm: lead.in ?? Math.max(SHORT_MM, usual), outMm: lead.out, overMm: lead.over };
}

/** The outlines of a part that are cut along. */
export type Cut = { readonly result: PartResult; readonly outlines: readonly Outline[] };

type Input = {
  readonly by: string;
  readonly cuts: readonly Cut[];
  /** All parts that are made, whose kept stock is not to be crossed. */
  readonly around: readonly PartResult[];
  readonly lead: LeadSettings;
  readonly half: number;
  readonly sheet: Sheet;
};

/** Of all outlines of all cuts, one part after the other, the cut with its ways; null where there was no room. */
export const CUT_LEADS: Stage<Input, readonly (Path | null)[]> = {
  name: 'lead-ins and lead-outs',
  key: ({ cuts, around, lead, half, sheet }, idOf: IdOf) =>
    [
      cuts.map((c) => idOf(c.outlines)).join(),
      around.map((r) => idOf(r)).join(),
      JSON.stringify(lead),
      half,
      sheet.width,
      sheet.height,
      sheet.leastWidth,
    ].join('|'),
  slot: ({ by }) => by,
  run: ({ cuts, around, lead, half, sheet }, memory) => {
    const kept = around.map((result) => keptOf(result, memory));
    const page = { minX: 0, minY: 0, maxX: sheet.width, maxY: sheet.height };
    return cuts.flatMap(({ result, outlines }) =>
      outlines.map(({ path, box }) => {
        const reach = 2 * lead.inMm + lead.outMm + half + (sheet.leastWidth ?? 0) + 1;
        const near = kept.filter(
          (k) => k.id === result.id || (k.keep === 'inside' && boxesMeet(k.box, growBox(box, reach))),
        );
        return withLead(path, lead, {
          scrapIsRight: result.keep === 'inside',
          // Farther than a piercing wants room matters to nobody.
          room: (at) => roomIn(near, result.id, at, half + piercingRoom(lead.inMm) + 1e-6),
          half,
          backing: sheet.leastWidth ?? 0,
          sheet: page,
        });
      }),
    );
  },
  weigh: (paths) => 40 * paths.length,
};

type Kept = { readonly id: string; readonly keep: PartResult['keep']; readonly box: Box; readonly region: Laid };

const keptOf = (result: PartResult, memory: Memory): Kept => ({
  id: result.id,
  keep: result.keep,
  box: result.box,
  region: memory.of(result, 'outlines laid', () => laid(result.outlines.map((o) => o.path))),
});

/** Room about a place up to what is kept of any part, as far as `reach`; negative within it. */
function roomIn(kept: readonly Kept[], own: string, at: Point, reach: number): number {
  let room = reach;
  for (const { id, keep, region } of kept) {
    if (id !== own && keep === 'outside') continue;
    const isKept = isIn(at, region) === (keep === 'inside');
    const far = roomWithin(at, region, reach);
    room = Math.min(room, isKept ? -far : far);
  }
  return room;
}
