import { panesIn } from '../../../../../demo/src/index';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import { remainingMm } from '@yellow-pane/core';
import type { Plan } from '@yellow-pane/contracts';
import { LayoutSearch } from '../../compute/layout-search';
import { LayoutSearchInPlace } from '../../compute/layout-search.testing';
import { Api } from '../../record/api';
import { FakeApi } from '../../record/fake-api.testing';
import { PlansStore } from '../../record/plans.store';
import { RecordStore } from '../../record/record.store';
import { CutPage } from './cut-page';

let api: FakeApi;
let fixture: ComponentFixture<CutPage>;
const root = () => fixture.nativeElement as HTMLElement;
const text = (where = '') => (where ? root().querySelector(where)?.textContent : root().textContent)?.replace(/\s+/g, ' ') ?? '';
const button = (words: string, where = '') =>
  [...root().querySelectorAll<HTMLButtonElement>(`${where} button`)].find((b) => b.textContent.replace(/\s+/g, ' ').includes(words))!;
const field = (name: string) =>
  [...root().querySelectorAll('label')].find((l) => l.textContent.replace(/\s+/g, ' ').trim().startsWith(name))!.querySelector('input')!;
const type = (box: HTMLInputElement, value: string) => {
  box.value = value;
  box.dispatchEvent(new Event('change'));
};
/** Short: what is shown follows. Without a time: until every film's plan is stored, or told to be stale. */
const settle = async (ms?: number) => {
  await new Promise((r) => setTimeout(r, ms ?? 320));
  for (let i = 0; ms === undefined && i < 100 && !isLaid(); i++) await new Promise((r) => setTimeout(r, 50));
  await fixture.whenStable();
  fixture.detectChanges();
};
const isLaid = () => [...plans().inputs()].every(([id, input]) => {
  const plan = plans().byFilm()[id];
  return input.pieces.length === 0 || (plan && plan.stored !== null && (plan.hash === input.hash || plan.stored.status === 'committed'));
}); // prettier-ignore
const record = () => TestBed.inject(RecordStore);
const plans = () => TestBed.inject(PlansStore);
const pane = (name: string) => panesIn(record().doc()!).find((s) => s.name === name)!;
const roll = (label: string) =>
  record()
    .doc()!
    .rolls.find((r) => r.label === label)!;
const tab = async (name: string) => {
  button(name, '[role=tablist]').click();
  await settle(20);
};
async function at(name: string): Promise<void> {
  record().select(pane(name).id);
  await settle();
}

beforeEach(async () => {
  localStorage.clear();
  sessionStorage.clear();
  api = new FakeApi();
  TestBed.configureTestingModule({
    providers: [provideRouter([]), { provide: Api, useValue: api }, { provide: LayoutSearch, useClass: LayoutSearchInPlace }],
  });
  await record().open(api.doc.job.id);
  fixture = TestBed.createComponent(CutPage);
  await at('O1');
});

describe('Cut: one film on its rolls', () => {
  test('each roll says how much of it the plan takes, its lot and which face lies up', () => {
    const line = text('[data-roll="B-031"]');
    expect(line).toMatch(/Roll B-031\s*lot L2511-C\s*lies film up\s*4\.\d\d of 18\.00 m/);
    expect(text('[data-knife-order]')).toContain('from the far edge');
  });

  test('what of the film is no piece: a pane that the roll has no room for is no piece on it', async () => {
    await record().set('hardly anything left', 'roll', roll('B-031').id, { lengthM: 2.6 });
    await settle();
    const { layout, pieces } = plans().byFilm()[roll('B-031').filmId]!;
    expect(layout.unplaced.length).toBeGreaterThan(0);
    const laid = pieces.filter((p) => !layout.unplaced.some((u) => u.pieceId === p.id));
    const wasteM2 = (layout.usedMm * roll('B-031').widthMm - laid.reduce((s, p) => s + p.widthMm * p.heightMm, 0)) / 1e6;
    expect(wasteM2).toBeGreaterThan(0.1);
    expect(text()).toContain(`${wasteM2.toFixed(1)} m² of it is no piece`);
  });

  test('beside the longest pull stands what it costs on this film', async () => {
    expect(text('[data-pull-cost]')).toBe('Pulls twice as long would save about €4.20 on this film.');
    const search = TestBed.inject(LayoutSearch) as unknown as LayoutSearchInPlace;
    search.pullCost = async () => 0.4;
    await at('A1');
    expect(root().querySelector('[data-pull-cost]')).toBeNull();
    search.pullCost = async () => null;
    await at('W1');
    expect(text('[data-pull-cost]')).toContain('would take pieces that this bench has no room for');
  });

  test('promised, taken, and taken back: the book says so each time', async () => {
    button('Promise', '[data-roll="B-031"]').click();
    await settle(40);
    expect(record().doc()!.stock.reservations).toHaveLength(1);
    expect(text('[data-roll="B-031"]')).toMatch(/Promised 4\.\d\d m: lift/);
    button('Take off the stock').click();
    await settle(40);
    expect(text('[data-roll="B-031"]')).toContain('taken off the stock');
    expect(record().doc()!.stock.reservations).toHaveLength(0);
    expect(remainingMm(roll('B-031'), record().doc()!.stock.entries)).toBeLessThan(14_000);
    expect(roll('B-031/1').form).toBe('leftover');
    // its own leftovers make no other plan of it
    await settle();
    expect(plans().byFilm()[roll('B-031').filmId]!.isStale).toBe(false);
  });

  test('the first tick takes the film off too; a roll that is still to be ordered cannot be cut', async () => {
    button('Cut made').click();
    await settle(60);
    expect(
      record()
        .doc()!
        .entries.map((e) => e.kind),
    ).toEqual(['cut-done']);
    expect(
      record()
        .doc()!
        .plans.find((p) => p.filmId === roll('B-031').filmId)!.status,
    ).toBe('committed');
    await at('A1');
    await record().set('to order', 'roll', roll('R-012').id, { isToOrder: true });
    await settle();
    expect(text('[data-roll="R-012"]')).toContain('still to be ordered');
    button('Cut made').click();
    await settle(60);
    expect(text()).toContain('R-012 still has to be ordered');
    expect(record().doc()!.entries).toHaveLength(1);
  });

  test('measured again after the commit: told pane by pane, and nothing moves until it is planned anew', async () => {
    button('Take off the stock').click();
    await settle(40);
    const before = plans().byFilm()[roll('B-031').filmId]!.layout;
    const reading = record()
      .doc()!
      .readings.find((r) => r.surfaceId === pane('O4').id && r.measure === 'widthLargest')!;
    await record().change('again', [{ op: 'add', kind: 'reading', id: 'again', value: { ...reading, id: 'again', lengthMm: 640, supersedesId: reading.id } }]);
    await settle();
    expect(text('[data-replan]')).toMatch(/O4: \d+ × 1185 is now 695 × 1185/);
    expect(plans().byFilm()[roll('B-031').filmId]!.layout).toEqual(before);
    button('Plan what is not cut anew').click();
    await settle();
    expect(root().querySelector('[data-replan]')).toBeNull();
    expect(plans().byFilm()[roll('B-031').filmId]!.stored!.status).toBe('draft');
  });

  test('committed, and then no pane has this film any more: its plan and its rolls stay in sight, and what is not wanted is said', async () => {
    button('Take off the stock').click();
    await settle(40);
    const { filmId } = roll('B-031');
    const before = plans().byFilm()[filmId]!.layout;
    const panes = panesIn(record().doc()!).filter((s) => s.filmId === filmId); // prettier-ignore
    await record().change(
      'Another film',
      panes.map((s) => ({ op: 'set', kind: 'surface', id: s.id, field: 'filmId', value: null })),
    );
    await at('W1');
    button('Breakwater 200').click();
    await settle();
    expect(plans().byFilm()[filmId]!.layout).toEqual(before);
    expect(text('[data-replan]')).toContain('O1 is not wanted any more');
    expect(text('[data-roll="B-031"]')).toContain('taken off the stock');
  });

  test('film that is missing is said before the cut, with what it is sold in', async () => {
    await record().set('short', 'roll', roll('B-031').id, { lengthM: 2.1 });
    await settle();
    expect(text('[data-shortage]')).toMatch(/\d\.\d m of 1829 are missing, for O/);
    button('Plan on a new roll of 1829').click();
    await settle();
    expect(root().querySelector('[data-shortage]')).toBeNull();
    expect(roll('to order 1')).toMatchObject({ isToOrder: true, widthMm: 1829 });
  });
});

describe('Cut: seams, designs, cost, the piece in hand', () => {
  test('a pane wider than its film: ways to piece it together, the chosen one makes two pieces', async () => {
    await at('G2');
    expect(text()).toContain('it needs a seam');
    await tab('Seams');
    expect(text('[data-seams]')).toContain('Upright, two equal strips');
    button('Upright, two equal strips').click();
    await settle();
    expect(pane('G2').seam).toMatchObject({ kind: 'double-cut', direction: 'upright' });
    expect(text()).toContain('G2 left');
    button('No seam on this pane').click();
    await settle();
    expect(pane('G2').seam).toBeNull();
  });
  test('a pane that fits needs none, and says so', async () => {
    await at('W1');
    await tab('Seams');
    expect(text()).toContain('W1 fits a roll in one piece');
  });
  test('a design by its heights on the whole row; what does not read is said and nothing changes', async () => {
    await at('M2');
    await tab('Design');
    expect(text('[data-design-figures]')).toMatch(/6\d % of the glass is frosted.*Light let in 7\d % \(bare 8\d %, frosted all over 6\d %; ±3\)/);
    type(field('band 4 to'), '2100');
    await settle();
    expect((['M1', 'M6'] as const).map((n) => pane(n).design)).toEqual([pane('M2').design, pane('M2').design]);
    const before = pane('M2').design;
    type(field('band 4 to'), '100');
    await settle(40);
    expect(text('[role=alert]')).toContain('The top of a band lies above its bottom');
    expect(pane('M2').design).toEqual(before);
  });
  test('door marks are plotted, a sheet for each height, and go out as HP-GL and DXF', async () => {
    await at('Door');
    await tab('Design');
    expect(text()).toMatch(/Door marks 1: \d+ paths, \d+\.\d m under the knife/);
    expect([...root().querySelectorAll('a[download]')].map((a) => a.getAttribute('href')!.split('/').at(-1))).toEqual([
      'plot.hpgl',
      'plot.dxf',
      'plot.hpgl',
      'plot.dxf',
    ]);
  });
  test('designs are for frosted films; elsewhere it says so', async () => {
    await tab('Design');
    expect(text()).toContain('Breakwater 200 is laid all over');
  });
  test('cost: film, waste, minutes and leftovers, and every pane its share', async () => {
    await tab('What it costs');
    expect(text('[data-cost]')).toMatch(/Film4\.\d\d m taken€1\d\d\.\d\d of it waste.*Leftovers kept.*In all/);
    expect(text()).toContain('Price per pane');
  });
  test('the piece in hand names its pane, or misses by so much', async () => {
    await tab('Piece in hand');
    const [a, b] = [field('One side'), field('and the other')];
    a.value = '1183';
    b.value = '613';
    root().querySelector('form')!.dispatchEvent(new Event('submit'));
    await settle(20);
    expect(text('[data-in-hand] li')).toBe(' O4: 613 level, 1183 upright. '.trim());
    b.value = 'wide';
    root().querySelector('form')!.dispatchEvent(new Event('submit'));
    await settle(20);
    expect(text('[role=alert]')).toContain('does not read');
  });
});

describe('Cut: pieces moved by hand', () => {
  const filmId = () => roll('R-012').filmId;
  test('by key onto a drop of its own: stored, locked, and the price said', async () => {
    await at('A2');
    const piece = [...root().querySelectorAll('[data-piece]')].find((p) => p.textContent.includes('A2'))!;
    piece.dispatchEvent(new KeyboardEvent('keydown', { key: 'End', shiftKey: true, bubbles: true }));
    await settle();
    expect(text('[data-move-note]')).toMatch(/Moved and locked: takes 1\.\d\d m, \+€/);
    const plan = record()
      .doc()!
      .plans.filter((p) => p.filmId === filmId())
      .at(-1) as Plan;
    expect(plan.lockedPieceIds).toEqual([pane('A2').id]);
    expect(plan.layout.rolls.find((r) => r.rollId === roll('R-012').id)!.drops).toHaveLength(2);
  });
  test('where it cannot go it stays, with the reason', async () => {
    await at('A1');
    expect(plans().tryMove(filmId(), pane('A1').id, { rollId: roll('R-012').id, dropIndex: 7 })).toMatchObject({ ok: false });
    expect(await plans().move(filmId(), pane('A1').id, { rollId: roll('R-012').id, dropIndex: null, isTurned: true })).toContain('cannot lie turned');
  });
});
