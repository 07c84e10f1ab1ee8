import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { judgePane } from '@yellow-pane/core';
import type { Film, VerdictInput } from '@yellow-pane/contracts';
import { demoLibrary } from '../../../../../demo/src/index';
import { LayoutSearch } from '../../compute/layout-search';
import { LayoutSearchInPlace } from '../../compute/layout-search.testing';
import { VerdictSearch } from '../../compute/verdict-search';
import { Api } from '../../record/api';
import { FakeApi } from '../../record/fake-api.testing';
import { RecordStore } from '../../record/record.store';
import { PaneChoice } from './pane-choice';

let api: FakeApi;
let fixture: ComponentFixture<PaneChoice>;
let judged: VerdictInput[];
const root = () => fixture.nativeElement as HTMLElement;
const text = () => root().textContent.replace(/\s+/g, ' ');
const button = (words: string) => [...root().querySelectorAll('button')].find((b) => b.textContent.replace(/\s+/g, ' ').includes(words))!;
const candidate = (name: string) => [...root().querySelectorAll('[data-candidates] > li')].find((li) => li.textContent.includes(name))!;
const settle = async () => {
  for (let i = 0; i < 4; i++) {
    await fixture.whenStable();
    await new Promise((r) => setTimeout(r));
  }
  fixture.detectChanges();
};
async function at(pane: string): Promise<void> {
  const record = TestBed.inject(RecordStore);
  record.select(api.doc.surfaces.find((s) => s.name === pane)!.id);
  await settle();
}

// no drawing surface here: the charts stay empty, their words are asked instead
beforeAll(() => void (HTMLCanvasElement.prototype.getContext = () => null));
beforeEach(async () => {
  localStorage.clear();
  api = new FakeApi();
  api.doc = { ...api.doc, films: demoLibrary };
  judged = [];
  TestBed.configureTestingModule({
    providers: [
      { provide: Api, useValue: api },
      { provide: LayoutSearch, useClass: LayoutSearchInPlace },
      {
        provide: VerdictSearch,
        useValue: {
          judge: async (input: VerdictInput, films: Film[]) => (judged.push(input), judgePane(input, films)),
          costs: async (_panes: unknown, films: Film[], _a: unknown, _c: unknown, report: (id: string, m: unknown) => void) =>
            films.forEach((f) => report(f.id, { offer: f.offers[0], usedM: 3, cost: 100, tooWide: 0 })),
        },
      },
    ],
  });
  await TestBed.inject(RecordStore).open(api.doc.job.id);
  fixture = TestBed.createComponent(PaneChoice);
  await at('W2');
});

describe('Choose', () => {
  test('says the glass in words, shows all films with verdict and price, the chosen one first in hand', () => {
    expect(text()).toContain('Double: 6 mm clear, 16 mm air, 6 mm clear');
    expect(text()).toContain('looks west');
    expect(root().querySelectorAll('[data-candidates] > li')).toHaveLength(32);
    expect(candidate('Tern Shade 35').className).toContain('bg-tint');
    expect(candidate('Tern Shade 35').textContent).toContain('€100');
    expect(button('Chosen for 12 panes').disabled).toBe(true);
  });

  test('every figure opens to its why: the sheet, the glass taken off it, this glass', () => {
    const why = root().querySelector('yp-why')!.textContent;
    expect(why).toContain('Rated 35.0 % through and 22.0 % back on 3 mm clear glass; that glass taken off: 36.8 % through, 19.7 % back.');
    expect(why).toContain('light 31.4 % through');
    expect(why).toContain('= 0.498 (EN 410');
  });

  test('a choice is one edit for all panes in hand, and says so when it goes against the verdict', async () => {
    (candidate('Slack Water 40').querySelector('button') as HTMLButtonElement).click();
    await settle();
    button('Choose it for 12 panes').click();
    await settle();
    const draft = api.drafts.at(-1)!;
    expect(draft.label).toBe('Slack Water 40 for 12 panes');
    expect(draft.patches.filter((p) => p.op === 'set' && p.field === 'filmId')).toHaveLength(12);
    expect(draft.patches.filter((p) => p.kind === 'roll')).toHaveLength(1);
    await at('O1');
    (candidate('Ebb Grey 5').querySelector('button') as HTMLButtonElement).click();
    await settle();
    expect(text()).toContain('You choose against “ask the glass maker”');
    expect(root().querySelector('[data-reasons]')!.textContent).toContain('MPa that this edge stands');
  });

  test('only the pane itself, when that is what one works on', async () => {
    button('W2').click();
    await settle();
    (candidate('Tern Shade 50').querySelector('button') as HTMLButtonElement).click();
    await settle();
    button('Choose it for W2').click();
    await settle();
    expect(api.drafts.at(-1)!.patches.filter((p) => p.op === 'set' && p.field === 'filmId')).toHaveLength(1);
  });

  test('a want tapped is judged anew, in the order of tapping', async () => {
    button('privacy at night').click();
    await settle();
    expect(judged.at(-1)!.settings.wants).toEqual(['heat', 'glare', 'light', 'privacy-night']);
    expect(text()).toContain('4 privacy at night');
  });

  test('a limit that does not read is said at the field, and nothing is judged', async () => {
    const box = [...root().querySelectorAll('label')].find((l) => l.textContent.includes('Keeps at least'))!.querySelector('input')!;
    const before = api.drafts.length;
    box.value = '140';
    box.dispatchEvent(new Event('change'));
    await settle();
    expect(box.validationMessage).toContain('Between 0 and 100 %');
    expect(api.drafts.length).toBe(before);
    box.value = '35';
    box.dispatchEvent(new Event('change'));
    await settle();
    expect(judged.at(-1)!.settings.leastVisibleFrac).toBe(0.35);
    expect(candidate('Tern Shade 20').textContent).toContain('do not');
    expect(text()).toMatch(/\d+ of 2\d films do/);
  });

  test('who sees whom, in words, with the light on both sides to change', async () => {
    button('Who sees whom').click();
    await settle();
    expect(text()).toContain('From the street: nothing inside is seen.');
    expect(text()).toMatch(/while it is at least \d+ times brighter outside/);
  });

  test('place and climate are entered where the glass is, and judged anew; a latitude off the globe is refused', async () => {
    button('Change the glass').click();
    await settle();
    const field = (label: string) => [...root().querySelectorAll('label')].find((l) => l.textContent.startsWith(label))!.querySelector('input')!;
    const enter = async (label: string, value: string) => {
      field(label).value = value;
      field(label).dispatchEvent(new Event('change'));
      await settle();
    };
    await enter('Where the site is', '95, 18');
    expect(field('Where the site is').validationMessage).toContain('North and south end at 90°, at the poles.');
    await enter('Where the site is', '59°18′N 18°E');
    expect(text()).toContain('59.300° north, 18.000° east');
    await enter('Coldest', '-22');
    expect(judged.at(-1)).toMatchObject({ latDeg: 59.3, settings: { climate: { coldC: -22, hotC: 35 } } });
  });

  test('typical light is picked instead of typed: at a dark room behind a lit street nobody is seen', async () => {
    button('Who sees whom').click();
    await settle();
    const night = root().querySelectorAll('select')[1] as HTMLSelectElement;
    night.value = 'lit street, dark room';
    night.dispatchEvent(new Event('change'));
    await settle();
    expect(judged.at(-1)!.settings.light).toMatchObject({ nightOutsideLux: 10, nightInsideLux: 1, dayOutsideLux: 10_000 });
    expect(text()).not.toContain('people inside are seen clearly');
  });

  test('three films side by side, the best of each line marked', async () => {
    for (const name of ['Tern Shade 35', 'Slack Water 40', 'Gull Mirror 15']) {
      (candidate(name).querySelector('input[type=checkbox]') as HTMLInputElement).click();
      await settle();
    }
    const rows = [...root().querySelectorAll('table tbody tr')];
    const light = rows.find((r) => r.textContent.includes('light let through'))!;
    expect(light.querySelectorAll('td')).toHaveLength(4);
    expect(light.querySelectorAll('td.font-semibold')).toHaveLength(1);
    expect(light.querySelector('td.font-semibold')!.textContent).toContain('36 %');
  });

  test('a pane that nobody has looked at is asked about, not judged', async () => {
    const bare = api.doc.surfaces.map((s) => (s.name === 'H6' ? { ...s, glazing: null } : s));
    api.doc = { ...api.doc, surfaces: bare };
    await TestBed.inject(RecordStore).load(api.doc.job.id);
    const before = judged.length;
    await at('H6');
    expect(text()).toContain('Nobody has looked at this glass yet.');
    expect(judged.length).toBe(before);
    button('H6').click();
    await settle();
    button('Double, the rest unknown').click();
    await settle();
    expect(judged.at(-1)!.glazing.panes.map((p) => p.kind)).toEqual(['unknown', 'unknown']);
    expect(text()).toContain('? mm tint unknown of unknown kind');
  });
});
