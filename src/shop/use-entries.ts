/** Changing what the shop has: kept as it is typed, one change after the other; removed, and brought back. */
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useCallback, useRef } from 'react';
import { CallFault, call } from '@/api/call';
import { API } from '@/api/endpoints';
import type { EntryOf, KeptShop, Shelf } from '@/core/schema/shop/shop';
import { SHOP } from '@/ui/use-shop';

/** Something that was removed a moment ago. */
export type Removed = { readonly shelf: Shelf; readonly id: string; readonly name: string };

/** What can be done with what the shop has; `onTrouble` is told in a sentence, and whether what is there now is to be shown. */
export function useEntries(onTrouble: (sentence: string, isShownAnew: boolean) => void) {
  const client = useQueryClient();
  /** Changes wait for each other, so that each names the version the one before has made. */
  const waiting = useRef<Promise<unknown>>(Promise.resolve());
  const again = useCallback(() => client.invalidateQueries({ queryKey: SHOP }), [client]);

  const keep = useCallback(
    <S extends Shelf>(shelf: S, id: string, entry: EntryOf<S>): Promise<boolean> => {
      const change = async (): Promise<boolean> => {
        const shop = client.getQueryData<KeptShop>(SHOP);
        const before = shop?.[shelf].find((kept) => kept.id === id);
        try {
          const { version } = await call(
            API.keepEntry,
            { shelf, entry: id },
            { version: before?.version ?? null, entry },
          );
          client.setQueryData<KeptShop>(SHOP, (now) => now && withEntry(now, shelf, { id, version, entry }));
          return true;
        } catch (reason) {
          const { message } = reason as Error;
          // What was typed stays in sight while the server is away, and is kept with the next change.
          const isRefused = !(reason instanceof CallFault && reason.isAway);
          if (isRefused) await again();
          onTrouble(message, isRefused);
          return false;
        }
      };
      const done = waiting.current.then(change);
      waiting.current = done;
      return done;
    },
    [client, again, onTrouble],
  );

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

/** The shop with something put on a shelf, or over what was there. */
function withEntry<S extends Shelf>(
  shop: KeptShop,
  shelf: S,
  kept: { readonly id: string; readonly version: number; readonly entry: EntryOf<S> },
): KeptShop {
  const others = shop[shelf] as readonly { readonly id: string }[];
  const there = others.some((other) => other.id === kept.id);
  const list = there ? others.map((other) => (other.id === kept.id ? kept : other)) : [...others, kept];
  return { ...shop, [shelf]: list } as KeptShop;
}
