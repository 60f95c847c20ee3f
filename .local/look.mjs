import { readFileSync } from 'node:fs';
import { chromium } from '@playwright/test';

const base = (readFileSync('/tmp/demo.log', 'utf8').match(/http:\/\/127\.0\.0\.1:\d+/) || [])[0];
const b = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  chromiumSandbox: false,
  args: ['--disable-quic', '--no-first-run', '--disable-gpu'],
});
const ctx = await b.newContext({ viewport: { width: 1280, height: 800 } });
const p = await ctx.newPage();
p.on('console', (m) => {
  if (m.type() === 'error') console.log('CONSOLE', m.text());
});
p.on('pageerror', (e) => console.log('PAGEERR', e.message));
await p.goto(base);
await p.waitForLoadState('networkidle');
await p
  .getByRole('button', { name: /New job/ })
  .first()
  .click();
await p.waitForTimeout(1500);
globalThis.p = p;
const file = process.argv[2] || '/tmp/pics/leaf photo.jpg';
await p.locator('input[type=file]').first().setInputFiles(file);
await p.waitForTimeout(6000);
await p.screenshot({ path: '/tmp/l1.png' });
await p.getByRole('button', { name: process.argv[3] || /Photo or scan/ }).click();
await p.waitForTimeout(4000);
await p.screenshot({ path: '/tmp/l2.png' });
console.log(p.url());
await b.close();
