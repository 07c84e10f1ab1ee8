import AxeBuilder from '@axe-core/playwright';
import { expect, test, type Page } from '@playwright/test';
import type { JobDocument, LayEntry, SealCheck } from '@yellow-pane/contracts';
import { Bench } from '../driver/bench.js';
import { BenchServer } from '../driver/server.js';
import { drawSignature } from '../driver/signature.js';

let server: BenchServer;
let jobId: string;
test.beforeAll(async () => {
  server = new BenchServer();
  await server.start();
  jobId = await server.jobId('Tern Point annex');
});
test.afterAll(() => server.remove());
const log = async (): Promise<LayEntry[]> => (await server.get<JobDocument>(`/api/jobs/${jobId}`)).layEntries;
const seals = (): Promise<SealCheck[]> => server.get<SealCheck[]>(`/api/jobs/${jobId}/hand-over`);
async function sign(page: Page, name: string): Promise<void> {
  await page.getByLabel('Who signs').fill(name);
  await drawSignature(page);
  await page.getByRole('button', { name: 'Take over', exact: true }).click();
}

test('the customer walks a place with the installer, out of reach of the bench: what is open is told, signed, and the seal holds when the bench has it', async ({
  browser,
}) => {
  const context = await browser.newContext({ viewport: { width: 390, height: 844 }, hasTouch: true });
  const page = await context.newPage();
  await page.goto(`${server.url}/jobs/${jobId}/hand-over`);
  await expect(page.getByRole('heading', { name: '2 of 6 laid panes taken over' })).toBeVisible();
  await context.setOffline(true);
  await page.getByLabel('All of Booking hall').check();
  await page.getByRole('button', { name: 'The customer takes over 4 panes' }).click();
  await expect(page.locator('[data-signing]')).toContainText('4 things pinned are not decided yet.');
  await expect(page.locator('[data-signing]')).toContainText('signing does not settle it');
  await page.getByRole('button', { name: 'Take over', exact: true }).click();
  await expect(page.getByRole('alert')).toContainText('who signs');
  await page.getByLabel('What the customer names').fill('Specks in B3: seen to on the 12th');
  await sign(page, 'Rowan Vale');
  await expect(page.locator('[data-said]')).toContainText('Rowan Vale has taken over 4 panes');
  await expect(page.getByRole('heading', { name: '6 of 6 laid panes taken over' })).toBeVisible();
  await expect(page.locator('[data-seal="unchanged"]').first()).toContainText('Rowan Vale');
  await expect(page.locator('[data-kept]')).toContainText('1 kept here');
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  expect((await seals()).map((s) => s.signedBy)).toEqual(['Maren Tide']);

  await context.setOffline(false);
  await expect.poll(async () => (await seals()).map((s) => [s.signedBy, s.verdict])).toEqual([['Rowan Vale', 'unchanged'], ['Maren Tide', 'unchanged']]); // prettier-ignore
  // what was open is open still
  await expect(page.locator('[data-place]').first()).toContainText('4 things pinned are not decided yet.');
  const { violations } = await new AxeBuilder({ page }).analyze();
  expect(violations.map((v) => v.id)).toEqual([]);
  await context.close();
});

test('a year on: the customer calls, the paper’s seal is compared, a look is added and told; what was signed in error is taken back', async ({ page }) => {
  const bench = new Bench(page, server.url);
  await bench.openJob('Tern Point annex');
  await bench.goTo('Hand over');
  await page.getByRole('button', { name: 'Write a call down' }).click();
  await page.getByLabel('About').selectOption({ label: 'P2, Parcel store' });
  await page.getByLabel('What they say').fill('an edge stands off');
  await page.getByRole('button', { name: 'Write it down' }).click();
  await expect(page.locator('[data-call]').first()).toContainText('P2 an edge stands off');
  // the seal of the paper, as somebody types it
  const [of] = (await seals()).filter((s) => s.signedBy === 'Maren Tide');
  const typed = page.getByLabel('Compare one from a paper');
  await typed.fill(of!.seal.slice(0, 6));
  await expect(page.locator('[data-compared]')).toHaveText('Eight signs at least.');
  await typed.fill(`${of!.seal.slice(0, 4).toUpperCase()} ${of!.seal.slice(4, 8)} ${of!.seal.slice(8, 12)}`);
  await expect(page.locator('[data-compared]')).toContainText('It is the one that Maren Tide signed');
  await typed.fill('00000000');
  await expect(page.locator('[data-compared]')).toContainText('No seal that was signed in this job begins so.');
  // from the call to the pane
  await page.locator('[data-call]').first().getByRole('link', { name: 'Look at it' }).click();
  await expect(page.locator('main').getByRole('heading', { level: 2 })).toContainText('P2');
  await page.locator('[data-look="none"]').click();
  await bench.goTo('Hand over');
  await expect(page.locator('[data-seal="added"]')).toContainText('1 line came later, the last by Ines on P2');
  // the papers are there
  for (const [name, type] of [
    ['Record of the work', 'application/pdf'],
    ['Care sheet', 'application/pdf'],
    ['Calendar', 'text/calendar'],
    ['Job file', 'application/json'],
  ] as const) {
    // prettier-ignore
    const href = (await page.getByRole('link', { name: new RegExp(`^${name}`) }).getAttribute('href'))!;
    const answer = await page.request.get(server.url + href);
    expect([answer.status(), answer.headers()['content-type']]).toEqual([200, expect.stringContaining(type)]);
  }
  const mine = page.locator('[data-seal]').filter({ hasText: 'Maren Tide' });
  await mine.getByRole('button', { name: 'It was signed in error' }).click();
  await mine.getByLabel('Why it was wrong').fill('the wrong store');
  await mine.getByRole('button', { name: 'Take it back' }).click();
  await expect(page.locator('[data-seal]').filter({ hasText: 'Maren Tide' })).toHaveCount(0);
  await expect.poll(async () => (await log()).filter((e) => e.kind === 'correction').at(-1)?.text).toBe('the wrong store');

  // all calls, found by words of any of them
  await page.getByRole('link', { name: 'Calls of all jobs' }).click();
  await expect(page.locator('[data-call-back]')).toHaveCount(2);
  await page.getByLabel('Search the calls').fill('edge stands');
  await expect(page.locator('[data-call-back]')).toHaveCount(1);
  await expect(page.locator('[data-call-back]')).toContainText('33 days after');
  const { violations } = await new AxeBuilder({ page }).analyze();
  expect(violations.map((v) => v.id)).toEqual([]);
});

test('erased on request: held for half a second, gone from every page, the seal says so; an open page of somebody else loses it too', async ({ browser }) => {
  const [mine, theirs] = [await (await browser.newContext()).newPage(), await (await browser.newContext()).newPage()];
  for (const page of [mine, theirs]) await page.goto(`${server.url}/jobs/${jobId}/hand-over`);
  await mine.getByRole('button', { name: 'Write a call down' }).click();
  await mine.getByLabel('What they say').fill('Zenobia Quill, flat 4, evenings only');
  await mine.getByRole('button', { name: 'Write it down' }).click();
  await expect(theirs.locator('[data-call]').first()).toContainText('Zenobia Quill');
  await mine.getByText('Erase something personal').click();
  await mine.locator('[data-personal]').filter({ hasText: 'Zenobia' }).getByRole('button', { name: 'Erase' }).click();
  const hold = mine.getByRole('button', { name: 'Hold to erase for good' });
  await expect(hold).toBeDisabled();
  await mine.getByLabel('Who asked for it, and when').fill('by letter, today');
  const box = (await hold.boundingBox())!;
  await mine.mouse.move(box.x + 40, box.y + 20);
  await mine.mouse.down();
  await mine.waitForTimeout(700);
  await mine.mouse.up();
  // said where one looks: the panel stays open
  await expect(mine.locator('[data-erased]')).toBeVisible();
  await expect(mine.locator('[data-erased]')).toContainText('Erased.');
  for (const page of [mine, theirs]) await expect(page.getByText('Zenobia')).toHaveCount(0);
  await expect(mine.locator('yp-erase-panel')).toContainText('by letter, today');
  expect(JSON.stringify(await server.get(`/api/jobs/${jobId}/history`))).not.toContain('Zenobia');
  // the history of this device goes on as before
  await mine.getByRole('button', { name: 'Write a call down' }).click();
  await mine.getByLabel('What they say').fill('all well');
  await mine.getByRole('button', { name: 'Write it down' }).click();
  await expect(theirs.locator('[data-call]').first()).toContainText('all well');
  for (const page of [mine, theirs]) await page.context().close();
});
