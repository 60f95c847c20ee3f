export function freePort(): Promise<number>;
export function postgres(
  name: string,
  options?: { fast?: boolean },
): { start(): Promise<string>; stop(): void; reset(): void; isRunning(): boolean };
