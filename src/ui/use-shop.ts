/** What the shop has, as the server keeps it. */
import { useQuery } from '@tanstack/react-query';
import { call } from '@/api/call';
import { API } from '@/api/endpoints';
import type { Material } from '@/core/schema/shop/material';
import type { KeptShop } from '@/core/schema/shop/shop';

/** The question for the shop. */
export const SHOP = ['shop'];

const NOTHING: KeptShop = { machines: [], materials: [], tools: [], chart: [] };
const NO_MATERIALS: readonly Material[] = [];
const materialsOf = new WeakMap<KeptShop, readonly Material[]>();

const asked = {
  queryKey: SHOP,
  queryFn: ({ signal }: { signal: AbortSignal }) => call(API.openShop, {}, null, signal),
  staleTime: 60_000,
};

/** All that the shop has; nothing until it has come. */
export const useShop = (): KeptShop => useQuery(asked).data ?? NOTHING;

/** The same, with whether it is still on its way and what went wrong. */
export const useShopAsked = () => useQuery(asked);

/** The materials of the shop; none until they have come. */
export function useMaterials(): readonly Material[] {
  const { data } = useQuery({ ...asked, select: materialsIn });
  return data ?? NO_MATERIALS;
}

const materialsIn = (shop: KeptShop): readonly Material[] => {
  const known = materialsOf.get(shop) ?? shop.materials.map((m) => m.entry);
  materialsOf.set(shop, known);
  return known;
};
