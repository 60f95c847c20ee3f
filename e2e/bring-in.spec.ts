/** Drawings brought in: read, sized, closed, put together with words, bridged, exported; and files that mean harm. */
import type { Page } from '@playwright/test';
import { addLettering, computed, expect, kept, newJob, station, test } from './fixtures';

type Pair = readonly [code: number, value: string | number];
type Point = readonly [number, number];

const line = (layer: string, [ax, ay]: Point, [bx, by]: Point): Pair[] => [
  [0, 'LINE'],
  [8, layer],
  [10, ax],
  [20, ay],
  [11, bx],
  [21, by],
];
const arc = (layer: string, [x, y]: Point, radius: number, from: number, to: number): Pair[] => [
  [0, 'ARC'],
  [8, layer],
  [10, x],
  [20, y],
  [40, radius],
  [50, from],
  [51, to],
];

/** A plate of 8 × 4 inches with round corners and a ring, in loose lines: two gaps, and one line drawn twice. */
const plate = (): Buffer => {
  const pairs: Pair[] = [
    [0, 'SECTION'],
    [2, 'ENTITIES'],
    ...line('FRAME', [0.5, 0], [7.5, 0]),
    ...line('FRAME', [2, 0], [6, 0]),
    ...line('FRAME', [8, 0.5], [8, 3.5]),
    ...line('FRAME', [7.5, 4], [4.01, 4]),
    ...line('FRAME', [4, 4], [0.5, 4]),
    ...line('FRAME', [0, 3.5], [0, 0.508]),
    ...arc('FRAME', [0.5, 0.5], 0.5, 180, 270),
    ...arc('FRAME', [7.5, 0.5], 0.5, 270, 360),
    ...arc('FRAME', [7.5, 3.5], 0.5, 0, 90),
    ...arc('FRAME', [0.5, 3.5], 0.5, 90, 180),
    [0, 'POINT'],
    [8, 'FRAME'],
    [10, 1],
    [20, 1],
    [0, 'ENDSEC'],
    [0, 'EOF'],
  ];
  return Buffer.from(`${pairs.map(([code, value]) => `${code}\n${value}`).join('\n')}\n`);
};

const bringIn = (page: Page, name: string, buffer: Buffer) =>
  page.getByLabel('Drawing to bring in').setInputFiles({ name, mimeType: 'application/octet-stream', buffer });

/** Drop a file on the window, as from a folder. */
const drop = (page: Page, name: string, bytes: Buffer) =>
  page.evaluate(
    ({ name, data }) => {
      const transfer = new DataTransfer();
      transfer.items.add(new File([Uint8Array.from(atob(data), (c) => c.charCodeAt(0))], name));
      window.dispatchEvent(new DragEvent('drop', { dataTransfer: transfer, cancelable: true, bubbles: true }));
    },
    { name, data: bytes.toString('base64') },
  );

const findings = (page: Page) => page.getByRole('complementary', { name: 'Job sheet' });

test('a broken DXF: dropped, sized, its gaps closed, words cut out of it and bridged, exported', async ({ page }) => {
  const id = await newJob(page, 'Shed plate');
  await drop(page, 'plate.dxf', plate());
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByText('8 mm (0.315 in) wide')).toBeVisible();
  await expect(dialog.getByText('points: 1')).toBeVisible();
  await dialog.getByLabel(/if its numbers are inches/).check();
  await dialog.getByRole('button', { name: 'Bring in', exact: true }).click();
  await expect(dialog).toBeHidden();
  await computed(page);
  await expect(findings(page).getByText('203.2 × 101.6')).toBeVisible();
  await expect(findings(page).getByText(/^Gap of /)).toHaveCount(2);

  await station(page, 'Close').click();
  const gaps = page.getByRole('list', { name: 'Gaps' }).getByRole('listitem');
  await expect(gaps).toHaveCount(2);
  await expect(page.getByText(/1 line was drawn twice/)).toBeVisible();
  await gaps.first().getByRole('button', { name: 'Close', exact: true }).click();
  await expect(findings(page).getByText(/^Gap of /)).toHaveCount(1);
  await page.getByRole('slider', { name: 'Close gaps up to' }).focus();
  const field = page.getByRole('textbox', { name: 'Close gaps up to' });
  await field.fill('0.5');
  await field.press('Enter');
  await expect(page.getByText('2 of 2 gaps close.')).toBeVisible();
  await expect(findings(page).getByText(/^Gap of /)).toHaveCount(0);
  await expect(page.getByText(/1 closed · 0 open/)).toBeVisible();

  // Words cut out of it; the middle of O is held by a bridge.
  await station(page, 'Compose').click();
  await addLettering(page, 'O');
  await page.getByText('cut out', { exact: true }).click();
  await page.getByRole('button', { name: 'Centre', exact: true }).click();
  await computed(page);
  await expect(findings(page).getByText('The middle of O will drop out.')).toBeVisible();
  await findings(page).getByRole('button', { name: 'Bridge it' }).click();
  await computed(page);
  await expect(findings(page).getByText('The middle of O will drop out.')).toHaveCount(0);

  // The file as it came can be had again.
  const { document } = await kept(page, id);
  const [artwork] = (document.parts[0]?.members ?? []) as unknown as { original: string; drawing: string }[];
  const original = await page.request.get(`/api/assets/${artwork?.original}`);
  expect(await original.body()).toEqual(plate());
  expect(original.headers()['content-disposition']).toContain('attachment');

  await page.reload();
  await computed(page);
  await expect(findings(page).getByText('203.2 × 101.6')).toBeVisible();
  await page.getByRole('button', { name: 'Export', exact: true }).click();
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: /DXF/ }).first().click();
  const file = await (await download).createReadStream();
  let text = '';
  for await (const chunk of file) text += chunk;
  expect(text.match(/LWPOLYLINE/g)?.length).toBeGreaterThanOrEqual(2);
});

test('layers become operations, pasted drawings arrive, and Ctrl Z takes it all back', async ({ page }) => {
  await newJob(page, 'Tags');
  await page.evaluate(() => {
    const svg =
      '<svg xmlns="http://www.w3.org/2000/svg" width="60mm" height="40mm" viewBox="0 0 60 40"><g id="Cut" fill="none" stroke="#3730A3"><rect x="1" y="1" width="58" height="38"/></g><g id="Score" fill="none" stroke="#0F766E"><path d="M5 20H55"/></g></svg>';
    const transfer = new DataTransfer();
    transfer.setData('text/plain', svg);
    window.dispatchEvent(new ClipboardEvent('paste', { clipboardData: transfer, cancelable: true, bubbles: true }));
  });
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByLabel('Operation for Cut, lines')).toHaveValue('cut');
  await expect(dialog.getByLabel('Operation for Score, lines')).toHaveValue('score');
  await dialog.getByRole('button', { name: 'Bring in', exact: true }).click();
  await computed(page);
  await expect(findings(page).getByText('58 × 38')).toBeVisible();
  await expect(findings(page).getByText('50 × 0')).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(findings(page).getByText('58 × 38')).toHaveCount(0);
});

test('a bomb is answered and work goes on', async ({ page }) => {
  await newJob(page, 'Safe');
  const uses = Array.from({ length: 40 }, (_, i) => `<g id="g${i + 1}"><use href="#g${i}"/><use href="#g${i}"/></g>`);
  const bomb = `<svg xmlns="http://www.w3.org/2000/svg" width="9mm" height="9mm"><script>document.title='run'</script><path id="g0" d="M0 0h1v1z"/>${uses.join('')}</svg>`;
  await bringIn(page, 'bomb.svg', Buffer.from(bomb));
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByText(/more than 20,000 times/)).toBeVisible();
  await dialog.getByRole('button', { name: 'Cancel' }).click();
  await bringIn(page, 'noise.dxf', Buffer.from(Uint8Array.from({ length: 4000 }, (_, i) => (i * 7919) % 251)));
  await expect(dialog.getByRole('alert')).toHaveText(/no drawing that can be read/);
  await dialog.getByRole('button', { name: 'Close' }).last().click();
  await addLettering(page, 'Beans');
  await computed(page);
  await expect(page).toHaveTitle('Safe · Needlefile');
});
