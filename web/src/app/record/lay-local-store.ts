import { Injectable } from '@angular/core';
import type { ChangeDraft, Patch } from '@yellow-pane/contracts';
import { v7 as uuidv7 } from 'uuid';
import { LocalStore, type QueuedChange, type RefusedChange } from './local-store';

const ERASED = 'erased on request';
const isWordless = (p: Patch): boolean => p.op === 'add' && p.value['text'] === ERASED;
/** The line without what was personal in it: as a note, for a signature without its line is none. */
const withoutWords = (p: Patch): Patch =>
  p.op === 'add'
    ? { ...p, value: { ...p.value, kind: 'note', text: ERASED, photo: null, signature: null, salt: null, acceptance: undefined, pin: undefined, news: undefined, look: undefined } } // prettier-ignore
    : p;

/** Delivered changes kept here. @source house rule: more than a day's work */
const MOST_SENT = 500;

/** The part of this browser's store that the work on the glass writes: its lines, in order, with their photos. Fetched with the stage it belongs to. */
@Injectable({ providedIn: 'root' })
export class LayLocalStore extends LocalStore {
  /** Numbers the change and writes it down with its photo: all of it or nothing. @returns how many wait */
  async enqueue(draft: Omit<ChangeDraft, 'deviceId' | 'deviceSeq'>, photo: Blob | null): Promise<number> {
    const tx = (await this.db()).transaction(['queue', 'photos', 'meta'], 'readwrite', { durability: 'strict' });
    const meta = tx.objectStore('meta');
    const deviceId = ((await meta.get('deviceId')) as string | undefined) ?? uuidv7();
    const seq = (((await meta.get('seq')) as number | undefined) ?? 0) + 1;
    const photoId = photo ? uuidv7() : null;
    await meta.put(deviceId, 'deviceId');
    await meta.put(seq, 'seq');
    if (photo && photoId) await tx.objectStore('photos').put(photo, photoId);
    await tx.objectStore('queue').put({ draft: { ...draft, deviceId, deviceSeq: seq }, photoId }, seq);
    const count = await tx.objectStore('queue').count();
    await tx.done;
    return count;
  }

  /** What was erased at the bench goes from this browser too: what it has sent it may have to send again, to a bench that was brought back from a backup. */
  async forgetWords(entryIds: ReadonlySet<string>): Promise<void> {
    const tx = (await this.db()).transaction(['sent', 'refused'], 'readwrite', { durability: 'strict' });
    for (const name of ['sent', 'refused'] as const) {
      const store = tx.objectStore(name);
      for (const key of await store.getAllKeys()) {
        const item = (await store.get(key))!;
        if (!item.draft.patches.some((p) => entryIds.has(p.id) && !isWordless(p))) continue;
        const patches = item.draft.patches.map((p) => (entryIds.has(p.id) ? withoutWords(p) : p));
        await store.put({ ...item, draft: { ...item.draft, label: 'A line of which something was erased', patches } } as never, key);
      }
    }
    await tx.done;
  }

  async photo(id: string): Promise<Blob | undefined> {
    return (await this.db()).get('photos', id);
  }
  async refused(): Promise<RefusedChange[]> {
    return (await this.db()).getAll('refused');
  }
  /** The bench has it. */
  async delivered(item: QueuedChange): Promise<void> {
    const tx = (await this.db()).transaction(['queue', 'sent', 'photos'], 'readwrite', { durability: 'strict' });
    await tx.objectStore('queue').delete(item.draft.deviceSeq);
    await tx.objectStore('sent').put({ ...item, photoId: null }, item.draft.deviceSeq);
    if (item.photoId) await tx.objectStore('photos').delete(item.photoId);
    const keys = await tx.objectStore('sent').getAllKeys();
    for (const old of keys.slice(0, Math.max(0, keys.length - MOST_SENT))) await tx.objectStore('sent').delete(old);
    await tx.done;
  }

  /** The bench will never take it: it is put aside, and the numbers close up behind it. */
  async putAside(item: QueuedChange, why: string): Promise<void> {
    const tx = (await this.db()).transaction(['queue', 'refused', 'meta'], 'readwrite', { durability: 'strict' });
    await tx.objectStore('refused').put({ draft: item.draft, why, at: new Date().toISOString() }, item.draft.id);
    const queue = tx.objectStore('queue');
    const all = await queue.getAll();
    await queue.clear();
    let seq = item.draft.deviceSeq;
    for (const q of all.filter((x) => x.draft.id !== item.draft.id)) {
      const deviceSeq = q.draft.deviceSeq > item.draft.deviceSeq ? seq++ : q.draft.deviceSeq;
      await queue.put({ ...q, draft: { ...q.draft, deviceSeq } }, deviceSeq);
    }
    await tx.objectStore('meta').put(seq - 1, 'seq');
    await tx.done;
  }

  /**
   * The bench knows this device only up to a number: what was delivered after it goes into the queue again. Where that is no longer kept, this
   * browser starts as a new device, so that nothing still waiting is lost.
   */
  async rewind(lastKnown: number): Promise<void> {
    const tx = (await this.db()).transaction(['queue', 'sent', 'meta'], 'readwrite', { durability: 'strict' });
    const [queue, sent, meta] = [tx.objectStore('queue'), tx.objectStore('sent'), tx.objectStore('meta')];
    const waiting = await queue.getAll();
    // the bench has these after all: their answer was lost on the way
    for (const q of waiting.filter((x) => x.draft.deviceSeq <= lastKnown)) await queue.delete(q.draft.deviceSeq);
    const first = Math.min(...waiting.map((q) => q.draft.deviceSeq).filter((n) => n > lastKnown), ((await meta.get('seq')) as number) + 1);
    const missing = (await sent.getAll()).filter((s) => s.draft.deviceSeq > lastKnown && s.draft.deviceSeq < first);
    if (missing.length === first - 1 - lastKnown) for (const m of missing) await queue.put(m, m.draft.deviceSeq);
    else {
      const deviceId = uuidv7();
      const rest = await queue.getAll();
      await queue.clear();
      await sent.clear();
      for (const [i, q] of rest.entries()) await queue.put({ ...q, draft: { ...q.draft, deviceId, deviceSeq: i + 1 } }, i + 1);
      await meta.put(deviceId, 'deviceId');
      await meta.put(rest.length, 'seq');
    }
    await tx.done;
  }
}
