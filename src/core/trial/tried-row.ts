/** The row of a cut chart that was shown to work: over the one that is there, or a new one. */
import { materialNamed } from '../document/material';
import type { Job } from '../document/schema';
import type { OperationKind } from '../schema/operations';
import type { Settings } from '../schema/shop/settings';
import type { ChartRow, Kept, Shop } from '../schema/shop/shop';

/** Thicknesses nearer than this are one, in mm. */
const SAME_MM = 0.005;

/**
 * The row for the job's machine, material and thickness, with its id where the chart has one already; a sentence where the shop knows not
 * all of these.
 */
export function triedRow(
  shop: Pick<Shop, 'machines' | 'materials' | 'chart'>,
  { machine, sheet }: Pick<Job, 'machine' | 'sheet'>,
  { kind, settings }: { readonly kind: OperationKind; readonly settings: Settings },
): { readonly id: string | null; readonly entry: ChartRow } | { readonly sentence: string } {
  const known = shop.machines.find((m) => m.id === machine?.id);
  const material = materialNamed(
    sheet.material,
    shop.materials.map(({ id, entry }) => ({ id, name: entry.name })),
  );
  if (!known) return { sentence: 'The shop does not have the machine of this job.' };
  if (!material) return { sentence: `The shop has no material “${sheet.material}”.` };
  const isSame = ({ entry }: Kept<ChartRow>): boolean =>
    entry.machine === known.id &&
    entry.material === material.id &&
    entry.kind === kind &&
    (entry.thickness === null || sheet.thickness === null
      ? entry.thickness === sheet.thickness
      : Math.abs(entry.thickness - sheet.thickness) < SAME_MM);
  const row = shop.chart.find(isSame);
  const entry = { machine: known.id, material: material.id, thickness: sheet.thickness, kind, settings, tried: true };
  return { id: row?.id ?? null, entry };
}
