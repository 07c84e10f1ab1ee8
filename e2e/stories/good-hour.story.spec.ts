import AxeBuilder from '@axe-core/playwright';
import { expect, test } from '@playwright/test';
import { Bench } from '../driver/bench.js';
import { BenchServer } from '../driver/server.js';

const server = new BenchServer();
test.beforeAll(() => server.start());
test.afterAll(() => server.remove());

test('is it a good hour for the west front? What goes into the bottles, what into the van', async ({ page }) => {
  const bench = new Bench(page, server.url);
  await bench.openJob('Tern Point terminal');
  await bench.pick('W2');
  await bench.goTo('Prepare');
  const verdict = page.locator('[data-day-verdict]');
  await expect(verdict).toContainText(/Best from 6:00 to 1\d:\d0\. Then: sun on .*the glass, \d+ W/);
  await page.locator('[data-band="Waiting room · west front"] [title*="wrong: sun"]').click();
  await expect(page.locator('[data-picked-window]')).toContainText('wrong: sun on');
  // the fog has not lifted: typed on site instead
  await page.getByLabel('Clouds, %').fill('100');
  await page.keyboard.press('Tab');
  await expect(verdict).toContainText('The whole day is good.');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(verdict).toContainText('Then: sun on');
  await page.getByRole('tab', { name: 'Bottles' }).click();
  await page.getByRole('group', { name: 'Places of that day' }).getByRole('button', { name: 'Toilets' }).click();
  await expect(page.locator('[data-slip]')).toContainText('1 filling of 946 ml');
  await page.getByLabel('In the bottle, ml').fill('700');
  await page.getByLabel('Drops in it').fill('14');
  await page.keyboard.press('Tab');
  await expect(page.locator('[data-correction]')).toContainText(/1\.6 times too strong: .*of water/);
  await page.getByLabel('Walls and panels, m²').fill('12');
  await page.keyboard.press('Tab');
  await expect(page.locator('[data-wash=detergent]')).toContainText('Rinse twice');
  await page.getByRole('tab', { name: 'In the van' }).click();
  await page.getByRole('checkbox', { name: /Dust sheet/ }).check();
  await bench.saved();
  await server.stop();
  await server.start();
  await page.goto(page.url().replace(/^https?:\/\/[^/]+/, server.url));
  await page.getByRole('tab', { name: 'In the van' }).click();
  await expect(page.getByRole('checkbox', { name: /Dust sheet/ })).toBeChecked();
  await expect(page.locator('[data-kit-count]')).toContainText('1 of');
});

test('on a phone nothing is wider than the screen, and the stage at hand is in view', async ({ page }) => {
  const bench = new Bench(page, server.url);
  await page.setViewportSize({ width: 390, height: 844 });
  await bench.openJobs();
  await page.goto(`${server.url}/jobs/${await server.jobId('Tern Point terminal')}/prepare`);
  await expect(page.locator('[data-band="Meeting room"]')).toBeVisible();
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  await expect(page.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name: 'Prepare' })).toBeInViewport();
  await page.getByLabel('Sky').selectOption('changing');
  await expect(page.getByText('mm of rain')).toBeVisible();
});

for (const [width, height] of [
  [1280, 800],
  [1024, 768],
  [768, 1024],
  [390, 844],
] as const)
  test(`at ${width} px every stage is in view, the job is named, and its details are one tap away`, async ({ page }) => {
    await page.setViewportSize({ width, height });
    await new Bench(page, server.url).openJob('Lantern Street bakery');
    const stages = page.getByRole('navigation', { name: 'Stages' }).getByRole('link');
    await expect(stages).toHaveText([/Measure/, /Choose/, /Cut/, /Prepare/, /Lay/, /Check/, /Hand over/]);
    for (const stage of await stages.all()) {
      await expect(stage).toBeInViewport({ ratio: 1 });
      // its name is not cut off
      expect(
        await stage
          .locator('span')
          .first()
          .evaluate((e) => e.getBoundingClientRect().right - e.closest('a')!.getBoundingClientRect().right),
      ).toBeLessThanOrEqual(0);
    }
    await expect(page.getByRole('heading', { level: 1 })).toBeInViewport({ ratio: 1 });
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(width);
    await page.getByRole('button', { name: 'Job details' }).click();
    const site = page.getByLabel('Where the site is');
    await site.fill('53,5');
    await site.press('Tab');
    expect(await site.evaluate((e: HTMLInputElement) => e.validationMessage)).toContain('one figure');
    await site.fill('53°32′45.6″N 8°34′48″E');
    await site.press('Tab');
    await expect(page.locator('[data-site-words]')).toContainText('53.546° north, 8.580° east');
  });

for (const tab of ['The day', 'Bottles', 'In the van'] as const)
  test(`axe finds nothing to mend in Prepare: ${tab}`, async ({ page }) => {
    const bench = new Bench(page, server.url);
    await bench.openJob('Tern Point terminal');
    await bench.goTo('Prepare');
    await page.getByRole('tab', { name: tab }).click();
    await expect(page.locator('[data-day-verdict]')).toBeVisible();
    const { violations } = await new AxeBuilder({ page }).withTags(['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa']).analyze();
    expect(violations.map((v) => `${v.id}: ${v.nodes.map((n) => n.target).join(' | ')}`)).toEqual([]);
  });

test('instruments: a laser shot goes into the field in hand, the air read counts for the day, a dropped one is said', async ({ page }) => {
  const bench = new Bench(page, server.url);
  await bench.openJob('Tern Point terminal');
  await bench.pick('H1');
  await page.locator('summary', { hasText: 'Laser meter' }).click();
  const laser = page.locator('[data-instrument="laser"]');
  await expect(laser).toContainText('battery');
  await bench.field('widthLargest').focus();
  await laser.getByLabel('it would see, mm').fill('1000');
  await laser.getByRole('button', { name: 'Shoot' }).click();
  await expect(bench.field('widthLargest')).toHaveValue(/^(99\d|100\d) mm$/);
  await expect(bench.field('heightLargest')).toBeFocused();
  await bench.saved();
  // after the last one of this pane the hand is at the first of the next
  await laser.getByLabel('it would see, mm').fill('1404');
  await bench.field('heightLargest').focus();
  await laser.getByRole('button', { name: 'Shoot' }).click();
  await expect(page.getByRole('heading', { name: 'H2', level: 2, exact: true })).toBeVisible();
  await expect(bench.field('widthLargest')).toBeFocused();
  await expect(bench.field('heightLargest')).toHaveValue('1404');
  await bench.saved();
  await laser.getByRole('button', { name: 'let it drop out' }).click();
  await expect(laser).toContainText('does not answer');
  await laser.getByRole('button', { name: 'Shoot' }).click();
  await expect(page.getByRole('alert')).toContainText('type what you read');
  await laser.getByRole('button', { name: 'put it right' }).click();
  // the two sizes before anything gets wet
  await bench.goTo('Cut');
  await bench.planSettled();
  await bench.openTab('Piece in hand');
  await page.locator('summary', { hasText: 'Shoot the two sizes' }).click();
  for (const mm of ['1341', '1457']) {
    await laser.getByLabel('it would see, mm').fill(mm);
    await laser.getByRole('button', { name: 'Shoot' }).click();
    await expect(laser.locator('p.figure')).toContainText(mm.slice(0, 3));
  }
  await expect(page.locator('[data-in-hand]')).toContainText('H3');
  await bench.goTo('Prepare');
  await page.locator('summary', { hasText: 'Instruments' }).click();
  await page.locator('[data-instrument="hygrometer"]').getByLabel('air is, °C').fill('3');
  await page.getByRole('button', { name: 'Read the air' }).click();
  await expect(page.locator('[data-day-verdict]')).toContainText('No hour of this day');
  await page.locator('[data-instrument="thermometer"]').getByLabel('it is, °C').fill('44');
  await page.getByRole('button', { name: 'Read it' }).click();
  await expect(page.locator('[data-glass-read]')).toContainText(/glass read at 4\d\.\d °C, \d+ °C warmer than reckoned\. .*: wrong/);
});

test('an inch job on an inch bench tells nothing in °C, m², µm or metres of film, wherever one looks', async ({ page }) => {
  test.setTimeout(180_000);
  const bench = new Bench(page, server.url);
  const metric = /\d\s?°C|\d\s?m²|per m²|\d\s?µm|\d\s?m\/s|, °C|, m²|, µm|a m²|\d m\b|\bkm\b/g;
  const customary = new Set<string>();
  const told = async (where: string) => {
    await page.waitForLoadState('networkidle');
    // what is folded away or only pointed at is told as well
    const shown = await page.locator('main').evaluateAll((all) =>
      all.flatMap((main) => {
        main.querySelectorAll('details').forEach((d) => (d.open = true));
        const spoken = Array.from(main.querySelectorAll('*')).flatMap((e) => ['title', 'aria-label', 'placeholder'].map((a) => e.getAttribute(a) ?? ''));
        return [(main as HTMLElement).innerText, ...spoken];
      }),
    );
    for (const unit of shown.join('\n').match(/°F|ft²|\bmil\b|\d ft\b|mph/g) ?? []) customary.add(unit.replace(/^\d /, ''));
    const all = shown.join('\n');
    const found = [...all.matchAll(metric)].map((m) => all.slice(Math.max(0, m.index - 60), m.index + 30));
    expect({ where, found: [...new Set(found)] }).toEqual({ where, found: [] });
  };
  await page.goto(`${server.url}/firm`);
  await page.getByLabel('Tapes in').selectOption('in');
  await expect(page.getByLabel('Tint, min per ft²')).toBeVisible();
  await told('Firm');
  for (const where of ['films', 'stock', 'price']) {
    await page.goto(`${server.url}/${where}`);
    await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
    if (where === 'price') await page.getByRole('button', { name: 'New price' }).click();
    await told(where);
  }
  await bench.openJob('Lantern Street bakery');
  for (const stage of ['Measure', 'Choose', 'Cut', 'Prepare', 'Lay'] as const) {
    await bench.goTo(stage);
    await told(stage);
  }
  await bench.goTo('Prepare');
  for (const tab of ['Bottles', 'In the van'] as const) {
    await page
      .getByRole('tab', { name: tab })
      .or(page.getByRole('button', { name: tab }))
      .first()
      .click();
    await told(tab);
  }
});
