import { expose } from 'comlink';
import { zonesOfPanel, type PanelZones, type TexturedPanel, type ZoneDone, type ZonesAsked } from '@yellow-pane/core/lay';

const api = {
  /** Each panel with what is done of it and what is left; `seen` is told of every one as it comes. */
  async zones(
    panels: readonly TexturedPanel[],
    logged: readonly ZoneDone[],
    asked: ZonesAsked,
    seen: (panel: PanelZones) => Promise<void> | void,
  ): Promise<PanelZones[]> {
    const out: PanelZones[] = [];
    for (const p of panels) {
      out.push(zonesOfPanel(p, logged, asked));
      await seen(out.at(-1)!);
    }
    return out;
  },
};

export type JointsWorker = typeof api;
expose(api);
