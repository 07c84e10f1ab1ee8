import 'fake-indexeddb/auto';
import { IDBFactory } from 'fake-indexeddb';
import type { IDBPDatabase } from 'idb';
import { TestBed } from '@angular/core/testing';
import type { ChangeDraft, LayEntry, Sent } from '@yellow-pane/contracts';
import { Api, ApiProblem } from './api';
import { Device } from './device';
import { FakeApi } from './fake-api.testing';
import { LayQueue } from './lay-queue';
import { LayLocalStore } from './lay-local-store';
import { LocalStore } from './local-store';
import { RecordStore } from './record.store';

// jsdom lacks it; what is kept here is plain JSON and blobs
globalThis.structuredClone = ((v: unknown) => (v instanceof Blob || v === undefined ? v : JSON.parse(JSON.stringify(v)))) as typeof structuredClone;

/** A bench that counts each device's changes without a gap, takes each id once, and can be away. */
class CountingBench extends FakeApi {
  readonly taken: ChangeDraft[] = [];
  isAway = false;
  /** Answers that get lost on the way back. */
  lostAnswers = 0;
  refuse: ((d: ChangeDraft) => ApiProblem | null) | null = null;
  readonly photos: Blob[] = [];
  override session = async (deviceId?: string) => {
    if (this.isAway) throw new ApiProblem('offline', 'away');
    return {
      firm: this.doc.firm,
      persons: this.doc.persons,
      lastDeviceSeq: this.seqOf(deviceId ?? ''),
      at: new Date(Date.now() + 5000).toISOString(),
      admitted: null,
      apiVersion: 1,
    };
  };
  override changesSince = async ({ query: { after } }: Sent<'changesSince'>) => {
    if (this.isAway) throw new ApiProblem('offline', 'away');
    return { changes: this.history.filter((c) => c.revision > Number(after)), revision: this.doc.revision, isTooMuch: false };
  };
  override job = async () => {
    if (this.isAway) throw new ApiProblem('offline', 'away');
    return JSON.parse(JSON.stringify(this.doc)) as typeof this.doc;
  };
  addPhoto = async ({ body }: Sent<'addPhoto'>) => {
    const photo = body as Blob;
    if (this.isAway) throw new ApiProblem('offline', 'away');
    this.photos.push(photo);
    return { photo: 'f'.repeat(64), bytes: photo.size };
  };
  private seqOf = (deviceId: string) => Math.max(0, ...this.taken.filter((d) => d.deviceId === deviceId).map((d) => d.deviceSeq));
  override change = async ({ body: draft }: { body: ChangeDraft }) => {
    if (this.isAway) throw new ApiProblem('offline', 'away');
    const refusal = this.refuse?.(draft);
    if (refusal) throw refusal;
    if (!this.taken.some((d) => d.id === draft.id)) {
      if (draft.deviceSeq !== this.seqOf(draft.deviceId) + 1) throw new ApiProblem('sequence-gap', 'gap');
      this.taken.push(draft);
    }
    if (this.lostAnswers > 0) {
      this.lostAnswers--;
      throw new ApiProblem('offline', 'lost');
    }
    return { change: { ...draft, revision: 100 + this.taken.length } as never, canUndo: null, canRedo: null };
  };
}

let api: CountingBench;
/** A page load: everything anew but what the browser keeps. */
const load = async () => {
  TestBed.resetTestingModule();
  TestBed.configureTestingModule({ providers: [{ provide: Api, useValue: api }] });
  await TestBed.inject(RecordStore).open(api.doc.job.id);
  const queue = TestBed.inject(LayQueue);
  await queue.start();
  return queue;
};
const until = async (holds: () => boolean | Promise<boolean>) => {
  for (let i = 0; i < 300 && !(await holds()); i++) await new Promise((r) => setTimeout(r, 10));
  expect(await holds()).toBe(true);
};
const W1 = () => api.doc.surfaces.find((s) => s.name === 'W1')!.id;
const done = (more: Partial<LayEntry> = {}) => ({ surfaceId: W1(), kind: 'pane-done' as const, stepSetId: '01930000-0000-7000-8000-0000000057e9', ...more });
const texts = () => api.taken.map((d) => (d.patches[0] as { value: LayEntry }).value.text);

beforeEach(() => {
  localStorage.clear();
  sessionStorage.clear();
  globalThis.indexedDB = new IDBFactory();
  api = new CountingBench();
});

describe('lines of the log on their way to the bench', () => {
  test('a line is at the bench once, numbered from one, and nothing waits', async () => {
    const queue = await load();
    await queue.add('Done', done({ text: 'a' }));
    await queue.add('Done', done({ text: 'b' }));
    await until(() => queue.waiting() === 0);
    expect(texts()).toEqual(['a', 'b']);
    expect(api.taken.map((d) => d.deviceSeq)).toEqual([1, 2]);
    // the mark goes once the queue has been read again and found empty
    await until(() => localStorage.getItem('yp-lay-pending') === null);
  });
  test('it is shown at once, and its time is the device’s put right by the bench’s clock', async () => {
    const queue = await load();
    const entry = await queue.add('Done', done());
    expect(
      TestBed.inject(RecordStore)
        .doc()!
        .layEntries.map((e) => e.id),
    ).toEqual([entry.id]);
    expect(Date.parse(entry.occurredAt) - Date.now()).toBeGreaterThan(4000);
    expect(entry.clockOffsetMs).toBeGreaterThan(4000);
  });
  test('until the browser has it nothing says that all is well, and a browser that will not keep it leaves nothing behind', async () => {
    const queue = await load();
    const tapped = queue.add('Done', done());
    expect(queue.beingKept()).toBe(1);
    await tapped;
    expect(queue.beingKept()).toBe(0);
    await until(() => queue.waiting() === 0);
    TestBed.inject(LayLocalStore).enqueue = async () => Promise.reject(new Error('no room'));
    await expect(queue.add('Done', done())).rejects.toThrow('Make room on the device');
    expect([queue.beingKept(), queue.waiting(), texts().length]).toEqual([0, 0, 1]);
  });
  test('out of reach it waits here, survives a reload with the job, and is delivered in order once', async () => {
    await load();
    await until(async () => (await TestBed.inject(LocalStore).job(api.doc.job.id)) !== undefined);
    api.isAway = true;
    const queue = await load();
    expect(TestBed.inject(RecordStore).keptFrom()).not.toBeNull();
    for (const text of ['a', 'b', 'c']) await queue.add('Done', done({ text }));
    expect(queue.waiting()).toBe(3);
    const again = await load();
    expect(again.waiting()).toBe(3);
    expect(
      TestBed.inject(RecordStore)
        .doc()!
        .layEntries.map((e) => e.text),
    ).toEqual(['a', 'b', 'c']);
    api.isAway = false;
    window.dispatchEvent(new Event('online'));
    await until(() => again.waiting() === 0);
    expect(texts()).toEqual(['a', 'b', 'c']);
  });
  test('an answer that is lost on the way makes no double', async () => {
    const queue = await load();
    api.lostAnswers = 1;
    await queue.add('Done', done({ text: 'a' }));
    await queue.add('Done', done({ text: 'b' }));
    await until(() => queue.waiting() === 0);
    expect(texts()).toEqual(['a', 'b']);
  });
  test('what the bench will never take is put aside with its reason, and the ones behind it go on', async () => {
    const queue = await load();
    api.refuse = (d) =>
      (d.patches[0] as { value: LayEntry }).value.text === 'bad'
        ? new ApiProblem('bad-input', 'no', [{ path: 'surfaceId', message: 'There is no such pane.' }])
        : null;
    for (const text of ['a', 'bad', 'c']) await queue.add('Done', done({ text }));
    await until(() => queue.waiting() === 0);
    expect(texts()).toEqual(['a', 'c']);
    expect(api.taken.map((d) => d.deviceSeq)).toEqual([1, 2]);
    expect(queue.refusedCount()).toBe(1);
    expect((await TestBed.inject(LayLocalStore).refused())[0]!.why).toBe('There is no such pane.');
    api.refuse = null;
    await queue.add('Done', done({ text: 'd' }));
    await until(() => queue.waiting() === 0);
    expect(texts()).toEqual(['a', 'c', 'd']);
  });
  test('a bench set back to yesterday gets again what it has lost', async () => {
    const queue = await load();
    for (const text of ['a', 'b', 'c']) await queue.add('Done', done({ text }));
    await until(() => queue.waiting() === 0);
    api.taken.splice(1);
    await queue.add('Done', done({ text: 'd' }));
    await until(() => queue.waiting() === 0);
    expect(texts()).toEqual(['a', 'b', 'c', 'd']);
  });
  test('when that is no longer kept here, the browser starts as a new device: nothing that waits is lost', async () => {
    const queue = await load();
    await queue.add('Done', done({ text: 'a' }));
    await until(() => queue.waiting() === 0);
    api.taken.splice(0);
    // the browser cleared what was delivered
    const open = indexedDB.open('yellow-pane');
    const db = await new Promise<IDBDatabase>((r) => (open.onsuccess = () => r(open.result)));
    await new Promise((r) => (db.transaction('sent', 'readwrite').objectStore('sent').clear().onsuccess = r));
    db.close();
    await queue.add('Done', done({ text: 'b' }));
    await until(() => queue.waiting() === 0);
    expect(texts()).toEqual(['b']);
    expect(api.taken[0]!.deviceSeq).toBe(1);
  });
  test('a photo goes before its line, and the line names it as the bench does', async () => {
    const queue = await load();
    api.isAway = true;
    await queue.add('Photo', done({ kind: 'photo', text: 'chip' }), new Blob(['x'], { type: 'image/jpeg' }));
    api.isAway = false;
    window.dispatchEvent(new Event('online'));
    await until(() => queue.waiting() === 0);
    expect(api.photos).toHaveLength(1);
    expect((api.taken[0]!.patches[0] as { value: LayEntry }).value.photo).toBe('f'.repeat(64));
  });
  test('where the browser keeps nothing, the tap says so instead of saying saved', async () => {
    const queue = await load();
    TestBed.inject(LayLocalStore).enqueue = async () => {
      throw new Error('QuotaExceededError');
    };
    await expect(queue.add('Done', done())).rejects.toThrow(/could not keep that tap.*Make room/);
    expect(TestBed.inject(RecordStore).doc()!.layEntries).toEqual([]);
  });
  test('who is at work is known also out of reach', async () => {
    await load();
    const person = TestBed.inject(Device).person()!.name;
    await until(async () => (await TestBed.inject(LocalStore).session()) !== undefined);
    api.isAway = true;
    await load();
    expect(TestBed.inject(Device).person()!.name).toBe(person);
  });
});

test('what was erased at the bench goes from this browser too, from what it sent before; the rest of its lines stays, and its numbers', async () => {
  const queue = await load();
  const [secret, other] = [await queue.add('Zenobia', { kind: 'note', surfaceId: W1(), stepSetId: 's', text: 'Zenobia has the key' }), await queue.add('note', { kind: 'note', surfaceId: W1(), stepSetId: 's', text: 'frame is soft' })]; // prettier-ignore
  await until(() => queue.waiting() === 0);
  expect(secret.salt).toMatch(/^[0-9a-f]{32}$/);
  const erased = { at: '2026-11-30T10:00:00Z', byEntryId: other.id, commitment: 'a'.repeat(64) };
  TestBed.inject(RecordStore).hold('the bench says', [
    { op: 'add', kind: 'layEntry', id: secret.id, value: { ...secret, text: '', salt: null, erased } },
    { op: 'add', kind: 'layEntry', id: other.id, value: { ...other } },
  ]);
  TestBed.tick();
  const sent = async () => JSON.stringify(await (await (TestBed.inject(LayLocalStore) as unknown as { db(): Promise<IDBPDatabase> }).db()).getAll('sent')); // prettier-ignore
  await until(async () => !(await sent()).includes('Zenobia'));
  expect(await sent()).toContain('frame is soft');
  expect(await sent()).toContain('erased on request');
});

test('lines whose photo is still on its way are named: the bench gives the photo its name', async () => {
  const queue = await load();
  api.isAway = true;
  const plain = await queue.add('note', { kind: 'note', surfaceId: W1(), stepSetId: 's', text: 'x' });
  const photo = await queue.add('photo', { kind: 'photo', surfaceId: W1(), stepSetId: 's' }, new Blob(['x']));
  expect([...(await queue.withPhotoOnTheWay())]).toEqual([photo.id]);
  // words, a photo or a signature are salted; a bare tap needs none
  expect([plain.salt, photo.salt, (await queue.add('tap', { kind: 'begin', surfaceId: W1(), stepSetId: 's' })).salt].map((v) => typeof v)).toEqual([
    'string',
    'string',
    'undefined',
  ]);
});
