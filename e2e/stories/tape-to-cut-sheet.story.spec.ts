import AxeBuilder from '@axe-core/playwright';
import { expect, test } from '@playwright/test';
import { Bench } from '../driver/bench.js';
import { BenchServer } from '../driver/server.js';

const server = new BenchServer();
test.beforeAll(() => server.start());
test.afterAll(() => server.remove());

test('from a crooked toilet window to the cut sheet, and everything is there after a restart', async ({ page }) => {
  const bench = new Bench(page, server.url);
  await bench.openJob('Tern Point terminal');

  await bench.pick('Toilet 2');
  await expect(bench.verdict()).toContainText('These tapes disagree by about 21 mm');
  await page.getByRole('button', { name: 'Tape the bottom width again' }).click();
  await expect(bench.field('widthBottom')).toBeFocused();
  await bench.tape('widthBottom', '598');
  await expect(bench.verdict()).toContainText('The tapes agree');

  await bench.goTo('Cut');
  await bench.planSettled();
  const methods = page.locator('[data-methods] button');
  await expect(methods).toHaveCount(5);
  await methods.filter({ hasText: 'Factory edge to the frame' }).click();
  await expect(methods.filter({ hasText: 'Factory edge to the frame' })).toHaveAttribute('aria-pressed', 'true');
  await bench.planSettled();
  await expect(page.locator('[data-piece]').first()).toBeVisible();
  await expect(page.getByText('factory edge, no cut')).toBeVisible();

  const steps = await bench.knifeOrder().count();
  expect(steps).toBeGreaterThan(15);
  // two ticks in quick succession: the first commits the plan, the second must not try to commit it again
  await page.getByRole('button', { name: 'Cut made' }).click();
  await page.getByRole('button', { name: 'Cut made' }).click();
  await bench.saved();
  await expect(bench.knifeOrder().first().getByRole('checkbox')).toBeChecked();
  await expect(bench.knifeOrder().nth(1).getByRole('checkbox')).toBeChecked();

  const href = await page.getByRole('link', { name: 'Cut sheet' }).getAttribute('href');
  const pdf = await page.request.get(server.url + href);
  expect(pdf.status()).toBe(200);
  expect((await pdf.body()).subarray(0, 5).toString()).toBe('%PDF-');

  await server.stop();
  await server.start();
  await page.reload();
  await expect(bench.knifeOrder().first().getByRole('checkbox')).toBeChecked();
  await expect(bench.knifeOrder()).toHaveCount(steps);
  await bench.goTo('Measure');
  await bench.pick('Toilet 2');
  await expect(bench.field('widthBottom')).toHaveValue('598');
});

test('one more of a spoiled piece comes onto the roll in two taps, and undo takes it off again', async ({ page }) => {
  const bench = new Bench(page, server.url);
  await bench.openJob('Tern Point terminal');
  await bench.pick('O4');
  await bench.goTo('Cut');
  await bench.planSettled();
  await page.getByRole('button', { name: 'One more of O4' }).click();
  await expect(page.locator('[data-piece]')).toHaveCount(6);
  await bench.planSettled();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.locator('[data-piece]')).toHaveCount(5);
});

test('walks round the tapes with Enter, reads fractions, says what does not read and keeps it', async ({ page }) => {
  const bench = new Bench(page, server.url);
  await bench.openJob('Lantern Street bakery');
  await bench.pick('F1');
  await bench.field('widthLargest').fill('35 9/16');
  await bench.field('widthLargest').press('Enter');
  await expect(bench.field('heightLargest')).toBeFocused();
  await bench.saved();
  await expect(bench.field('widthLargest')).toHaveValue('35 9/16');
  await bench.field('heightLargest').fill('58 1/');
  await bench.field('heightLargest').press('Enter');
  await expect(page.getByRole('alert')).toContainText('does not read as a length');
  await expect(bench.field('heightLargest')).toHaveValue('58 1/');
  await bench.field('heightLargest').fill('58 1/4"');
  await bench.field('heightLargest').press('Shift+Enter');
  await expect(bench.field('widthLargest')).toBeFocused();
});

test('plain keys: another surface, units, a new pane, undo', async ({ page }) => {
  const bench = new Bench(page, server.url);
  await bench.openJob('Lantern Street bakery');
  await page.keyboard.press('ArrowDown');
  await expect(page.getByRole('heading', { name: 'F2', level: 2 })).toBeVisible();
  await page.keyboard.press('u');
  await expect(bench.field('widthLargest')).toHaveValue('903');
  await page.keyboard.press('n');
  await expect(page.getByRole('heading', { name: /^Pane \d/, level: 2 })).toBeVisible();
  await bench.saved();
  await page.keyboard.press('z');
  await expect(page.locator('[data-surface^="Pane "]')).toHaveCount(0);
  await page.keyboard.press('?');
  await expect(page.getByRole('heading', { name: 'Keys, job and files' })).toBeVisible();
});

test('a figure typed and not yet handed on stays with its pane when a key takes the person to the next', async ({ page }) => {
  const bench = new Bench(page, server.url);
  await bench.openJob('Tern Point terminal');
  await bench.pick('H1');
  await bench.field('heightLargest').fill('1397');
  await page.keyboard.press('Alt+ArrowDown');
  await expect(page.getByRole('heading', { name: 'H2', level: 2, exact: true })).toBeVisible();
  await expect(bench.field('heightLargest')).toHaveValue('1404');
  await bench.saved();
  await bench.pick('H1');
  await expect(bench.field('heightLargest')).toHaveValue('1397');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(bench.field('heightLargest')).toHaveValue('1404');
});

test('the firm’s own allowance reaches every piece that says nothing else', async ({ page }) => {
  const bench = new Bench(page, server.url);
  await bench.openJob('Lantern Street bakery');
  await bench.pick('F1');
  await bench.goTo('Cut');
  await expect(page.getByText('trim 1"').first()).toBeVisible();
  await bench.openJobs();
  await page.getByRole('link', { name: 'Firm', exact: true }).click();
  await page.getByLabel('Overhang', { exact: false }).first().fill('1 1/2"');
  await page.keyboard.press('Tab');
  await expect(page.getByRole('button', { name: 'Undo' })).toBeEnabled();
  await bench.openJob('Lantern Street bakery');
  await bench.goTo('Cut');
  await expect(page.getByText('trim 1 1/2"').first()).toBeVisible();
  await bench.openJobs();
  await page.getByRole('link', { name: 'Firm', exact: true }).click();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByLabel('Overhang', { exact: false }).first()).toHaveValue('25');
});

for (const stage of ['jobs', 'firm', 'phones', 'measure', 'cut'] as const)
  test(`axe finds nothing to mend in ${stage}`, async ({ page }) => {
    const bench = new Bench(page, server.url);
    if (['jobs', 'firm', 'phones'].includes(stage)) await bench.openJobs();
    else await bench.openJob('Tern Point terminal');
    if (stage === 'firm') await page.getByRole('link', { name: 'Firm', exact: true }).click();
    if (stage === 'phones') {
      await page.getByRole('link', { name: 'Phones', exact: true }).click();
      await expect(page.getByRole('radio', { name: 'this machine alone' })).toBeChecked();
    }
    if (stage === 'measure') await bench.pick('Toilet 3');
    if (stage === 'cut') {
      await bench.goTo('Cut');
      await bench.planSettled();
    }
    const { violations } = await new AxeBuilder({ page }).withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice']).analyze();
    expect(violations.map((v) => `${v.id}: ${v.nodes.map((n) => n.target.join(' ')).join(', ')}`)).toEqual([]);
  });
