import { existsSync, readFileSync, renameSync, rmSync, cpSync } from 'node:fs';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import { crash } from '../crash/crash.js';
import { Bench } from '../driver/bench.js';
import { BenchServer } from '../driver/server.js';

test('kill -9 after an acknowledged edit: the edit and its undo are there', async ({ page }) => {
  const server = new BenchServer();
  await server.start();
  const bench = new Bench(page, server.url);
  await bench.openJob('Lantern Street bakery');
  await bench.pick('F2');
  await bench.tape('widthLargest', '36 1/2');
  await server.kill();
  await server.start();
  await page.reload();
  await bench.pick('F2');
  await expect(bench.field('widthLargest')).toHaveValue('36 1/2');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(bench.field('widthLargest')).toHaveValue('35 9/16"');
  await server.remove();
});

test('a database that lost its tail gets it back from the journal', async ({ page }) => {
  const server = new BenchServer();
  await server.start();
  await server.stop();
  const db = join(server.dataDir, 'db');
  cpSync(db, `${db}-before`, { recursive: true });
  await server.start();
  const bench = new Bench(page, server.url);
  await bench.openJob('Lantern Street bakery');
  await bench.pick('F2');
  await bench.tape('heightLargest', '60');
  await server.kill();
  rmSync(db, { recursive: true });
  renameSync(`${db}-before`, db);
  await server.start();
  await page.reload();
  await bench.pick('F2');
  await expect(bench.field('heightLargest')).toHaveValue('60');
  await server.remove();
});

test('a second server on the same folder refuses with a sentence; a stale lock is recovered', async () => {
  const server = new BenchServer();
  await server.start();
  const second = new BenchServer();
  await expect(second.start({ YELLOW_PANE_DATA: server.dataDir, YELLOW_PANE_PORT: '0' })).rejects.toThrow('already working in');
  await server.kill();
  expect(existsSync(join(server.dataDir, 'lock.json'))).toBe(true);
  await server.start();
  expect(JSON.parse(readFileSync(join(server.dataDir, 'lock.json'), 'utf8'))).toHaveProperty('port', Number(new URL(server.url).port));
  await server.remove();
  await second.remove();
});

test('killed again and again while three devices work, photos among it, and while it starts: nothing that was acknowledged is lost, and what was not can be sent again', async () => {
  const { faults, ...figures } = await crash(process.env['CI'] ? 3 : 5, 20261129);
  expect(faults).toEqual([]);
  expect(figures.acknowledged).toBeGreaterThan(10);
  expect(figures.turnedAway).toBeGreaterThan(0);
  expect(figures.tailsLost).toBeGreaterThan(0);
});
