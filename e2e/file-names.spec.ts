/** What files are called, in the user's order, and a DXF in inches. */
import { readFileSync } from 'node:fs';
import { jobWith, lettering, partOf } from '../tests/support/jobs';
import { computed, expect, kept, moveUp, openJob, station, test } from './fixtures';

test('names are made of what is ticked, in the order it is dragged into, and shown as they will be', async ({
  page,
}) => {
  const id = await openJob(
    page,
    'Gate',
    jobWith([partOf([lettering('Alder')])], { sheet: { width: 300, height: 200, material: 'Oak', thickness: null } }),
  );
  await page.getByLabel('Thickness').fill('1/4 in');
  await station(page, 'Prove').click();
  await computed(page);
  const panel = page.getByRole('complementary', { name: 'Station Prove' });
  await expect(panel.getByText('gate_oak-1-4in.svg').first()).toBeVisible();
  await panel.getByLabel('Number of the order or drawing').fill('PO 77');
  await panel.getByRole('checkbox', { name: 'Date' }).check();
  const today = new Date();
  const day = [today.getFullYear(), today.getMonth() + 1, today.getDate()]
    .map((n) => String(n).padStart(2, '0'))
    .join('-');
  await expect(panel.getByText(`gate_oak-1-4in_po-77_${day}.svg`).first()).toBeVisible();
  // Up past the thickness and the material, which then no longer stand together.
  await moveUp(page, panel.getByRole('button', { name: 'Move Number' }));
  await expect(panel.getByText(`gate_oak_po-77_1-4in_${day}.svg`).first()).toBeVisible();
  const { document } = await kept(page, id);
  expect(document.export).toMatchObject({
    nameFields: ['job', 'piece', 'material', 'number', 'thickness', 'date'],
    number: 'PO 77',
  });

  await panel.getByRole('group', { name: 'DXF unit' }).getByText('in', { exact: true }).click();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    panel.getByRole('button', { name: 'Write DXF' }).click(),
  ]);
  expect(download.suggestedFilename()).toBe(`gate_oak_po-77_1-4in_${day}.dxf`);
  expect(readFileSync(await download.path(), 'utf8')).toContain('$INSUNITS\r\n 70\r\n1\r\n');
});
