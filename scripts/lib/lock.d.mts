/** Waits until the lock of a name is ours; returns what lets it go. */
export function lock(name: string, waits?: () => void): Promise<() => void>;
