import { TestBed } from '@angular/core/testing';
import type { Panel } from '@yellow-pane/contracts';
import { planRecess, type RecessPlan, type RecessResult } from '@yellow-pane/core/form';
import type { RecessForm } from '@yellow-pane/core/measure';
import { RecessSearch } from '../../../compute/recess-search';
import { Api } from '../../../record/api';
import { FakeApi } from '../../../record/fake-api.testing';
import { interiorDocument } from '../../../record/interior-document.testing';
import { RecordStore } from '../../../record/record.store';
import { RecessCard } from './recess-card';

/** What the worker does, step by step as the test lets it. */
class Search {
  readonly asked: RecessForm[] = [];
  private readonly goes: (() => void)[] = [];
  plan(form: RecessForm, limitFrac: number | null, seen: (r: RecessResult) => void): Promise<RecessPlan> {
    this.asked.push(form);
    // a shallow one of the same kind, so that nobody waits for it
    const run = planRecess({ acrossMm: 60, upMm: 80, depthMm: 4, slopeMm: 6, cornerMm: 15 }, limitFrac);
    return new Promise((done) => {
      this.goes.push(() => {
        for (;;) {
          const next = run.next();
          if (next.done) return done(next.value);
          seen(next.value);
        }
      });
    });
  }
  first(): void {
    this.goes.shift()!();
  }
}
let search: Search;
let leaf: Panel;
/** @param stretchMaxPct of the film of the leaf */
async function open(stretchMaxPct: number | null): Promise<void> {
  localStorage.clear();
  search = new Search();
  const api = new FakeApi();
  const doc = interiorDocument();
  api.doc = { ...doc, films: doc.films.map((f) => ({ ...f, stretchMaxPct })) };
  TestBed.configureTestingModule({
    providers: [
      { provide: Api, useValue: api },
      { provide: RecessSearch, useValue: search },
    ],
  });
  const record = TestBed.inject(RecordStore);
  await record.open(api.doc.job.id);
  leaf = record.doc()!.surfaces.find((s) => s.name === 'Archive door, left') as Panel;
}
function card() {
  const fixture = TestBed.createComponent(RecessCard);
  fixture.componentRef.setInput('surface', leaf);
  fixture.detectChanges();
  const root = fixture.nativeElement as HTMLElement;
  const settle = async () => {
    await fixture.whenStable();
    fixture.detectChanges();
  };
  return { fixture, root, settle, text: (where: string) => (root.querySelector(where)?.textContent ?? '').replace(/\s+/g, ' ').trim() };
}

test('the deepest recess is asked for first; until it is known that is said, then what hands do, the map, and what other orders cost', async () => {
  await open(30);
  const { root, settle, text } = card();
  expect(search.asked[0]).toMatchObject({ depthMm: 14, upMm: 980 });
  expect(text('[role=status]')).toContain('Laying film into it');
  expect(root.querySelector('yp-stretch-map')).toBeNull();
  search.first();
  await settle();
  expect(text('[data-stretch-headline]')).toMatch(/^It goes in one piece: (under )?\d+ % at most/);
  expect(root.querySelectorAll('ol li').length).toBeGreaterThan(2);
  expect(root.querySelectorAll('yp-stretch-map path').length).toBeGreaterThan(2);
  const orders = [...root.querySelectorAll<HTMLElement>('button[aria-pressed]')].filter((b) => b.textContent.includes('%'));
  expect(orders.length).toBeGreaterThanOrEqual(4);
  expect(orders.filter((b) => b.textContent.includes('✓'))).toHaveLength(1);
  // another order is looked at: its own map and figure
  const other = orders.find((b) => b.textContent.includes('on the field'))!;
  other.click();
  await settle();
  expect(text('p.text-sm')).toContain('tacked round about and on the field');
  expect(other.getAttribute('aria-pressed')).toBe('true');
});
test('an order that somebody wants stays with the job, and what it costs is said; the best one again is no choice', async () => {
  await open(30);
  const { fixture, root, settle, text } = card();
  search.first();
  await settle();
  const kept = () =>
    (
      TestBed.inject(RecordStore)
        .doc()!
        .surfaces.find((s) => s.id === leaf.id) as Panel
    ).recesses;
  const look = async (name: string) => {
    [...root.querySelectorAll<HTMLElement>('button[aria-pressed]')].find((b) => b.textContent.includes(name))!.click();
    await settle();
  };
  const choose = async () => {
    root.querySelector<HTMLButtonElement>('[data-choose-way]')!.click();
    await settle();
    fixture.componentRef.setInput(
      'surface',
      TestBed.inject(RecordStore)
        .doc()!
        .surfaces.find((s) => s.id === leaf.id),
    );
    await settle();
  };
  expect(root.querySelector('[data-choose-way]')).toBeNull();
  await look('on the field');
  await choose();
  expect(kept().map((r) => r.way)).toEqual([null, 'field-first']);
  expect(search.asked).toHaveLength(1);
  expect(text('ol')).toContain('press it down from its middle outwards');
  expect(text('[data-recess-card]')).toContain('This order was chosen here');
  await look('(least)');
  await choose();
  expect(kept().map((r) => r.way)).toEqual([null, null]);
  expect(text('[data-recess-card]')).not.toContain('This order was chosen here');
});
test('an answer that comes after another recess was chosen is not shown for it', async () => {
  await open(30);
  const { root, settle, text } = card();
  [...root.querySelectorAll('button')].find((b) => b.textContent.trim() === '1')!.click();
  await settle();
  expect(search.asked[1]).toMatchObject({ depthMm: 8, upMm: 620 });
  search.first();
  await settle();
  expect(text('[role=status]')).toContain('Laying film into it');
  search.first();
  await settle();
  expect(text('[data-stretch-headline]')).toContain('at most');
});
test('a film whose maker’s figure nobody knows gets the figure and no verdict', async () => {
  await open(null);
  const { settle, text } = card();
  search.first();
  await settle();
  expect(text('[data-stretch-headline]')).toContain('is not in the library');
});
