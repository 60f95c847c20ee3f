/** How long it takes from a key press until a path is redrawn. */
import { expect, type Page } from '@playwright/test';

/**
 * Milliseconds from each of so many key presses to the frame that shows the change of a path; the keys are pressed in turn. `between`
 * is waited for after each, by its number.
 */
export async function timesToRedraw(
  page: Page,
  selector: string,
  presses: number,
  between: (i: number) => Promise<void> = async () => {},
  keys: readonly [string, string] = ['e', 'Backspace'],
): Promise<number[]> {
  await page.evaluate((wanted) => {
    const times: number[] = [];
    let pressed = 0;
    window.addEventListener(
      'keydown',
      () => {
        pressed = performance.now();
      },
      true,
    );
    new MutationObserver(() => {
      if (pressed === 0) return;
      const from = pressed;
      pressed = 0;
      requestAnimationFrame(() => setTimeout(() => times.push(performance.now() - from)));
    }).observe(document.querySelector(wanted) as Element, { attributes: true, attributeFilter: ['d'] });
    (window as unknown as { redrawn: number[] }).redrawn = times;
  }, selector);
  const taken = () => page.evaluate(() => (window as unknown as { redrawn: number[] }).redrawn);
  for (let i = 0; i < presses; i++) {
    await page.keyboard.press(keys[i % 2] as string);
    await expect.poll(async () => (await taken()).length, { intervals: [10, 20, 50] }).toBe(i + 1);
    await between(i);
  }
  return taken();
}

export const median = (times: readonly number[]): number =>
  [...times].sort((a, b) => a - b)[times.length >> 1] as number;
