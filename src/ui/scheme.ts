/** The colour scheme, for what is painted by hand and does not follow style sheets by itself. */
import { useSyncExternalStore } from 'react';

const read = (): string => document.documentElement.dataset.bsTheme ?? 'light';

function follow(changed: () => void): () => void {
  const observer = new MutationObserver(changed);
  observer.observe(document.documentElement, { attributeFilter: ['data-bs-theme'] });
  return () => observer.disconnect();
}

/** Rendered again whenever the scheme changes. */
export const useScheme = (): string => useSyncExternalStore(follow, read, () => 'light');
