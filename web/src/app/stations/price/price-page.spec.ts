import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import type { BenchDocument, Quote } from '@yellow-pane/contracts';
import { demoLibrary, demoRates } from '../../../../../demo/src/index';
import { Api } from '../../record/api';
import { FakeApi } from '../../record/fake-api.testing';
import { PricePage } from './price-page';

let api: FakeApi;
let fixture: ComponentFixture<PricePage>;
const root = () => fixture.nativeElement as HTMLElement;
const text = () => root().textContent.replace(/\s+/g, ' ');
const button = (words: string) =>
  [...root().querySelectorAll('button')].find((b) => b.textContent.replace(/\s+/g, ' ').includes(words) || b.getAttribute('aria-label') === words)!;
const field = (label: string) => [...root().querySelectorAll('label')].find((l) => l.textContent.trim().startsWith(label))!.querySelector('input')!;
const settle = async () => {
  for (let i = 0; i < 3; i++) {
    await fixture.whenStable();
    await new Promise((r) => setTimeout(r));
  }
  fixture.detectChanges();
};
/** The quote as it stands after all edits that went out. */
const sent = (): Quote => {
  let quote: Record<string, unknown> = {};
  for (const d of api.drafts) for (const p of d.patches) quote = p.op === 'add' ? { ...p.value } : { ...quote, [p.field]: p.value };
  return quote as unknown as Quote;
};

beforeEach(async () => {
  api = new FakeApi();
  api.doc = { ...api.doc, films: demoLibrary };
  const bench = api.bench;
  api.bench = async (): Promise<BenchDocument> => ({ ...(await bench()), rates: [demoRates] });
  TestBed.configureTestingModule({ providers: [{ provide: Api, useValue: api }, provideRouter([])] });
  fixture = TestBed.createComponent(PricePage);
  await settle();
  button('New price').click();
  await settle();
});

async function window(width: string, height: string, count: string): Promise<void> {
  field('Width').value = width;
  field('Height').value = height;
  field('How many').value = count;
  root().querySelector('form')!.dispatchEvent(new Event('submit'));
  await settle();
}

describe('a price at the window', () => {
  test('rounded tapes and a film make a price at once; its make-up adds up to it', async () => {
    await window('905', '1210', '3');
    button('Tern Shade 35').click();
    await settle();
    const card = root().querySelector('[data-price]')!;
    // each line with its own tax; the last row says the tax in all
    const amounts = [...card.querySelectorAll('tr:not(:last-child) td')].map((td) => Math.round(100 * Number(td.textContent.replace(/[^\d.]/g, ''))));
    const total = Math.round(100 * Number(/€([\d.,]+)/.exec(card.textContent)![1]!.replace(',', '')));
    expect(amounts.reduce((s, a) => s + a, 0)).toBe(total);
    expect(text()).toContain('3 panes, 3.3 m²');
    expect(sent().lines[0]).toMatchObject({ widthMm: 905, heightMm: 1210, count: 3 });
  });

  test('inches and fractions are read like everywhere', async () => {
    await window('35 5/8"', '4\' 2"', '1');
    expect(sent().lines[0]!.widthMm).toBeCloseTo(904.875, 6);
    expect(sent().lines[0]!.heightMm).toBeCloseTo(1270, 6);
  });

  test('what does not read is said, and what was typed stays', async () => {
    await window('wide', '1210', '1');
    expect(root().querySelector('[role=alert]')!.textContent).toContain('Width:');
    expect(field('Width').value).toBe('wide');
    await window('905', '1210', '1.5');
    expect(root().querySelector('[role=alert]')!.textContent).toContain('a whole number');
    expect(sent().lines).toEqual([]);
  });

  test('one more of a window, old film off, a ladder: each makes it dearer', async () => {
    await window('905', '1210', '3');
    button('Slack Water 70').click();
    await settle();
    const total = () => Number(/€([\d.,]+)/.exec(root().querySelector('[data-price]')!.textContent)![1]!.replace(',', ''));
    let before = total();
    for (const act of [
      () => button('One more').click(),
      () => (root().querySelector('input[type=checkbox]') as HTMLInputElement).click(),
      () => {
        const reach = root().querySelector('select')!;
        reach.value = 'ladder';
        reach.dispatchEvent(new Event('change'));
      },
    ]) {
      act();
      await settle();
      expect(total()).toBeGreaterThan(before);
      before = total();
    }
    expect(sent().lines[0]).toMatchObject({ count: 4, hasOldFilm: true, reach: 'ladder' });
  });

  test('a pane that no roll takes has no price, and says why', async () => {
    await window('2100', '2600', '1');
    button('Tern Shade 35').click();
    await settle();
    expect(root().querySelector('[data-price]')!.textContent).toContain('1 pane is too large for any roll of this film');
    expect(text()).not.toContain('The customer says yes');
  });
});
