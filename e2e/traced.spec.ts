/** Pictures: traced in one press and corrected, drawn over by hand, pressed on for their tones, and refused where they can't be read. */
import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { encode } from 'fast-png';
import jpeg from 'jpeg-js';
import { transformRegion } from '../src/core/geometry/path';
import { pathOf } from '../src/core/geometry/read-path-data';
import { pictureOf } from '../tests/support/degraded';
import { pdfOf } from '../tests/support/pdf';
import { addLettering, computed, expect, kept, newJob, onScreen, saved, station, test } from './fixtures';

const LEAF =
  'M50 5C20 20 8 55 22 90L26 97L32 92C70 88 95 60 92 8C80 2 65 0 50 5ZM28 84C40 60 55 42 78 24C58 44 46 62 36 86Z';

/** A leaf photographed askew, in failing light: 600 × 450 pixels, the leaf 400 high. */
function photo(): Buffer {
  const paths = transformRegion(pathOf(LEAF).paths, { a: 4, b: 0, c: 0, d: 4, e: 90, f: 30 });
  const { data } = pictureOf(paths, 600, 450, { name: 'photo', slope: 0.4, noise: 6, ink: 50, paper: 225 });
  const rgba = new Uint8Array(4 * data.length).fill(255);
  data.forEach((value, i) => {
    rgba.fill(value, 4 * i, 4 * i + 3);
  });
  return Buffer.from(jpeg.encode({ data: rgba, width: 600, height: 450 }, 80).data);
}

/** A square of 200 pixels and a bar of another colour on white, 400 × 300. */
function sketch(): Buffer {
  const data = new Uint8Array(400 * 300 * 3).fill(255);
  const fill = (x0: number, y0: number, x1: number, y1: number, colour: readonly number[]) => {
    for (let y = y0; y < y1; y++) for (let x = x0; x < x1; x++) data.set(colour, 3 * (y * 400 + x));
  };
  fill(100, 50, 300, 250, [40, 40, 60]);
  fill(320, 50, 360, 250, [200, 60, 50]);
  return Buffer.from(encode({ width: 400, height: 300, data, channels: 3, depth: 8 }));
}

const bringIn = (page: Page, name: string, buffer: Buffer) =>
  page
    .getByLabel('Drawing or picture to bring in')
    .setInputFiles({ name, mimeType: 'application/octet-stream', buffer });

/** Drops a file on the window. */
async function drop(page: Page, name: string, bytes: Buffer): Promise<void> {
  const files = await page.evaluateHandle(
    ({ name, base64 }) => {
      const transfer = new DataTransfer();
      transfer.items.add(new File([Uint8Array.from(atob(base64), (c) => c.charCodeAt(0))], name));
      return transfer;
    },
    { name, base64: bytes.toString('base64') },
  );
  await page.dispatchEvent('body', 'drop', { dataTransfer: files });
}

/** Pastes a picture, as one that was copied elsewhere. */
const paste = (page: Page, bytes: Buffer) =>
  page.evaluate((base64) => {
    const clipboardData = new DataTransfer();
    const data = Uint8Array.from(atob(base64), (c) => c.charCodeAt(0));
    clipboardData.items.add(new File([data], 'image.png', { type: 'image/png' }));
    window.dispatchEvent(new ClipboardEvent('paste', { clipboardData, bubbles: true, cancelable: true }));
  }, bytes.toString('base64'));

const nodes = async (page: Page): Promise<number> =>
  Number(/([\d,]+) nodes/.exec((await page.getByText(/^[\d,]+ nodes$/).textContent()) ?? '')?.[1]);

test('a photo is traced, corrected, and becomes a plaque with letters and a frame', async ({ page }) => {
  const id = await newJob(page, 'Leaf plaque');
  await page.getByLabel('Material').fill('Slate');
  await drop(page, 'leaf.jpg', photo());
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByText('it does not say how large it is')).toBeVisible();
  await dialog.getByRole('textbox', { name: 'Width' }).fill('300');
  await dialog.getByRole('button', { name: /Photo or scan/ }).click();
  await expect(dialog).toBeHidden();
  await expect(page.getByRole('heading', { name: 'Traced picture' })).toBeVisible();
  await computed(page);
  await expect(page.getByRole('contentinfo')).toContainText('2 closed, 0 open');
  expect(await nodes(page)).toBeLessThan(40);
  await expect(page.locator('[data-picture] image')).toHaveAttribute('href', /^blob:/);

  // One step back takes picture and trace away, one forward brings both again.
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('list', { name: 'Pictures' })).toBeHidden();
  await expect(page.getByText('An empty sheet.')).toBeVisible();
  await page.keyboard.press('Control+Shift+z');
  await page.getByRole('list', { name: 'Parts' }).getByRole('button', { name: /leaf/ }).first().click();

  // What is asked of it is changed, and what it comes to follows.
  const least = page.getByRole('textbox', { name: 'Smallest thing kept' });
  await least.fill('80');
  await expect(page.getByRole('contentinfo')).toContainText('1 closed, 0 open');
  await expect(page.getByText(/Left out: .*pinhole/)).toBeVisible();
  await least.fill('3');
  await expect(page.getByRole('contentinfo')).toContainText('2 closed, 0 open');

  // A frame that is cut, two letters that are engraved.
  await page.getByRole('button', { name: 'A backing' }).click();
  await page.keyboard.press('Escape');
  await page.keyboard.press('Escape');
  await addLettering(page, 'AL');
  await station(page, 'Assign').click();
  await page.getByLabel('Outline of AL').selectOption('');
  await page.getByLabel('Inside of AL').selectOption('engrave');
  await station(page, 'Prove').click();
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Write PDF' }).click();
  const file = await download;
  expect(file.suggestedFilename()).toBe('leaf-plaque_slate.pdf');
  expect(readFileSync(await file.path(), 'latin1')).toMatch(/^%PDF-1\.7/);

  // It is all there after a reload, the picture with it.
  await computed(page);
  const before = await page.getByRole('contentinfo').textContent();
  const { document } = await kept(page, id);
  expect(document.pictures).toMatchObject([{ name: 'leaf.jpg', columns: 600, rows: 450 }]);
  await page.reload();
  await expect(page.locator('[data-picture] image')).toHaveAttribute('href', /^blob:/);
  const segments = (text: string | null) => /[\d,]+ segments/.exec(text ?? '')?.[0];
  await expect.poll(async () => segments(await page.getByRole('contentinfo').textContent())).toBe(segments(before));
});

test('a logo is drawn over a sketch: nodes go onto its edges, and the pen stays in hand', async ({ page }) => {
  await newJob(page, 'Drawn over');
  await bringIn(page, 'sketch.png', sketch());
  const dialog = page.getByRole('dialog');
  await dialog.getByRole('textbox', { name: 'Width' }).fill('400');
  await dialog.getByRole('button', { name: 'Only lay it on the sheet' }).click();
  // A pixel is a mm: the square's corners lie at 200 to 400 across and 100 to 300 up on a sheet of 600 × 400.
  await expect(page.getByRole('heading', { name: 'Picture on the sheet' })).toBeVisible();
  await page.getByRole('button', { name: 'Draw over it' }).click();
  const press = async (x: number, y: number) => {
    const at = await onScreen(page, x, y);
    await page.mouse.move(at.x, at.y);
    await page.mouse.down();
    await page.mouse.up();
  };
  const hover = async (x: number, y: number) => {
    const at = await onScreen(page, x, y);
    await page.mouse.move(at.x, at.y);
  };
  // The edges are found in the worker meanwhile.
  await expect(async () => {
    await hover(203, 104);
    await hover(204, 103);
    await expect(page.getByText('edge of the picture', { exact: true })).toBeVisible({ timeout: 500 });
  }).toPass();
  for (const [x, y] of [
    [204, 103],
    [396, 104],
    [397, 297],
    [203, 296],
    [200, 100],
  ] as const)
    await press(x, y);
  await expect(page.getByRole('region', { name: 'Pen' })).toBeVisible();
  // Another path, away from any edge, ended open; then the pen is put down.
  for (const [x, y] of [
    [520, 340],
    [560, 360],
  ] as const)
    await press(x, y);
  await page.keyboard.press('Enter');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('region', { name: 'Pen' })).toBeHidden();
  await computed(page);
  await expect(page.getByRole('contentinfo')).toContainText('1 closed, 1 open');
  await page.getByRole('list', { name: 'Parts' }).getByRole('button', { name: /Path/ }).first().click();
  // Pressed some mm beside them, the corners lie where the picture has them.
  await expect(page.getByRole('textbox', { name: 'Width as cut or drawn' })).toHaveValue(/^(200|199\.9\d*|200\.0\d*)$/);
  await expect(page.getByRole('textbox', { name: 'From the left' })).toHaveValue(/^(200|199\.9\d*|200\.0\d*)$/);
});

test('a shape is told by pressing on its tone; a picture is sized by two places, straightened and locked', async ({
  page,
}) => {
  await newJob(page, 'Tones');
  await paste(page, sketch());
  const dialog = page.getByRole('dialog');
  await dialog.getByRole('textbox', { name: 'Width' }).fill('400');
  await dialog.getByRole('button', { name: /Clear picture/ }).click();
  await computed(page);
  const foot = page.getByRole('contentinfo');
  await expect(foot).toContainText('2 closed, 0 open');
  await page.getByText('pressed on', { exact: true }).click();
  // Until something is pressed on, the shape stays as it was.
  await computed(page);
  await expect(foot).toContainText('2 closed, 0 open');
  const press = async (x: number, y: number) => {
    const at = await onScreen(page, x, y);
    await page.mouse.click(at.x, at.y);
  };
  await press(440, 200);
  await page.getByRole('button', { name: 'Does not' }).click();
  await press(300, 200);
  await press(150, 200);
  await page.keyboard.press('Escape');
  await expect(foot).toContainText('1 closed, 0 open');
  await expect(foot).toContainText('40 × 200 mm');

  await page.getByRole('list', { name: 'Pictures' }).getByRole('button', { name: 'image.png', exact: true }).click();
  const drag = async (from: { x: number; y: number }, dx: number, dy: number) => {
    await page.mouse.move(from.x, from.y);
    await page.mouse.down();
    await page.mouse.move(from.x + dx, from.y + dy, { steps: 4 });
    await page.mouse.up();
  };
  const left = page.getByRole('textbox', { name: 'From the left' });
  await expect(left).toHaveValue('100');
  await drag(await onScreen(page, 130, 330), 40, 0);
  await expect(left).not.toHaveValue('100');
  const corner = await page.locator('[data-grab="size picture"]').nth(2).boundingBox();
  await drag({ x: (corner?.x ?? 0) + 4, y: (corner?.y ?? 0) + 4 }, 60, -45);
  await expect(page.getByRole('textbox', { name: 'Width of the picture' })).not.toHaveValue('400');
  const knob = await page.locator('[data-grab="turn picture"]').boundingBox();
  await drag({ x: (knob?.x ?? 0) + 6, y: (knob?.y ?? 0) + 6 }, 60, 0);
  await expect(page.getByRole('textbox', { name: 'Turn' })).toHaveValue(/^-\d/);
  for (let i = 0; i < 3; i++) await page.keyboard.press('Control+z');
  await expect(left).toHaveValue('100');

  await page.getByRole('button', { name: 'Size by two places' }).click();
  await press(200, 100);
  await press(400, 100);
  const distance = page.getByRole('textbox', { name: 'Between the places' });
  await expect(distance).toHaveValue(/^(200|199\.\d+|200\.\d+)$/);
  await distance.fill('100');
  await expect(page.getByRole('textbox', { name: 'Width of the picture' })).toHaveValue(/^(200|199\.\d+|200\.\d+)$/);
  await page.getByRole('button', { name: 'Straighten' }).click();
  await press(250, 150);
  await press(300, 160);
  await expect(page.getByRole('textbox', { name: 'Turn' })).toHaveValue(/^-11\.\d+$/);
  await page.getByLabel('Locked in its place').check();
  await expect(page.getByRole('textbox', { name: 'Width of the picture' })).toBeDisabled();
  await page.keyboard.press('Delete');
  await expect(page.getByRole('list', { name: 'Pictures' })).toBeVisible();
  await page.getByLabel('Locked in its place').uncheck();
  await page.getByRole('button', { name: 'Take it off the sheet' }).click();
  await expect(page.getByRole('list', { name: 'Pictures' })).toBeHidden();
  // What was traced stays, and has its picture again when asked for.
  await expect(foot).toContainText('1 closed, 0 open');
  await page.getByRole('list', { name: 'Parts' }).getByRole('button', { name: /image/ }).first().click();
  await page.getByRole('button', { name: 'Show its picture under it' }).click();
  await expect(page.getByRole('list', { name: 'Pictures' })).toBeVisible();
  await saved(page);
});

test('a picture that breaks off, or says it is as large as a field, is told of', async ({ page }) => {
  await newJob(page, 'Hostile');
  const dialog = page.getByRole('dialog');
  await bringIn(page, 'half.jpg', photo().subarray(0, 900));
  await expect(dialog.getByRole('alert')).toHaveText(/breaks off, or is not as it should be/);
  await dialog.getByRole('button', { name: 'Close' }).last().click();
  const huge = sketch();
  huge.writeUInt32BE(60_000, 16);
  huge.writeUInt32BE(60_000, 20);
  await bringIn(page, 'field.png', huge);
  await expect(dialog.getByRole('alert')).toHaveText(/60,000 × 60,000 pixels/);
  await dialog.getByRole('button', { name: 'Close' }).last().click();
  await addLettering(page, 'Beans');
  await computed(page);
});

test('a page of a PDF brings its picture along, under its drawing', async ({ page }) => {
  await newJob(page, 'Scanned page');
  const hex = Array.from({ length: 64 }, (_, i) => (i % 8 > 1 && i % 8 < 6 && i > 15 && i < 48 ? '00' : 'ff')).join('');
  const content = `q 144 0 0 144 72 72 cm BI /W 8 /H 8 /CS /G /BPC 8 /F /AHx ID ${hex}> EI Q 72 72 144 144 re S`;
  await bringIn(page, 'page.pdf', Buffer.from(pdfOf([{ content, more: '/MediaBox[0 0 288 288]' }])));
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByText(/A picture comes along/)).toBeVisible();
  await dialog.getByRole('button', { name: 'Bring in', exact: true }).click();
  await computed(page);
  await page.getByRole('list', { name: 'Pictures' }).getByRole('button', { name: 'page.pdf', exact: true }).click();
  await expect(page.getByRole('textbox', { name: 'Width of the picture' })).toHaveValue('50.8');
  await expect(page.getByRole('textbox', { name: 'From the left' })).toHaveValue('274.6');
  await page.getByRole('button', { name: 'Clear picture' }).click();
  await expect(page.getByRole('heading', { name: 'Traced picture' })).toBeVisible();
  await computed(page);
  await expect(page.getByRole('contentinfo')).toContainText(/Selected 2[45]\.\d × 2[45]\.\d mm/);
});
