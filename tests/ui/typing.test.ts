/** A field whose value follows a moment after what is typed. */
import { expect, test } from 'vitest';
import { isFromElsewhere } from '../../src/ui/typing';

test('what comes of an earlier digit is not from elsewhere, when the next is typed already', () => {
  // "20 in" typed into a field of 200 mm: 2 and 20 mm are on their way while 508 mm is sent.
  const sent = [2, 20, 508];
  for (const value of [2, 20, 20.0001, 508, 507.9999])
    expect(isFromElsewhere(value, 508, sent), `${value}`).toBe(false);
  // Undone, or moved on the sheet meanwhile.
  for (const value of [200, 2.001, 507.9]) expect(isFromElsewhere(value, 508, sent), `${value}`).toBe(true);
});

test('with nothing on its way every other value is from elsewhere', () => {
  expect(isFromElsewhere(0.04, 0.04, [])).toBe(false);
  expect(isFromElsewhere(0.0401, 0.04, [])).toBe(true);
});
