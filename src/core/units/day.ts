/** Days as they are written everywhere: "2026-05-04" (ISO 8601). */

/** The day of a moment by the clock it is read on. */
export function dayOf(at: Date): string {
  const two = (n: number) => String(n).padStart(2, '0');
  return `${at.getFullYear()}-${two(at.getMonth() + 1)}-${two(at.getDate())}`;
}

/** Whether a text is a day there is. */
export const isDay = (text: string): boolean =>
  /^\d{4}-\d{2}-\d{2}$/.test(text) &&
  new Date(`${text}T00:00:00Z`).getTime() > 0 &&
  new Date(`${text}T00:00:00Z`).toISOString().startsWith(text);
