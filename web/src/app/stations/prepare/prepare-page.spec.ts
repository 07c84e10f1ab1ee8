import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { LayoutSearch } from '../../compute/layout-search';
import { LayoutSearchInPlace } from '../../compute/layout-search.testing';
import type { PrepareSettings, WeatherDay, Sent } from '@yellow-pane/contracts';
import { Api } from '../../record/api';
import { FakeApi } from '../../record/fake-api.testing';
import { RecordStore } from '../../record/record.store';
import { adviceText, clockText, windowText } from '../../record/day-words';
import { PreparePage } from './prepare-page';

class FakeWeather extends FakeApi {
  readonly asked: string[] = [];
  isAway = false;
  override weather = async ({ query }: Sent<'weather'>): Promise<WeatherDay> => {
    const on = query!.on!;
    this.asked.push(`${on} ${query!.sky ?? null}`);
    if (this.isAway) throw new Error('The weather service does not answer.');
    const hours = Array.from({ length: 24 }, () => ({ airC: 14, humidityPct: 60, cloudFrac: 0, windMPerS: 2, gustMPerS: 3, rainMm: 0 }));
    return { on, source: 'A day made for the test', isMadeUp: false, sky: 'clear', hours, nightLowC: 9 };
  };
}

let api: FakeWeather;
let fixture: ComponentFixture<PreparePage>;
const root = () => fixture.nativeElement as HTMLElement;
const text = (where = '') => (where ? root().querySelector(where)! : root()).textContent.replace(/\s+/g, ' ');
const button = (words: string) => [...root().querySelectorAll('button')].find((b) => b.textContent.trim() === words)!;
const settle = async () => {
  for (let i = 0; i < 4; i++) {
    await fixture.whenStable();
    await new Promise((r) => setTimeout(r));
  }
  fixture.detectChanges();
};
const type = async (label: string, value: string) => {
  const box = root().querySelector<HTMLInputElement>(`[aria-label="${label}"]`) ?? [...root().querySelectorAll('label')].find((l) => l.textContent.includes(label))!.control ?? null; // prettier-ignore
  const input = (box ?? [...root().querySelectorAll('label')].find((l) => l.textContent.includes(label))!.querySelector('input')) as HTMLInputElement;
  input.value = value;
  input.dispatchEvent(new Event('change'));
  await settle();
};
const said = () => api.drafts.at(-1)!.patches[0]! as unknown as { value: PrepareSettings };

beforeAll(() => void (HTMLCanvasElement.prototype.getContext = () => null));
beforeEach(async () => {
  localStorage.clear();
  api = new FakeWeather();
  TestBed.configureTestingModule({
    providers: [
      { provide: Api, useValue: api },
      { provide: LayoutSearch, useClass: LayoutSearchInPlace },
    ],
  });
  await TestBed.inject(RecordStore).open(api.doc.job.id);
  TestBed.inject(RecordStore).select(api.doc.surfaces.find((s) => s.name === 'W2')!.id);
  fixture = TestBed.createComponent(PreparePage);
  await settle();
});

describe('Prepare', () => {
  test('shows the due day, a band for each facade, and when this pane’s hour is', () => {
    expect(text('h2')).toBe('Thursday 3 December');
    expect(api.asked).toEqual(['2026-12-03 clear']);
    expect(root().querySelectorAll('[data-band]').length).toBeGreaterThan(8);
    expect(text('[data-day-verdict]')).toMatch(/Best from 6:00 to 1[2-4]:\d0\. Then: sun on .*the glass, \d+ W/);
    expect(text('[data-band="Meeting room"]')).toContain('good');
  });
  test('another day asks for its weather; a service that is away says so and what to do', async () => {
    api.isAway = true;
    const box = root().querySelector<HTMLInputElement>('input[type=date]')!;
    box.value = '2026-12-04';
    box.dispatchEvent(new Event('change'));
    await settle();
    expect(said().value.on).toBe('2026-12-04');
    expect(text()).toContain('does not answer');
    api.isAway = false;
    button('Ask again').click();
    await settle();
    expect(text('h2')).toBe('Friday 4 December');
    expect(text('[data-day-verdict]')).toContain('Best from');
  });
  test('what is typed on site counts: a closed sky makes the whole day good, a cold room none of it', async () => {
    const typed = async (field: string, value: string) => {
      const input = root().querySelector<HTMLInputElement>(`#typed-${field}`)!;
      input.value = value;
      input.dispatchEvent(new Event('change'));
      await settle();
    };
    await typed('cloudPct', '100');
    expect(text('[data-day-verdict]')).toContain('The whole day is good.');
    await typed('roomC', '3');
    expect(text('[data-day-verdict]')).toContain('No hour of this day is good');
    const before = api.drafts.length;
    await typed('humidityPct', '140');
    expect(api.drafts).toHaveLength(before);
    await typed('cloudPct', '');
    expect(said().value.typed.cloudPct).toBeNull();
  });
  test('a hill to the west takes the sun away; taken away again it is as before', async () => {
    const before = text('[data-day-verdict]');
    await type('Bearing of the point, degrees', '250');
    expect(api.drafts).toHaveLength(0);
    const [b, h] = ['Bearing of the point, degrees', 'Height of the point, degrees'].map((l) => root().querySelector<HTMLInputElement>(`[aria-label="${l}"]`)!);
    b!.value = '250';
    h!.value = '60';
    button('Add').click();
    await settle();
    expect(said().value.horizon).toEqual([{ bearingDeg: 250, heightDeg: 60 }]);
    expect(text('[data-day-verdict]')).not.toBe(before);
    button('take away').click();
    await settle();
    expect(text('[data-day-verdict]')).toBe(before);
  });
  test('bottles: for the places of the day, and a wrong one is put right', async () => {
    button('Bottles').click();
    await settle();
    const all = text('[data-slip]');
    button('Toilets').click();
    await settle();
    expect(text('[data-slip]')).not.toBe(all);
    expect(text('[data-slip]')).toMatch(/1 filling of 946 ml: water first, then 12 drops \(0\.6 ml\) of dish soap in each/);
    await type('In the bottle', '900');
    await type('Drops in it', '18');
    expect(text('[data-correction]')).toMatch(/1\.6 times too strong: pour out 300 ml, then add 34\d ml of water/);
    await type('In the bottle', '1200');
    expect(text('[data-correction]')).toContain('cannot have 1200 ml in it');
    button('concentrate').click();
    await settle();
    expect(text('[data-slip]')).toContain('1 cap');
  });
  test('before the film: cleaner for the glass, wipe and wash for the walls of the day, each with its caution; a wrong one is put right', async () => {
    button('Bottles').click();
    await settle();
    expect(text('[data-wash=cleaner]')).toMatch(/glass cleaner \d+ filling.* of 946 ml: 315 ml of cleaner concentrate, the rest water/);
    expect(text('[data-wash=detergent]')).toContain('No walls or panels today.');
    await type('Walls and panels', '12');
    expect(text('[data-wash=detergent]')).toMatch(/2 fillings of 946 ml: 1½ teaspoons \(7 ml\) of detergent.*1\.8 l for 12\.0 m².*Rinse twice.*caustic/);
    expect(text('[data-wash=alcohol]')).toContain('669 ml of isopropyl alcohol');
    await type('Alcohol as it comes', '70');
    expect(text('[data-wash=alcohol]')).toContain('946 ml of isopropyl alcohol');
    const which = root().querySelector<HTMLSelectElement>('section[aria-label="A wrong mix"] select')!;
    which.value = 'cleaner';
    which.dispatchEvent(new Event('change'));
    await settle();
    await type('In the bottle', '300');
    await type('Of that cleaner concentrate, ml', '200');
    // 2 parts in 3 instead of 1 in 3
    expect(text('[data-correction]')).toMatch(/2\.0 times too strong: add 300 ml of water\. Too strong: it dries/);
  });
  test('hour by hour: the weather, and what it makes of the glass in hand', () => {
    const heads = [...root().querySelectorAll('yp-hours-table th[scope=col]')].map((h) => h.textContent.trim());
    expect(heads).toEqual([
      'o’clock',
      'air, °C',
      'humidity, %',
      'cloud, %',
      'wind, m/s',
      'gusts',
      'rain, mm',
      expect.stringMatching(/, °C$/),
      'dew point, °C',
      'sun, W/m²',
    ]);
    const rows = [...root().querySelectorAll('yp-hours-table tbody tr')].map((r) => [...r.children].map((c) => c.textContent.trim()));
    expect(rows.map((r) => r[0])).toEqual(Array.from({ length: 16 }, (_, i) => String(6 + i)));
    // 14 °C and 60 %: dew point 6 °C by the Magnus formula
    expect(rows[6]!.slice(1, 7)).toEqual(['14', '60', '0', '2', '3', '–']);
    expect(rows.every((r) => r.length === 10)).toBe(true);
  });
  test('in the van: a tick is one edit that can be undone, and the count follows', async () => {
    button('In the van').click();
    await settle();
    const count = root().querySelectorAll('li input[type=checkbox]').length;
    expect(text('[data-kit-count]')).toContain(`0 of ${count}`);
    root().querySelector<HTMLInputElement>('li input[type=checkbox]')!.click();
    await settle();
    expect(api.drafts.at(-1)!.label).toBe('Ladder or platform: in the van');
    expect(text('[data-kit-count]')).toContain(`1 of ${count}`);
    root().querySelector<HTMLButtonElement>('[aria-label="Short: Snap-off blades"]')!.click();
    await settle();
    expect(text('[data-short]')).toMatch(/To get before you leave: snap-off blades \(\d+\)\./);
    root().querySelector<HTMLButtonElement>('[aria-label="Short: Snap-off blades"]')!.click();
    await settle();
    expect(root().querySelector('[data-short]')).toBeNull();
  });
  test('a site that is nowhere is asked for its place, not guessed', async () => {
    const record = TestBed.inject(RecordStore);
    await record.set('x', 'job', api.doc.job.id, { latDeg: null });
    await settle();
    expect(text()).toContain('Where on earth is the site?');
  });
});

test('hours and advice in words', () => {
  expect([clockText(6), clockText(12 + 2 / 3), clockText(17 + 1 / 6)]).toEqual(['6:00', '12:40', '17:10']);
  const good = { fromHour: 6, toHour: 9, grade: 'good' as const, cause: null, why: '' };
  const cold = { fromHour: 9, toHour: 21, grade: 'marginal' as const, cause: 'frost' as const, why: 'frost at night (-2 °C)' };
  expect(windowText(cold)).toBe('9:00–21:00 marginal: frost at night (-2 °C)');
  expect(adviceText([good], good)).toBe('The whole day is good.');
  expect(adviceText([good, cold], good)).toBe('Best from 6:00 to 9:00. Then: frost at night (-2 °C).');
  expect(adviceText([cold], cold)).toContain('Least wrong: 9:00 to 21:00');
  expect(adviceText([], null)).toContain('take another day');
});
