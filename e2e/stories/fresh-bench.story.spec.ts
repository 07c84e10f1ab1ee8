import { expect, test } from '@playwright/test';
import { Bench } from '../driver/bench.js';
import { BenchServer } from '../driver/server.js';

const server = new BenchServer();
test.beforeAll(() => server.start({ YELLOW_PANE_SEED: 'none' }));
test.afterAll(() => server.remove());

test('an empty bench: start a job, tape a pane, put a roll on the bench, and its piece lies on it', async ({ page }) => {
  const bench = new Bench(page, server.url);
  await bench.openJobs();
  await expect(page.getByText('No job yet')).toBeVisible();
  await page.getByRole('button', { name: 'New job' }).click();
  await page.getByLabel('Job', { exact: true }).fill('Harbour office');
  await page.getByRole('button', { name: 'Start', exact: true }).click();
  await expect(page.getByText('No pane yet', { exact: true })).toBeVisible();

  await page.keyboard.press('n');
  await bench.saved();
  await bench.tape('widthLargest', '962');
  await bench.tape('heightLargest', '1404');
  await expect(bench.verdict()).toContainText('Two tapes: enough to cut with overhang');
  await bench.pick('Pane 1');

  await bench.goTo('Cut');
  await page.getByRole('button', { name: 'Put a roll on the bench' }).click();
  await page.getByLabel('Name of the film').fill('House tint');
  await page.getByLabel('Roll, as you call it').fill('R-1');
  await page.getByLabel('Width').fill('60"');
  await page.getByLabel('Metres on it').fill('20');
  await page.getByLabel('Price per metre').fill('12.5');
  await page.getByRole('button', { name: 'Put it on the bench' }).click();
  await bench.planSettled();
  await expect(page.locator('[data-piece]')).toHaveCount(1);
  // handy sizes: 1012 × 1454 come to the next 5 mm
  await expect(bench.knifeOrder().first()).toContainText(/Pull (1015|1460), cut across/);

  // the film that came with its roll has a price at once
  await page.goto(`${server.url}/price`);
  await page.getByRole('button', { name: 'New price' }).click();
  await page.getByLabel('Customer').fill('Next door');
  await page.getByLabel('Width').fill('905');
  await page.getByLabel('Height').fill('1210');
  await page.getByRole('button', { name: 'Add' }).click();
  await page.getByText('Against heat and glare').click();
  await page.locator('[data-films]').getByRole('button', { name: 'House tint' }).click();
  await expect(page.locator('[data-price]')).toContainText('€');
});

test('equal panes between glazing bars are taped once; one of them can be an exception', async ({ page }) => {
  const bench = new Bench(page, server.url);
  await bench.openJob('Harbour office');
  await bench.pick('Pane 1');
  await page.getByRole('button', { name: 'Bars r × c' }).click();
  await page.getByLabel('Rows of panes').fill('2');
  await page.getByLabel('Panes in a row').fill('2');
  await page.getByRole('button', { name: 'Make' }).click();
  await bench.saved();
  await bench.pick('Pane 1.3');
  await expect(bench.field('widthLargest')).toHaveValue('962');
  await bench.tape('widthLargest', '958');
  await bench.pick('Pane 1');
  await expect(bench.field('widthLargest')).toHaveValue('962');
  await bench.goTo('Cut');
  await bench.planSettled();
  await expect(page.locator('[data-piece]')).toHaveCount(4);
  await page.getByRole('button', { name: 'Lock', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Unlock' })).toBeVisible();
  await expect(page.getByText('Pane 1 · locked')).toBeVisible();
});

test('measures from a CSV file: a bad row is named and nothing changes, a good file comes in', async ({ page }) => {
  const bench = new Bench(page, server.url);
  await bench.openJob('Harbour office');
  await page.getByRole('button', { name: 'Job details' }).click();
  const file = page.getByLabel('Bring in measures');
  await file.setInputFiles({ name: 'bad.csv', mimeType: 'text/csv', buffer: Buffer.from('surface,measure,value\nDoor,widthLargest,wide\n') });
  await expect(page.getByText('row 2, value')).toBeVisible();
  await file.setInputFiles({
    name: 'good.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from('surface,measure,value\nDoor,widthLargest,738\nDoor,heightLargest,1990\n'),
  });
  await expect(page.getByText('2 measures came in, 1 panes are new.')).toBeVisible();
  await page.getByRole('button', { name: 'Close' }).click();
  await bench.pick('Door');
  await expect(bench.field('heightLargest')).toHaveValue('1990');
});

test('the built bench says what does not read in plain words, not in those of a schema', async ({ request }) => {
  const answer = await request.post(`${server.url}/api/compute/lettering`, { data: { text: '', face: 'gothic', spacing: 900 } });
  expect(answer.status()).toBe(400);
  const { faults } = (await answer.json()) as { faults: { path: string; message: string }[] };
  expect(faults).toContainEqual({ path: 'body.face', message: 'One of: plain, heavy, pitched, pitched-heavy.' });
  expect(JSON.stringify(faults)).not.toMatch(/Invalid|expected|received|Too big|Too small/);
});

test('the first page loads under 300 kB of compressed script', async ({ page }) => {
  const client = await page.context().newCDPSession(page);
  await client.send('Network.enable');
  const scripts = new Set<string>();
  let bytes = 0;
  client.on('Network.responseReceived', (e) => void (e.type === 'Script' && scripts.add(e.requestId)));
  client.on('Network.loadingFinished', (e) => void (scripts.has(e.requestId) && (bytes += e.encodedDataLength)));
  await new Bench(page, server.url).openJob('Harbour office');
  await page.waitForTimeout(500);
  expect(bytes).toBeGreaterThan(50_000);
  expect(bytes).toBeLessThan(300_000);
});

test('a library without a film: typical films come in with one tap, say that their figures are from memory, and can be chosen', async ({ page }) => {
  const fresh = new BenchServer();
  await fresh.start({ YELLOW_PANE_SEED: 'none' });
  try {
    await page.goto(`${fresh.url}/films`);
    await page.getByRole('button', { name: 'Begin with typical films' }).click();
    await expect(page.getByRole('alert')).toContainText('15 films came in');
    await page.getByRole('button', { name: 'Neutral tint 35' }).click();
    await expect(page.getByRole('complementary', { name: 'Film' })).toContainText('from memory: no maker’s sheet');
  } finally {
    await fresh.remove();
  }
});
