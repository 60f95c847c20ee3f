/** Where in a job the user is, kept in the address, so that a reload comes back to it. */
import { STATIONS } from '@/core/inspect/stations';

/** Where on the bench one is: the station, and what is chosen there. */
export type BenchPlace = { readonly station: string; readonly partId: string | null; readonly memberId: string | null };

/** The place that the address of the page names. */
export function placeFromAddress(): BenchPlace {
  const query = new URLSearchParams(window.location.search);
  const wanted = query.get('at');
  const [partId, memberId] = (query.get('on') ?? '').split('/');
  return {
    station: STATIONS.find((s) => s.id === wanted)?.id ?? 'compose',
    partId: partId || null,
    memberId: memberId || null,
  };
}

/** Put a place into the address of the page, so that a reload comes back to it. */
export function placeToAddress({ station, partId, memberId }: BenchPlace): void {
  const query = new URLSearchParams();
  if (station !== 'compose') query.set('at', station);
  if (partId) query.set('on', memberId ? `${partId}/${memberId}` : partId);
  const search = query.size > 0 ? `?${query.toString().replaceAll('%2F', '/')}` : '';
  if (search !== window.location.search)
    // The browser's own: the framework's would go through its router, which has nothing to do with it.
    History.prototype.replaceState.call(window.history, window.history.state, '', window.location.pathname + search);
}
