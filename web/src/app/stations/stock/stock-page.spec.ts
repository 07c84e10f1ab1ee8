import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import type { BenchDocument, ChangeAnswer, Sent } from '@yellow-pane/contracts';
import { Api, ApiProblem } from '../../record/api';
import { FakeApi } from '../../record/fake-api.testing';
import { applyBenchPatches } from '../../record/updaters';
import { StockPage } from './stock-page';

/** The bench's own records, kept as the server keeps them. */
class FakeBench extends FakeApi {
  benchDoc: BenchDocument | null = null;
  readonly sent: { csv: string; same: string }[] = [];
  override bench = async (): Promise<BenchDocument> => {
    this.benchDoc ??= { revision: 1, firm: this.doc.firm, persons: this.doc.persons, films: this.doc.films, rolls: this.doc.rolls, stock: this.doc.stock, rates: [], quotes: [], stepSets: [], panesWithFilm: {}, canUndo: null, canRedo: null }; // prettier-ignore
    return this.benchDoc;
  };
  override change = async ({ body: draft }: Sent<'change'>): Promise<ChangeAnswer> => {
    this.drafts.push(draft);
    this.benchDoc = applyBenchPatches(this.benchDoc!, draft.patches);
    return { change: { patches: draft.patches, revision: 2, label: draft.label } as never, canUndo: draft.label, canRedo: null };
  };
  importStock = async ({ body: csv, query: { same = 'ask' } }: Sent<'importStock'>) => {
    this.sent.push({ csv, same });
    if (same === 'ask') throw new ApiProblem('rolls-known', 'Some are here.', [{ path: 'S-114', message: '' }]);
    return { added: 0, counted: 1, skipped: 0 };
  };
}

let api: FakeBench;
let fixture: ComponentFixture<StockPage>;
const root = () => fixture.nativeElement as HTMLElement;
const text = (where = 'main') => root().querySelector(where)?.textContent.replace(/\s+/g, ' ') ?? '';
const button = (words: string) => [...root().querySelectorAll('button')].find((b) => b.textContent.replace(/\s+/g, ' ').trim() === words)!;
const field = (name: string) =>
  [...root().querySelectorAll('label')]
    .find((l) => l.textContent.replace(/\s+/g, ' ').trim().startsWith(name))!
    .querySelector<HTMLInputElement>('input,select')!;
const settle = async () => {
  for (let i = 0; i < 3; i++) {
    await fixture.whenStable();
    await new Promise((r) => setTimeout(r, 5));
  }
  fixture.detectChanges();
};
const press = async (words: string) => {
  button(words).click();
  await settle();
};
const submit = async (within: string) => {
  root().querySelector(`${within} form`)!.dispatchEvent(new Event('submit'));
  await settle();
};
const pick = (name: string, file: File) => {
  const box = field(name);
  Object.defineProperty(box, 'files', { value: [file], configurable: true });
  box.dispatchEvent(new Event('change'));
};

beforeEach(async () => {
  localStorage.clear();
  sessionStorage.clear();
  api = new FakeBench();
  TestBed.configureTestingModule({ providers: [provideRouter([]), { provide: Api, useValue: api }] });
  fixture = TestBed.createComponent(StockPage);
  await settle();
});

describe('Stock', () => {
  test('films together, each with its metres free and its leftovers; a length by diameter says how sure it is', () => {
    expect(text('[aria-label="Tern Shade 35"] h2')).toMatch(/42\.2 m of roll free, 3 leftovers/);
    expect(text('[data-stock="S-091"]')).toContain('7.97 ± 0.4 m');
    expect(text('[data-stock="S-102/1"]')).toContain('905 wide × 1340 long');
  });
  test('on a bench of inches: feet, inches, a price for a foot; what is typed so is kept in metres', async () => {
    api.benchDoc = { ...api.benchDoc!, firm: { ...api.benchDoc!.firm, units: 'in' } };
    fixture = TestBed.createComponent(StockPage);
    await settle();
    expect(text('[aria-label="Tern Shade 35"] h2')).toMatch(/138\.\d ft of roll free/);
    expect(text('[data-stock="S-091"]')).toMatch(/26\.1 ± 1\.4 ft/);
    expect(text('[data-stock="S-114"]')).not.toMatch(/\d m\b|mm|metre/i);
    await press('S-114');
    field('Feet on it').value = '70';
    field('Why').value = 'counted';
    await submit('[data-stock="S-114"]');
    await settle();
    const { value } = api.drafts.at(-1)!.patches[0] as { value: { lengthMm: number } };
    expect(value.lengthMm).toBeCloseTo(70 * 304.8 - 21_800, 0);
    const price = field('Per foot');
    expect(Number(price.value)).toBeCloseTo(13.6 * 0.3048, 2);
    price.value = '5';
    price.dispatchEvent(new Event('change'));
    await settle();
    expect(api.drafts.at(-1)!.patches[0]).toMatchObject({ field: 'pricePerM', value: '16.4042' });
  });
  test('found by what is written on the label', async () => {
    const find = root().querySelector<HTMLInputElement>('input[type=search]')!;
    find.value = 'leftover tube';
    find.dispatchEvent(new Event('input'));
    await settle();
    expect(root().querySelectorAll('[data-stock]')).toHaveLength(5);
    find.value = 'nothing like it';
    find.dispatchEvent(new Event('input'));
    await settle();
    expect(text()).toContain('Nothing is called that');
  });
  test('put right with a reason; without one nothing is booked', async () => {
    await press('S-114');
    field('Metres on it').value = '21.2';
    await submit('[data-stock="S-114"]');
    expect(text('[role=alert]')).toContain('Say why');
    expect(api.drafts).toHaveLength(0);
    field('Why').value = 'end was creased';
    await submit('[data-stock="S-114"]');
    expect(api.drafts[0]!.patches[0]).toMatchObject({ kind: 'stockEntry', value: { kind: 'correction', reason: 'end was creased' } });
    expect(text('[data-stock="S-114"]')).toContain('21.20 m');
  });
  test('a label that another roll carries is refused; a place is simply set', async () => {
    await press('S-114');
    const label = field('Label');
    label.value = 'S-108';
    label.dispatchEvent(new Event('change'));
    await settle();
    expect(text('[role=alert]')).toContain('There is another roll called S-108');
    const place = field('Place');
    place.value = 'Shop';
    place.dispatchEvent(new Event('change'));
    await settle();
    expect(api.drafts.map((d) => d.label)).toEqual(['S-114: place']);
  });
  test('a stock take: seen, counted, booked as one edit; a label nobody knows is told', async () => {
    await press('Stock take');
    const scan = field('Scan or type a label');
    for (const label of ['YP:F-207', 's-114', 'S-114', 'Q-1']) {
      scan.value = label;
      await submit('[data-stock-take]');
    }
    expect(text('[role=alert]')).toContain('No roll or leftover is called Q-1');
    expect(root().querySelectorAll('[data-stock-take] li')).toHaveLength(2);
    expect(text('[data-stock-take]')).toContain('Not seen yet: 10');
    const counted = [...root().querySelectorAll<HTMLInputElement>('[data-stock-take] li input')];
    counted[0]!.value = '22';
    counted[0]!.dispatchEvent(new Event('change'));
    await settle();
    await (root().querySelectorAll('[data-stock-take] form')[1]!.dispatchEvent(new Event('submit')), settle());
    expect(api.drafts[0]!.patches).toEqual([
      expect.objectContaining({ value: expect.objectContaining({ kind: 'count', lengthMm: -400, reason: 'Stock take' }) }),
    ]);
    expect(root().querySelector('[data-stock-take]')).toBeNull();
  });
  test('a file with labels that are here: asked what it says of them, then it is a count', async () => {
    // a file as a browser hands it over; here it cannot be made
    pick('CSV in', { text: async () => 'label,film\nS-114,Tern Shade 35' } as File);
    await settle();
    await settle();
    expect(text('[role=alertdialog]')).toContain('Already here: S-114');
    await press('It is a count: book the differences');
    expect(api.sent.map((s) => s.same)).toEqual(['ask', 'count']);
    expect(text('[role=alert]')).toContain('1 were counted');
  });
  test('a leftover put on the rack counts for the firm’s share of new film', async () => {
    await press('A roll or leftover');
    const set = (name: string, value: string) => {
      const box = field(name);
      box.value = value;
      box.dispatchEvent(new Event('change'));
    };
    set('What', 'leftover');
    set('Film', api.doc.films[0]!.id);
    await settle();
    for (const [name, value] of [['Label', 'S-130/1'], ['Width', '762'], ['Length', '1500']] as const) set(name, value); // prettier-ignore
    root().querySelector('form')!.dispatchEvent(new Event('submit'));
    await settle();
    // 8.90 a square metre on the roll, 762 mm wide, two fifths of it
    expect(Number((api.drafts[0]!.patches[0] as { value: { pricePerM: string } }).value.pricePerM)).toBeCloseTo(8.9 * 0.762 * 0.4, 2);
  });
});
