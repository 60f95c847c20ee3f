export function freePort(): Promise<number>;
export function postgres(
  name: string,
  options?: { fast?: boolean },
): {
  start(): Promise<string>;
  stop(): void;
  isRunning(): boolean;
  /** Removes all of it. */
  remove(): void;
  /** Where the data was put, and where it belongs; null when there was none. */
  setAside(): { readonly aside: string; readonly home: string } | null;
};
