import { inject, Injectable } from '@angular/core';
import type { Change } from '@yellow-pane/contracts';
import { Device } from './device';
import { RecordStore } from './record.store';

/** What others do in the open job, as they do it. Out of reach it asks again by itself, for what it has missed. */
@Injectable({ providedIn: 'root' })
export class JobStream {
  private readonly record = inject(RecordStore);
  private readonly device = inject(Device);

  /** @returns stops listening */
  follow(jobId: string): () => void {
    if (typeof EventSource === 'undefined') return () => undefined;
    const after = this.record.doc()?.revision ?? 0;
    const source = new EventSource(`/api/jobs/${jobId}/stream?after=${after}&ngsw-bypass=1`);
    source.onmessage = (e) => {
      const change = JSON.parse(e.data as string) as Change;
      // this tab's own edits are there already
      if (change.deviceId === this.device.id || this.record.doc()?.job.id !== jobId) return;
      this.record.receive(change.patches, change.revision);
    };
    return () => source.close();
  }
}
