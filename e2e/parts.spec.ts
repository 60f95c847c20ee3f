/** A part is one thing: moved, sized, turned, mirrored and copied as a whole, by hand and by keyboard alone. */
import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { addLettering, computed, expect, intoPart, kept, newJob, onScreen, saved, station, test } from './fixtures';

const figures = (page: Page) => page.getByRole('contentinfo');
const field = (page: Page, name: string) => page.getByLabel(name, { exact: true });
const W = 'Width as cut or drawn';
const H = 'Height as cut or drawn';
const value = async (page: Page, name: string) => Number(await field(page, name).inputValue());
const addShape = async (page: Page, name: string) => {
  await page.getByRole('button', { name: 'Shape', exact: true }).click();
  await page.getByRole('button', { name, exact: true }).click();
};
/** What was gone into is cut out of its part. */
const cutOut = (page: Page) =>
  page.getByRole('group', { name: 'In the part' }).getByText('cut out', { exact: true }).click();
type Part = { placement: { x: number; y: number; turn: number; mirror: boolean }; members: { role: string }[] };
const partsOf = async (page: Page, id: string) => (await kept(page, id)).document.parts as unknown as Part[];
const drag = async (page: Page, from: readonly [number, number], to: readonly [number, number]) => {
  const [a, b] = [await onScreen(page, ...from), await onScreen(page, ...to)];
  await page.mouse.move(a.x, a.y);
  await page.mouse.down();
  await page.keyboard.down('Alt');
  await page.mouse.move(b.x, b.y, { steps: 5 });
  await page.mouse.up();
  await page.keyboard.up('Alt');
};

/** A plate 300 × 150 mm in the middle of the sheet with a word, a hole and an emblem brought in, all cut out of it. */
async function plate(page: Page): Promise<void> {
  await addShape(page, 'Rectangle');
  await field(page, 'Width').fill('300');
  await field(page, 'Height').fill('150');
  await intoPart(page);
  await page.getByRole('button', { name: 'Lettering', exact: true }).click();
  await page.getByRole('textbox', { name: 'Words' }).fill('Oak');
  await cutOut(page);
  await field(page, 'Capital height').fill('40');
  await addShape(page, 'Ellipse');
  await cutOut(page);
  await field(page, W).fill('10');
  await field(page, 'From the left').fill('165');
  await computed(page);
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Back to the sheet' }).click();
  const svg =
    '<svg xmlns="http://www.w3.org/2000/svg" width="20mm" height="20mm" viewBox="0 0 20 20"><circle cx="10" cy="10" r="9" fill="none" stroke="#1A26AF"/></svg>';
  await page
    .getByLabel('Drawing or picture to bring in')
    .setInputFiles({ name: 'emblem.svg', mimeType: 'image/svg+xml', buffer: Buffer.from(svg) });
  await page.getByRole('dialog').getByRole('button', { name: 'Bring in', exact: true }).click();
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await field(page, 'From the left').fill('410');
  await computed(page);
  // It is put into the plate, and cut out of it.
  const parts = page.getByRole('list', { name: 'Parts' });
  await parts
    .getByRole('button', { name: /^(Rectangle|Oak)/ })
    .first()
    .click();
}

test('a plate with words, holes and an emblem is one thing in the hand, and goes into another job and the file', async ({
  page,
}) => {
  const id = await newJob(page, 'One thing');
  await plate(page);
  await page.getByRole('button', { name: /^Make one part of/ }).click();
  await computed(page);
  await page
    .getByRole('list', { name: 'Members' })
    .getByRole('button', { name: /^emblem/ })
    .click();
  await cutOut(page);
  await page.keyboard.press('Escape');
  await computed(page);
  await expect(page.locator('[data-chosen]')).toHaveText(/4 things as one$/);
  await expect(field(page, W)).toHaveValue('300');

  // Dragged, all of it goes along: nothing is sliced. What was brought in is still in sight from near.
  await page.locator('[data-sheet]').focus();
  await page.keyboard.press('f');
  const before = await partsOf(page, id);
  await drag(page, [160, 140], [190, 150]);
  await computed(page);
  await expect.poll(() => value(page, 'From the left')).toBeCloseTo(180, 0);
  const after = await partsOf(page, id);
  expect(after[0]?.members).toEqual(before[0]?.members);

  // To just twenty inches, words, hole and emblem with it.
  await field(page, W).fill('20 in');
  await field(page, W).blur();
  await expect(figures(page)).toContainText('Selected 508 × 254 mm');
  await field(page, 'Turn').fill('30');
  await expect(page.getByText('Turned: w and h are those of its bounds on the sheet.')).toBeVisible();
  await computed(page);
  await expect.poll(() => value(page, W)).toBeCloseTo(508 * Math.cos(Math.PI / 6) + 254 * Math.sin(Math.PI / 6), 1);
  await field(page, 'Turn').fill('0');
  await computed(page);
  const left = await value(page, 'From the left');
  await page.getByRole('button', { name: 'Mirror', exact: true }).click();
  await computed(page);
  await expect.poll(() => value(page, 'From the left')).toBeCloseTo(left, 1);
  expect((await partsOf(page, id))[0]?.placement.mirror).toBe(true);

  // Undo goes back a step at a time and chooses what it acted on.
  await page.keyboard.press('Escape');
  await expect(page.locator('[data-chosen]')).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.locator('[data-chosen]')).toHaveText(/4 things as one$/);
  await computed(page);

  await page.locator('[data-sheet]').focus();
  await page.keyboard.press('Control+c');
  await saved(page);
  const other = await newJob(page, 'Another');
  await page.locator('[data-sheet]').focus();
  await page.keyboard.press('Control+v');
  await computed(page);
  await expect(page.locator('[data-chosen]')).toHaveText(/4 things as one$/);
  expect((await partsOf(page, other))[0]?.members.map((m) => m.role)).toEqual(['join', 'punch', 'punch', 'punch']);

  // In the file it is what was asked for, to a hundredth of a millimetre.
  await station(page, 'Prove').click();
  const download = page.waitForEvent('download');
  await page.getByRole('complementary', { name: 'Station Prove' }).getByRole('button', { name: /DXF/ }).first().click();
  const text = readFileSync(await (await download).path(), 'latin1');
  const number = (name: string, code: number) =>
    Number(new RegExp(`\\$${name}[\\s\\S]*?\\n *${code}\\r?\\n([-\\d.]+)`).exec(text)?.[1]);
  expect(number('EXTMAX', 10) - number('EXTMIN', 10)).toBeCloseTo(508, 2);
  expect(number('EXTMAX', 20) - number('EXTMIN', 20)).toBeCloseTo(254, 2);
});

test('several parts are sized as one; a band, a second press and Esc choose', async ({ page }) => {
  const id = await newJob(page, 'Three');
  for (const [i, word] of ['One', 'Two', 'Six'].entries()) {
    if (i > 0) await page.getByRole('button', { name: 'Back to the sheet' }).click();
    await addLettering(page, word);
    await field(page, 'Capital height').fill('30');
    await field(page, 'From the left').fill(String(60 + 150 * i));
    await field(page, 'From the bottom').fill(String(100 + 40 * i));
    await computed(page);
  }
  // A band over the first two, then the third added with Shift.
  await page.getByRole('button', { name: 'Back to the sheet' }).click();
  await drag(page, [20, 60], [300, 190]);
  await expect(page.locator('[data-chosen]')).toHaveText('2 parts as one');
  const third = page.getByRole('list', { name: 'Parts' }).getByRole('button', { name: /^Six/ });
  await third.click({ modifiers: ['Shift'] });
  await expect(page.locator('[data-chosen]')).toHaveText('3 parts as one');
  const [x, y] = [await value(page, 'From the left'), await value(page, 'From the bottom')];
  await field(page, W).fill('200');
  await field(page, W).blur();
  await computed(page);
  await expect(figures(page)).toContainText('Selected 200 ×');
  expect(await value(page, 'From the left')).toBeCloseTo(x, 2);
  expect(await value(page, 'From the bottom')).toBeCloseTo(y, 2);
  const parts = await partsOf(page, id);
  expect(parts).toHaveLength(3);

  // The first press takes the part, the second goes inside, one more to the letters; Esc comes out a step at a time.
  await page.keyboard.press('Escape');
  await page.locator('[data-sheet]').focus();
  await page.keyboard.press('Escape');
  await expect(page.locator('[data-chosen]')).toHaveCount(0);
  // The left side of the O, which begins at 60 mm.
  const at = await onScreen(page, 62.5, 108.3);
  const chosen = page.locator('[data-chosen]');
  await page.mouse.click(at.x, at.y);
  await expect(chosen).toHaveText('Part One');
  await page.mouse.click(at.x, at.y, { delay: 20 });
  await expect(chosen).toHaveText('One, in the part One');
  await page.mouse.click(at.x, at.y, { delay: 20 });
  await expect(page.getByRole('region', { name: 'Letters one by one' })).toBeVisible();
  await page.locator('[data-sheet]').focus();
  for (const words of ['One, in the part One', 'Part One']) {
    await page.keyboard.press('Escape');
    await expect(chosen).toHaveText(words);
  }
  await page.keyboard.press('Escape');
  await expect(chosen).toHaveCount(0);
});

test('the size shown is that of what is cut: bar, thickening and border are in it, and an overall width is kept', async ({
  page,
}) => {
  const id = await newJob(page, 'One size');
  await addLettering(page, 'Oak');
  await field(page, 'Capital height').fill('40');
  await computed(page);
  const bare = { w: await value(page, W), h: await value(page, H) };
  await station(page, 'Hold').click();
  await page.getByLabel('Bar along the words').check();
  await page.getByLabel('Thicken or thin').check();
  await computed(page);
  await station(page, 'Compose').click();
  await expect.poll(() => value(page, W)).toBeGreaterThan(bare.w);
  await expect.poll(() => value(page, H)).toBeGreaterThan(bare.h);
  const shown = [await field(page, W).inputValue(), await field(page, H).inputValue()].map((v) =>
    Number(v).toFixed(1).replace(/\.0$/, ''),
  );
  await expect(figures(page)).toContainText(`Selected ${shown[0]} × ${shown[1]} mm`);
  await expect(page.getByRole('list', { name: 'Parts' }).getByRole('button', { name: /^Oak/ })).toContainText(
    `${shown[0]} × ${shown[1]}`,
  );

  await page.getByLabel('Size by').selectOption('overall');
  await field(page, 'Overall width').fill('180');
  await computed(page);
  await expect.poll(() => value(page, W)).toBeCloseTo(180, 2);
  await page.getByRole('textbox', { name: 'Words' }).fill('Oak and ash');
  await computed(page);
  await expect.poll(() => value(page, W)).toBeCloseTo(180, 2);
  const stored = (await kept(page, id)).document.parts[0] as unknown as { overallWidth: number };
  expect(stored.overallWidth).toBe(180);
  // Let go, the words are as large as they are now.
  await page.getByLabel('Size by').selectOption('capital');
  await computed(page);
  await expect.poll(() => value(page, W)).toBeCloseTo(180, 1);
});

test('the same by keyboard alone: chosen, gone into, sized, turned, copied and put in again', async ({ page }) => {
  const id = await newJob(page, 'Keys only');
  await addShape(page, 'Rectangle');
  await field(page, 'Width').fill('200');
  await intoPart(page);
  await page.getByRole('button', { name: 'Lettering', exact: true }).click();
  await page.getByRole('textbox', { name: 'Words' }).fill('Ash');
  await cutOut(page);
  await computed(page);
  const chosen = page.locator('[data-chosen]');
  const sheet = page.locator('[data-sheet]');
  await page.keyboard.press('Escape');
  await sheet.focus();
  await page.keyboard.press('Escape');
  await page.keyboard.press('Escape');
  await expect(chosen).toHaveCount(0);
  await page.keyboard.press('Tab');
  await expect(chosen).toHaveText(/2 things as one$/);
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Enter');
  await expect(chosen).toHaveText(/^Rectangle, in the part/);
  await page.keyboard.press('Escape');
  await field(page, W).focus();
  await page.keyboard.press('Control+a');
  await page.keyboard.type('20 in');
  await page.keyboard.press('Enter');
  await expect(figures(page)).toContainText('Selected 508 ×');
  await field(page, 'Turn').focus();
  await page.keyboard.press('Shift+ArrowUp');
  await expect(field(page, 'Turn')).toHaveValue('10');
  await page.getByRole('button', { name: 'Mirror', exact: true }).focus();
  await page.keyboard.press('Enter');
  await computed(page);
  await sheet.focus();
  await page.keyboard.press('Control+c');
  await page.keyboard.press('Control+v');
  await computed(page);
  const parts = await partsOf(page, id);
  expect(parts).toHaveLength(2);
  expect(parts[1]?.placement).toMatchObject({ mirror: true, turn: parts[0]?.placement.turn });
  await page.keyboard.press('Control+a');
  await expect(chosen).toHaveText('2 parts as one');
  await page.keyboard.press('Control+x');
  await expect(page.getByText('An empty sheet. What shall it say?')).toBeVisible();
  await page.keyboard.press('Control+v');
  await expect(chosen).toHaveText('2 parts as one');
});
