/** Keeping an entry of the shop: one change after the other, each against the version that the one before has made. */
import { useQueryClient } from '@tanstack/react-query';
import { useCallback, useRef } from 'react';
import { CallFault, call } from '@/api/call';
import { API } from '@/api/endpoints';
import type { EntryOf, KeptShop, Shelf } from '@/core/schema/shop/shop';
import { SHOP } from './use-shop';

/** What is told where something was not kept: a sentence, and whether what is there now is to be shown. */
export type OnTrouble = (sentence: string, isShownAnew: boolean) => void;

/** How to keep an entry, which answers whether it was, and what to wait for so that all of them are. */
export function useKeepEntry(onTrouble: OnTrouble) {
  const client = useQueryClient();
  /** Changes wait for each other, so that each names the version the one before has made. */
  const waiting = useRef<Promise<unknown>>(Promise.resolve());

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
          if (isRefused) await client.invalidateQueries({ queryKey: SHOP });
          onTrouble(message, isRefused);
          return false;
        }
      };
      const done = waiting.current.then(change);
      waiting.current = done;
      return done;
    },
    [client, onTrouble],
  );
  return { keep, waiting };
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
