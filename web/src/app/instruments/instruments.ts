import { inject, Injectable, signal } from '@angular/core';
import type { InstrumentAct, InstrumentKind, InstrumentReading, InstrumentStatus } from '@yellow-pane/contracts';
import { Api, hrefOf } from '../record/api';
import { Device } from '../record/device';
import { EventLine } from '../record/event-line';

/**
 * The instruments as the bench hears them: status and readings as they come. A reading is handed on once, and only on the device that asked
 * for it, or, from the instrument’s own button, on the one that is in view.
 */
@Injectable({ providedIn: 'root' })
export class Instruments {
  private readonly api = inject(Api);
  private readonly device = inject(Device);
  readonly statuses = signal<Partial<Record<InstrumentKind, InstrumentStatus>>>({});
  /** Why an instrument did not do what it was asked. */
  readonly trouble = signal<string | null>(null);
  private readonly ears = new Set<(reading: InstrumentReading) => void>();
  private readonly heard = new Map<InstrumentKind, number>();
  private line: EventLine | null = null;

  /** Hears every new reading until the returned function is called; the bench is listened to only as long as somebody does. */
  onReading(hear: (reading: InstrumentReading) => void): () => void {
    this.ears.add(hear);
    this.line ??= new EventLine(
      () => `${hrefOf('instrumentStream')}?ngsw-bypass=1`,
      (data) => this.take(JSON.parse(data) as InstrumentStatus),
      // after a break the bench tells how things stand; what was read meanwhile goes into no field
      () => this.heard.clear(),
    );
    return () => {
      this.ears.delete(hear);
      if (this.ears.size > 0) return;
      this.line?.close();
      this.line = null;
      this.heard.clear();
    };
  }

  /** @param act without the device: this one asks */
  async act(act: InstrumentAct): Promise<void> {
    try {
      this.trouble.set(null);
      this.take(await this.api.instrumentAct({ body: act.act === 'shoot' ? { ...act, deviceId: this.device.id } : act }));
    } catch (error) {
      this.trouble.set(error instanceof Error ? error.message : String(error));
    }
  }

  /** The first word of an instrument only says where it stands; what it reads from then on is new. */
  private take(status: InstrumentStatus): void {
    const known = this.heard.get(status.kind);
    const seq = status.last?.seq ?? 0;
    this.statuses.update((all) => ({ ...all, [status.kind]: status }));
    this.heard.set(status.kind, Math.max(known ?? 0, seq));
    if (known === undefined || seq <= known || !status.last) return;
    const { deviceId } = status.last;
    if (deviceId === null ? document.visibilityState !== 'visible' : deviceId !== this.device.id) return;
    for (const hear of this.ears) hear(status.last);
  }
}
