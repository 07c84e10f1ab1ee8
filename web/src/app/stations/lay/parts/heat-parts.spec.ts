import { TestBed, type ComponentFixture } from '@angular/core/testing';
import type { LayEntry, Panel } from '@yellow-pane/contracts';

import { heatCoverOf } from '@yellow-pane/core/lay';
import { HeatSearch } from '../../../compute/heat-search';
import { Instruments } from '../../../instruments/instruments';
import { Api } from '../../../record/api';
import { FakeApi } from '../../../record/fake-api.testing';
import { interiorDocument } from '../../../record/interior-document.testing';
import { RecordStore } from '../../../record/record.store';
import { LayStore } from '../lay.store';
import { HeatCard } from './heat-card';
import { HeatProofPanel } from './heat-proof';

interface Written {
  readonly label: string;
  readonly reading: LayEntry['reading'];
}
let written: Written[];
let lines: LayEntry[];
let shoot: (c: number) => void;
let api: FakeApi;
let record: InstanceType<typeof RecordStore>;
let door: Panel;
let now: number;
const clock = Date.now;

beforeAll(() => void (HTMLCanvasElement.prototype.getContext = () => null));
beforeEach(async () => {
  localStorage.clear();
  written = [];
  lines = [];
  now = clock();
  Date.now = () => now;
  api = new FakeApi();
  api.doc = interiorDocument();
  const lay = {
    settings: () => api.doc.job.lay,
    write: async (_kind: string, label: string, more: Partial<LayEntry>) => {
      written.push({ label, reading: more.reading ?? null });
      return true;
    },
  };
  TestBed.configureTestingModule({
    providers: [
      { provide: Api, useValue: api },
      { provide: LayStore, useValue: lay },
      { provide: HeatSearch, useValue: { map: async () => [] } },
      {
        provide: Instruments,
        useValue: { onReading: (h: (r: unknown) => void) => ((shoot = (c) => h({ kind: 'thermometer', surfaceC: c })), () => undefined) },
      },
    ],
  });
  record = TestBed.inject(RecordStore);
  await record.open(api.doc.job.id);
  door = record.doc()!.surfaces.find((s) => s.name === 'Door 1') as Panel;
  record.select(door.id);
});
afterEach(() => void (Date.now = clock));

const entry = (n: number, valueC: number, stretch: string): LayEntry =>
  ({ id: `018f0000-0000-7000-8000-00000000000${n}`, surfaceId: door.id, occurredAt: new Date(Date.UTC(2026, 5, 1, 8, n)).toISOString(), kind: 'reading', correctsId: null, reading: { what: 'film', valueC, stretch } }) as LayEntry; // prettier-ignore
function proof(): { fixture: ComponentFixture<HeatProofPanel>; text: (where?: string) => string; type: (c: string) => Promise<void> } {
  const fixture = TestBed.createComponent(HeatProofPanel);
  fixture.componentRef.setInput('cover', heatCoverOf(door, record.records()!)!);
  fixture.componentRef.setInput('lines', lines);
  fixture.detectChanges();
  const root = fixture.nativeElement as HTMLElement;
  const text = (where = 'div') => (root.querySelector(where)?.textContent ?? '').replace(/\s+/g, ' ').trim();
  const type = async (c: string) => {
    const box = root.querySelector<HTMLInputElement>('input.figure')!;
    box.value = c;
    box.dispatchEvent(new Event('change'));
    await fixture.whenStable();
    fixture.detectChanges();
  };
  return { fixture, text, type };
}

describe('what was stretched', () => {
  test('is read edge by edge at its coldest place; what is proven makes room for the next, what was too cool stays in hand', async () => {
    const { fixture, text, type } = proof();
    expect(text('[data-in-hand]')).toBe('Right edge');
    await type('84');
    expect(written[0]).toMatchObject({ reading: { what: 'film', valueC: 84, stretch: 'right' } });
    expect(text('[data-heat-word]')).toContain('Its figure is 90 °C: once more over it');
    fixture.componentRef.setInput('lines', [entry(1, 84, 'right')]);
    fixture.detectChanges();
    expect(text('[data-in-hand]')).toBe('Right edge');
    now += 2000;
    await type('93');
    fixture.componentRef.setInput('lines', [entry(2, 93, 'right'), entry(1, 84, 'right')]);
    fixture.detectChanges();
    expect(text('[data-heat-word]')).toBe('Right edge: 93 °C, proven.');
    expect(text('[data-in-hand]')).toBe('Left edge');
  });
  test('a reading that comes at once after the one before is of hot air, and is refused with the reason', async () => {
    const { text, type, fixture } = proof();
    await type('93');
    shoot(120);
    await fixture.whenStable();
    fixture.detectChanges();
    expect(written).toHaveLength(1);
    expect(text('[data-heat-word]')).toContain('hot air still stands before the film');
    now += 1600;
    shoot(91);
    await fixture.whenStable();
    expect(written).toHaveLength(2);
  });
  test('a film whose maker names its own moment is read no sooner', async () => {
    const films = record.doc()!.films.map((f) => ({ ...f, readAfterS: 4 }));
    api.doc = { ...api.doc, films };
    await record.open(api.doc.job.id);
    record.select(door.id);
    const { text, type, fixture } = proof();
    await type('93');
    now += 3000;
    shoot(120);
    await fixture.whenStable();
    fixture.detectChanges();
    expect(written).toHaveLength(1);
    expect(text('[data-heat-word]')).toMatch(/^Too soon: .+ is read about 4 s after the gun/);
    now += 1100;
    shoot(91);
    await fixture.whenStable();
    expect(written).toHaveLength(2);
  });
  test('hand’s length by hand’s length, for whoever wants it so; nonsense goes nowhere', async () => {
    const { fixture, text, type } = proof();
    (fixture.nativeElement as HTMLElement).querySelector<HTMLInputElement>('input[type=checkbox]')!.click();
    fixture.detectChanges();
    expect(text('[data-in-hand]')).toMatch(/^Right edge, 1 of \d+$/);
    await type('hot');
    await type('4000');
    expect(written).toEqual([]);
    await type('95,5');
    expect(written[0]!.reading).toEqual({ what: 'film', valueC: 95.5, stretch: 'right-1' });
  });
  test('film without a figure in the library asks for its maker’s, and takes no reading', () => {
    const fixture = TestBed.createComponent(HeatProofPanel);
    fixture.componentRef.setInput('cover', { ...heatCoverOf(door, record.records()!)!, dueC: null });
    fixture.componentRef.setInput('lines', []);
    fixture.detectChanges();
    expect((fixture.nativeElement as HTMLElement).textContent).toContain('go by its maker’s');
    expect((fixture.nativeElement as HTMLElement).querySelector('input.figure')).toBeNull();
  });
});

describe('the gun in hand', () => {
  const card = () => {
    const fixture = TestBed.createComponent(HeatCard);
    fixture.componentRef.setInput('surface', door);
    fixture.componentRef.setInput('aim', 'post-heat');
    fixture.detectChanges();
    const root = fixture.nativeElement as HTMLElement;
    return { fixture, root, text: (where: string) => (root.querySelector(where)?.textContent ?? '').replace(/\s+/g, ' ').trim() };
  };
  test('says how far off, how fast, what film comes to and how sure that is', () => {
    const { text } = card();
    expect(text('[data-heat-headline]')).toMatch(/^25 mm off, \d+ mm a second/);
    expect(text('dl')).toMatch(/Film that lies on\d+ to \d+ °C/);
    expect(text('[data-heat-sure]')).toContain('±40 %');
  });
  test('one reading after a trial is written down with how the gun had gone', async () => {
    const { root, fixture } = card();
    root.querySelector<HTMLInputElement>('[data-trial-read]')!.value = '78';
    [...root.querySelectorAll('button')].find((b) => b.textContent.includes('Correct the plan'))!.click();
    await fixture.whenStable();
    expect(written[0]!.reading).toMatchObject({ what: 'film', valueC: 78, gun: { distanceMm: 25, afterS: 2 } });
    expect(written[0]!.reading!.gun!.speedMmPerS).toBeGreaterThan(5);
  });
  test('the gun of the job is changed here; a figure no gun has is refused', async () => {
    const { root, fixture } = card();
    const watts = root.querySelector<HTMLInputElement>('[data-gun-watts]')!;
    watts.value = '1600';
    watts.dispatchEvent(new Event('change'));
    await fixture.whenStable();
    expect(record.doc()!.job.lay!.gun.powerW).toBe(1600);
    watts.value = '90000';
    watts.dispatchEvent(new Event('change'));
    await fixture.whenStable();
    expect(record.doc()!.job.lay!.gun.powerW).toBe(1600);
  });
  test('held at an angle it gives less, and the plan says how it is held; flatter than was ever measured is refused', async () => {
    const { root, fixture, text } = card();
    const angle = root.querySelector<HTMLInputElement>('[data-gun-angle]')!;
    const hold = async (degrees: string) => {
      angle.value = degrees;
      angle.dispatchEvent(new Event('change'));
      await fixture.whenStable();
      fixture.detectChanges();
    };
    expect(angle.value).toBe('90');
    expect(text('yp-why')).not.toContain('to the face');
    await hold('45');
    expect(record.doc()!.job.lay!.gun).toMatchObject({ angleDeg: 45, powerW: 2000 });
    expect(text('yp-why')).toContain('held at 45° to the face (14 % less than straight on)');
    await hold('10');
    expect(record.doc()!.job.lay!.gun.angleDeg).toBe(45);
  });
});
