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
  await page.getByRole('button', { name: 'Close' }).click();
  await bench.pick('W2');
  await bench.goTo('Choose');
  await bench.candidate('Tern Shade 35').waitFor({ timeout: 30_000 });
  await page.waitForTimeout(1500);
  await shot(page, 'choose');
  await bench.pick('O1');
  await bench.candidate('Ebb Grey 5').getByRole('button').click({ timeout: 30_000 });
  await page.getByRole('button', { name: 'Pane and edge' }).click();
  await page.waitForTimeout(1200);
  await shot(page, 'choose-refused');
  await page.getByLabel('Compare Breakwater 200').check();
  await page.getByLabel('Compare Scratch Coat 100').check();
  await page.getByLabel('Compare Slack Water 70').check();
  await shot(page, 'choose-compare');
  await bench.pick('M2');
  await bench.candidate('Quay Frost plain').waitFor({ timeout: 30_000 });
  await page.getByRole('button', { name: 'Who sees whom' }).click();
  await page.waitForTimeout(800);
  await shot(page, 'choose-privacy');
  await page.goto(`${server.url}/films`);
  await page.getByLabel('Compare Tern Shade 35').check();
  await page.getByLabel('Compare Slack Water 40').check();
  await shot(page, 'films');
  await page.goto(`${server.url}/firm`);
  await page.getByLabel('Hour rate', { exact: true }).waitFor();
  await shot(page, 'firm');
  const phone = await browser.newPage({ viewport: { width: 390, height: 844 } });
  const onPhone = new Bench(phone, server.url);
  await onPhone.openJob('Lantern Street bakery').catch(() => undefined);
  await phone.waitForTimeout(1500);
  await shot(phone, 'measure-phone');
  await phone.goto(`${server.url}/price`);
  await phone.getByRole('button', { name: 'New price' }).click();
  await phone.getByLabel('Customer').fill('Harbour kiosk');
  await phone.getByLabel('Width').fill('905');
  await phone.getByLabel('Height').fill('1210');
  await phone.getByLabel('How many').fill('3');
  await phone.getByRole('button', { name: 'Add' }).click();
  await phone.getByText('Against heat and glare').click();
  for (const film of ['Tern Shade 35', 'Slack Water 70']) await phone.locator('[data-films]').getByRole('button', { name: film }).click();
  await phone.locator('[data-price]').nth(1).waitFor();
  await phone.getByText('Against heat and glare').click();
  await phone.evaluate(() => scrollTo(0, 0));
  await shot(phone, 'price-phone');
} finally {
  await browser.close();
  await server.remove();
}
