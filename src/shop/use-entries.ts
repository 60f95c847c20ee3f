/** Changing what the shop has: kept as it is typed, one change after the other; removed, and brought back. */
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useCallback } from 'react';
import { call } from '@/api/call';
import { API } from '@/api/endpoints';
import type { Shelf } from '@/core/schema/shop/shop';
import { type OnTrouble, useKeepEntry } from '@/ui/use-keep-entry';
import { SHOP } from '@/ui/use-shop';

/** Something that was removed a moment ago. */
export type Removed = { readonly shelf: Shelf; readonly id: string; readonly name: string };

/** What can be done with what the shop has; `onTrouble` is told in a sentence, and whether what is there now is to be shown. */
export function useEntries(onTrouble: OnTrouble) {
  const client = useQueryClient();
  const again = useCallback(() => client.invalidateQueries({ queryKey: SHOP }), [client]);
  const { keep, waiting } = useKeepEntry(onTrouble);

  const remove = useMutation({
    mutationFn: async ({ shelf, id }: Removed) => {
      await waiting.current;
      return call(API.removeEntry, { shelf, entry: id }, null);
    },
    onSuccess: again,
    onError: (reason) => onTrouble(reason.message, false),
  });
  const restore = useMutation({
    mutationFn: ({ shelf, id }: Removed) => call(API.restoreEntry, { shelf, entry: id }, null),
    onSuccess: again,
    onError: (reason) => onTrouble(reason.message, false),
  });
  const bringIn = useMutation({
    mutationFn: (shop: unknown) => call(API.bringInShop, {}, { shop }),
    onSuccess: again,
    onError: (reason) => onTrouble(reason.message, false),
  });
  return { keep, remove, restore, bringIn };
}
