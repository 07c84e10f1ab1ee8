import { panesIn } from '../../../../../demo/src/index';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { LayoutSearch } from '../../compute/layout-search';
import { LayoutSearchInPlace } from '../../compute/layout-search.testing';
import type { InstrumentReading, Patch } from '@yellow-pane/contracts';
import { Instruments } from '../../instruments/instruments';
import { Api } from '../../record/api';
import { FakeApi } from '../../record/fake-api.testing';
import { RecordStore } from '../../record/record.store';
import { PanePage } from './pane-page';

/** The laser in the hand: what it reads is heard by the page. */
class FakeInstruments {
  private ears: ((r: InstrumentReading) => void)[] = [];
  readonly statuses = () => ({});
  readonly trouble = () => null;
  onReading(hear: (r: InstrumentReading) => void): () => void {
    this.ears.push(hear);
    return () => (this.ears = this.ears.filter((e) => e !== hear));
  }
  reads(lengthMm: number): void {
    for (const hear of this.ears) hear({ kind: 'laser', seq: 1, at: '2026-12-03T09:00:00Z', deviceId: null, lengthMm });
  }
}

let api: FakeApi;
let laser: FakeInstruments;
let record: InstanceType<typeof RecordStore>;
let fixture: ComponentFixture<PanePage>;
const root = () => fixture.nativeElement as HTMLElement;
const text = (where: string) => root().querySelector(where)?.textContent.replace(/\s+/g, ' ').trim() ?? '';
const field = (label: string) =>
  [...root().querySelectorAll<HTMLInputElement>('yp-length-field input')].find((i) => (i.getAttribute('aria-label') ?? '').startsWith(label))!;
const settle = async () => {
  for (let i = 0; i < 4; i++) {
    await fixture.whenStable();
    await new Promise((r) => setTimeout(r));
  }
  fixture.detectChanges();
};
const go = async (name: string) => {
  record.select(panesIn(api.doc).find((s) => s.name === name)!.id);
  await settle();
};
const tape = async (label: string, value: string) => {
  const box = field(label);
  box.focus();
  box.value = value;
  box.dispatchEvent(new Event('input'));
  box.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true }));
  await settle();
};
const saved = () => api.drafts.flatMap((d) => d.patches).filter((p: Patch) => p.op === 'add' && p.kind === 'reading') as unknown as { value: { typed: string; lengthMm: number; instrument: string } }[]; // prettier-ignore

beforeAll(() => void ((globalThis as Record<string, unknown>)['ResizeObserver'] ??= class { observe() {} disconnect() {} })); // prettier-ignore
beforeEach(async () => {
  localStorage.clear();
  api = new FakeApi();
  laser = new FakeInstruments();
  TestBed.configureTestingModule({
    providers: [
      { provide: Api, useValue: api },
      { provide: LayoutSearch, useClass: LayoutSearchInPlace },
      { provide: Instruments, useValue: laser },
    ],
  });
  record = TestBed.inject(RecordStore);
  await record.open(api.doc.job.id);
  fixture = TestBed.createComponent(PanePage);
  document.body.append(root());
  await settle();
});
afterEach(() => root().remove());

describe('Measure: tapes at the edge they measure', () => {
  test('a tape typed is saved once, as it was typed, and the hand goes on', async () => {
    await go('W2');
    const boxes = [...root().querySelectorAll<HTMLInputElement>('yp-length-field input')].map((i) => i.getAttribute('aria-label')!);
    await tape(boxes[0]!, '90.25cm');
    expect(saved()).toHaveLength(1);
    expect(saved()[0]!.value).toMatchObject({ typed: '90.25cm', lengthMm: 902.5, instrument: 'tape' });
    expect(document.activeElement?.getAttribute('aria-label')).toBe(boxes[1]);
  });
  test('a shot of the laser goes into the field that has the hand, named as the laser’s', async () => {
    await go('W2');
    const first = root().querySelector<HTMLInputElement>('yp-length-field input')!;
    first.focus();
    first.dispatchEvent(new Event('focus'));
    await settle();
    laser.reads(1203.4);
    await settle();
    expect(saved().map((s) => [s.value.lengthMm, s.value.instrument])).toEqual([[1203.4, 'laser']]);
  });
  test('with no field in hand a shot goes nowhere', async () => {
    await go('W2');
    laser.reads(1203.4);
    await settle();
    expect(saved()).toEqual([]);
  });
  test('after the last tape the hand is at the first of the next pane; where tapes disagree it stays with the one asked for', async () => {
    await go('W2');
    const labels = [...root().querySelectorAll<HTMLInputElement>('yp-length-field input')].map((i) => i.getAttribute('aria-label')!);
    const last = labels.at(-1)!;
    await tape(last, field(last).value || '2400');
    await settle();
    expect(text('#pane-title')).not.toBe('W2');
    expect(document.activeElement?.tagName).toBe('INPUT');
  });
  test('a pane whose tapes disagree says so, blames with odds, and asks for one tape', async () => {
    const crooked = panesIn(api.doc).find((s) => s.calledCrooked)!;
    await go(crooked.name);
    await tape(root().querySelector<HTMLInputElement>('yp-length-field input')!.getAttribute('aria-label')!, '1400');
    expect(text('[data-verdict]')).toMatch(/disagree|cannot be/);
    expect(text('[data-verdict] button')).toMatch(/^Tape /);
  });
  test('taped again and the same: it is written down as a further reading, and the doubt may move on', async () => {
    await go('Toilet 2');
    const button = root().querySelector<HTMLButtonElement>('[data-same]')!;
    const before = saved().length;
    button.click();
    await settle();
    expect(saved()).toHaveLength(before + 1);
    expect(saved().at(-1)!.value).toMatchObject({ measure: 'widthBottom', typed: '619', supersedesId: expect.any(String) });
  });
  test('tapes that no four sides can make blame nobody: the pane is started again in one go, and undo brings the tapes back', async () => {
    await go('Toilet 2');
    await tape('Diagonal from top left', '2903');
    expect(text('[data-verdict]')).toContain('cannot belong to one opening. Tape the marked ones again, or start this pane again.');
    expect(root().textContent).not.toContain('What may have happened');
    root().querySelector<HTMLButtonElement>('[data-start-again]')!.click();
    await settle();
    expect(text('[data-verdict]')).toContain('Nothing taped yet');
  });
  test('what must fit is signed for by one explanation, and the signature can be taken back', async () => {
    await go('Toilet 2');
    const toilet = panesIn(api.doc).find((s) => s.name === 'Toilet 2')!;
    await record.set('Method', 'surface', toilet.id, { method: 'pre-cut' });
    await settle();
    const sign = [...root().querySelectorAll('button')].find((b) => b.textContent.includes('I believe this one'))!;
    sign.click();
    await settle();
    expect(record.surface()!.signed!.believes).toMatch(/^slip:/);
    expect(text('[data-verdict]')).toContain('Signed.');
    [...root().querySelectorAll('button')].find((b) => b.textContent.includes('Take the signature back'))!.click();
    await settle();
    expect(record.surface()!.signed).toBeNull();
  });
  test('the size is seen from the street when the other side is asked for', async () => {
    await go('W2');
    const before = text('button[aria-pressed]');
    record.toggleSide();
    await settle();
    expect([before, text('button[aria-pressed]')].sort()).toEqual(['Seen from the room', 'Seen from the street']);
  });
});
