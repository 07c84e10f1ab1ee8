import { TestBed } from '@angular/core/testing';
import type { Layout, Patch, Plan } from '@yellow-pane/contracts';
import { layPiecesOnRolls, newestPlan, type LayoutInput } from '@yellow-pane/core';
import { LayoutSearch } from '../compute/layout-search';
import { LayoutSearchInPlace } from '../compute/layout-search.testing';
import { Api } from './api';
import { FakeApi } from './fake-api.testing';
import { PlansStore } from './plans.store';
import { draftPatches, isOvertaken, tickPatch } from './plans.updaters';
import { RecordStore } from './record.store';

/** A search that says what it has found when it is told to. */
class HeldSearch extends LayoutSearchInPlace {
  readonly asked: { input: LayoutInput; report: (l: Layout, done: boolean) => void }[] = [];
  isHeld = false;
  override search = async (input: LayoutInput, _steps: number, report: (l: Layout, done: boolean) => void) => {
    if (this.isHeld) this.asked.push({ input, report });
    else report(layPiecesOnRolls(input, 0), true);
  };
  tell = (done: boolean) => this.asked.forEach(({ input, report }) => report(layPiecesOnRolls(input, 0), done));
}
let api: FakeApi;
let search: HeldSearch;
const plans = () => TestBed.inject(PlansStore);
const record = () => TestBed.inject(RecordStore);
const doc = () => record().doc()!;
/** The film on the panes called O1 and so on. */
const filmId = () => doc().surfaces.find((s) => s.name === 'O1')!.filmId!;
const shown = () => plans().byFilm()[filmId()]!;
const newest = () => newestPlan(doc().plans, filmId())!;
const until = async (is: () => boolean) => {
  for (let i = 0; i < 400 && !is(); i++) await new Promise((r) => setTimeout(r, 10));
  expect(is()).toBe(true);
};
const set = (id: string, field: string, value: unknown): Patch => ({ op: 'set', kind: 'plan', id, field, value });

beforeEach(async () => {
  localStorage.clear();
  sessionStorage.clear();
  api = new FakeApi();
  search = new HeldSearch();
  TestBed.configureTestingModule({
    providers: [
      { provide: Api, useValue: api },
      { provide: LayoutSearch, useValue: search },
    ],
  });
  await record().open(api.doc.job.id);
  plans();
  TestBed.tick();
  await until(() => plans().byFilm()[filmId()]?.stored !== undefined && shown().stored !== null);
});

describe('the cut plan of a film', () => {
  test('laid out once, it is stored as a draft and shown as the record has it', () => {
    expect(newest()).toMatchObject({ status: 'draft', isByHand: false, inputHash: shown().hash, takenRollIds: [] });
    expect(shown()).toMatchObject({ running: false, isStale: false });
    expect(shown().stored).toBe(newest());
  });

  test('a pane taped anew is laid out anew; the draft before makes room', async () => {
    const before = newest();
    const reading = doc().readings.find((r) => r.surfaceId === doc().surfaces.find((s) => s.name === 'O4')!.id && r.measure === 'widthLargest')!;
    await record().change('again', [{ op: 'add', kind: 'reading', id: 'again', value: { ...reading, id: 'again', lengthMm: 640, supersedesId: reading.id } }]);
    TestBed.tick();
    await until(() => newest().id !== before.id && shown().stored === newest());
    expect(doc().plans.filter((p) => p.filmId === filmId())).toHaveLength(1);
  });

  test('a locked piece stays locked over a re-plan; locks on pieces that are no more are let go', async () => {
    const [piece, before] = [shown().pieces[0]!.id, newest()];
    await plans().toggleLock(filmId(), piece);
    expect(newest().lockedPieceIds).toEqual([piece]);
    await plans().replan(filmId());
    await until(() => newest().id !== before.id);
    expect(newest().lockedPieceIds).toEqual([piece]);
    const gone = { ...shown(), pieces: shown().pieces.slice(1) };
    expect((draftPatches(doc(), gone, null, 'new', 'now')[0] as { value: Record<string, unknown> }).value['lockedPieceIds']).toEqual([]);
  });

  test('whoever cuts by the plan while another bench still searches a new one: the plan under the knife stands, and is shown', async () => {
    const before = newest();
    search.isHeld = true;
    await plans().replan(filmId());
    search.tell(false);
    expect(shown()).toMatchObject({ running: true, stored: null });
    // on the other device film is taken: that commits the plan
    record().receive(api.elsewhere([set(before.id, 'status', 'committed')]));
    TestBed.tick();
    await until(() => shown().stored?.id === before.id);
    search.tell(true);
    await new Promise((r) => setTimeout(r, 50));
    expect(shown().stored?.id).toBe(before.id);
    expect(shown()).toMatchObject({ running: false, isStale: false });
    expect(newest().id).toBe(before.id);
    expect(
      api.drafts.filter((d) => d.label === 'Lay pieces on the roll' && d.patches.some((p) => p.op === 'add' && p.value['filmId'] === filmId())),
    ).toHaveLength(1);
  });

  test('whoever presses Stop on a search that came too late keeps nothing of it, and the next plan takes no film by itself', async () => {
    const before = newest();
    search.isHeld = true;
    await plans().replan(filmId(), true);
    search.tell(false);
    record().receive(api.elsewhere([set(before.id, 'status', 'committed')]));
    plans().stop(filmId());
    expect(shown().stored?.id).toBe(before.id);
    expect(newest().id).toBe(before.id);
    search.isHeld = false;
    await plans().replan(filmId());
    await until(() => newest().id !== before.id);
    await new Promise((r) => setTimeout(r, 50));
    expect(newest().status).toBe('draft');
    expect(doc().stock.entries).toEqual([]);
  });

  test('a committed plan that is planned anew by its person gets a successor; it stays in the record itself', async () => {
    const before = newest();
    record().receive(api.elsewhere([set(before.id, 'status', 'committed')]));
    await plans().replan(filmId());
    await until(() => newest().id !== before.id);
    expect(doc().plans.map((p) => p.id)).toContain(before.id);
  });

  test('a search whose panes have changed meanwhile is not kept', async () => {
    search.isHeld = true;
    await plans().replan(filmId());
    const count = api.drafts.length;
    await record().set('another gap', 'job', doc().job.id, { allowances: { ...(doc().job.allowances ?? doc().firm.allowances), overhangMm: 41 } });
    search.asked.slice(0, 1).forEach(({ input, report }) => report(layPiecesOnRolls(input, 0), true));
    await new Promise((r) => setTimeout(r, 30));
    expect(api.drafts.slice(count).filter((d) => d.label === 'Lay pieces on the roll')).toHaveLength(0);
  });

  test('a change that is taken back while its search was at work: the search that ended for nothing is made again, and its plan is stored', async () => {
    const job = () => doc().job;
    const overhang = (overhangMm: number) =>
      record().set('gap', 'job', job().id, { allowances: { ...(job().allowances ?? doc().firm.allowances), overhangMm } });
    search.isHeld = true;
    await overhang(41);
    TestBed.tick();
    await until(() => search.asked.some((a) => a.input.filmId === filmId()));
    const [first] = search.asked.filter((a) => a.input.filmId === filmId());
    first!.report(layPiecesOnRolls(first!.input, 0), false);
    expect(shown()).toMatchObject({ running: true, stored: null });
    const hash = shown().hash;
    // another figure, which nobody has asked the search of yet; the first one ends for nothing
    await overhang(42);
    await until(() => plans().inputs().get(filmId())!.hash !== hash);
    first!.report(layPiecesOnRolls(first!.input, 0), true);
    await new Promise((r) => setTimeout(r, 30));
    search.isHeld = false;
    await overhang(41);
    TestBed.tick();
    await until(() => shown().stored !== null && shown().hash === hash);
    expect(newest().inputHash).toBe(hash);
  });
});

test('overtaken is a search only by a plan that was committed since it began', () => {
  const [draft, other] = [
    { id: 'a', status: 'draft' },
    { id: 'b', status: 'committed' },
  ] as Plan[];
  const since = (beside: Plan | undefined, now: Plan | undefined) => isOvertaken({ stored: null, beside }, now);
  expect(since(draft, draft)).toBe(false);
  expect(since(draft, { ...draft!, status: 'committed' })).toBe(true);
  expect(since(draft, other)).toBe(true);
  expect(since(undefined, other)).toBe(true);
  expect(since(other, other)).toBe(false);
  expect(since(draft, undefined)).toBe(false);
  expect(isOvertaken({ stored: other!, beside: draft }, other)).toBe(false);
});

test('a tick and its correction are two lines of the log, on the same step of the same plan', () => {
  const plan = { id: 'plan', jobId: 'job' } as Plan;
  const at = (isDone: boolean) => tickPatch(plan, 'R1/0/cut', isDone, { personId: 'p', id: 'e', at: 'now' }) as { value: Record<string, unknown> };
  expect(at(true).value).toMatchObject({ kind: 'cut-done', planId: 'plan', stepKey: 'R1/0/cut', jobId: 'job' });
  expect(at(false).value).toMatchObject({ kind: 'cut-undone', planId: 'plan', stepKey: 'R1/0/cut' });
});
