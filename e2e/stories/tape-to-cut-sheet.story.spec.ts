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
  // what the knife gets: the widest tape, 25 over on the trimmed side, 1.5 off the other frame, and a hair for the tapes; upright 25 over at both ends; in steps of 5 mm
  const list = await page.request.get(`${server.url}/api/jobs/${await server.jobId('Tern Point terminal')}/cut-list.csv`);
  const [head, own] = (await list.text()).split('\r\n').filter((l) => l.startsWith('place,') || l.includes(',Toilet 2,')).map((l) => l.split(',')); // prettier-ignore
  const of = (column: string) => own![head!.indexOf(column)]!;
  const [across, upright] = [Number(of('widthMm')), Number(of('heightMm'))];
  expect(across).toBeGreaterThanOrEqual(612 + 25 - 1.5);
  expect(across).toBeLessThanOrEqual(612 + 25 + 5);
  expect(upright).toBeGreaterThanOrEqual(669 + 50);
  expect(upright).toBeLessThanOrEqual(669 + 50 + 15);
  expect([across % 5, upright % 5, of('plan'), of('factoryEdge')]).toEqual([0, 0, 'kept', 'right']);

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
  const committed = await page.request.get(list.url());
  expect((await committed.text()).split('\r\n').find((l) => l.includes(',Toilet 2,'))).toBe(own!.join(',').replace(/kept$/, 'committed'));

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

test('a pane dragged along its row stands there in the walk', async ({ page }) => {
  const bench = new Bench(page, server.url);
  await bench.openJob('Tern Point terminal');
  const row = () => page.locator('[data-surface^="O"]').evaluateAll((all) => all.map((e) => e.getAttribute('data-surface')));
  const before = await row();
  expect(before.slice(0, 3)).toEqual(['O1', 'O2', 'O3']);
  const box = async (name: string) => (await page.locator(`[data-surface="${name}"]`).boundingBox())!;
  // what drags is fetched when the pointer comes over the row
  const fetched = page.waitForResponse((r) => r.url().endsWith('.js'));
  const [from, to] = [await box('O1'), await box('O3')];
  await page.mouse.move(from.x + 8, from.y + 16);
  await fetched;
  await page.waitForTimeout(500);
  await page.mouse.down();
  await page.mouse.move(from.x + 24, from.y + 16, { steps: 5 });
  await page.mouse.move(to.x + to.width - 4, to.y + 16, { steps: 10 });
  await page.mouse.up();
  await expect.poll(row).toEqual(['O2', 'O3', 'O1', ...before.slice(3)]);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(row).toEqual(before);
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
  // a new pane is there to be taped: the pen stands in its first field, and as long as nothing is written there letters are keys
  await expect(bench.field('widthLargest')).toBeFocused();
  await bench.saved();
  await page.keyboard.press('z');
  await expect(page.locator('[data-surface^="Pane "]')).toHaveCount(0);
  await page.keyboard.press('?');
  await expect(page.getByRole('heading', { name: 'Keys and who is here' })).toBeVisible();
});

test('from the first Tab to the first tape without a mouse', async ({ page }) => {
  const bench = new Bench(page, server.url);
  await bench.openJobs();
  await page.keyboard.press('Tab');
  await expect(page.getByRole('button', { name: 'Skip to the work' })).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(page.locator('main')).toBeFocused();
  await page.getByRole('button', { name: 'New job' }).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByLabel('Job', { exact: true })).toBeFocused();
  await page.keyboard.type('By keys');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'By keys', level: 1 })).toBeVisible();
  await page.keyboard.press('n');
  await expect(bench.field('widthLargest')).toBeFocused();
  await page.keyboard.type('962');
  await page.keyboard.press('Enter');
  await expect(bench.field('heightLargest')).toBeFocused();
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
