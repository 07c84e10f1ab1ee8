import AxeBuilder from '@axe-core/playwright';
import { expect, test, type Browser } from '@playwright/test';
import jsQR from 'jsqr';
import { join } from 'node:path';
import { readyForDeadSpot } from '../driver/bench.js';
import { OtherHost, whyNoOtherHost } from '../driver/other-host.js';
import { BenchServer } from '../driver/server.js';
import { WetHands } from '../driver/wet-hands.js';

const why = whyNoOtherHost();
const size = { width: 390, height: 844 };
let server: BenchServer;
let phone: OtherHost;
let browser: Browser;
test.beforeEach(async () => {
  test.skip(why !== null && !process.env['CI'], `No second host here: ${why}`);
  if (why) throw new Error(`No second host here: ${why}`);
  phone = new OtherHost();
  phone.plugIn();
  server = new BenchServer();
  await server.start({ YELLOW_PANE_SHOP_PORT: String(20_000 + Math.floor(Math.random() * 10_000)) });
  browser = await phone.browser();
});
test.afterEach(async () => {
  await browser?.close();
  await server?.remove();
  phone?.unplug();
});

/** What the camera of a phone reads off the bench's screen. */
function scanned(path: string, modules: number): string | undefined {
  const k = 4;
  const width = modules * k;
  const data = new Uint8ClampedArray(width * width * 4).fill(255);
  for (const [, x, y] of path.matchAll(/M(\d+) (\d+)h1/g))
    for (let i = 0; i < k; i++) for (let j = 0; j < k; j++) data.set([0, 0, 0], ((Number(y) * k + i) * width + Number(x) * k + j) * 4);
  return jsQR(data, width, width)?.data;
}

test('a phone with an address of its own comes to trust the bench, is let in, works through a dead spot, and is taken out', async ({ page: bench }) => {
  const jobId = await server.jobId('Tern Point terminal');
  const code = async (name: string): Promise<string> => {
    await bench.getByLabel('Whose device is it?').fill(name);
    await bench.getByLabel('Who works with it').selectOption({ label: 'Okan' });
    await bench.getByRole('button', { name: 'Make a code' }).click();
    const svg = bench.getByRole('img', { name: 'The code, for the camera of the phone' });
    await svg.waitFor();
    const { violations } = await new AxeBuilder({ page: bench }).withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice']).analyze();
    expect(violations.map((v) => `${v.id}: ${v.nodes.map((n) => n.target.join(' ')).join(', ')}`)).toEqual([]);
    return scanned((await svg.locator('path').getAttribute('d'))!, Number((await svg.getAttribute('viewBox'))!.split(' ')[2]))!;
  };

  await test.step('the bench listens to nobody but itself until an address is chosen', async () => {
    await bench.goto(`${server.url}/phones`);
    await expect(bench.getByRole('radio', { name: 'this machine alone' })).toBeChecked();
    await expect(bench.getByText('No device but this machine.')).toBeVisible();
    await bench.getByRole('radio', { name: phone.benchAddress }).check();
    await expect(bench.locator('[data-set-up-url]')).toContainText(phone.benchAddress);
  });
  const setUpUrl = (await bench.locator('[data-set-up-url]').textContent())!;
  const { url } = await server.get<{ url: string }>('/api/shop');

  await test.step('the phone does not trust it yet, and fetches the certificate from the set-up page', async () => {
    await expect(browser.newPage().then((p) => p.goto(url))).rejects.toThrow('ERR_CERT_AUTHORITY_INVALID');
    const page = await browser.newPage({ viewport: size });
    await page.goto(setUpUrl);
    const fingerprint = (await page.locator('code').textContent())!;
    await expect(bench.locator('[data-fingerprint]')).toHaveText(fingerprint.replaceAll(':', ' '));
    const [download] = await Promise.all([page.waitForEvent('download'), page.getByRole('link', { name: 'Fetch the certificate' }).click()]);
    const file = join(server.dataDir, 'fetched.crt');
    await download.saveAs(file);
    await browser.close();
    phone.trust(file);
    browser = await phone.browser();
  });

  const context = await browser.newContext({ viewport: size, hasTouch: true, serviceWorkers: 'allow' });
  const page = await context.newPage();
  await test.step('trusted, it sees the admission page and nothing behind it; a guess is turned away', async () => {
    await page.goto(`${url}/jobs/${jobId}/lay`);
    await expect(page.getByRole('heading', { name: 'Let this device in' })).toBeVisible();
    expect((await context.newPage().then((p) => p.goto(`${url}/api/jobs`)))!.status()).toBe(401);
    await page.getByLabel('Code of the bench').fill('AAAA-AAAA');
    await page.getByRole('button', { name: 'Let me in' }).click();
    await expect(page.getByRole('alert')).toContainText('Ask for a new one at the bench');
  });
  await test.step('the code off the bench’s screen lets it in, as the person it was made for', async () => {
    await page.goto(await code('Okan’s phone'));
    await expect(page.getByLabel('Code of the bench')).toHaveValue(/\w{4}-\w{4}/);
    await page.getByRole('button', { name: 'Let me in' }).click();
    await expect(page.getByRole('heading', { name: 'Jobs' })).toBeVisible();
    await expect(bench.getByRole('status').filter({ hasText: '“Okan’s phone” is in.' })).toBeVisible();
    await page.goto(`${url}/phones`);
    await expect(page.getByText('This is “Okan’s phone”')).toBeVisible();
    await expect(page.locator('[data-persisted]')).toBeVisible();
    await expect(page.getByRole('radio')).toHaveCount(0);
  });
  const hands = new WetHands(page, server, jobId, url);
  await test.step('camera, service worker and store work there as on the bench', async () => {
    await hands.open();
    expect(await page.evaluate(() => window.isSecureContext)).toBe(true);
    expect(await page.evaluate(async () => (await navigator.mediaDevices.getUserMedia({ video: true })).getVideoTracks()[0]!.readyState)).toBe('live');
    expect(await page.evaluate(async () => (await navigator.serviceWorker.ready).active!.state)).toMatch(/activat/);
    await readyForDeadSpot(page);
  });
  await test.step('the cable is out, the page is loaded again, work goes on; back in reach it is all delivered, as Okan’s', async () => {
    await hands.goTo('W1');
    await hands.done('W1');
    await hands.delivered();
    phone.cable('down');
    await hands.done('W2');
    await expect(hands.kept()).toContainText('1 kept here');
    await page.reload();
    await expect(hands.kept()).toContainText('1 kept here');
    phone.cable('up');
    await hands.delivered();
    expect(await hands.laid()).toEqual(['W1', 'W2']);
    const okan = (await server.get<{ persons: { id: string; name: string }[] }>('/api/session')).persons.find((p) => p.name.startsWith('Okan'))!.id;
    expect((await hands.log()).map((e) => e.personId)).toEqual([okan, okan]);
  });
  await test.step('taken out at the bench it is told so, keeps what was written, and delivers it once it is let in again', async () => {
    await bench.getByRole('button', { name: 'Take out: Okan’s phone' }).click();
    await bench.getByRole('button', { name: 'Take it out' }).click();
    await expect(bench.getByText('No device but this machine.')).toBeVisible();
    await hands.done('W3');
    await expect(page.locator('[data-put-out]')).toContainText('What you wrote stays here');
    expect(await hands.laid()).toEqual(['W1', 'W2']);
    // what it kept of the job is wiped; the line that waits is not
    const kept = () =>
      page.evaluate(
        () =>
          new Promise<number[]>((done) => {
            const asked = indexedDB.open('yellow-pane');
            asked.onsuccess = () => {
              const tx = asked.result.transaction(['jobs', 'queue']);
              const counts = ['jobs', 'queue'].map((n) => tx.objectStore(n).count());
              tx.oncomplete = () => (asked.result.close(), done(counts.map((c) => c.result)));
            };
          }),
      );
    await expect.poll(kept).toEqual([0, 1]);
    const [door] = await Promise.all([context.waitForEvent('page'), page.getByRole('link', { name: 'Type a code of the bench' }).click()]);
    await door.goto(await code('Okan’s phone again'));
    await door.getByRole('button', { name: 'Let me in' }).click();
    await expect(door.getByRole('heading', { name: 'Jobs' })).toBeVisible();
    await hands.delivered();
    await expect(page.locator('[data-put-out]')).toHaveCount(0);
    expect(await hands.laid()).toEqual(['W1', 'W2', 'W3']);
  });
  await test.step('a bench that is started anew still knows it; back to this machine alone nobody out there reaches it', async () => {
    await server.stop();
    await server.start({ YELLOW_PANE_SHOP_PORT: new URL(url).port });
    await expect.poll(() => page.evaluate(() => fetch('/api/health').then((r) => r.status, () => 0))).toBe(200); // prettier-ignore
    await bench.goto(`${server.url}/phones`);
    await bench.getByRole('radio', { name: 'this machine alone' }).check();
    await expect(bench.locator('[data-set-up-url]')).toHaveCount(0);
    await expect(browser.newPage().then((p) => p.goto(`${url}/admit`))).rejects.toThrow('ERR_CONNECTION_REFUSED');
  });
});
