'use client';

import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { type ReactNode, useState } from 'react';
import { CallFault } from '@/api/call';
import { SAVED_JOB } from '@/bench/saved-job';

/** How often a question that found the server away is asked again. */
const RETRIES = 2;
/** How long until a server that is away is asked again, in ms. */
const AWAY_MS = 5_000;

const isAway = (fault: Error): boolean => !(fault instanceof CallFault) || fault.isAway;

/** Client-wide state for what comes from the server. */
export function Providers({ children }: { children: ReactNode }) {
  const [client] = useState(() => {
    const made = new QueryClient({
      defaultOptions: {
        queries: {
          // What the server refuses it refuses again.
          retry: (count, fault) => count < RETRIES && isAway(fault),
          // While it is away it is asked again, so that what is said of it goes when it is back.
          refetchInterval: ({ state: { error } }) => (error && isAway(error) ? AWAY_MS : false),
          refetchOnWindowFocus: true,
          staleTime: 2_000,
        },
      },
    });
    made.setQueryDefaults(SAVED_JOB, { gcTime: Number.POSITIVE_INFINITY });
    return made;
  });
  return <QueryClientProvider client={client}>{children}</QueryClientProvider>;
}
