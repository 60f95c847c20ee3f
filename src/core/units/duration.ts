/** Times in words. */

/** "0.4 s", "12 s", "2 min 40 s", "1 h 05 min": seconds as one says them. */
export function formatSeconds(seconds: number): string {
  if (seconds < 9.95) return `${Math.max(0, seconds).toFixed(1)} s`;
  const whole = Math.round(seconds);
  if (whole < 60) return `${whole} s`;
  const two = (value: number): string => String(value).padStart(2, '0');
  if (whole < 3600) return `${Math.floor(whole / 60)} min ${two(whole % 60)} s`;
  const minutes = Math.round(seconds / 60);
  return `${Math.floor(minutes / 60)} h ${two(minutes % 60)} min`;
}

/** "+4 s", "−1 min 05 s": a difference. */
export const formatSecondsMore = (seconds: number): string =>
  `${seconds < 0 ? '−' : '+'}${formatSeconds(Math.abs(seconds))}`;
