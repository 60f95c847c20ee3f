import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import {
  addLettering,
  chooseFace,
  computed,
  expect,
  intoPart,
  kept,
  newJob,
  onScreen,
  saved,
  showEach,
  station,
  test,
} from './fixtures';

type Pinned = {
  letter: string;
  island: number | null;
  x: number;
  y: number;
  turn: number | null;
  width: number | null;
};
type BridgeStep = {
  kind: 'bridge';
  on: boolean;
  width: number;
  count: number;
  direction: string;
  small: string;
  islands: { letter: string; island: number; how: string }[];
  pinned: Pinned[];
};

const bridgeStep = async (page: Page, id: string) => {
  const [part] = (await kept(page, id)).document.parts as unknown as { steps: { kind: string }[] }[];
  return part?.steps.find((s): s is BridgeStep => s.kind === 'bridge');
};
const panelOf = (page: Page) => page.getByRole('complementary', { name: 'Station Hold' });
const islands = (page: Page) => page.getByRole('region', { name: 'Islands' });
const bridges = (page: Page) => page.locator('[data-bridge]');

/** A place half way up the stroke that the words begin with. */
const inFirstStroke = async (page: Page) => {
  const ink = await page
    .locator('[data-member]')
    .first()
    .evaluate((path) => {
      const { x, y, height } = (path as SVGGraphicsElement).getBBox();
      return { x, y, height };
    });
  return onScreen(page, ink.x + 7, ink.y + ink.height / 2);
};

/** Drag something by its middle, in steps as a hand does. */
async function drag(page: Page, what: ReturnType<Page['locator']>, dx: number, dy: number) {
  const box = await what.boundingBox();
  if (!box) throw new Error('not in sight');
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  for (let i = 1; i <= 5; i++) await page.mouse.move(x + (dx * i) / 5, y + (dy * i) / 5);
  await page.mouse.up();
}

async function stencil(page: Page, words: string): Promise<string> {
  const id = await newJob(page, 'Stencil');
  await addLettering(page, words);
  await station(page, 'Hold').click();
  await page.getByText('the stock', { exact: true }).click();
  await computed(page);
  return id;
}

test('a plate: words, bridges, one dragged and pinned, other words, as cut, exported', async ({ page }) => {
  const id = await stencil(page, 'BOARD');
  const panel = panelOf(page);
  await panel.getByLabel('A plate of its own').check();
  await panel.getByText('corners', { exact: true }).click();
  await panel.getByLabel('Corner radius').fill('6');
  await expect(islands(page).getByText('0 held · 6 will drop out')).toBeVisible();
  await islands(page).getByRole('button', { name: 'Bridge every island' }).click();
  await expect(islands(page).getByText('6 held', { exact: true })).toBeVisible();
  await expect(panel.getByText('It comes off as one piece.')).toBeVisible();
  await expect(islands(page).getByRole('button', { name: 'Bridge every island' })).toBeHidden();
  expect((await bridgeStep(page, id))?.width).toBe(3);

  await panel.getByRole('region', { name: 'Bridges' }).getByText('1', { exact: true }).click();
  await computed(page);

  // One is dragged: its island is in hand from then on.
  await islands(page)
    .getByRole('button', { name: /^Middle of O/ })
    .click();
  const chosen = page.locator('[data-bridge][data-chosen="true"]');
  await expect(chosen).toHaveCount(1);
  const letter = await chosen.getAttribute('data-bridge');
  await drag(page, chosen, 14, 0);
  await computed(page);
  await expect.poll(async () => (await bridgeStep(page, id))?.pinned.length).toBe(1);
  const pinned = (await bridgeStep(page, id))?.pinned[0];
  expect(pinned).toMatchObject({ letter, island: 0, turn: null });
  await expect(islands(page).getByRole('button', { name: /^Middle of O.*by hand/ })).toBeVisible();
  await expect(panel.getByText('It comes off as one piece.')).toBeVisible();

  // Another is pinned as it lies.
  await islands(page)
    .getByRole('button', { name: /^Middle of D/ })
    .click();
  await panel.getByRole('button', { name: 'Pin', exact: true }).click();
  await expect.poll(async () => (await bridgeStep(page, id))?.pinned.length).toBe(2);

  // Other words: what is by hand stays on its letter.
  await station(page, 'Compose').click();
  await page.getByRole('textbox', { name: 'Words' }).fill('ABOARD 8');
  await station(page, 'Hold').click();
  await expect(islands(page).getByText('9 held', { exact: true })).toBeVisible();
  const after = (await bridgeStep(page, id))?.pinned ?? [];
  expect(after).toHaveLength(2);
  expect(after[0]).toMatchObject({ x: pinned?.x, y: pinned?.y });
  expect(after[0]?.letter).toMatch(/:2$/);
  await expect(islands(page).getByRole('button', { name: /^Middle of O.*by hand/ })).toBeVisible();

  await page.getByText('As cut', { exact: true }).click();
  await expect(page.locator('[data-piece="main"]')).toHaveCount(1);
  await expect(page.locator('[data-piece="island"]')).toHaveCount(0);
  await page.getByText('Drawing', { exact: true }).click();

  await station(page, 'Prove').click();
  const download = page.waitForEvent('download');
  await page.getByRole('complementary', { name: 'Station Prove' }).getByRole('button', { name: /SVG/ }).first().click();
  const file = await (await download).path();
  expect(readFileSync(file, 'utf8')).toContain('<path');
});

test('a bridge turned, widened, added on a gap, copied and deleted; undo goes all the way back', async ({ page }) => {
  const id = await stencil(page, 'OXO');
  const before = (await kept(page, id)).document;
  const panel = panelOf(page);
  await islands(page).getByRole('button', { name: 'Bridge', exact: true }).first().click();
  await expect(islands(page).getByText('1 held · 1 will drop out')).toBeVisible();
  await page.getByRole('button', { name: 'Bridge it' }).click();
  await expect(islands(page).getByText('2 held', { exact: true })).toBeVisible();
  await panel.getByRole('region', { name: 'Bridges' }).getByText('1', { exact: true }).first().click();
  await expect(bridges(page)).toHaveCount(2);

  await islands(page)
    .getByRole('button', { name: /first O/ })
    .click();
  const chosen = page.locator('[data-bridge][data-chosen="true"]');
  await drag(page, page.locator('[data-turn]'), 12, 4);
  await computed(page);
  await expect.poll(async () => (await bridgeStep(page, id))?.pinned[0]?.turn).not.toBeNull();
  const turned = (await bridgeStep(page, id))?.pinned[0]?.turn ?? 0;
  expect(Math.abs(Math.abs(turned) - 90)).toBeGreaterThan(1);
  const width = panel.getByRole('region', { name: 'Bridges' }).getByLabel('Width').last();
  await width.fill('4.5');
  await width.press('Enter');
  await expect.poll(async () => (await bridgeStep(page, id))?.pinned[0]?.width).toBe(4.5);

  // Another through the other side of the ring: pressed half way up, where the stroke is.
  await panel.getByRole('button', { name: 'Add by hand' }).click();
  const gap = await inFirstStroke(page);
  await page.mouse.click(gap.x, gap.y);
  await expect.poll(async () => (await bridgeStep(page, id))?.pinned.length).toBe(2);
  await expect(chosen).toHaveCount(1);
  await panel.getByRole('button', { name: 'Copy to all 2 of O' }).click();
  await expect.poll(async () => (await bridgeStep(page, id))?.pinned.length).toBe(4);
  await expect(bridges(page)).toHaveCount(4);
  await page.keyboard.press('Escape');
  await expect(chosen).toHaveCount(0);
  await islands(page)
    .getByRole('button', { name: /first O/ })
    .click();
  await expect(chosen).toHaveCount(1);
  await page.locator('[data-sheet]').focus();
  await page.keyboard.press('Delete');
  // Another press has no bridge to take, and takes nothing else.
  await page.keyboard.press('Delete');
  await expect.poll(async () => (await bridgeStep(page, id))?.pinned.length).toBe(3);
  await expect(bridges(page)).toHaveCount(3);

  while (await page.getByRole('button', { name: 'Undo' }).isEnabled()) {
    await page.getByRole('button', { name: 'Undo' }).click();
    const { document } = await kept(page, id);
    if (JSON.stringify(document) === JSON.stringify(before)) break;
  }
  expect(JSON.stringify((await kept(page, id)).document)).toBe(JSON.stringify(before));
});

test('a stencil in film: islands stay without bridges and without findings', async ({ page }) => {
  await stencil(page, 'BEANS');
  await expect(page.getByText(/will drop out/).first()).toBeVisible();
  await panelOf(page).getByLabel('Self-adhesive').check();
  await expect(page.getByText('Nothing to look at.', { exact: true })).toBeVisible();
  await expect(panelOf(page).getByText('Its islands stay on their backing.')).toBeVisible();
  await expect(islands(page).getByRole('button', { name: 'Bridge every island' })).toBeHidden();
});

test('an emblem: lettering punched into a shape is bridged to its own stock', async ({ page }) => {
  await newJob(page, 'Emblem');
  await page.getByRole('button', { name: 'Shape', exact: true }).click();
  await page.getByRole('button', { name: 'Rectangle', exact: true }).click();
  await intoPart(page);
  await addLettering(page, 'POD');
  await page.getByText('cut out', { exact: true }).click();
  await station(page, 'Hold').click();
  await expect(islands(page).getByText('0 held · 3 will drop out')).toBeVisible();
  await islands(page).getByRole('button', { name: 'Bridge every island' }).click();
  await expect(islands(page).getByText('3 held', { exact: true })).toBeVisible();
  await expect(panelOf(page).getByText('It comes off as one piece.')).toBeVisible();
});

test('islands that nobody would miss are asked about, and left uncut all at once', async ({ page }) => {
  const id = await newJob(page, 'Herb stencil');
  await addLettering(page, 'HERKT irj');
  await chooseFace(page, 'Sacramento');
  await station(page, 'Hold').click();
  await page.getByText('the stock', { exact: true }).click();
  await computed(page);
  await page.getByRole('button', { name: 'Bridge every island' }).click();
  await expect(islands(page).getByText('2 held')).toBeVisible();
  await expect(islands(page).getByText(/^7 small ones, up to 1\.\d+ mm wide: not bridged yet\.$/)).toBeVisible();
  await expect(page.getByText(/^7 small islands of “HERKT irj” are not bridged/)).toBeVisible();
  // Beside the islands, and beside the finding.
  await page.getByRole('button', { name: 'Leave them uncut' }).last().click();
  await expect(islands(page).getByText(/left uncut\.$/)).toBeVisible();
  await expect(page.getByText('Nothing to look at.', { exact: true })).toBeVisible();
  await saved(page);
  await expect.poll(async () => (await bridgeStep(page, id))?.small).toBe('fill');
  // And back: asked again, then bridged like the others.
  await page.keyboard.press('Control+z');
  await islands(page).getByRole('button', { name: 'Bridge them' }).click();
  await expect(islands(page).getByText('9 held')).toBeVisible();
});

test('ways to bridge side by side, one taken; letters too close spaced from the finding', async ({ page }) => {
  const id = await stencil(page, 'BOOM');
  await page.getByRole('button', { name: 'Bridge every island' }).click();
  await page.getByRole('button', { name: 'Compare side by side' }).click();
  const ways = page.getByRole('list', { name: 'Ways to bridge' });
  await expect(ways.getByRole('button')).toHaveCount(6);
  await ways.getByRole('button', { name: /2 each, upright/ }).click();
  await expect.poll(async () => (await bridgeStep(page, id))?.direction).toBe('upright');
  expect((await bridgeStep(page, id))?.count).toBe(2);
  await expect(ways.getByRole('button', { name: /2 each, upright/ })).toHaveAttribute('aria-pressed', 'true');

  // The least safe width is more than the webs between the letters.
  await page.keyboard.press('Escape');
  await page.keyboard.press('Escape');
  await page.keyboard.press('Escape');
  await station(page, 'Compose').click();
  await page.getByLabel('Least safe width').fill('9');
  await showEach(page);
  const spacing = page.getByRole('button', { name: 'Space the letters', exact: true });
  await expect(spacing.first()).toBeVisible();
  await spacing.first().click();
  const [part] = (await kept(page, id)).document.parts as unknown as { members: { letterSpacing: number }[] }[];
  expect(part?.members[0]?.letterSpacing).toBeGreaterThan(0.01);
});

test('a bridge by hand where nothing drops out', async ({ page }) => {
  const id = await stencil(page, 'CC');
  await expect(islands(page).getByText(/None: no letter encloses/)).toBeVisible();
  await islands(page).getByRole('button', { name: 'Add by hand' }).click();
  // Beside the letters there is no gap, and the press is waited for.
  const beside = await onScreen(page, 180, 231);
  await page.mouse.click(beside.x, beside.y);
  await expect(islands(page).getByRole('button', { name: 'Press on a gap' })).toBeVisible();
  const gap = await inFirstStroke(page);
  await page.mouse.click(gap.x, gap.y);
  await expect(bridges(page)).toHaveCount(1);
  expect((await bridgeStep(page, id))?.pinned[0]?.island).toBeNull();
});
