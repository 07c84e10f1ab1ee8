import type { CutSettings, Layout } from '@yellow-pane/contracts';
import { filmPlanInput, handyFigures, layPiecesOnRolls, Memo, newestPlan, repeatLossMm, workedOut, type LayoutInput } from '@yellow-pane/core';
import type { UnitSystem } from '@yellow-pane/core/ground';
import type { PlainPlanRecords } from './layout-search';
import type { Extras } from './layout.worker';

/** What the workers do, done where it is asked: the instant layout, and no comparing. */
export class LayoutSearchInPlace {
  private readonly memo = new Memo();
  search = async (input: LayoutInput, _steps: number, report: (l: Layout, done: boolean) => void): Promise<void> => report(layPiecesOnRolls(input, 0), true);
  stop = async (): Promise<void> => undefined;
  workOut = async (records: PlainPlanRecords, units: UnitSystem) => workedOut({ ...records, memo: this.memo }, units);
  methods = async (_records: PlainPlanRecords, _settings: CutSettings, _filmId: string): Promise<never[]> => [];
  pullCost = async (_records: PlainPlanRecords, _filmId: string): Promise<number | null> => 4.2;
  extras = async (records: PlainPlanRecords, filmId: string): Promise<Extras> => {
    const all = { ...records, memo: this.memo };
    const input = filmPlanInput(all, all.job.cut, filmId, newestPlan(all.plans, filmId));
    return { repeatMm: repeatLossMm(input.layout), handy: handyFigures(all, all.job.cut, filmId) };
  };
}
