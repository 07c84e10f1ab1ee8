import { panesIn } from '../../../../demo/src/index';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { LayoutSearch } from '../compute/layout-search';
import { LayoutSearchInPlace } from '../compute/layout-search.testing';
import { Api } from '../record/api';
import { FakeApi } from '../record/fake-api.testing';
import { interiorDocument } from '../record/interior-document.testing';
import { RecordStore } from '../record/record.store';
import { Rooms } from './rooms';

let api: FakeApi;
let fixture: ComponentFixture<Rooms>;
const root = () => fixture.nativeElement as HTMLElement;
const paneButton = (name: string) => root().querySelector<HTMLButtonElement>(`[data-surface="${name}"]`)!;
const namesIn = (room: number) => [...root().querySelectorAll('section')[room]!.querySelectorAll('[data-surface]')].map((b) => b.getAttribute('data-surface'));
/** Until every pane is surveyed and drawn: they are a slice at a time. */
const settle = async () => {
  do {
    await new Promise((r) => setTimeout(r));
    await fixture.whenStable();
    fixture.detectChanges();
  } while (root().querySelector('[aria-label*="being worked out"]'));
};
const press = (text: string) => [...root().querySelectorAll('button')].find((b) => b.textContent.trim() === text)!.click();

beforeEach(async () => {
  localStorage.clear();
  api = new FakeApi();
  TestBed.configureTestingModule({
    providers: [
      { provide: Api, useValue: api },
      { provide: LayoutSearch, useClass: LayoutSearchInPlace },
    ],
  });
  await TestBed.inject(RecordStore).open(api.doc.job.id);
  fixture = TestBed.createComponent(Rooms);
  await settle();
});

describe('the rooms', () => {
  test('every pane of the walk is drawn once, in true proportion, and says how far it has come', () => {
    expect(root().querySelectorAll('[data-surface]')).toHaveLength(60);
    const w1 = paneButton('W1').querySelector('span')!;
    expect(parseFloat(w1.style.height) / parseFloat(w1.style.width)).toBeCloseTo(2046 / 1184, 2);
    expect(paneButton('Toilet 2').getAttribute('aria-label')).toContain('tapes disagree');
    expect(paneButton('Toilet 4').getAttribute('aria-label')).toContain('no film');
  });

  test('a tap picks the pane', async () => {
    paneButton('O3').click();
    await settle();
    expect(TestBed.inject(RecordStore).surface()!.name).toBe('O3');
    expect(paneButton('O3').getAttribute('aria-current')).toBe('true');
  });

  test('dragging a pane puts it there in the walk, and only its row changes', async () => {
    const drawn = (fixture.componentInstance as unknown as { drawn: () => { rows: { surface: { name: string } }[][] }[] }).drawn()[1]!;
    const before = namesIn(1);
    expect(before.slice(0, 3)).toEqual(['O1', 'O2', 'O3']);
    await (fixture.componentInstance as unknown as { reorder: (p: unknown, row: unknown, e: { from: number; to: number }) => Promise<void> }).reorder(
      drawn,
      drawn.rows[0],
      { from: 0, to: 2 },
    );
    await settle();
    expect(namesIn(1)).toEqual(['O2', 'O3', 'O1', ...before.slice(3)]);
    expect(api.drafts.at(-1)!.patches.every((p) => p.op === 'set' && p.field === 'order')).toBe(true);
    expect(api.drafts.at(-1)!.patches).toHaveLength(3);
  });

  test('a room is renamed where its name stands; Escape leaves it', async () => {
    const name = () => root().querySelectorAll('section')[1]!.querySelector('h2')!;
    name().querySelector('button')!.click();
    await settle();
    const box = name().querySelector('input')!;
    box.value = 'Tickets';
    box.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter' }));
    await settle();
    expect(name().textContent).toContain('Tickets');
    name().querySelector('button')!.click();
    await settle();
    name().querySelector('input')!.value = 'Nonsense';
    name()
      .querySelector('input')!
      .dispatchEvent(new KeyboardEvent('keydown', { key: 'Escape' }));
    await settle();
    expect(name().textContent).toContain('Tickets');
    expect(api.drafts.filter((d) => d.label === 'Rename a room')).toHaveLength(1);
  });

  test('a sign is known by where its lines stand: two of letters and an arrow at its right', async () => {
    api.doc = interiorDocument();
    await TestBed.inject(RecordStore).open(api.doc.job.id);
    await settle();
    const bars = [...paneButton('Gate canvas').querySelectorAll<HTMLElement>('[data-bar]')].map((b) => b.style);
    expect(bars).toHaveLength(3);
    const [name, departures, arrow] = bars.map((s) => ({ left: parseFloat(s.left), top: parseFloat(s.top), right: parseFloat(s.left) + parseFloat(s.width) }));
    expect((name!.left + name!.right) / 2).toBeCloseTo(50, 0);
    expect(name!.top).toBeLessThan(departures!.top);
    expect([departures!.left < 20, arrow!.right > 80, arrow!.left > departures!.right]).toEqual([true, true, true]);
    expect(paneButton('Round table').querySelectorAll('[data-bar]')).toHaveLength(0);
  });

  test('one like it shares the tapes of the pane it is like', async () => {
    paneButton('H3').click();
    press('One like it');
    await settle();
    const added = TestBed.inject(RecordStore).pane()!;
    expect(added.measuredLikeId).toBe(panesIn(api.doc).find((s) => s.name === 'H3')!.id);
    expect([added.extraPieces, added.signed, added.grid]).toEqual([[], null, null]);
    expect(paneButton(added.name).getAttribute('aria-label')).toContain('measured');
  });

  test('bars r × c make a field of equal panes in one edit', async () => {
    paneButton('H1').click();
    press('Bars r × c');
    await settle();
    root().querySelector('form')!.dispatchEvent(new Event('submit'));
    await settle();
    const draft = api.drafts.at(-1)!;
    expect(draft.patches.filter((p) => p.op === 'add')).toHaveLength(5);
    const grid = panesIn(api.doc)
      .filter((s) => s.grid && s.name.startsWith('H1'))
      .map((s) => [s.grid!.row, s.grid!.column]);
    expect(grid).toEqual([
      [0, 0],
      [0, 1],
      [0, 2],
      [1, 0],
      [1, 1],
      [1, 2],
    ]);
  });

  test('finding narrows the walk to what is typed', async () => {
    fixture.componentInstance.focusFind();
    await settle();
    const box = root().querySelector<HTMLInputElement>('input[type=search]')!;
    box.value = 'toilet';
    box.dispatchEvent(new Event('input'));
    await settle();
    expect([...root().querySelectorAll('[data-surface]')].map((b) => b.getAttribute('data-surface'))).toEqual(['Toilet 1', 'Toilet 2', 'Toilet 3', 'Toilet 4']);
  });
});
