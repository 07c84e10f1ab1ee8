import { expose } from 'comlink';
import type { Allowances, CutSettings, Film, PaneVerdict, VerdictInput } from '@yellow-pane/contracts';
import { judgeChosen, judgePane, materialFor, Memo, type Material, type PaneJudged, type PaneSize, type PaneToJudge } from '@yellow-pane/core';

/** What this worker has had worked out: panes of one size on one facade share their year. */
const memo = new Memo();
/** How long panes are judged before they are told, ms. */
const SLICE_MS = 60;
let current = 0;
let currentJob = 0;

const api = {
  judge: (input: VerdictInput, films: Film[]): PaneVerdict => judgePane(input, films, memo),
  /** The verdict on every pane's own film, told as many at a time as were judged meanwhile; a newer call, or `stop`, ends it. */
  async judgeJob(items: PaneToJudge[], report: (judged: PaneJudged[]) => void): Promise<void> {
    const mine = ++currentJob;
    for (let i = 0; i < items.length;) {
      const until = performance.now() + SLICE_MS;
      const judged: PaneJudged[] = [];
      while (i < items.length && performance.now() < until) judged.push(judgeChosen(items[i++]!, memo));
      report(judged);
      await new Promise((r) => setTimeout(r));
      if (mine !== currentJob) return;
    }
  },
  stop(): void {
    currentJob++;
  },
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
