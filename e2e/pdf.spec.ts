/** PDF files: a page chosen from small pictures, its layers given to operations, letters as outlines; a bomb, a locked file. */
import { deflateSync } from 'node:zlib';
import type { Page } from '@playwright/test';
import { pdfOf, stream } from '../tests/support/pdf';
import { computed, expect, newJob, test } from './fixtures';

const bringIn = (page: Page, name: string, bytes: Uint8Array) =>
  page
    .getByLabel('Drawing or picture to bring in')
    .setInputFiles({ name, mimeType: 'application/pdf', buffer: Buffer.from(bytes) });

/** A letter to the workshop, then the drawing: a plate with a hole on one layer, its name on another. */
const ORDER = pdfOf(
  [
    { content: '0 0 m 9 9 l S', more: '/MediaBox[0 0 595 842]' },
    { content: '', more: '/MediaBox[0 0 595 842]' },
    {
      content:
        '/OC /P BDC 72 72 288 144 re S 144 144 m 180 180 l 180 108 l h S EMC ' +
        '/OC /N BDC 1 0 0 rg 200 120 72 24 re f EMC 9 0 0 9 300 300 cm /I Do',
      more: '/MediaBox[0 0 595 842]/Resources<</Properties<</P 10 0 R/N 11 0 R>>/XObject<</I 12 0 R>>>>',
    },
  ],
  {
    objects: [
      '<</Type/OCG/Name(Plate)>>',
      '<</Type/OCG/Name(Engrave)>>',
      stream('\xff', '/Type/XObject/Subtype/Image/Width 1/Height 1/ColorSpace/DeviceGray/BitsPerComponent 8'),
    ],
    catalog: '/OCProperties<</OCGs[10 0 R 11 0 R]/D<</ON[10 0 R 11 0 R]>>>>',
  },
);

test('a page is chosen, its layers become operations, and Ctrl Z takes it back', async ({ page }) => {
  await newJob(page, 'From a customer');
  await bringIn(page, 'order.pdf', ORDER);
  const dialog = page.getByRole('dialog');
  const pages = dialog.getByRole('group', { name: 'Pages' });
  await expect(pages.getByRole('button')).toHaveCount(3);
  await expect(pages.getByRole('button', { name: 'Page 1' })).toHaveAttribute('aria-pressed', 'true');
  // Their pictures come one by one.
  await expect(pages.locator('svg path[d^=M]')).toHaveCount(3);
  await pages.getByRole('button', { name: 'Page 2' }).click();
  await expect(dialog.getByText('There is nothing on this page that can be read.')).toBeVisible();
  await expect(dialog.getByRole('button', { name: 'Bring in', exact: true })).toBeDisabled();
  await pages.getByRole('button', { name: 'Page 3' }).click();
  await expect(dialog.getByText('101.6 mm (4 in) wide, 50.8 mm (2 in) high').first()).toBeVisible();
  await expect(dialog.getByText(/A picture comes along/)).toBeVisible();
  await expect(dialog.getByLabel('Operation for Plate, lines')).toHaveValue('cut');
  await expect(dialog.getByLabel('Operation for Engrave, filled')).toHaveValue('engrave');
  await dialog.getByRole('button', { name: 'Bring in', exact: true }).click();
  await expect(dialog).toBeHidden();
  await computed(page);
  const sheet = page.getByRole('complementary', { name: 'Job sheet' });
  await expect(sheet.getByText('101.6 × 50.8')).toBeVisible();
  await expect(sheet.getByText('order, Engrave')).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(sheet.getByText('order, Engrave')).toHaveCount(0);
});

test('a bomb is answered while work goes on, and damage in words', async ({ page }) => {
  await newJob(page, 'Trouble');
  const bomb = deflateSync(Buffer.from('0 0 m 9 9 l S\n'.repeat(1_000_000)), { level: 9 }).toString('latin1');
  await bringIn(
    page,
    'bomb.pdf',
    pdfOf([{ content: '/B Do', more: '/Resources<</XObject<</B 10 0 R>>>>' }], {
      objects: [stream(bomb, '/Filter/FlateDecode/Type/XObject/Subtype/Form/BBox[0 0 72 72]')],
    }),
  );
  const dialog = page.getByRole('dialog');
  // The page answers meanwhile.
  const slowest = await page.evaluate(async () => {
    let longest = 0;
    for (let i = 0; i < 100; i++) {
      const began = performance.now();
      await new Promise((next) => setTimeout(next, 10));
      longest = Math.max(longest, performance.now() - began);
    }
    return longest;
  });
  expect(slowest).toBeLessThan(1_000);
  await expect(dialog.getByText(/draws more than 500,000 things|took longer than 60 seconds/)).toBeVisible({
    timeout: 120_000,
  });
  await page.keyboard.press('Escape');
  await bringIn(page, 'damaged.pdf', ORDER.slice(0, 20));
  await expect(dialog.getByText('This PDF is damaged and can’t be read.')).toBeVisible();
});
