/** Days and times in words. */
import { expect, test } from 'vitest';
import { today, when, whenExactly } from '../../src/ui/when';

const now = new Date(2026, 10, 28, 14, 30);
const at = (...when: [number, number, number, number, number]) => new Date(...when).toISOString();

test('today is told by its time, this year by the day, other years by the year too', () => {
  expect(when(at(2026, 10, 28, 9, 5), now)).toBe('today 09:05');
  expect(when(at(2026, 10, 27, 23, 59), now)).toBe('27 Nov');
  expect(when(at(2025, 10, 28, 9, 5), now)).toBe('28 Nov 2025');
});

test('exactly, the time is always told, and once', () => {
  expect(whenExactly(at(2026, 10, 28, 9, 5), now)).toBe('today 09:05');
  expect(whenExactly(at(2026, 2, 3, 23, 59), now)).toBe('3 Mar 23:59');
  expect(whenExactly(at(2025, 2, 3, 0, 0), now)).toBe('3 Mar 2025 00:00');
});

test('the day is that of the user’s clock, late and early', () => {
  expect(today(new Date(2026, 4, 4, 23, 59))).toBe('2026-05-04');
  expect(today(new Date(2026, 11, 31, 0, 1))).toBe('2026-12-31');
});
