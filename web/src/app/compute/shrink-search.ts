import { Injectable } from '@angular/core';
import { wrap, type Remote } from 'comlink';
import type { PaneCloud, ShrinkInput, ShrinkPlan } from '@yellow-pane/contracts';
import type { CloudUnit } from '@yellow-pane/core/form';
import type { Result } from '@yellow-pane/core/ground';
import type { CloudPreview, DraggedLine, ShrinkWorker } from './shrink.worker';

/** Shrink plans and point clouds, in a web worker. */
@Injectable({ providedIn: 'root' })
export class ShrinkSearch {
  private remote: Remote<ShrinkWorker> | null = null;
  private worker(): Remote<ShrinkWorker> {
    this.remote ??= wrap<ShrinkWorker>(new Worker(new URL('./shrink.worker', import.meta.url), { type: 'module' }));
    return this.remote;
  }
  private dragging: Promise<unknown> | null = null;

  /** Starts the worker, which practises for itself: the first plan that somebody waits for is then as quick as the next. */
  ready(): void {
    this.worker();
  }

  plan(input: ShrinkInput): Promise<Result<ShrinkPlan>> {
    return this.worker().plan(input);
  }
  /** What a line would be; null while the one before is still being tried: the next move asks anew. */
  async drag(input: ShrinkInput): Promise<Result<DraggedLine> | null> {
    if (this.dragging) return null;
    const asked = this.worker().drag(input);
    this.dragging = asked;
    try {
      return await asked;
    } finally {
      this.dragging = null;
    }
  }
  cloud(bytes: Uint8Array, fileName: string, unit: CloudUnit | null, clicks: [number[], number[], number[]] | null): Promise<Result<PaneCloud>> {
    return this.worker().cloud(bytes, fileName, unit, clicks);
  }
  preview(bytes: Uint8Array): Promise<Result<CloudPreview>> {
    return this.worker().preview(bytes);
  }
}
