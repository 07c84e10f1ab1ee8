import { inject, Injectable } from '@angular/core';
import type { ChangeAnswer, Patch } from '@yellow-pane/contracts';
import { v7 as uuidv7 } from 'uuid';
import { Api, ApiProblem } from './api';
import { Device } from './device';

const FIRST_WAIT_MS = 500;
const LONGEST_WAIT_MS = 8000;

/** The one queue of this device's edits: they reach the bench in the order they were made, whatever record they belong to. */
@Injectable({ providedIn: 'root' })
export class Sender {
  private readonly api = inject(Api);
  private readonly device = inject(Device);
  private queue: Promise<unknown> = Promise.resolve();

  /** Everything handed in so far has been answered. */
  settled(): Promise<unknown> {
    return this.queue;
  }

  /** Sends one change in turn. @param waiting told each time the bench does not answer; it is tried again for ever */
  change(ownerId: string, label: string, patches: Patch[], baseRevision: () => number, waiting: () => void): Promise<ChangeAnswer> {
    const id = uuidv7();
    return this.inTurn(() => {
      const draft = { id, jobId: ownerId, ...this.who(), baseRevision: baseRevision(), label: label.slice(0, 120), patches };
      return this.again(() => this.api.change(draft), waiting);
    });
  }

  reverse(ownerId: string, way: 'undo' | 'redo', force: boolean, waiting: () => void): Promise<ChangeAnswer> {
    return this.inTurn(() => {
      const request = { id: uuidv7(), ...this.who(), force };
      return this.again(() => this.api[way](ownerId, request), waiting);
    });
  }

  private who(): { personId: string; deviceId: string; deviceSeq: number } {
    return { personId: this.device.person()!.id, deviceId: this.device.id, deviceSeq: this.device.nextSeq() };
  }

  private inTurn<T>(work: () => Promise<T>): Promise<T> {
    const next = this.queue.then(work).catch(async (error: unknown) => {
      // a refused number is free again: ask where the count stands before the next edit goes out
      await this.device.connect().catch(() => undefined);
      throw error;
    });
    this.queue = next.catch(() => undefined);
    return next;
  }

  private async again<T>(work: () => Promise<T>, waiting: () => void): Promise<T> {
    for (let wait = FIRST_WAIT_MS; ; wait = Math.min(LONGEST_WAIT_MS, wait * 2)) {
      try {
        return await work();
      } catch (error) {
        // let in again, in another tab, it goes on from here
        if (!(error instanceof ApiProblem) || !['offline', 'not-admitted'].includes(error.code)) throw error;
        waiting();
        await new Promise((r) => setTimeout(r, wait));
      }
    }
  }
}
