import { inject, Injectable } from '@angular/core';
import type { Change } from '@yellow-pane/contracts';
import { hrefOf } from './api';
import { EventLine } from './event-line';
import { RecordStore } from './record.store';

/** What others do in the open job, as they do it. Out of reach it asks again by itself, for what it has missed. */
@Injectable({ providedIn: 'root' })
export class JobStream {
  private readonly record = inject(RecordStore);

  /** @returns stops listening */
  follow(jobId: string): () => void {
    const line = new EventLine(
      () => {
        const doc = this.record.doc();
        return `${hrefOf('jobStream', { params: { jobId }, query: { after: doc?.job.id === jobId ? doc.revision : 0 } })}&ngsw-bypass=1`;
      },
      (data) => {
        // this device's own come by here too, in their turn among the others
        if (this.record.doc()?.job.id === jobId) this.record.receive(JSON.parse(data) as Change);
      },
      () => undefined,
      undefined,
      () => {
        if (this.record.doc()?.job.id === jobId) void this.record.reload();
      },
    );
    return () => line.close();
  }
}
