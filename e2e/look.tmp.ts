import { chromium } from '@playwright/test';
const [url, out, w, h, ...acts] = process.argv.slice(2);
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--use-gl=angle', '--use-angle=swiftshader', '--enable-unsafe-swiftshader', '--ignore-gpu-blocklist'] });
const page = await browser.newPage({ viewport: { width: Number(w), height: Number(h) } });
page.on('console', (m) => { if (m.type() === 'error' || m.type()==='warning') process.stdout.write(`console ${m.type()}: ${m.text()}\n`); });
page.on('pageerror', (e) => process.stdout.write(`pageerror ${e.message}\n`));
await page.goto(url!);
await page.waitForTimeout(1500);
for (const a of acts) {
  const [kind, ...rest] = a.split(':');
  const text = rest.join(':');
  if (kind === 'click') await page.getByRole('button', { name: text }).first().click();
  if (kind === 'text') await page.getByText(text, { exact: false }).first().click();
  if (kind === 'tab') await page.getByRole('tab', { name: text }).click();
  if (kind === 'link') await page.getByRole('link', { name: text }).first().click();
  if (kind === 'wait') await page.waitForTimeout(Number(text));
  if (kind === 'shot') await page.screenshot({ path: `${out}-${text}.png` });
  if (kind === 'goto') await page.goto(text);
}
await page.waitForTimeout(800);
await page.screenshot({ path: `${out}.png` });
await browser.close();
