/**
 * Many typefaces: bringing two hundred in, the first screen of a list of five hundred against shaping and drawing the same words bare,
 * scrolling it, and an axis of a variable face against typing a letter.
 */
import { readFileSync } from 'node:fs';
import { pathData } from '../src/core/geometry/path-data';
import { SHIPPED_FACES } from '../src/core/lettering/catalogue';
import { PLAIN_SHAPING } from '../src/core/lettering/face';
import { loadTypeface } from '../src/core/lettering/typeface';
import { figure } from '../tests/support/figures';
import { renamed } from '../tests/support/font';
import { addLettering, chooseFace, computed, expect, newJob, test } from './fixtures';
import { median, timesToRedraw } from './redrawn';

const FILES = 500;
const WORDS = 'Seedlings';
const VARIABLE = 'node_modules/@fontsource-variable/caveat/files/caveat-latin-wght-normal.woff2';

const outlined = SHIPPED_FACES.filter(({ file }) => file.endsWith('.ttf')).map(
  ({ file }) => new Uint8Array(readFileSync(`public/typefaces/${file}`)),
);
const made = Array.from({ length: FILES }, (_, i) => ({
  name: `made-${i}.ttf`,
  mimeType: 'font/ttf',
  buffer: Buffer.from(renamed(outlined[i % outlined.length] as Uint8Array, `Made ${String(i).padStart(3, '0')}`)),
}));

test('many typefaces', async ({ page }) => {
  test.setTimeout(1_200_000);
  await page.goto('/typefaces');
  const input = page.getByLabel('Typefaces to bring in');
  const bring = async (from: number, to: number) => {
    const began = Date.now();
    // As many as the test may hand over at once.
    for (let at = from; at < to; at += 100) {
      await input.setInputFiles(made.slice(at, Math.min(to, at + 100)));
      await expect(page.getByText('100 typeface files brought in.')).toBeVisible({ timeout: 300_000 });
      await page.getByRole('button', { name: 'Read' }).click();
    }
    return (Date.now() - began) / 1000;
  };
  const seconds = await bring(0, 200);
  figure({
    name: 'Bringing in 200 typefaces',
    value: seconds,
    digits: 1,
    unit: 's',
    note: `${(seconds * 5).toFixed(0)} ms each`,
  });
  await bring(200, FILES);

  await newJob(page, 'Many faces');
  await addLettering(page, WORDS);
  await computed(page);
  // The bare way: the files of the first screen opened, the words shaped and drawn.
  const bare: number[] = [];
  for (let round = 0; round < 7; round++) {
    const began = performance.now();
    for (const { buffer } of made.slice(10 * round, 10 * round + 10)) {
      const load = await loadTypeface(new Uint8Array(buffer));
      if (!load.ok) throw new Error(load.sentence);
      let x = 0;
      for (const { glyph, advance } of load.typeface.shape(WORDS, 'ltr', PLAIN_SHAPING)) {
        pathData(load.typeface.outline(glyph), null, 2);
        x += advance;
      }
      expect(x).toBeGreaterThan(0);
    }
    bare.push(performance.now() - began);
  }
  await page.getByRole('button', { name: 'Archivo Black', exact: true }).click();
  const search = page.getByLabel('Find typefaces');
  await expect(search).toBeFocused();
  const screens: number[] = [];
  for (let round = 0; round < 7; round++) {
    const took = await page.evaluate(
      (words) =>
        new Promise<number>((resolve) => {
          const field = document.querySelector<HTMLInputElement>('[aria-label="Find typefaces"]');
          const list = document.querySelector('[role="listbox"][aria-label="Typefaces"]');
          const began = performance.now();
          const set = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value')?.set;
          set?.call(field, words);
          field?.dispatchEvent(new Event('input', { bubbles: true }));
          const look = () => {
            const rows = [...(list?.querySelectorAll('[role="option"]') ?? [])];
            const isDrawn =
              rows.length > 0 &&
              rows.every((r) => r.getAttribute('aria-label')?.startsWith('Made') && r.querySelector('path'));
            if (isDrawn) resolve(performance.now() - began);
            else requestAnimationFrame(look);
          };
          requestAnimationFrame(look);
        }),
      // Ten families that have not been seen yet.
      `Made ${String(10 * round + 100).slice(0, 2)}`,
    );
    screens.push(took);
  }
  figure({
    name: 'First screen of a list of 500 typefaces, against opening, shaping and drawing the same bare',
    value: median(screens) / median(bare),
    digits: 1,
    aim: { most: 2 },
    note: `${median(screens).toFixed(0)} ms against ${median(bare).toFixed(0)} ms`,
  });
  await search.fill('');
  // At rest: what is in sight is drawn, and nothing is under way.
  await expect(page.locator('[role="listbox"] [role="option"] path').first()).toBeVisible();
  await page.waitForTimeout(1500);
  const longest = await page.evaluate(async () => {
    const list = document.querySelector('[role="listbox"][aria-label="Typefaces"]') as HTMLElement;
    let [last, most] = [performance.now(), 0];
    for (let i = 0; i < 180; i++) {
      list.scrollTop += 60;
      await new Promise(requestAnimationFrame);
      const now = performance.now();
      if (i > 5) most = Math.max(most, now - last);
      last = now;
    }
    return most;
  });
  figure({
    name: 'Scrolling 500 typefaces: the longest frame',
    value: longest,
    digits: 0,
    unit: 'ms',
    aim: { most: 50 },
  });
});

test('an axis against a letter', async ({ page }) => {
  await page.goto('/typefaces');
  await page.getByLabel('Typefaces to bring in').setInputFiles([VARIABLE]);
  await expect(page.getByText(/brought in|here already/)).toBeVisible();
  await newJob(page, 'Axis');
  await addLettering(page, 'Rhubarb rows');
  await chooseFace(page, 'Caveat');
  await page.getByLabel('Style').selectOption({ label: 'Regular' });
  await computed(page);
  await page.getByText(/^Saved/).waitFor();
  await page.getByRole('textbox', { name: 'Words' }).press('Control+End');
  const typed = median((await timesToRedraw(page, '[data-member]', 31)).slice(5));
  await page.getByRole('slider', { name: 'Weight' }).focus();
  const moved = median(
    (await timesToRedraw(page, '[data-member]', 31, undefined, ['ArrowRight', 'ArrowLeft'])).slice(5),
  );
  figure({
    name: 'An axis of a script word of twelve letters changed, against a letter typed',
    value: moved / typed,
    digits: 1,
    aim: { most: 2 },
    note: `${moved.toFixed(0)} ms against ${typed.toFixed(0)} ms`,
  });
});
