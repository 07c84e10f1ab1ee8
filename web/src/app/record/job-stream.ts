import { inject, Injectable } from '@angular/core';
import type { Change } from '@yellow-pane/contracts';
import { Device } from './device';
import { EventLine } from './event-line';
import { RecordStore } from './record.store';

/** What others do in the open job, as they do it. Out of reach it asks again by itself, for what it has missed. */
@Injectable({ providedIn: 'root' })
export class JobStream {
  private readonly record = inject(RecordStore);
  private readonly device = inject(Device);

  /** @returns stops listening */
  follow(jobId: string): () => void {
    const line = new EventLine(
      () => {
        const doc = this.record.doc();
        return `/api/jobs/${jobId}/stream?after=${doc?.job.id === jobId ? doc.revision : 0}&ngsw-bypass=1`;
      },
      (data) => {
        const change = JSON.parse(data) as Change;
        // this tab's own edits are there already
        if (change.deviceId === this.device.id || this.record.doc()?.job.id !== jobId) return;
        this.record.receive(change.patches, change.revision);
      },
    );
    return () => line.close();
  }
}
