/** Drawings brought in: read, sized, closed, put together with words, bridged, exported; and files that mean harm. */
import type { Page } from '@playwright/test';
import { addLettering, computed, expect, intoPart, kept, newJob, onScreen, showEach, station, test } from './fixtures';

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
  page
    .getByLabel('Drawing or picture to bring in')
    .setInputFiles({ name, mimeType: 'application/octet-stream', buffer });

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
  await expect(findings(page).getByText('2 gaps are open.')).toBeVisible();
  await showEach(page);
  await expect(findings(page).getByText(/^Gap of /)).toHaveCount(2);

  await station(page, 'Close').click();
  const gaps = page.getByRole('list', { name: 'Gaps', exact: true }).getByRole('listitem');
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
  await intoPart(page);
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
  const original = await page.request.get(`/api/assets/${artwork?.original}`, { maxRetries: 3 });
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
      '<svg xmlns="http://www.w3.org/2000/svg" width="60mm" height="40mm" viewBox="0 0 60 40"><g id="Cut" fill="none" stroke="#1A26AF"><rect x="1" y="1" width="58" height="38"/></g><g id="Score" fill="none" stroke="#248B88"><path d="M5 20H55"/></g></svg>';
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

test('what was copied last is pasted: words from elsewhere as lettering, parts as parts', async ({ page }) => {
  await newJob(page, 'Pasted');
  const paste = (text: string) =>
    page.evaluate((words) => {
      const transfer = new DataTransfer();
      transfer.setData('text/plain', words);
      window.dispatchEvent(new ClipboardEvent('paste', { clipboardData: transfer, cancelable: true, bubbles: true }));
    }, text);
  await paste('Bean bed\nnorth');
  await expect(page.getByRole('textbox', { name: 'Words' })).toHaveValue('Bean bed\nnorth');
  const parts = findings(page).getByRole('button', { name: /^Bean bed/ });
  await expect(parts).toHaveCount(1);
  // Copied here and pasted with keys: the part once, and no words beside it.
  await parts.first().click();
  await page.keyboard.press('Control+c');
  await page.keyboard.press('Control+v');
  await expect(parts).toHaveCount(2);
  await paste('in;sp1;pu0,0;pd400,400;'.toUpperCase());
  await expect(page.getByRole('dialog').getByText('HPGL')).toBeVisible();
  await page.keyboard.press('Escape');
  // Into a field they are words of the field.
  await page.getByRole('textbox', { name: 'Words' }).press('Control+v');
  await expect(parts).toHaveCount(2);
});

test('several files come one after the other, also when one is no drawing', async ({ page }) => {
  await newJob(page, 'Several');
  const square = (mm: number) =>
    Buffer.from(
      `<svg xmlns="http://www.w3.org/2000/svg" width="90mm" height="90mm" viewBox="0 0 90 90"><rect width="${mm}" height="${mm}"/></svg>`,
    );
  await page.getByLabel('Drawing or picture to bring in').setInputFiles(
    [
      { name: 'first.svg', buffer: square(30) },
      { name: 'noise.svg', buffer: Buffer.from('nothing') },
      { name: 'third.svg', buffer: square(50) },
    ].map((file) => ({ ...file, mimeType: 'image/svg+xml' })),
  );
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByRole('heading', { name: /first\.svg/ })).toBeVisible();
  await dialog.getByRole('button', { name: 'Bring in', exact: true }).click();
  await expect(dialog.getByRole('alert')).toHaveText(/no drawing/);
  await dialog.getByRole('button', { name: 'Close' }).last().click();
  await expect(dialog.getByRole('heading', { name: /third\.svg/ })).toBeVisible();
  await dialog.getByRole('button', { name: 'Bring in', exact: true }).click();
  await expect(dialog).toBeHidden();
  await computed(page);
  await expect(findings(page).getByText('30 × 30')).toBeVisible();
  await expect(findings(page).getByText('50 × 50')).toBeVisible();
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

test('a path is drawn, its nodes worked on, and words are taken in hand and given back', async ({ page }) => {
  const id = await newJob(page, 'Drawn');
  await page.getByRole('button', { name: 'Draw a path' }).click();
  const press = async (x: number, y: number) => {
    const at = await onScreen(page, x, y);
    await page.mouse.click(at.x, at.y);
  };
  const drag = async (from: [number, number], to: [number, number]) => {
    const [a, b] = [await onScreen(page, ...from), await onScreen(page, ...to)];
    await page.mouse.move(a.x, a.y);
    await page.mouse.down();
    await page.mouse.move(b.x, b.y, { steps: 4 });
    await page.mouse.up();
  };
  await press(100, 100);
  await press(300, 100);
  await drag([300, 250], [260, 320]);
  await press(100, 250);
  await press(100, 100);
  await computed(page);
  await expect(page.getByRole('contentinfo')).toContainText('1 closed, 0 open');

  // The pen is put down; then Enter opens the nodes of the path, as it opens words.
  await page.keyboard.press('Enter');
  await expect(page.getByRole('region', { name: 'Pen' })).toBeHidden();
  await page.locator('[data-sheet]').focus();
  await page.keyboard.press('Enter');
  const nodes = page.getByRole('region', { name: 'Nodes' });
  await expect(nodes.getByText('0 of 4')).toBeVisible();
  await drag([100, 100], [60, 60]);
  await expect(nodes.getByRole('textbox', { name: 'x' })).toHaveValue(/^60(\.\d+)?$|^59\.\d+$/);
  const middle = await onScreen(page, 180, 80);
  await page.mouse.dblclick(middle.x, middle.y);
  await expect(nodes.getByText('1 of 5')).toBeVisible();
  await page.keyboard.press('Delete');
  await expect(nodes.getByText('0 of 4')).toBeVisible();
  await nodes.getByRole('button', { name: 'Choose every node' }).click();
  await expect(nodes.getByText('4 of 4')).toBeVisible();
  await press(200, 20);
  await expect(nodes.getByText('0 of 4')).toBeVisible();
  await press(300, 100);
  const far = await onScreen(page, 100, 250);
  await page.keyboard.down('Shift');
  await page.mouse.click(far.x, far.y);
  await page.keyboard.up('Shift');
  await expect(nodes.getByText('2 of 4')).toBeVisible();
  await nodes.getByRole('button', { name: 'Choose those between' }).click();
  await expect(nodes.getByText('3 of 4')).toBeVisible();
  await page.keyboard.press('Escape');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('button', { name: 'Work on nodes' })).toBeVisible();
  await page.keyboard.press('Control+z');
  await computed(page);

  await station(page, 'Compose').click();
  await page.keyboard.press('Escape');
  await page.keyboard.press('Escape');
  await addLettering(page, 'Kale');
  await computed(page);
  await station(page, 'Close').click();
  await page.getByRole('button', { name: 'Work on nodes' }).click();
  await expect(findings(page).getByText('“Kale” is worked on by hand')).toBeVisible();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Back to the words and steps' }).first().click();
  await expect(findings(page).getByText('“Kale” is worked on by hand')).toHaveCount(0);
  const { document } = await kept(page, id);
  expect(document.parts).toHaveLength(2);
});
