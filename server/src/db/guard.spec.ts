import { spawn } from 'node:child_process';
import { appendFileSync, existsSync, mkdirSync, mkdtempSync, readFileSync, readdirSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pino } from 'pino';
import sharp from 'sharp';
import request from 'supertest';
import { createApp, type App } from '../app.js';
import { demoSurfaceCounts, ines, lanternStreetId, listedSurfaceCounts, TestDevice } from '../bench.testing.js';
import { setUpBench } from '../bench-setup.js';
import { inPlace } from '../compute/runners.js';
import { PhotoStore } from '../stations/lay/photo-store.js';
import { DiskRefused, realDisk, type Disk } from './durable.js';
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

/** The real app on a folder. @param disk stands in for the disk that the journal writes to */
async function bench(dir: string, disk = realDisk): Promise<{ app: App; open: OpenDatabase; journal: Journal; close: () => Promise<void> }> {
  const open = await openInFolder(dir, async () => undefined);
  const journal = new Journal(dir, disk);
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

  test('a zombie holds no folder: it has ended, only nobody has waited for it', async () => {
    // the shell starts a child, becomes another program, and never waits for it
    const shell = spawn('bash', ['-c', 'sleep 0.3 & echo $!; exec sleep 8'], { stdio: ['ignore', 'pipe', 'ignore'] });
    const pid = await new Promise<number>((r) => shell.stdout.once('data', (d: Buffer) => r(Number(d.toString().trim()))));
    await new Promise((r) => setTimeout(r, 900));
    expect(readFileSync(`/proc/${pid}/stat`, 'utf8')).toMatch(/\) Z /);
    const dir = folder();
    writeFileSync(join(dir, 'lock.json'), JSON.stringify({ pid, bootId: null, startTime: processStartTime(pid), port: 1 }));
    expect(livingHolder(dir)).toBeNull();
    takeLock(dir).release();
    shell.kill();
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
    const told: string[] = [];
    const restored = await restoreInto(dir, lost, new Date(), { tell: (words) => told.push(words) });
    // dump and journal together: the edit is not thrown away, and its coming is told
    expect(restored.editsToCome).toBe(1);
    expect(told.length).toBeGreaterThan(0);
    const again = await bench(dir);
    expect(await noteOf(again.app)).toBe('');
    expect((await again.app.changes.replay()).count).toBe(1);
    expect(await noteOf(again.app)).toBe('acknowledged');
    expect((await again.app.changes.replay()).count).toBe(0);
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
    expect(again.read().changes.map((c) => c.id)).toEqual(['b']);
    again.rotate('2026-01-01');
    again.append({ id: 'c' } as never);
    expect(again.read().changes.map((c) => c.id)).toEqual(['b', 'c']);
    again.close();
  });
});

/** A disk that takes so many bytes and no more, a few at a time, as a real one does. */
const fullAfter = (room: number): Disk => {
  let left = room;
  return {
    ...realDisk,
    write: (handle, bytes, from) => {
      if (left <= 0) throw Object.assign(new Error('ENOSPC: no space left on device, write'), { code: 'ENOSPC' });
      const part = bytes.subarray(from, from + Math.min(left, 7));
      left -= part.length;
      return realDisk.write(handle, part, 0);
    },
  };
};

describe('a full disk', () => {
  const line = (id: string) => ({ id, label: 'x'.repeat(40) }) as never;
  test('an edit that does not fit is refused, not half written; what was acknowledged before and what comes after there is room again both read', () => {
    const dir = folder();
    const roomy = new Journal(dir);
    roomy.append(line('a'));
    roomy.close();
    const tight = new Journal(dir, fullAfter(90));
    tight.append(line('b'));
    expect(() => tight.append(line('c'))).toThrow('The disk is full');
    expect(() => tight.append(line('d'))).toThrow(DiskRefused);
    expect(tight.read().changes.map((c) => c.id)).toEqual(['a', 'b']);
    tight.close();
    const again = new Journal(dir);
    again.append(line('e'));
    expect(again.read()).toMatchObject({ changes: [{ id: 'a' }, { id: 'b' }, { id: 'e' }], unreadableCount: 0 });
    again.close();
  });
  test('an edit whose transaction failed does not come back, even where no further line fits: its own is taken back', () => {
    const dir = folder();
    const journal = new Journal(dir, fullAfter(150));
    journal.append(line('a'));
    journal.append(line('b'));
    journal.void('b');
    expect(journal.read().changes.map((c) => c.id)).toEqual(['a']);
    journal.close();
  });
  test('half a line of an older version with a later one glued to it: the later edit is read, the half one set aside and told, and the bench starts', () => {
    const dir = folder();
    const whole = (id: string) => JSON.stringify({ change: { id } });
    writeFileSync(join(dir, 'journal.ndjson'), `${whole('a')}\n{"change":{"id":"torn","label":"we${whole('b')}\nno line at all\n${whole('c')}\n`);
    const journal = new Journal(dir);
    const read = journal.read();
    expect(read.changes.map((c) => c.id)).toEqual(['a', 'b', 'c']);
    expect(read.unreadableCount).toBe(2);
    expect(readFileSync(read.unreadableFile!, 'utf8')).toContain('"torn"');
    journal.close();
  });
  test('the database fails at the very end of a change: it was refused, and no start brings it back', async () => {
    const dir = folder();
    const { app, close } = await bench(dir);
    await setUpBench(app, 'demo');
    const device = new TestDevice(ines);
    // read before, so that the change is the one that fails
    await app.jobs.open(lanternStreetId);
    const { transaction } = app.records;
    app.records.transaction = (work) =>
      transaction.call(app.records, async (tx) => {
        await work(tx);
        throw new Error('the commit failed');
      }) as never;
    await expect(setNote(app, device, 'refused')).rejects.toThrow('the commit failed');
    device.takeBack();
    app.records.transaction = transaction;
    await setNote(app, device, 'taken');
    await close();
    const again = await bench(dir);
    expect(await again.app.changes.replay()).toMatchObject({ count: 0 });
    expect(await noteOf(again.app)).toBe('taken');
    await again.close();
  });
  test('over the API: 507 with the sentence, the edit is in neither journal nor database, and it works again when there is room', async () => {
    const dir = folder();
    const disk = { ...realDisk };
    const { app, close } = await bench(dir, disk);
    await setUpBench(app, 'demo');
    const device = new TestDevice(ines);
    const doc = await app.jobs.open(lanternStreetId);
    const draft = () =>
      device.draft(lanternStreetId, 'Note', [{ op: 'set', kind: 'surface', id: doc.surfaces[0]!.id, field: 'note', value: 'typed' }], doc.revision);
    const send = (body: object) => request(app.http).post(`/api/jobs/${lanternStreetId}/changes`).set('Host', 'localhost').send(body);
    disk.write = fullAfter(10).write;
    const refused = await send(draft());
    expect([refused.status, refused.body.code, refused.body.detail]).toEqual([507, 'disk-full', expect.stringMatching(/^The disk is full/)]);
    expect(await noteOf(app)).toBe('');
    disk.write = () => { throw Object.assign(new Error('EROFS'), { code: 'EROFS' }); }; // prettier-ignore
    device.takeBack();
    expect((await send(draft())).body.code).toBe('read-only');
    disk.write = realDisk.write;
    device.takeBack();
    expect((await send(draft())).status).toBe(200);
    expect(await noteOf(app)).toBe('typed');
    await close();
    const again = await bench(dir);
    expect(await again.app.changes.replay()).toMatchObject({ count: 0, unreadableCount: 0 });
    await again.close();
  });
  test('a photo is written whole or refused; one that was torn by whatever heals when it comes again', async () => {
    const dir = folder();
    const picture = await sharp({ create: { width: 40, height: 30, channels: 3, background: '#446688' } }).png().toBuffer(); // prettier-ignore
    await expect(new PhotoStore(dir, fullAfter(20)).add(picture)).rejects.toThrow('The disk is full');
    const store = new PhotoStore(dir);
    const { photo } = await store.add(picture);
    const file = join(dir, photo.slice(0, 2), `${photo}.jpg`);
    writeFileSync(file, readFileSync(file).subarray(0, 50));
    await store.add(picture);
    expect(store.read(photo).length).toBeGreaterThan(50);
    writeFileSync(file, 'torn');
    expect(() => store.read(photo)).toThrow('Send it again');
    expect(store.has(photo)).toBe(false);
  });
  test('journal, backups and lock are readable by their owner only', async () => {
    const dir = folder();
    const journal = new Journal(dir);
    journal.close();
    const file = await writeBackup({ dump: async () => Buffer.from('x') }, dir, 'asked', new Date());
    for (const f of [join(dir, 'journal.ndjson'), file]) expect(statSync(f).mode & 0o077).toBe(0);
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
    writeFileSync(exportFile, await exportAll(first.app.records, new Date()));
    await setNote(first.app, device, 'after');
    await first.close();
    for (const file of [dumpFile, exportFile]) {
      const { aside, editsToCome } = await restoreInto(dir, file, new Date(), { toTheBackupAlone: true });
      expect(aside && existsSync(join(aside, 'db'))).toBe(true);
      expect(editsToCome).toBeNull();
      const back = await bench(dir);
      await back.app.changes.replay();
      expect(await noteOf(back.app)).toBe('before');
      expect(await listedSurfaceCounts(back.app)).toEqual(demoSurfaceCounts());
      expect((await back.app.changes.canUndo(lanternStreetId, ines)).canUndo).toBe('Note before');
      await back.close();
      await new Promise((r) => setTimeout(r, 5));
    }
  });

  test('a disk that runs full leaves no half archive and rotates nothing away; nor does one that gives back something else', async () => {
    const dir = folder();
    const fake = { dump: async () => Buffer.from('a whole archive') };
    for (let hour = 1; hour <= 3; hour++) await writeBackup(fake, dir, 'stop', new Date(Date.UTC(2026, 0, 1, hour)));
    const before = readdirSync(join(dir, 'backups'));
    const bad: Disk[] = [
      fullAfter(4),
      { ...realDisk, read: () => Buffer.from('a whole archivX') },
      { ...realDisk, sync: () => { throw Object.assign(new Error('sync'), { code: 'EIO' }); } }, // prettier-ignore
    ];
    for (const [i, disk] of bad.entries())
      await expect(writeBackup(fake, dir, 'stop', new Date(Date.UTC(2026, 0, 2, i)), disk)).rejects.toThrow('The disk is full');
    expect(readdirSync(join(dir, 'backups'))).toEqual(before);
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
