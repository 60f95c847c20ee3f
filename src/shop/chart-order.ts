/** Rows of cut charts as they are read: by material, by operation in running order, from thin to thick. */
import { RUNNING_ORDER } from '@/core/commands/operations';
import type { KeptShop } from '@/core/schema/shop/shop';

/** The rows of all charts, in order. */
export function inChartOrder({ chart, materials }: KeptShop): KeptShop['chart'] {
  const place = new Map(materials.map(({ id }, i) => [id, i]));
  return [...chart].sort(
    ({ entry: a }, { entry: b }) =>
      (place.get(a.material) ?? Infinity) - (place.get(b.material) ?? Infinity) ||
      RUNNING_ORDER.indexOf(a.kind) - RUNNING_ORDER.indexOf(b.kind) ||
      (a.thickness ?? 0) - (b.thickness ?? 0),
  );
}
