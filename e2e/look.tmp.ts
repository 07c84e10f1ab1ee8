import { chromium } from '@playwright/test';
import { Bench } from './driver/bench.js';
import { BenchServer } from './driver/server.js';
const server = new BenchServer();
await server.start({ YELLOW_PANE_PLOTTER_HASTE: '6' });
const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu', '--disable-quic', '--no-first-run', '--disable-background-networking'],
});
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
page.on('console', (m) => m.type() === 'error' && console.log('CONSOLE', m.text().slice(0, 300)));
page.on('pageerror', (e) => console.log('PAGEERROR', e.message.slice(0, 500)));
const bench = new Bench(page, server.url);
const shot = (name: string) => page.screenshot({ path: `/tmp/shots/${name}.png` });
const steps: Record<string, () => Promise<void>> = {
  cut: async () => {
    await bench.openJob('Tern Point terminal');
    await bench.pick('W3');
    await bench.goTo('Cut');
    await bench.planSettled();
    await page.waitForTimeout(1500);
    await shot('cut');
  },
  seam: async () => {
    await bench.openJob('Tern Point terminal');
    await bench.pick('G2');
    await bench.goTo('Cut');
    await bench.openTab('Seams');
    await page.waitForTimeout(2500);
    await shot('seam');
  },
  design: async () => {
    await bench.openJob('Tern Point terminal');
    await bench.pick('M3');
    await bench.goTo('Cut');
    await bench.openTab('Design');
    await page.waitForTimeout(2500);
    await shot('design');
  },
  desk: async () => {
    await bench.openJob('Tern Point terminal');
    await bench.pick('Desk');
    await bench.goTo('Cut');
    await bench.openTab('Design');
    await page.waitForTimeout(2500);
    await shot('desk');
  },
  cost: async () => {
    await bench.openJob('Tern Point terminal');
    await bench.pick('W3');
    await bench.goTo('Cut');
    await bench.openTab('What it costs');
    await page.waitForTimeout(2500);
    await shot('cost');
  },
  stock: async () => {
    await page.goto(server.url + '/stock');
    await page.waitForTimeout(1500);
    await shot('stock');
  },
  plotter: async () => {
    await bench.openJob('Tern Point terminal');
    await bench.pick('Desk');
    await bench.goTo('Cut');
    await bench.openTab('Design');
    await page.getByRole('link', { name: 'To the plotter' }).click();
    await page.getByRole('button', { name: 'Cut it' }).click();
    await page.waitForTimeout(6000);
    await shot('plotter');
  },
  measure: async () => {
    await bench.openJob('Tern Point terminal');
    await bench.pick('M7');
    await page.waitForTimeout(1500);
    await shot('measure-m7');
  },
};
try {
  for (const s of process.argv.slice(2)) {
    try {
      await steps[s]!();
    } catch (e) {
      console.log(s, (e as Error).message.slice(0, 600));
      await shot(s + '-fail');
    }
  }
} finally {
  await browser.close();
  await server.remove();
}
