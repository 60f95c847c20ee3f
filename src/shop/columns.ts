/** What tables of the shop show of each thing, short enough to be read across the room. */
import type { EntryOf, KeptShop, Shelf } from '@/core/schema/shop/shop';
import { formatSetting, formatSpeed, MACHINE_WORDS } from '@/core/shop/words';
import { formatLength, type LengthUnit } from '@/core/units/quantity';

/** A column: what is at its head, and what it shows of an entry. */
export type Column<S extends Shelf> = {
  readonly head: string;
  readonly isFigure?: boolean;
  readonly of: (entry: EntryOf<S>, shop: KeptShop, unit: LengthUnit) => string;
  /** What it is sorted by, where that is not what it shows. */
  readonly by?: (entry: EntryOf<S>, shop: KeptShop) => number;
};

const nameIn = (
  list: readonly { readonly id: string; readonly entry: { readonly name: string } }[],
  id: string,
): string => list.find((kept) => kept.id === id)?.entry.name ?? 'no longer there';

const SHOWN_THICKNESSES = 6;

const MACHINES: readonly Column<'machines'>[] = [
  { head: 'Machine', of: (m) => m.name },
  { head: 'Kind', of: (m) => MACHINE_WORDS[m.kind] },
  {
    head: 'Bed',
    isFigure: true,
    of: (m, _shop, unit) => `${formatLength(m.bed.width, unit, 0)} × ${formatLength(m.bed.height, unit, 0)}`,
    by: (m) => m.bed.width * m.bed.height,
  },
  {
    head: 'Fastest',
    isFigure: true,
    of: (m, _shop, unit) => formatSpeed(Math.max(m.speed.x, m.speed.y), unit),
    by: (m) => Math.max(m.speed.x, m.speed.y),
  },
  { head: 'Files', of: (m) => (m.file.format === 'hpgl' ? 'plotter' : m.file.format.toUpperCase()) },
];

const MATERIALS: readonly Column<'materials'>[] = [
  { head: 'Material', of: (m) => m.name },
  {
    head: 'Thicknesses',
    of: ({ thicknesses }, _shop, unit) => {
      const shown = thicknesses.slice(0, SHOWN_THICKNESSES).map((t) => t.as || formatLength(t.mm, unit, 2));
      return shown.join(', ') + (thicknesses.length > shown.length ? ' …' : '');
    },
    by: ({ thicknesses }) => Math.max(0, ...thicknesses.map((t) => t.mm)),
  },
  { head: 'Cut by', of: (m) => Object.keys(m.kerfsMm).join(', ') },
  { head: 'Not by', of: (m) => m.refuses.map((r) => r.process).join(', ') },
  {
    head: 'Least width',
    isFigure: true,
    of: (m, _shop, unit) => formatLength(m.leastWidthMm, unit, 2),
    by: (m) => m.leastWidthMm,
  },
];

const TOOLS: readonly Column<'tools'>[] = [
  { head: 'Tool', of: (t) => t.name },
  { head: 'End', of: (t) => (t.colour === null ? t.shape : 'pen') },
  { head: 'Width', isFigure: true, of: (t, _shop, unit) => formatLength(t.tip, unit, 2), by: (t) => t.tip },
  {
    head: 'Angle',
    isFigure: true,
    of: (t) => (t.shape === 'cone' ? `${t.angle}°` : ''),
    by: (t) => (t.shape === 'cone' ? t.angle : 0),
  },
];

const CHART: readonly Column<'chart'>[] = [
  { head: 'Material', of: (r, shop) => nameIn(shop.materials, r.material) },
  { head: 'Operation', of: (r) => r.kind },
  {
    head: 'Thickness',
    isFigure: true,
    of: (r, _shop, unit) => (r.thickness === null ? 'any' : formatLength(r.thickness, unit, 2)),
    by: (r) => r.thickness ?? 0,
  },
  {
    head: 'Speed',
    isFigure: true,
    of: (r, _shop, unit) => formatSetting('speed', r.settings.speed, unit),
    by: (r) => r.settings.speed ?? 0,
  },
  {
    head: 'Power',
    isFigure: true,
    of: ({ settings: { power, current } }, _shop, unit) =>
      power === null
        ? current === null
          ? ''
          : formatSetting('current', current, unit)
        : formatSetting('power', power, unit),
    by: ({ settings: { power, current } }) => power ?? current ?? 0,
  },
  { head: 'Passes', isFigure: true, of: (r) => String(r.settings.passes), by: (r) => r.settings.passes },
  { head: 'Tool', of: (r) => r.settings.tool },
  { head: 'Tried', of: (r) => (r.tried ? 'tried' : 'not tried') },
];

/** The columns of each shelf. */
export const COLUMNS: { readonly [S in Shelf]: readonly Column<S>[] } = {
  machines: MACHINES,
  materials: MATERIALS,
  tools: TOOLS,
  chart: CHART,
};
