import { expect, test } from '@playwright/test';
import { Bench, readyForDeadSpot } from '../driver/bench.js';
import { BenchServer } from '../driver/server.js';

interface Read {
  readonly id: string;
  readonly surfaceId: string;
  readonly measure: string;
  readonly lengthMm: number;
  readonly supersedesId: string | null;
  readonly deletedAt: string | null;
}
let server: BenchServer;
let jobId: string;
test.beforeEach(async () => {
  server = new BenchServer();
  await server.start();
  jobId = await server.jobId('Tern Point terminal');
});
test.afterEach(() => server.remove());
/** What counts of one measure at the bench. */
const inForce = async (pane: string, measure: string): Promise<number[]> => {
  const doc = await server.get<{ surfaces: { id: string; name: string }[]; readings: Read[] }>(`/api/jobs/${jobId}`);
  const surfaceId = doc.surfaces.find((s) => s.name === pane)!.id;
  const own = doc.readings.filter((r) => r.surfaceId === surfaceId && r.measure === measure && !r.deletedAt);
  const superseded = new Set(own.map((r) => r.supersedesId));
  return own.filter((r) => !superseded.has(r.id)).map((r) => r.lengthMm);
};

test('two browsers tape one pane: both show the same, one tape counts, and each takes back only its own', async ({ browser }) => {
  const [one, other] = await Promise.all(
    [0, 1].map(async () => new Bench(await (await browser.newContext({ serviceWorkers: 'block' })).newPage(), server.url)),
  );
  for (const b of [one!, other!]) {
    await b.openJob('Tern Point terminal');
    await b.pick('H1');
  }
  await one!.tape('widthLargest', '1011');
  // nobody loads anything anew
  await expect(other!.field('widthLargest')).toHaveValue(/^1011/);
  await other!.goTo('Cut');
  await one!.tape('widthLargest', '1012');
  await other!.goTo('Measure');
  await expect(other!.field('widthLargest')).toHaveValue(/^1012/);
  // both at the same moment
  await one!.field('widthLargest').fill('1021');
  await other!.field('widthLargest').fill('1022');
  await Promise.all([one!.field('widthLargest').press('Enter'), other!.field('widthLargest').press('Enter')]);
  await one!.saved();
  await other!.saved();
  await expect.poll(() => inForce('H1', 'widthLargest')).toHaveLength(1);
  const [counts] = await inForce('H1', 'widthLargest');
  expect([1021, 1022]).toContain(counts);
  for (const b of [one!, other!]) {
    await b.pick('H2');
    await b.pick('H1');
    await expect(b.field('widthLargest')).toHaveValue(new RegExp(`^${counts}`));
  }
  // the other one notes something; undo in the first never touches it
  await other!.tape('heightLargest', '1405');
  await expect(one!.field('heightLargest')).toHaveValue(/^1405/);
  await one!.page.getByRole('button', { name: 'Undo' }).click();
  await one!.saved();
  expect(await inForce('H1', 'heightLargest')).toEqual([1405]);
});

test('a tape typed in a dead spot outlives a reload and is there once when the bench is back', async ({ browser }) => {
  const context = await browser.newContext({ serviceWorkers: 'allow' });
  const page = await context.newPage();
  const bench = new Bench(page, server.url);
  await bench.openJob('Tern Point terminal');
  await bench.pick('H1');
  await readyForDeadSpot(page);
  await server.kill();
  await bench.field('widthLargest').fill('1013');
  await bench.field('widthLargest').press('Enter');
  await expect(page.getByRole('status').filter({ hasText: 'kept here, waiting for the bench' })).toBeVisible();
  await page.reload();
  await expect(page.getByRole('heading', { name: 'H1', level: 2, exact: true })).toBeVisible();
  await expect(bench.field('widthLargest')).toHaveValue(/^1013/);
  await server.start();
  await expect.poll(() => inForce('H1', 'widthLargest'), { timeout: 60_000 }).toEqual([1013]);
});
