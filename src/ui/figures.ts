/** Figures in words: areas and long lengths in the user's unit. */
import { formatLength, type LengthUnit } from '@/core/units/quantity';

/** "12.3 cm²", "0.4 cm²", or square inches. */
export function formatArea(mm2: number, unit: LengthUnit): string {
  if (unit === 'in') return `${(mm2 / 645.16).toFixed(2)} in²`;
  return mm2 < 100 ? `${mm2.toFixed(1)} mm²` : `${(mm2 / 100).toFixed(1)} cm²`;
}

/** A path length: metres from one metre on, feet are not used. */
export function formatRun(mm: number, unit: LengthUnit): string {
  if (unit === 'in') return formatLength(mm, 'in', 1);
  if (mm >= 100_000) return `${Math.round(mm / 1000).toLocaleString('en')} m`;
  return mm >= 1000 ? `${(mm / 1000).toFixed(2)} m` : formatLength(mm, 'mm', 1);
}

/** "12.3 %" of a share. */
export const formatShare = (share: number): string => `${(100 * share).toFixed(1)} %`;

/** What areas of stock are priced by. */
export const areaUnit = (unit: LengthUnit): string => (unit === 'mm' ? 'm²' : 'ft²');
const FOOT_MM = 304.8;
/** What is shown of a price for each square metre. */
export const areaScale = (unit: LengthUnit): number => (unit === 'mm' ? 1 : (FOOT_MM / 1000) ** 2);

/** "0.124 m²": an area of stock, from mm². */
export const formatStock = (mm2: number, unit: LengthUnit): string =>
  `${Number((mm2 / (unit === 'mm' ? 1e6 : FOOT_MM ** 2)).toPrecision(3))} ${areaUnit(unit)}`;
