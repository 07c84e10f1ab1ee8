import { appendFileSync, existsSync, mkdirSync, mkdtempSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pino } from 'pino';
import { createApp, type App } from '../app.js';
import { ines, lanternStreetId, TestDevice } from '../bench.testing.js';
import { setUpBench } from '../bench-setup.js';
import { inPlace } from '../compute/runners.js';
import { exportAll, needsDaily, restoreInto, writeBackup } from './backup.js';
import { openInFolder, type OpenDatabase } from './database.js';
import { Journal } from './journal.js';
import { FolderInUse, livingHolder, processStartTime, takeLock } from './lock.js';

const dirs: string[] = [];
const folder = (): string => {
  const dir = mkdtempSync(join(tmpdir(), 'yp-guard-'));
  dirs.push(dir);
  return dir;
};
afterAll(() => dirs.forEach((d) => rmSync(d, { recursive: true, force: true })));

async function bench(dir: string): Promise<{ app: App; open: OpenDatabase; journal: Journal; close: () => Promise<void> }> {
  const open = await openInFolder(dir, async () => undefined);
  const journal = new Journal(dir);
  const app = createApp({
    db: open.db,
    journal,
    compute: inPlace,
    now: () => new Date(),
    log: pino({ level: 'silent' }),
    webDir: null,
    backup: async () => '',
  });
  return {
    app,
    open,
    journal,
    close: async () => {
      await open.close();
      journal.close();
    },
  };
}
async function setNote(app: App, device: TestDevice, note: string): Promise<void> {
  const doc = await app.jobs.open(lanternStreetId);
  await app.changes.apply(
    device.draft(lanternStreetId, `Note ${note}`, [{ op: 'set', kind: 'surface', id: doc.surfaces[0]!.id, field: 'note', value: note }], doc.revision),
  );
}
const noteOf = async (app: App) => (await app.jobs.open(lanternStreetId)).surfaces[0]!.note;

describe('the lock', () => {
  test('one process holds the folder; a second is refused with a sentence that names the first', () => {
    const dir = folder();
    const lock = takeLock(dir, 4780);
    expect(() => takeLock(dir)).toThrow(FolderInUse);
    expect(() => takeLock(dir)).toThrow(`process ${process.pid}, port 4780`);
    lock.release();
    takeLock(dir).release();
    expect(readdirSync(dir)).toEqual([]);
  });

  test('a lock left by a crash is recovered: the process is gone, was another one, or the machine started anew', () => {
    for (const stale of [
      { pid: 999_999_999, bootId: null, startTime: null, port: 1 },
      { pid: process.pid, bootId: null, startTime: '1', port: 1 },
      { pid: process.pid, bootId: 'another start of the machine', startTime: processStartTime(process.pid), port: 1 },
    ]) {
      const dir = folder();
      writeFileSync(join(dir, 'lock.json'), JSON.stringify(stale));
      expect(livingHolder(dir)).toBeNull();
      takeLock(dir).release();
    }
  });
});

describe('the journal', () => {
  test('gives back what the database lost, once', async () => {
    const dir = folder();
    const first = await bench(dir);
    await setUpBench(first.app, 'demo');
    const dump = await first.open.dump();
    await setNote(first.app, new TestDevice(ines), 'acknowledged');
    await first.close();
    // power cut: the database comes up as it was before the last edit
    const lost = join(dir, 'dump.tar.gz');
    writeFileSync(lost, dump);
    mkdirSync(join(dir, 'keep'));
    for (const n of readdirSync(dir).filter((x) => x.startsWith('journal')))
      writeFileSync(join(dir, 'keep', n), await import('node:fs').then((fs) => fs.readFileSync(join(dir, n))));
    await restoreInto(dir, lost, new Date());
    for (const n of readdirSync(join(dir, 'keep'))) writeFileSync(join(dir, n), await import('node:fs').then((fs) => fs.readFileSync(join(dir, 'keep', n))));
    const again = await bench(dir);
    expect(await noteOf(again.app)).toBe('');
    expect(await again.app.changes.replay()).toBe(1);
    expect(await noteOf(again.app)).toBe('acknowledged');
    expect(await again.app.changes.replay()).toBe(0);
    expect((await again.app.changes.canUndo(lanternStreetId, ines)).canUndo).toBe('Note acknowledged');
    await again.close();
  });

  test('a last line cut short was never acknowledged and is dropped; the rest reads', () => {
    const dir = folder();
    const journal = new Journal(dir);
    journal.append({ id: 'a' } as never);
    journal.append({ id: 'b' } as never);
    journal.void('a');
    journal.close();
    appendFileSync(join(dir, 'journal.ndjson'), '{"change":{"id":"half');
    const again = new Journal(dir);
    expect(again.read().map((c) => c.id)).toEqual(['b']);
    again.rotate('2026-01-01');
    again.append({ id: 'c' } as never);
    expect(again.read().map((c) => c.id)).toEqual(['b', 'c']);
    again.close();
  });
});

describe('backups', () => {
  test('a physical dump and a logical export both bring everything back, and what was there is kept aside', async () => {
    const dir = folder();
    const first = await bench(dir);
    await setUpBench(first.app, 'demo');
    const device = new TestDevice(ines);
    await setNote(first.app, device, 'before');
    const dumpFile = await writeBackup(first.open, dir, 'asked', new Date());
    const exportFile = join(dir, 'export.json');
    writeFileSync(exportFile, JSON.stringify(await exportAll(first.app.records, new Date())));
    await setNote(first.app, device, 'after');
    await first.close();
    for (const file of [dumpFile, exportFile]) {
      const aside = await restoreInto(dir, file, new Date());
      expect(aside && existsSync(join(aside, 'db'))).toBe(true);
      const back = await bench(dir);
      await back.app.changes.replay();
      expect(await noteOf(back.app)).toBe('before');
      expect((await back.app.jobs.list()).map((j) => j.surfaceCount)).toEqual([60, 4, 7]);
      expect((await back.app.changes.canUndo(lanternStreetId, ines)).canUndo).toBe('Note before');
      await back.close();
      await new Promise((r) => setTimeout(r, 5));
    }
  });

  test('ten daily and three on-stop dumps are kept', async () => {
    const dir = folder();
    const fake: OpenDatabase = { db: null as never, dump: async () => Buffer.from('x'), close: async () => undefined };
    for (let day = 1; day <= 12; day++) await writeBackup(fake, dir, 'daily', new Date(Date.UTC(2026, 0, day)));
    for (let hour = 1; hour <= 5; hour++) await writeBackup(fake, dir, 'stop', new Date(Date.UTC(2026, 0, 1, hour)));
    const names = readdirSync(join(dir, 'backups'));
    expect(names.filter((n) => n.startsWith('daily'))).toHaveLength(10);
    expect(names.filter((n) => n.startsWith('stop'))).toHaveLength(3);
    expect(names).not.toContain('daily-2026-01-01T00-00-00-000Z.tar.gz');
    expect(needsDaily(dir, new Date(Date.UTC(2026, 0, 12, 9)))).toBe(false);
    expect(needsDaily(dir, new Date(Date.UTC(2026, 0, 13)))).toBe(true);
  });

  test('a first start that was cut off leaves nothing that looks like a database', async () => {
    const dir = folder();
    mkdirSync(join(dir, 'db.tmp'));
    writeFileSync(join(dir, 'db.tmp', 'PG_VERSION'), 'torn');
    const open = await openInFolder(dir, async () => undefined);
    expect(existsSync(join(dir, 'db.tmp'))).toBe(false);
    await open.close();
  });
});

describe('a schema change', () => {
  test('is preceded by a dump of the old database', async () => {
    const dir = folder();
    const first = await openInFolder(dir, async () => undefined);
    // as an older Yellow Pane would have left it: no migration applied yet
    await first.db.execute('drop schema public cascade');
    await first.db.execute('create schema public');
    await first.db.execute('delete from drizzle.__drizzle_migrations');
    await first.close();
    const dumped: string[] = [];
    const open = await openInFolder(dir, async (old) => void dumped.push(await writeBackup(old, dir, 'before-migration', new Date())));
    expect(dumped).toHaveLength(1);
    expect(existsSync(dumped[0]!)).toBe(true);
    expect((await open.db.execute('select count(*)::int as n from job')).rows).toEqual([{ n: 0 }]);
    await open.close();
  });
});
