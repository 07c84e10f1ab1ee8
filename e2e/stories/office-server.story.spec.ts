import { spawnSync } from 'node:child_process';
import { expect, test } from '@playwright/test';
import { crash } from '../crash/crash.js';
import { Bench } from '../driver/bench.js';
import { newOfficeDatabase, officeUrl } from '../driver/office.js';
import { BenchServer } from '../driver/server.js';

// npm test starts a PostgreSQL server where one is installed (.ci/run sees to it)
test.skip(!officeUrl, 'there is no PostgreSQL server on this machine');

const move = (dataDir: string, ...to: string[]): string => {
  const done = spawnSync(process.execPath, ['node_modules/tsx/dist/cli.mjs', 'server/src/cli/move.ts', ...to], {
    encoding: 'utf8',
    env: { ...process.env, YELLOW_PANE_DATA: dataDir },
  });
  expect(done.stderr).not.toContain('Error');
  return done.stdout + done.stderr;
};

test('the office moves to its PostgreSQL server and nobody notices but the operator; it goes away and comes back; and home again', async ({ page }) => {
  const server = new BenchServer();
  const office = await newOfficeDatabase();
  const onOffice = { YELLOW_PANE_DATABASE_URL: office.url, YELLOW_PANE_SEED: 'none' };
  await server.start();
  const bench = new Bench(page, server.url);
  await bench.openJob('Lantern Street bakery');
  await bench.pick('F2');
  await bench.tape('widthLargest', '36 1/4');
  await server.stop();

  expect(move(server.dataDir, '--to', office.url)).toMatch(/\d+ records and \d+ changes are there, each compared with what is here/);
  await expect(server.start()).rejects.toThrow('were moved to the database office_');
  await server.start(onOffice);
  // the page was left open all the while
  await bench.tape('widthLargest', '36 1/2');
  await server.kill();
  await server.start(onOffice);
  await page.reload();
  await bench.pick('F2');
  await expect(bench.field('widthLargest')).toHaveValue('36 1/2');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(bench.field('widthLargest')).toHaveValue('36 1/4');

  await office.goAway();
  await bench.field('heightLargest').fill('61');
  await bench.field('heightLargest').press('Enter');
  await expect(page.getByRole('status').filter({ hasText: 'kept here, waiting for the bench' })).toBeVisible();
  await office.comeBack();
  await bench.saved();

  await server.stop();
  expect(move(server.dataDir, '--from', office.url)).toContain('What was in the folder before is in');
  await expect(server.start(onOffice)).rejects.toThrow('were moved to');
  await server.start({ YELLOW_PANE_SEED: 'none' });
  await page.reload();
  await bench.pick('F2');
  await expect(bench.field('widthLargest')).toHaveValue('36 1/4');
  await expect(bench.field('heightLargest')).toHaveValue('61');
  await server.remove();
});

test('killed again and again while its database server ends connections under it: nothing that was acknowledged is lost, and what was not can be sent again', async () => {
  const { faults, ...figures } = await crash(process.env['CI'] ? 2 : 4, 20261130, undefined, await newOfficeDatabase());
  expect(faults).toEqual([]);
  expect(figures.acknowledged).toBeGreaterThan(10);
  expect(figures.cuts).toBeGreaterThan(0);
});
