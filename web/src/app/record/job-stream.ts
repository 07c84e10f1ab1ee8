import { inject, Injectable } from '@angular/core';
import type { Change } from '@yellow-pane/contracts';
import { Device } from './device';
import { RecordStore } from './record.store';

/** A line that was refused is asked for again after this. @source house rule */
const AGAIN_MS = 10_000;

/** What others do in the open job, as they do it. Out of reach it asks again by itself, for what it has missed. */
@Injectable({ providedIn: 'root' })
export class JobStream {
  private readonly record = inject(RecordStore);
  private readonly device = inject(Device);

  /** @returns stops listening */
  follow(jobId: string): () => void {
    if (typeof EventSource === 'undefined') return () => undefined;
    let source: EventSource;
    let timer: ReturnType<typeof setTimeout> | undefined;
    const open = (): void => {
      const doc = this.record.doc();
      source = new EventSource(`/api/jobs/${jobId}/stream?after=${doc?.job.id === jobId ? doc.revision : 0}&ngsw-bypass=1`);
      source.onmessage = (e) => {
        const change = JSON.parse(e.data as string) as Change;
        // this tab's own edits are there already
        if (change.deviceId === this.device.id || this.record.doc()?.job.id !== jobId) return;
        this.record.receive(change.patches, change.revision);
      };
      // a lost line the browser takes up by itself; a refusal (taken out, let in again) it does not
      source.onerror = () => source.readyState === EventSource.CLOSED && (timer = setTimeout(open, AGAIN_MS));
    };
    // after a dead spot the old line may hang for minutes without a word
    const anew = (): void => {
      source.close();
      clearTimeout(timer);
      open();
    };
    open();
    window.addEventListener('online', anew);
    return () => {
      window.removeEventListener('online', anew);
      clearTimeout(timer);
      source.close();
    };
  }
}
