import { Injectable } from '@angular/core';
import { proxy, wrap, type Remote } from 'comlink';
import type { PanelZones, TexturedPanel, ZoneDone, ZonesAsked } from '@yellow-pane/core/lay';
import type { JointsWorker } from './joints.worker';

/** How many answers are kept: one for each tap of a wall, and the walls beside it. */
const MOST_KEPT = 60;

/** The order in which a textured wall is pressed, in a web worker. What was asked before is not worked out again. */
@Injectable({ providedIn: 'root' })
export class JointsSearch {
  private remote: Remote<JointsWorker> | null = null;
  private readonly known = new Map<string, Promise<PanelZones[]>>();

  zones(panels: readonly TexturedPanel[], logged: readonly ZoneDone[], asked: ZonesAsked, seen: (panel: PanelZones) => void): Promise<PanelZones[]> {
    this.remote ??= wrap<JointsWorker>(new Worker(new URL('./joints.worker', import.meta.url), { type: 'module' }));
    const key = JSON.stringify([panels.map((p) => p.asked), logged, asked]);
    const known = this.known.get(key);
    if (known) return known;
    const found = this.remote.zones(panels, logged, asked, proxy(seen));
    this.known.set(key, found);
    if (this.known.size > MOST_KEPT) this.known.delete(this.known.keys().next().value!);
    found.catch(() => this.known.delete(key));
    return found;
  }
}
