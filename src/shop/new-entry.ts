/** Something new for a shelf of the shop. */
import { machineSchema } from '@/core/schema/shop/machine';
import { materialSchema } from '@/core/schema/shop/material';
import { chartRowSchema, type EntryOf, type KeptShop, type Shelf, shopToolSchema } from '@/core/schema/shop/shop';

const freeName = (stem: string, list: readonly { readonly entry: { readonly name: string } }[]): string => {
  const taken = new Set(list.map(({ entry }) => entry.name));
  for (let n = 1; ; n++) {
    const name = n === 1 ? stem : `${stem} ${n}`;
    if (!taken.has(name)) return name;
  }
};

/** Something new for a shelf; a row of a chart is for the machine and material in sight. Null where there is nothing a row could be for. */
export function newEntry<S extends Shelf>(
  shelf: S,
  shop: KeptShop,
  sight: { readonly machine: string; readonly material: string },
): EntryOf<S> | null {
  switch (shelf) {
    case 'machines':
      return machineSchema.parse({ name: freeName('New machine', shop.machines), kind: 'laser' }) as EntryOf<S>;
    case 'materials':
      return materialSchema.parse({
        name: freeName('New material', shop.materials),
        leastWidthMm: 1,
        leastPerThickness: 0.5,
        process: 'laser',
        kerfsMm: { laser: 0.2 },
        thicknesses: [{ mm: 3 }],
      }) as EntryOf<S>;
    case 'tools':
      return shopToolSchema.parse({ name: freeName('New tool', shop.tools) }) as EntryOf<S>;
    default: {
      const machine = sight.machine || shop.machines[0]?.id;
      const material = sight.material || shop.materials[0]?.id;
      return machine && material
        ? (chartRowSchema.parse({ machine, material, thickness: 3, kind: 'cut' }) as EntryOf<S>)
        : null;
    }
  }
}
