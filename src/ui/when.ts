import { dayOf as isoDay } from '@/core/units/day';

/** Days and times in words, as the user's clock has them. */

const timeOf = (date: Date): string => date.toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' });

function dayOf(date: Date, now: Date): string {
  const year = date.getFullYear() === now.getFullYear() ? undefined : 'numeric';
  return date.toLocaleDateString('en-GB', { day: 'numeric', month: 'short', year });
}

/** The day it is by the user's clock, "2026-05-04". */
export const today = (now = new Date()): string => isoDay(now);

/** "today 14:02", "3 Nov", "3 Nov 2025". */
export function when(iso: string, now = new Date()): string {
  const date = new Date(iso);
  return date.toDateString() === now.toDateString() ? `today ${timeOf(date)}` : dayOf(date, now);
}

/** "today 14:02", "3 Nov 14:02", "3 Nov 2025 14:02". */
export function whenExactly(iso: string, now = new Date()): string {
  const date = new Date(iso);
  return date.toDateString() === now.toDateString() ? when(iso, now) : `${dayOf(date, now)} ${timeOf(date)}`;
}
