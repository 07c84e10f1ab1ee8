// npm run screenshots: one current picture of each main view from the demo data, into docs/screenshots.
// The forming sheet is turned into a picture by pdftoppm (Debian: poppler-utils).
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium, type Page } from '@playwright/test';
import { Bench } from './driver/bench.js';
import { OtherHost, whyNoOtherHost } from './driver/other-host.js';
import { BenchServer } from './driver/server.js';
import { WetHands } from './driver/wet-hands.js';

const server = new BenchServer();
await server.start({ YELLOW_PANE_PLOTTER_HASTE: '10' });
const browser = await chromium.launch({
  executablePath: process.env['CHROMIUM_PATH'] ?? '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu', '--disable-quic', '--no-first-run', '--disable-background-networking'],
});
/** Screens beside one another in one picture. @param size of one of them there, px */
const beside = async (screens: readonly Buffer[], name: string, size = { width: 390, height: 844 }, rows = 1): Promise<void> => {
  const inRow = Math.ceil(screens.length / rows);
  const page = await browser.newPage({ viewport: { width: (size.width + 10) * inRow + 10, height: (size.height + 10) * rows + 10 } });
  const images = screens
    .map((s) => `<img src="data:image/png;base64,${s.toString('base64')}" style="width:${size.width}px;height:${size.height}px;margin:10px 0 0 10px">`)
    .join('');
  await page.setContent(`<body style="margin:0;background:#D8D2C2;font-size:0">${images}</body>`);
  await page.screenshot({ path: `docs/screenshots/${name}.png` });
  await page.close();
};
/** The upper part of a page of a PDF, the first where none is named, in the proportions of a screen. */
const firstPage = (pdf: Buffer, number = 1): Buffer => {
  const dir = mkdtempSync(join(tmpdir(), 'yellow-pane-sheet-'));
  writeFileSync(join(dir, 'sheet.pdf'), pdf);
  execFileSync('pdftoppm', [
    '-r',
    '155',
    '-f',
    String(number),
    '-l',
    String(number),
    '-x',
    '0',
    '-y',
    '0',
    '-W',
    '1280',
    '-H',
    '800',
    '-png',
    '-singlefile',
    join(dir, 'sheet.pdf'),
    join(dir, 'sheet'),
  ]);
  return readFileSync(join(dir, 'sheet.png'));
};
/** Two screens of the bench. */
const half = { width: 960, height: 600 };
const shot = (page: Page, name: string) => page.screenshot({ path: `docs/screenshots/${name}.png` });
try {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  const bench = new Bench(page, server.url);
  await bench.openJobs();
  await page.getByText('Tern Point terminal').waitFor();
  await page.locator('[data-due] a').first().waitFor();
  const jobs = await page.screenshot();
  let phones: Buffer | null = null;
  if (whyNoOtherHost() === null) {
    const phone = new OtherHost();
    phone.plugIn();
    await page.getByRole('link', { name: 'Phones', exact: true }).click();
    await page.getByRole('radio', { name: phone.benchAddress }).check();
    await page.getByLabel('Whose device is it?').fill('Okan’s phone');
    await page.getByLabel('Who works with it').selectOption({ label: 'Okan' });
    await page.getByRole('button', { name: 'Make a code' }).click();
    await page.locator('[data-code]').waitFor();
    await page.waitForTimeout(500);
    phones = await page.screenshot();
    await page.getByRole('radio', { name: 'this machine alone' }).check();
    await page.locator('[data-code]').waitFor({ state: 'detached' });
    phone.unplug();
  }
  await beside(phones ? [jobs, phones] : [jobs], 'jobs', half);
  await bench.openJob('Tern Point terminal');
  await bench.pick('Toilet 2');
  await page.getByText('of 22.3 m').waitFor({ timeout: 30_000 });
  await bench.saved();
  await shot(page, 'measure');
  await bench.pick('H5');
  await bench.goTo('Cut');
  await bench.planSettled();
  await page.locator('[data-methods] button').nth(4).waitFor();
  await page.getByRole('button', { name: 'Cut made' }).click();
  await bench.saved();
  await page.getByRole('button', { name: 'Cut made' }).click();
  await bench.saved();
  await shot(page, 'cut');
  await bench.openTab('What it costs');
  await page.waitForTimeout(600);
  const cost = await page.screenshot();
  await bench.openTab('Methods');
  await bench.pick('G2');
  await bench.openTab('Seams');
  await page.locator('[data-seams] button').first().waitFor();
  const seams = await page.screenshot();
  await bench.pick('M3');
  await bench.openTab('Design');
  await page.locator('[data-design-figures]').waitFor();
  await bench.planSettled();
  await beside([seams, await page.screenshot()], 'cut-special', half);
  await bench.pick('Desk');
  await page.getByRole('link', { name: 'To the plotter' }).click();
  await page.getByRole('button', { name: 'Cut it' }).click();
  await page.waitForTimeout(9000);
  const plotter = await page.screenshot();
  await bench.goTo('Measure');
  await bench.pick('Lantern');
  await page.waitForTimeout(800);
  await beside([await page.screenshot(), cost], 'shape-and-cost', half);
  await page.goto(`${server.url}/stock`);
  await page.getByRole('button', { name: 'S-091' }).click();
  await beside([await page.screenshot(), plotter], 'stock', half);
  await bench.openJob('Tern Point terminal');
  await bench.pick('W2');
  await bench.goTo('Choose');
  await bench.candidate('Tern Shade 35').waitFor({ timeout: 30_000 });
  await page.waitForTimeout(1500);
  await shot(page, 'choose');
  await bench.pick('H3');
  await bench.candidate('Ebb Grey 5').getByRole('button').click({ timeout: 30_000 });
  await page.getByRole('button', { name: 'Pane and edge' }).click();
  await page.waitForTimeout(1200);
  const refused = await page.screenshot();
  await bench.pick('M2');
  await bench.candidate('Quay Frost plain').waitFor({ timeout: 30_000 });
  await page.getByRole('button', { name: 'Who sees whom' }).click();
  await page.waitForTimeout(800);
  await beside([refused, await page.screenshot()], 'choose-cases', half);
  await bench.pick('W2');
  await bench.goTo('Prepare');
  await page.locator('[data-day-verdict]').waitFor();
  await page.waitForTimeout(800);
  const day = await page.screenshot();
  await page.getByRole('tab', { name: 'Bottles' }).click();
  await page.getByText('Instruments', { exact: true }).click();
  await page.waitForTimeout(800);
  await beside([day, await page.screenshot()], 'prepare', half);
  await bench.goTo('Lay');
  await page.getByRole('button', { name: 'Step by step' }).click();
  await page.locator('[data-step="light"]').click();
  await page.waitForTimeout(800);
  await shot(page, 'lay');
  await page.goto(`${server.url}/films`);
  await page.getByLabel('Compare Tern Shade 35').check();
  await page.getByLabel('Compare Slack Water 40').check();
  const films = await page.screenshot();
  await page.goto(`${server.url}/firm`);
  await page.getByLabel('Hour rate', { exact: true }).waitFor();
  await beside([films, await page.screenshot()], 'films-firm', half);
  await bench.openJob('Launch and shuttle');
  await bench.pick('Rear window');
  await page.locator('[data-curve-summary]').waitFor();
  await page.waitForTimeout(600);
  await shot(page, 'curve');
  await bench.goTo('Choose');
  await page.locator('[data-summary]').waitFor();
  await page.waitForTimeout(2500);
  await shot(page, 'shrink');
  await page.getByRole('tab', { name: 'Ways of forming' }).click();
  await page.waitForTimeout(500);
  const ways = await page.screenshot();
  const launch = await server.jobId('Launch and shuttle');
  const sheet = await page.request.get(`${server.url}/api/jobs/${launch}/forming-sheet.pdf`);
  await beside([ways, firstPage(await sheet.body())], 'forming', { width: 960, height: 600 });
  await bench.openJob('Tern Point interior');
  await bench.pick('Column 1');
  await page.locator('[data-verdict]').waitFor();
  const column = await page.screenshot();
  await bench.goTo('Cut');
  await bench.planSettled();
  await page.locator('[data-bench-cuts]').waitFor();
  const columnCut = await page.screenshot();
  await bench.pick('Door 1');
  await bench.planSettled();
  await page.locator('[data-bench-cuts]').waitFor();
  const doorCut = await page.screenshot();
  await bench.goTo('Measure');
  await page.locator('[data-groove]').first().waitFor();
  const door = await page.screenshot();
  await bench.pick('Lobby left');
  await page.locator('yp-wall-drawing').waitFor();
  const wall = await page.screenshot();
  await bench.goTo('Cut');
  await bench.planSettled();
  await page.getByRole('button', { name: 'Lobby left drop 4', exact: true }).first().click();
  await page.locator('[data-bench-cuts]').waitFor();
  const wallCut = await page.screenshot();
  await bench.pick('Waiting table');
  await bench.planSettled();
  await page.locator('[data-bench-cuts]').waitFor();
  const tableCut = await page.screenshot();
  await bench.pick('Reception counter');
  await bench.goTo('Lay');
  await page.locator('yp-counter-drawing').waitFor();
  const counterLay = await page.screenshot();
  await bench.goTo('Measure');
  await page.locator('yp-counter-drawing').waitFor();
  const counter = await page.screenshot();
  await bench.pick('Gate canvas');
  await page.locator('yp-sign-drawing').waitFor();
  const sign = await page.screenshot();
  await bench.goTo('Cut');
  await bench.planSettled();
  await page.locator('yp-letter-sheet').waitFor();
  const signCut = await page.screenshot();
  await bench.goTo('Lay');
  await page.locator('yp-sign-drawing').waitFor();
  const signLay = await page.screenshot();
  // what a ground needs first, a gable with its rough cut, a corner from above
  await bench.goTo('Measure');
  await bench.pick('Pier');
  await bench.goTo('Prepare');
  await page.locator('[data-ground-plan]').waitFor();
  const priming = await page.screenshot();
  await bench.goTo('Lay');
  await bench.goTo('Measure');
  await bench.pick('Lobby left');
  await bench.goTo('Lay');
  await page.getByRole('button', { name: 'Step by step' }).click();
  const inside = new WetHands(page, server, await server.jobId('Tern Point interior'));
  await inside.walk(['Covers off', 'Brush, wipe, feel by hand']);
  await page.locator('yp-wall-drawing').waitFor();
  const corner = await page.screenshot();
  await bench.goTo('Measure');
  await page.getByRole('button', { name: 'New wall' }).click();
  for (const [field, value] of [['widthBottom', '6000'], ['heightLeft', '2400'], ['heightRight', '2401'], ['upLeft', '1400'], ['downLeft', '1000'], ['upRight', '1401'], ['downRight', '1000']] as const) await bench.tape(field, value); // prettier-ignore
  await page.locator('[data-choice="film"]').selectOption({ label: 'Ash Plank' });
  await page.getByRole('button', { name: '+ A break of ceiling or floor' }).click();
  await page.locator('[data-part="upMm"] input').fill('2900');
  await page.locator('[data-part="upMm"] input').press('Enter');
  await bench.saved();
  await page.locator('yp-wall-drawing').scrollIntoViewIfNeeded();
  await page.evaluate(() => document.querySelector('yp-wall-drawing')!.scrollIntoView({ block: 'center' }));
  await page.waitForTimeout(400);
  const gable = await page.screenshot();
  // a wall of blocks: its order half-way, one's own that shuts air in, the page for a place
  await bench.pick('Corridor wall');
  await bench.goTo('Lay');
  await page.getByRole('button', { name: 'Step by step' }).click();
  await page.locator('[data-step="wall-joints"]').click();
  const card = page.locator('[data-joint-card]');
  await card.locator('[data-zone]').waitFor();
  await card.getByRole('button', { name: 'See the order' }).click();
  await card.getByLabel('Strokes done').focus();
  for (let i = 0; i < 31; i++) await page.keyboard.press('ArrowRight');
  await card.evaluate((e) => e.scrollIntoView());
  const order = await page.screenshot();
  await card.getByRole('button', { name: 'Drop 2' }).click();
  await card.getByRole('button', { name: 'Try your own' }).click();
  await card.locator('svg[tabindex="0"]').focus();
  // against the lap, where nothing goes out
  for (const key of ['ArrowUp', 'Enter', 'ArrowUp', 'Enter', 'ArrowDown', 'ArrowDown', 'ArrowLeft', 'ArrowLeft', 'Shift+Enter']) await page.keyboard.press(key);
  await card.evaluate((e) => e.scrollIntoView());
  const trapped = await page.screenshot();
  // a graphic in lengths along a wall, and round the arris on to the next
  await bench.goTo('Measure');
  await bench.pick('Corridor, long side');
  await page.waitForTimeout(600);
  const lengths = await page.screenshot();
  await bench.goTo('Lay');
  await page.getByRole('button', { name: 'Step by step' }).click();
  await page.locator('[data-step="wall-joints"]').click();
  await page.locator('#lay-jointHands').selectOption('two');
  await card.locator('[data-pair]').waitFor();
  await card.evaluate((e) => e.scrollIntoView());
  const pair = await page.screenshot();
  await page.locator('#lay-jointHands').selectOption('one');
  await bench.pick('Corridor wall');
  await page.getByRole('button', { name: 'Step by step' }).click();
  const wallSheet = await page.locator('a', { hasText: 'Print this run sheet' }).getAttribute('href');
  const printed = firstPage(await (await page.request.get(new URL(wallSheet!, server.url).href)).body(), 3);
  await beside(
    [
      column,
      columnCut,
      door,
      doorCut,
      wall,
      wallCut,
      counter,
      tableCut,
      counterLay,
      sign,
      signCut,
      signLay,
      gable,
      priming,
      corner,
      order,
      trapped,
      printed,
      lengths,
      pair,
    ],
    'laid-dry',
    half,
    4,
  );
  await bench.openJob('Tern Point annex');
  await bench.goTo('Check');
  await page.locator('[data-clear]').waitFor();
  await page.waitForTimeout(1500);
  await shot(page, 'check');
  await bench.goTo('Hand over');
  await page.locator('[data-seal]').first().waitFor();
  const handOver = await page.screenshot();
  const annex = await server.jobId('Tern Point annex');
  const record = await page.request.get(`${server.url}/api/jobs/${annex}/hand-over.pdf`);
  await beside([handOver, firstPage(await record.body())], 'hand-over', { width: 960, height: 600 });
  const phone = await browser.newPage({ viewport: { width: 390, height: 844 } });
  const onPhone = new Bench(phone, server.url);
  await onPhone.openJob('Lantern Street bakery').catch(() => undefined);
  await phone.waitForTimeout(1500);
  const taping = [await phone.screenshot()];
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
  taping.push(await phone.screenshot());
  const jobId = await server.jobId('Tern Point terminal');
  const hands = new WetHands(phone, server, jobId);
  await hands.open();
  await hands.goTo('W1');
  await hands.done('W1');
  await phone.waitForTimeout(700);
  const lays = [await phone.screenshot()];
  await phone.getByRole('button', { name: 'Step by step' }).click();
  for (let i = 0; i < 8; i++) await hands.hold(700);
  await phone.waitForTimeout(500);
  lays.push(await phone.screenshot());
  await phone.getByRole('button', { name: 'Something is wrong' }).click();
  await phone.getByRole('button', { name: 'A bubble that keeps its shape' }).click();
  await phone.getByRole('button', { name: 'Everywhere' }).click();
  await phone.getByRole('button', { name: 'No, it gives' }).click();
  await phone.getByRole('button', { name: 'No, it has tacked' }).click();
  await phone.locator('[data-advice]').waitFor();
  lays.push(await phone.screenshot());
  // what was stretched on a door: the gun in hand, and what is proven hot
  const dry = new WetHands(phone, server, await server.jobId('Tern Point interior'));
  await dry.open();
  await dry.goTo('Door 1');
  await phone.getByRole('button', { name: 'Step by step' }).click();
  const heat = phone.getByRole('heading', { level: 3, name: 'Heat edges and grooves through' });
  for (let i = 0; i < 20 && !(await heat.isVisible()); i++) {
    await dry.hold(700);
    await phone.waitForTimeout(300);
  }
  await phone.locator('[data-heat-card]').evaluate((e) => e.scrollIntoView());
  lays.push(await phone.screenshot());
  await dry.reads('Right edge', '94');
  await phone.locator('[data-heat-proof]').evaluate((e) => e.scrollIntoView());
  lays.push(await phone.screenshot());
  // film into a recess: where it stretches, and what other orders would cost
  await dry.goTo('Archive door, left');
  await phone.getByRole('button', { name: 'Step by step' }).click();
  const recess = phone.getByRole('heading', { level: 3, name: 'Into the recess' });
  for (let i = 0; i < 20 && !(await recess.isVisible()); i++) {
    await dry.hold(700);
    await phone.waitForTimeout(300);
  }
  await phone.locator('[data-stretch-headline]').waitFor({ timeout: 60_000 });
  await phone.locator('yp-stretch-map').evaluate((e) => e.scrollIntoView());
  lays.push(await phone.screenshot());
  // a wall of blocks, place by place
  await dry.goTo('Corridor wall');
  await phone.getByRole('button', { name: 'Step by step' }).click();
  await phone.getByRole('heading', { level: 3 }).first().waitFor();
  for (let i = 0; i < 20 && !(await phone.locator('[data-zone]').isVisible()); i++) {
    await dry.hold(700);
    await phone.waitForTimeout(300);
  }
  await phone.locator('[data-joint-card]').evaluate((e) => e.scrollIntoView());
  lays.push(await phone.screenshot());
  await beside(lays, 'lay-phone');
  await phone.goto(`${server.url}/jobs/${await server.jobId('Tern Point annex')}/check`);
  await phone.locator('[data-panes]').click();
  const checks = [await phone.screenshot()];
  await phone.getByRole('button', { name: /^B4/ }).click();
  await phone.locator('[data-pin-row="1"]').click();
  await phone.locator('[data-question]').waitFor();
  checks.push(await phone.screenshot());
  await phone.getByRole('button', { name: 'To the pane' }).click();
  await phone.locator('[data-look="none"]').waitFor();
  await phone.locator('yp-pin-drawing svg').click({ position: { x: 150, y: 120 } });
  await phone.locator('[data-pick="speck"]').waitFor();
  await phone.locator('yp-pin-picker').evaluate((e) => e.scrollIntoView());
  checks.push(await phone.screenshot());
  await beside([...taping, ...checks], 'phone');
} finally {
  await browser.close();
  await server.remove();
}
