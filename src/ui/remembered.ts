/** What a browser remembers from one visit to the next; one that keeps nothing forgets it. */

/** What is remembered under a key; null where nothing is, or nothing can be. */
export function remembered(key: string): string | null {
  try {
    return localStorage.getItem(`needlefile:${key}`);
  } catch {
    return null;
  }
}

/** Remember something under a key. */
export function remember(key: string, value: string): void {
  try {
    localStorage.setItem(`needlefile:${key}`, value);
  } catch {
    // It is asked, or said, again.
  }
}
