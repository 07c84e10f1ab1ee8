import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { demoFirm, demoPersons, ternInterior } from '../../../../../demo/src/index';
import { Api } from '../../record/api';
import { FakeApi } from '../../record/fake-api.testing';
import { RecordStore } from '../../record/record.store';
import { ColumnPage } from './column-page';

const emptyStock = { entries: [], reservations: [], jobNames: {} };
let api: FakeApi;
let fixture: ComponentFixture<ColumnPage>;
const settle = async () => {
  for (let i = 0; i < 4; i++) {
    await fixture.whenStable();
    fixture.detectChanges();
  }
};
const root = () => fixture.nativeElement as HTMLElement;
const field = (key: string) => root().querySelector<HTMLInputElement>(`[data-measure="${key}"] input`)!;
const verdict = () => root().querySelector('[data-verdict]')!.textContent!.replace(/\s+/g, ' ');
async function type(key: string, text: string): Promise<void> {
  field(key).value = text;
  field(key).dispatchEvent(new Event('input'));
  field(key).dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter' }));
  await settle();
}

beforeEach(async () => {
  localStorage.clear();
  api = new FakeApi();
  api.doc = { revision: 1, firm: demoFirm, persons: demoPersons, ...ternInterior(), stock: emptyStock, canUndo: null, canRedo: null } as never;
  TestBed.configureTestingModule({ providers: [{ provide: Api, useValue: api }] });
  await TestBed.inject(RecordStore).open(api.doc.job.id);
  TestBed.inject(RecordStore).select(api.doc.surfaces.find((s) => s.name === 'Column 1')!.id);
  fixture = TestBed.createComponent(ColumnPage);
  await settle();
});

describe('Measure, of a column', () => {
  test('shows its tapes where they were taken, and marks the one that is suspected', () => {
    expect(['girthTop', 'girthMiddle', 'girthFoot'].map((k) => field(k).value)).toEqual(['1225', '1214', '1257']);
    expect(verdict()).toContain('would be 1241 (looks like digits swapped)');
    expect(field('girthMiddle').className).toContain('bg-tint');
    expect(field('girthTop').className).not.toContain('bg-tint');
    expect(root().querySelector('[data-cut-note]')!.textContent).toContain('covers every explanation');
  });
  test('a tape taken again settles it; it supersedes the old one, which stays in the record', async () => {
    await type('girthMiddle', '1241');
    expect(verdict()).toContain('The tapes agree');
    const all = api.doc.readings.filter((r) => r.measure === 'girthMiddle' && r.surfaceId === TestBed.inject(RecordStore).selectedId());
    expect(all.map((r) => r.typed)).toEqual(['1214', '1241']);
    expect(all[1]!.supersedesId).toBe(all[0]!.id);
  });
  test('what no column has is asked about first, what does not read is kept and said', async () => {
    await type('girthTop', '12');
    expect(root().textContent).toContain('That is a column of 12');
    await type('girthTop', 'a lot');
    expect(field('girthTop').getAttribute('aria-invalid')).toBe('true');
    expect(field('girthTop').value).toBe('a lot');
    expect(api.doc.readings.filter((r) => r.measure === 'girthTop' && r.typed !== '1225' && r.typed !== '1257' && r.typed !== '1003')).toEqual([]);
  });
  test('a square one has a corner radius, a round one has none', async () => {
    expect(field('cornerRadius')).toBeNull();
    [...root().querySelectorAll('button')].find((b) => b.textContent!.trim() === 'Square')!.click();
    await settle();
    expect(field('cornerRadius')).not.toBeNull();
  });
  test('in inches it is told in inches, and typed in fractions', async () => {
    TestBed.inject(RecordStore).toggleUnits();
    await settle();
    expect(field('girthTop').value).toMatch(/"$/);
    await type('girthMiddle', '48 7/8');
    expect(api.doc.readings.at(-1)).toMatchObject({ measure: 'girthMiddle', unit: 'in', typed: '48 7/8' });
    expect(api.doc.readings.at(-1)!.lengthMm).toBeCloseTo(1241.4, 1);
  });
});
