import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import type { BenchDocument, LearnedMinutes, StepSet, Sent } from '@yellow-pane/contracts';
import { demoRates } from '../../../../../demo/src/index';
import { Api } from '../../record/api';
import { FakeApi } from '../../record/fake-api.testing';
import { FirmPage } from './firm-page';

class FakeFirm extends FakeApi {
  override bench = async (): Promise<BenchDocument> => ({ revision: 1, firm: this.doc.firm, persons: this.doc.persons, films: [], rolls: [], stock: this.doc.stock, rates: [demoRates], quotes: [], stepSets: [], panesWithFilm: {}, canUndo: null, canRedo: null }); // prettier-ignore
  layMinutes = async (): Promise<LearnedMinutes> => [{ work: 'tint', paneCount: 23, jobCount: 3, factor: 1.4, middleHalf: [1.1, 1.6], usedFactor: 1.28, suggestedPerM2: 13.46 }]; // prettier-ignore
  override change = async ({ body: draft }: Sent<'change'>) => {
    this.drafts.push(draft);
    return { change: { patches: draft.patches, revision: 2, label: draft.label } as never, canUndo: draft.label, canRedo: null };
  };
}
let api: FakeFirm;
let fixture: ComponentFixture<FirmPage>;
const root = () => fixture.nativeElement as HTMLElement;
const text = (where: string) => root().querySelector(where)?.textContent.replace(/\s+/g, ' ').trim() ?? '';
const settle = async () => {
  for (let i = 0; i < 4; i++) {
    await fixture.whenStable();
    await new Promise((r) => setTimeout(r));
  }
  fixture.detectChanges();
};
const press = async (words: string) => {
  [...root().querySelectorAll('button')].find((b) => (b.getAttribute('aria-label') ?? b.textContent.replace(/\s+/g, ' ').trim()) === words)!.click();
  await settle();
};

beforeEach(async () => {
  localStorage.clear();
  api = new FakeFirm();
  TestBed.configureTestingModule({ providers: [{ provide: Api, useValue: api }, provideRouter([])] });
  fixture = TestBed.createComponent(FirmPage);
  await settle();
});

describe('what the taps on the glass have taught', () => {
  test('is told with how many panes and jobs it rests on', () => {
    expect(text('[data-learned]')).toContain(
      'Tint: panes took 1.40 times what the rates say (middle half 1.10 to 1.60), from 23 panes in 3 jobs. Counted as 1.28: 13.5 min per m².',
    );
  });
  test('goes into the rates by a button, as a new version; the other rates stay', async () => {
    await press('Take it into the rates');
    const [patch] = api.drafts[0]!.patches;
    expect(patch).toMatchObject({ op: 'add', kind: 'rates', value: { version: demoRates.version + 1, minutesPerM2: { ...demoRates.minutesPerM2, tint: 13.5 }, hourRate: demoRates.hourRate } }); // prettier-ignore
  });
});

describe('blades in the van', () => {
  const type = async (at: number, value: string) => {
    const box = [...root().querySelectorAll('label')]
      .filter((l) => /For cleaning|For pressing film|For thick film/.test(l.textContent))
      [at]!.querySelector('input')!;
    box.value = value;
    box.dispatchEvent(new Event('change'));
    await settle();
  };
  test('the firm’s own list is one edit; nonsense in it keeps the old one and says why', async () => {
    await type(2, '150; 75');
    expect(api.drafts.at(-1)!.patches[0]).toMatchObject({ kind: 'firm', field: 'blades', value: { thickMm: [75, 150], pressingMm: [100, 150, 200] } });
    const before = api.drafts.length;
    await type(1, '150, wide');
    await type(1, '5');
    await type(1, '');
    expect(api.drafts).toHaveLength(before);
    expect(text('[role=alert]')).toMatch(/one to twelve widths between 25 and 900 mm/);
  });
});

describe('the firm’s own steps', () => {
  test('for which panes a step is there is said in words', () => {
    expect(text('[data-rule="stops-off"]')).toContain('frame: bead, stops: off');
    expect(text('[data-rule="check-fit"]')).toContain('cut: tucked corner or pre cut');
  });
  const kept = () => api.drafts.at(-1)!.patches[0] as unknown as { value: StepSet };
  test('reordered and taken out, they are kept as version 2 that replaces the shipped one', async () => {
    await press('Change the steps');
    await press('Up: Scrape, top to bottom');
    await press('Take out: Find the stamp, feel the glass');
    expect(text('[role=alert]')).toContain('That step carried a caution: “Never scrape coated');
    await press('Keep as version 2');
    const keys = kept().value.steps.map((s) => s.key);
    expect(kept().value).toMatchObject({ version: 2, firmId: api.doc.firm.id });
    expect(keys).not.toContain('stamp');
    expect(keys.indexOf('scrape')).toBeLessThan(keys.indexOf('wash'));
  });
  test('a step without a title is named and not kept; what was typed stays', async () => {
    await press('Change the steps');
    await press('Add a step');
    const title = [...root().querySelectorAll('label')].find((l) => l.textContent.trim().startsWith('Title'))!.querySelector('input')!;
    title.value = '  ';
    title.dispatchEvent(new Event('change'));
    await settle();
    await press('Keep as version 2');
    expect(text('[role=alert]')).toContain('A step needs a title.');
    expect(api.drafts).toEqual([]);
    title.value = 'Wipe the sill';
    title.dispatchEvent(new Event('change'));
    await settle();
    await press('Keep as version 2');
    expect(kept().value.steps.at(-1)!.title).toBe('Wipe the sill');
  });
  test('minutes that are none are refused at the field; left alone, nothing is changed', async () => {
    await press('Change the steps');
    await press('Wet and scrub');
    const minutes = [...root().querySelectorAll('label')].find((l) => l.textContent.trim().startsWith('Minutes, any pane'))!.querySelector('input')!;
    minutes.value = 'soon';
    minutes.dispatchEvent(new Event('change'));
    await settle();
    expect(minutes.validationMessage).toBe('Between 0 and 600 min.');
    await press('Leave it');
    expect(api.drafts).toEqual([]);
    expect(root().textContent).toContain('Steps of laying, version 1');
  });
  test('a step of their own, for security film in beads only, with its drawing; and a question of their own before the first pane', async () => {
    await press('Change the steps');
    await press('Add a step');
    const labelled = (words: string) =>
      [...root().querySelectorAll('label')].find((l) => l.textContent.trim() === words || (words === 'Drawing' && l.textContent.trim().startsWith(words)))!;
    for (const word of ['security', 'bead']) (labelled(word).querySelector('input') as HTMLInputElement).click();
    const drawing = labelled('Drawing').querySelector('select')!;
    drawing.value = 'edges';
    drawing.dispatchEvent(new Event('change'));
    await press('Add a question');
    const question = [...root().querySelectorAll<HTMLInputElement>('[aria-label="Question"]')].at(-1)!;
    question.value = 'Are the blinds off?';
    question.dispatchEvent(new Event('change'));
    await settle();
    await press('Keep as version 2');
    expect(kept().value.steps.at(-1)).toMatchObject({ drawing: 'edges', when: { film: ['security'], frame: ['bead'], lock: [] } });
    expect(kept().value.ready.at(-1)).toMatchObject({ text: 'Are the blinds off?', caution: null });
  });
  test('a question with a caution is not taken out unsaid; an empty one is named', async () => {
    await press('Change the steps');
    const box = root().querySelector<HTMLInputElement>('[aria-label="Question"]')!;
    box.value = '';
    box.dispatchEvent(new Event('change'));
    await settle();
    await press('Keep as version 2');
    expect(text('[role=alert]')).toContain('A question before the first pane');
    expect(api.drafts).toEqual([]);
  });
});

describe('what the firm lets pass', () => {
  const fill = async (label: string, value: string) => {
    const box = root().querySelector<HTMLInputElement>(`[data-rule] [aria-label="${label}"]`)!;
    box.value = value;
    box.dispatchEvent(new Event('change'));
    await settle();
  };
  test('the shipped rule stands there with its source; a figure that is changed makes it the firm’s own', async () => {
    expect(root().querySelector<HTMLInputElement>('[aria-label="Largest speck"]')!.value).toBe('1.5');
    expect(root().querySelector<HTMLInputElement>('[aria-label="Where the rule comes from"]')!.value).toContain('industry guides');
    await fill('Looked at from', '3 m');
    expect(api.drafts[0]!.patches[0]).toMatchObject({ op: 'set', kind: 'firm', field: 'acceptance', value: { distanceMm: 3000, speckMm: 1.5, perM2: 3 } });
    await fill('Where the rule comes from', 'Agreed with the harbour office');
    expect(api.drafts.at(-1)!.patches[0]).toMatchObject({ value: { source: 'Agreed with the harbour office' } });
  });
  test('nonsense is said by its name and changes nothing', async () => {
    for (const [label, value] of [
      ['Largest speck', 'big'],
      ['Largest speck', '3 m'],
      ['Looked at from', '1'],
      ['Specks to the m²', 'many'],
      ['Specks to the m²', '-1'],
    ] as const) {
      await fill(label, value);
      expect(text('[role="alert"]')).toContain(label.split(' ')[0]!);
    }
    expect(api.drafts).toEqual([]);
  });
});

describe('what is added to pieces that are laid dry', () => {
  const box = (name: string) => [...root().querySelectorAll('[data-dry] label')].find((l) => l.textContent!.includes(name))!.querySelector('input')!;
  const fill = async (name: string, value: string) => {
    box(name).value = value;
    box(name).dispatchEvent(new Event('change'));
    await settle();
  };
  test('starts as shipped, and is the firm’s from the first figure on; emptied it is again as shipped', async () => {
    expect(['Lap at a seam', 'Notches', 'strip of liner'].map((n) => box(n).value)).toEqual(['25', '13', '100']);
    await fill('Notches', '50');
    expect(api.drafts.at(-1)!.patches[0]).toMatchObject({ kind: 'firm', field: 'dry', value: { notchMm: 50 } });
    await fill('Notches', '');
    expect(api.drafts.at(-1)!.patches[0]).toEqual(expect.objectContaining({ field: 'dry', value: {} }));
  });
  test('what does not read, or no bench would cut, is said and changes nothing', async () => {
    await fill('Lap at a seam', 'much');
    expect(text('[data-dry] [role="alert"]')).toContain('Lap at a seam');
    await fill('Lap at a seam', '2000');
    expect(text('[data-dry] [role="alert"]')).toBe('Lap at a seam: between 5 and 150.');
    expect(box('Lap at a seam').value).toBe('25');
    expect(api.drafts).toEqual([]);
  });
});
