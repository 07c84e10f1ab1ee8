import { expose } from 'comlink';
import type { Allowances, CutSettings, Film, PaneVerdict, VerdictInput } from '@yellow-pane/contracts';
import { judgePane, materialFor, type Material, type PaneSize } from '@yellow-pane/core';

let current = 0;

const api = {
  judge: (input: VerdictInput, films: Film[]): PaneVerdict => judgePane(input, films),
  /** What each film costs for these panes, told one by one; a newer call ends it. */
  async costs(panes: PaneSize[], films: Film[], allowances: Allowances, cut: CutSettings, report: (filmId: string, material: Material) => void): Promise<void> {
    const mine = ++current;
    for (const film of films) {
      report(film.id, materialFor(panes, film, allowances, cut, 0));
      await new Promise((r) => setTimeout(r));
      if (mine !== current) return;
    }
  },
};

export type VerdictWorker = typeof api;
expose(api);
