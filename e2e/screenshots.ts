// npm run screenshots: one current picture of each main view from the demo data, into docs/screenshots.
import { chromium, type Page } from '@playwright/test';
import { Bench } from './driver/bench.js';
import { BenchServer } from './driver/server.js';

const server = new BenchServer();
await server.start();
const browser = await chromium.launch({
  executablePath: process.env['CHROMIUM_PATH'] ?? '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu', '--disable-quic', '--no-first-run', '--disable-background-networking'],
});
const shot = (page: Page, name: string) => page.screenshot({ path: `docs/screenshots/${name}.png` });
try {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  const bench = new Bench(page, server.url);
  await bench.openJobs();
  await page.getByText('Tern Point terminal').waitFor();
  await shot(page, 'jobs');
  await bench.openJob('Tern Point terminal');
  await bench.pick('Toilet 2');
  await page.getByText('of 22.3 m').waitFor({ timeout: 30_000 });
  await bench.saved();
  await shot(page, 'measure');
  await bench.pick('H3');
  await bench.goTo('Cut');
  await bench.planSettled();
  await page.locator('[data-methods] button').nth(4).waitFor();
  await page.getByRole('button', { name: 'Cut made' }).click();
  await bench.saved();
  await page.getByRole('button', { name: 'Cut made' }).click();
  await bench.saved();
  await shot(page, 'cut');
  await page.keyboard.press('?');
  await shot(page, 'keys');
  const phone = await browser.newPage({ viewport: { width: 390, height: 844 } });
  const onPhone = new Bench(phone, server.url);
  await onPhone.openJob('Lantern Street bakery').catch(() => undefined);
  await phone.waitForTimeout(1500);
  await shot(phone, 'measure-phone');
} finally {
  await browser.close();
  await server.remove();
}
