import { expose } from 'comlink';
import type { Allowances, CutSettings, Film, Grade, PaneVerdict, VerdictInput } from '@yellow-pane/contracts';
import { judgeFilm, judgePane, materialFor, Memo, preparePane, type Material, type PaneSize } from '@yellow-pane/core';

/** What this worker has had worked out: panes of one size on one facade share their year. */
const memo = new Memo();
let current = 0;
let currentJob = 0;

/** One pane of a job with the film chosen for it. */
export interface PaneToJudge {
  readonly id: string;
  readonly input: VerdictInput;
  readonly film: Film;
}

const api = {
  judge: (input: VerdictInput, films: Film[]): PaneVerdict => judgePane(input, films, memo),
  /** The verdict on every pane's own film, told pane by pane; a newer call, or `stop`, ends it. */
  async judgeJob(items: PaneToJudge[], report: (done: number, id: string, grade: Grade, reason: string) => void): Promise<void> {
    const mine = ++currentJob;
    for (const [i, item] of items.entries()) {
      const verdict = judgeFilm(preparePane(item.input, memo), item.film);
      report(i + 1, item.id, verdict.grade, verdict.reasons[0] ?? '');
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
