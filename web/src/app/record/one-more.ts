import { inject, Injectable } from '@angular/core';
import type { CutShort, ServesElsewhere } from '@yellow-pane/core';
import type { Patch } from '@yellow-pane/contracts';
import { v7 as uuidv7 } from 'uuid';
import { RecordStore } from './record.store';

/** A piece that is wanted once more, and what becomes of the one that does not fit. */
@Injectable({ providedIn: 'root' })
export class OneMore {
  private readonly record = inject(RecordStore);

  /** One more piece of a pane goes onto the roll. @param part which of several pieces; null: its only one */
  ask(surfaceId: string, part: number | null, label: string, reason: string): void {
    void this.record.change(`One more of ${label}`, this.patches(surfaceId, part, reason));
  }
  /** For a pane that was measured again since the knife. */
  for(short: CutShort): void {
    this.ask(short.surfaceId, short.part, short.label, 'measured again');
  }
  /** A piece that was cut wrong goes to another pane; its own pane gets a new one, unless that is asked for already. */
  serveElsewhere(serves: ServesElsewhere, short: Pick<CutShort, 'surfaceId' | 'part' | 'isAsked'> | null): void {
    const own = short?.surfaceId ?? serves.pieceId.split('.')[0]!;
    const more = short?.isAsked ? [] : this.patches(own, short?.part ?? null, `serves ${serves.forLabel}`);
    void this.record.change(`${serves.label} serves ${serves.forLabel}`, [
      { op: 'set', kind: 'surface', id: serves.forSurfaceId, field: 'servedById', value: serves.pieceId },
      ...more,
    ]);
  }

  private patches(surfaceId: string, part: number | null, reason: string): Patch[] {
    const surface = this.record.doc()?.surfaces.find((s) => s.id === surfaceId);
    if (!surface) return [];
    const extra = { id: uuidv7(), reason: reason.slice(0, 120), at: new Date().toISOString(), part };
    return [{ op: 'set', kind: 'surface', id: surfaceId, field: 'extraPieces', value: [...surface.extraPieces, extra] }];
  }
}
