/** What a part hangs by and is mounted by: level at one press, where pointed with the angle, and the paper to drill by. */
import { readFileSync } from 'node:fs';
import { jobWith, lettering, partOf } from '../tests/support/jobs';
import { readPdfPage } from '../tests/support/pdf-page';
import { computed, expect, kept, onScreen, openJob, station, test } from './fixtures';

test('a name hangs level by a ring, and turned where it is pointed; its letters get studs and a drill paper', async ({
  page,
}) => {
  const words = lettering('Alder', 'Alfa Slab One', { closeUp: { overlap: 2 }, size: { by: 'capital', mm: 40 } });
  const id = await openJob(page, 'To hang', jobWith([partOf([words], { placement: { x: 0, y: 0 } })]));
  await station(page, 'Hold').click();
  await page
    .getByRole('list', { name: 'Parts', exact: true })
    .getByRole('button', { name: /^Alder/ })
    .click();
  const hang = page.getByRole('region', { name: 'To hang by' });
  await hang.getByRole('checkbox', { name: 'To hang by' }).check();
  await hang.getByText('a ring on it', { exact: true }).click();
  await expect(hang.getByText('✓ It hangs level.')).toBeVisible();
  await hang.getByRole('button', { name: 'Press a place' }).click();
  const box = await onScreen(page, 110, 128);
  await page.mouse.click(box.x, box.y);
  await expect(hang.getByText(/It hangs turned by \d+\.\d° clockwise\./)).toBeVisible();
  await expect(hang.getByLabel('From the left')).toBeVisible();
  await expect(page.getByRole('list', { name: 'Findings' })).toContainText('hangs turned by');
  await hang.getByRole('button', { name: 'Hang it level' }).click();
  await expect(hang.getByText('✓ It hangs level.')).toBeVisible();
  await computed(page);

  const studs = page.getByRole('region', { name: 'Studs' });
  await studs.getByRole('checkbox', { name: 'Studs or stand-offs' }).check();
  await expect(studs.getByText('2 places')).toBeVisible();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    studs.getByRole('button', { name: 'Drill paper (PDF)' }).click(),
  ]);
  expect(download.suggestedFilename()).toBe('to-hang_drill-paper.pdf');
  expect(readPdfPage(readFileSync(await download.path())).circles('Drill here')).toHaveLength(2);
  const { parts } = (await kept(page, id)).document as unknown as {
    parts: { steps: { kind: string; on: boolean }[] }[];
  };
  expect(parts[0]?.steps.filter((s) => s.on).map((s) => s.kind)).toEqual(['weld', 'hang', 'studs']);
});
