import AxeBuilder from '@axe-core/playwright';
import { expect, test, type Browser } from '@playwright/test';
import { Bench, readyForDeadSpot } from '../driver/bench.js';
import { BenchServer } from '../driver/server.js';
import { drawSignature } from '../driver/signature.js';
import { WetHands } from '../driver/wet-hands.js';

const phone = { width: 390, height: 844 };
let server: BenchServer;
let jobId: string;
test.beforeEach(async () => {
  server = new BenchServer();
  await server.start();
  jobId = await server.jobId('Tern Point terminal');
});
test.afterEach(() => server.remove());
/** A phone of somebody’s own: its store and its service worker are not shared. */
const ownPhone = async (browser: Browser, serviceWorkers: 'allow' | 'block' = 'block') => {
  const context = await browser.newContext({ viewport: phone, hasTouch: true, serviceWorkers });
  const hands = new WetHands(await context.newPage(), server, jobId);
  return { context, hands, page: hands.page };
};

test('one tap a pane: a drop of water does nothing, half a second does; a wrong tap is taken back by a further line', async ({ browser }) => {
  const { hands, page } = await ownPhone(browser);
  await hands.open();
  await hands.goTo('W1');
  await hands.brush();
  await expect(page.getByText('Hold it half a second')).toBeVisible();
  expect(await hands.log()).toEqual([]);
  await hands.done('W1');
  await expect(hands.heading()).toContainText('W2');
  await hands.delivered();
  expect(await hands.laid()).toEqual(['W1']);
  expect((await hands.log())[0]).toMatchObject({ kind: 'pane-done', personId: expect.any(String), receivedAt: expect.any(String) });
  await page.getByRole('button', { name: 'That was wrong' }).click();
  await expect(hands.heading()).toContainText('W1');
  await expect.poll(async () => (await hands.log()).map((e) => e.kind)).toEqual(['pane-done', 'correction']);
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(phone.width);
});

test('a whole pane from Prepare to the last step, by the keyboard: every step is in the log, its roll is named', async ({ page }) => {
  const bench = new Bench(page, server.url);
  await bench.openJob('Tern Point terminal');
  await bench.goTo('Cut');
  await bench.planSettled();
  await bench.pick('W2');
  await bench.goTo('Prepare');
  await expect(page.locator('[data-day-verdict]')).toContainText('Best from');
  await bench.goTo('Lay');
  const hands = new WetHands(page, server, jobId);
  await page.getByRole('button', { name: 'Step by step' }).click();
  const next = page.locator('[data-next] button');
  for (let i = 0; i < 30 && (await next.count()) > 0; i++) {
    const before = await page.locator('main h3').first().textContent();
    if (await page.getByLabel('Glass, °C').count()) {
      await page.getByLabel('Glass, °C').fill('41');
      await page.keyboard.press('Tab');
      await expect(page.locator('[data-reading]')).toContainText('too warm');
      await page.getByLabel('Glass, °C').fill('14.5');
      await page.keyboard.press('Tab');
      await expect(page.locator('[data-reading]')).toContainText('is good');
    }
    await next.focus();
    // held until it counts, however busy the machine
    await page.keyboard.down('Enter');
    await expect(page.locator('main h3').first()).not.toHaveText(before!);
    await page.keyboard.up('Enter');
  }
  await expect(hands.heading()).toContainText('W3');
  await hands.delivered();
  const log = await hands.log();
  expect(log.filter((e) => e.kind === 'step-done').map((e) => e.stepKey)).toEqual(
    expect.arrayContaining(['check-piece', 'stamp', 'wash', 'scrape', 'lock', 'light', 'corners', 'hard', 'bump', 'look']),
  );
  expect(log.filter((e) => e.kind === 'reading').map((e) => e.reading!.valueC)).toEqual([41, 14.5]);
  expect(log.at(-1)).toMatchObject({ kind: 'pane-done', roll: { lot: expect.stringMatching(/\w/) } });
  expect(log.map((e) => e.occurredAt)).toEqual([...log.map((e) => e.occurredAt)].sort());
});

test('no network in the middle: reload, go on, come back; the log is complete, in order, without doubles', async ({ browser }) => {
  const { hands, page } = await ownPhone(browser, 'allow');
  await hands.open();
  // the shell is fetched in the background; it has to be all there before the dead spot
  await readyForDeadSpot(page);
  await hands.goTo('W1');
  await hands.done('W1');
  await hands.delivered();
  await server.kill();
  await hands.done('W2');
  await expect(hands.kept()).toContainText('1 kept here');
  await page.reload();
  await expect(hands.heading()).toBeVisible();
  await expect(hands.kept()).toContainText('1 kept here');
  await expect(hands.kept()).toContainText('job as of');
  await hands.goTo('W3');
  await hands.done('W3');
  await expect(hands.kept()).toContainText('2 kept here');
  await server.start();
  await hands.delivered();
  expect(await hands.laid()).toEqual(['W1', 'W2', 'W3']);
});

test('the server dies again and again while it takes what was kept: nothing is lost, nothing is there twice', async ({ browser }) => {
  const { hands } = await ownPhone(browser);
  await hands.open();
  await hands.goTo('W1');
  await server.kill();
  const panes = ['W1', 'W2', 'W3', 'W4', 'W5', 'W6'];
  for (const pane of panes) await hands.done(pane);
  await expect(hands.kept()).toContainText('6 kept here');
  for (const wait of [400, 900, 250]) {
    await server.start();
    await hands.page.evaluate(() => window.dispatchEvent(new Event('online')));
    await hands.page.waitForTimeout(wait);
    await server.kill();
  }
  await server.start();
  await hands.delivered();
  expect(await hands.laid()).toEqual(panes);
  const ids = (await hands.log()).map((e) => e.id);
  expect(new Set(ids).size).toBe(ids.length);
});

test('two tabs of one phone: what both wrote out of reach is sent by one of them, once, in the order of the taps', async ({ browser }) => {
  const { context, hands, page } = await ownPhone(browser);
  await hands.open();
  const second = new WetHands(await context.newPage(), server, jobId);
  await second.open();
  await hands.goTo('W1');
  await second.goTo('W4');
  await server.kill();
  const sent: string[] = [];
  // lines of the log; what a tab edits beside them goes its own way
  for (const [name, p] of [
    ['first', page],
    ['second', second.page],
  ] as const)
    p.on('request', (r) => void (r.url().endsWith('/changes') && r.postData()?.includes('"kind":"layEntry"') && sent.push(name)));
  await page.bringToFront();
  await hands.done('W1');
  await second.page.bringToFront();
  await second.done('W4');
  await page.bringToFront();
  await hands.done('W2');
  await expect(hands.kept()).toContainText('3 kept here');
  await expect(second.kept()).toContainText('3 kept here');
  await server.start();
  await hands.delivered();
  await second.delivered();
  expect(await hands.laid()).toEqual(['W1', 'W4', 'W2']);
  expect(new Set(sent).size).toBe(1);
  // the one that delivered is closed: the other takes over
  await (sent[0] === 'first' ? page : second.page).close();
  const left = sent[0] === 'first' ? second : hands;
  await left.goTo('W5');
  await left.done('W5');
  await left.delivered();
  expect(await left.laid()).toEqual(['W1', 'W4', 'W2', 'W5']);
});

test('two on one job see each other; what both wrote out of each other’s sight is shown, and one of them settles it', async ({ browser }) => {
  const [one, two] = [await ownPhone(browser), await ownPhone(browser)];
  await one.hands.open();
  const persons = (await server.get<{ persons: { id: string; name: string }[] }>('/api/session')).persons;
  await two.context.addInitScript((id) => localStorage.setItem('yp-person', id), persons[1]!.id);
  await two.hands.open();
  await one.hands.goTo('W1');
  await two.hands.goTo('W2');
  await one.hands.done('W1');
  await two.page.getByRole('button', { name: 'Panes', exact: true }).click();
  await expect(two.page.locator('section[aria-label="All panes"]').getByRole('button', { name: /^W1/ })).toContainText('laid');
  await two.page.getByRole('button', { name: 'To the pane in hand' }).click();
  // one is out of reach: both do W2
  await one.context.setOffline(true);
  await one.hands.done('W2');
  await expect(one.hands.kept()).toContainText('1 kept here');
  await two.hands.done('W2');
  await two.hands.delivered();
  await one.context.setOffline(false);
  await one.hands.delivered();
  await two.hands.goTo('W2');
  const ask = two.page.locator('[data-conflict]');
  await expect(ask).toContainText('Two of you wrote about this pane');
  await ask.getByRole('button', { name: new RegExp(persons[1]!.name) }).click();
  await expect(ask).toBeHidden();
  await expect.poll(async () => (await two.hands.log()).some((e) => e.kind === 'correction')).toBe(true);
  const log = await two.hands.log();
  expect(log.filter((e) => e.kind === 'pane-done')).toHaveLength(3);
  expect(log.filter((e) => e.kind === 'correction')).toHaveLength(1);
});

test('something is wrong: what, where, one question, and what to do; with a photo that keeps no place', async ({ browser }) => {
  const { hands, page } = await ownPhone(browser);
  await hands.open();
  await hands.goTo('W4');
  await page.getByRole('button', { name: 'Something is wrong' }).click();
  await page.getByRole('button', { name: 'Specks, hairs, lint' }).click();
  await page.locator('yp-lay-drawing svg').click({ position: { x: 150, y: 90 } });
  await page.getByRole('button', { name: 'Yes, it is fresh' }).click();
  await expect(page.locator('[data-advice]')).toContainText('flush both faces');
  const png = await page.screenshot();
  await page.locator('yp-photo-button input').setInputFiles({ name: 'speck.png', mimeType: 'image/png', buffer: png });
  await expect(page.getByText('1 photo is kept')).toBeVisible();
  await page.getByRole('button', { name: 'Leave this pane for now' }).click();
  await expect(hands.heading()).toContainText('W5');
  await expect.poll(async () => (await hands.log()).map((e) => e.kind)).toEqual(expect.arrayContaining(['problem', 'photo']));
  const log = await hands.log();
  expect(log[0]).toMatchObject({ kind: 'problem', problem: { kind: 'speck', at: { xFrac: expect.any(Number) }, answers: { slides: 'yes' } } });
  const photo = log.find((e) => e.kind === 'photo')!.photo!;
  const kept = await page.request.get(`${server.url}/api/photos/${photo}`);
  expect(kept.headers()['content-type']).toBe('image/jpeg');
  expect((await kept.body()).includes(Buffer.from('Exif'))).toBe(false);
  await hands.goTo('W4');
  await expect(page.getByRole('heading', { name: 'W4 is stopped' })).toBeVisible();
});

test('before the first pane: the site is asked, what is already there is photographed, the customer signs', async ({ browser }) => {
  const { hands, page } = await ownPhone(browser);
  await hands.open();
  await page.getByRole('button', { name: /Before the first pane/ }).click();
  await page.getByRole('checkbox', { name: /Blinds off/ }).check();
  await page.getByLabel('What the photo shows').fill('Chip, lower left of W1');
  await page.locator('yp-photo-button input').setInputFiles({ name: 'chip.png', mimeType: 'image/png', buffer: await page.screenshot() });
  await expect(page.getByText('Chip, lower left of W1')).toBeVisible();
  await page.getByRole('button', { name: 'Sign', exact: true }).click();
  await expect(page.getByRole('alert')).toContainText('who signs');
  await page.getByLabel('Who signs').fill('M. Harbour');
  await drawSignature(page);
  await page.getByRole('button', { name: 'Sign', exact: true }).click();
  await expect(page.locator('[data-signed]')).toContainText('M. Harbour has signed');
  await page.getByRole('button', { name: 'To the panes' }).click();
  await expect.poll(async () => (await hands.log()).map((e) => e.kind)).toEqual(['ready', 'photo', 'signed']);
  const log = await hands.log();
  expect(log[2]!.signature!.strokes[0]!.length).toBeGreaterThan(3);
});

test('the firm’s own steps are a new version; a job that has begun keeps the one it began with', async ({ page }) => {
  await page.goto(`${server.url}/firm`);
  await page.getByRole('button', { name: 'Change the steps' }).click();
  await page.locator('[data-rule="wash"]').getByRole('button', { name: 'Wet and scrub', exact: true }).click();
  await page.locator('[data-rule="wash"]').getByLabel('Title').fill('Scrub with {soap}');
  await page.locator('[data-rule="wash"]').getByLabel('Title').press('Tab');
  await page.getByRole('button', { name: 'Keep as version 2' }).click();
  await expect(page.getByRole('alert')).toContainText('“{soap}”');
  await page.locator('[data-rule="wash"]').getByLabel('Title').fill('Scrub, twice');
  await page.locator('[data-rule="wash"]').getByLabel('Title').press('Tab');
  await page.getByRole('button', { name: 'Up: Scrape, top to bottom' }).click();
  await page.getByRole('button', { name: 'Keep as version 2' }).click();
  await expect(page.getByRole('heading', { name: 'Steps of laying, version 2' })).toBeVisible();
  await page.goto(`${server.url}/jobs/${jobId}/lay`);
  const steps = page.locator('[data-step]');
  await expect(page.locator('[data-step="wash"]')).toContainText('Scrub, twice');
  const keys = await steps.evaluateAll((all) => all.map((e) => e.getAttribute('data-step')));
  expect(keys.indexOf('scrape')).toBeLessThan(keys.indexOf('wash'));
  // the job begins with version 2; a version 3 does not change it
  await page.locator('[data-done] button').focus();
  await page.keyboard.down('Enter');
  await expect.poll(async () => (await new WetHands(page, server, jobId).log()).map((e) => e.kind)).toEqual(['pane-done']);
  await page.keyboard.up('Enter');
  await page.goto(`${server.url}/firm`);
  await page.getByRole('button', { name: 'Change the steps' }).click();
  await page.getByRole('button', { name: 'Take out: Scrub, twice' }).click();
  await page.getByRole('button', { name: 'Keep as version 3' }).click();
  await expect(page.getByRole('heading', { name: 'Steps of laying, version 3' })).toBeVisible();
  await page.goto(`${server.url}/jobs/${jobId}/lay`);
  await expect(page.locator('[data-step="wash"]')).toContainText('Scrub, twice');
});

test('axe finds nothing to mend in Lay: one tap, a step, what is wrong, the site, the bench', async ({ browser }) => {
  const { hands, page } = await ownPhone(browser);
  const clean = async () => {
    const { violations } = await new AxeBuilder({ page }).withTags(['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa']).analyze();
    expect(violations.map((v) => `${v.id}: ${v.nodes.map((n) => n.target).join(' | ')}`)).toEqual([]);
  };
  await hands.open();
  await clean();
  await page.getByRole('button', { name: 'Step by step' }).click();
  await expect(page.locator('[data-next]')).toBeVisible();
  await clean();
  await page.getByRole('button', { name: 'Something is wrong' }).click();
  await clean();
  await page.getByRole('button', { name: 'Back' }).click();
  await page
    .getByRole('button', { name: /Before the first pane/ })
    .first()
    .click();
  await clean();
  await page.getByRole('button', { name: 'To the panes' }).click();
  await page.getByRole('button', { name: 'Panes', exact: true }).click();
  await clean();
  await page.setViewportSize({ width: 1280, height: 800 });
  await page.getByRole('button', { name: 'To the pane in hand' }).click();
  await clean();
});
