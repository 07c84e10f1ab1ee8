import { TestBed, type ComponentFixture } from '@angular/core/testing';
import type { Panel } from '@yellow-pane/contracts';
import { demoFirm, demoPersons, ternInterior } from '../../../../../demo/src/index';
import { Api } from '../../record/api';
import { FakeApi } from '../../record/fake-api.testing';
import { RecordStore } from '../../record/record.store';
import { PanelPage } from './panel-page';

const emptyStock = { entries: [], reservations: [], jobNames: {} };
let api: FakeApi;
let fixture: ComponentFixture<PanelPage>;
const settle = async () => {
  for (let i = 0; i < 4; i++) {
    await fixture.whenStable();
    fixture.detectChanges();
  }
};
const root = () => fixture.nativeElement as HTMLElement;
const field = (key: string) => root().querySelector<HTMLInputElement>(`[data-measure="${key}"] input`)!;
const verdict = () => root().querySelector('[data-verdict]')!.textContent!.replace(/\s+/g, ' ');
const grooves = () => [...root().querySelectorAll<HTMLElement>('[data-groove]')];
const part = (of: HTMLElement, key: string) => of.querySelector<HTMLInputElement>(`[data-part="${key}"] input`)!;
const button = (text: string) => [...root().querySelectorAll('button')].find((b) => b.textContent!.trim() === text)!;
async function type(box: HTMLInputElement, text: string): Promise<void> {
  box.value = text;
  box.dispatchEvent(new Event('input'));
  box.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter' }));
  await settle();
}
async function choose(selector: string, value: string): Promise<void> {
  const box = root().querySelector<HTMLSelectElement>(selector)!;
  box.value = value;
  box.dispatchEvent(new Event('change'));
  await settle();
}
async function pick(name: string): Promise<void> {
  TestBed.inject(RecordStore).select(api.doc.surfaces.find((s) => s.name === name)!.id);
  await settle();
}
const kept = (name = 'Door 1') => api.doc.surfaces.find((s) => s.name === name) as Panel;

beforeEach(async () => {
  localStorage.clear();
  api = new FakeApi();
  api.doc = { revision: 1, firm: demoFirm, persons: demoPersons, ...ternInterior(), stock: emptyStock, canUndo: null, canRedo: null } as never;
  TestBed.configureTestingModule({ providers: [{ provide: Api, useValue: api }] });
  await TestBed.inject(RecordStore).open(api.doc.job.id);
  fixture = TestBed.createComponent(PanelPage);
  await pick('Door 1');
});

describe('Measure, of a door', () => {
  test('shows its face with its tapes, what film its grooves take, and that the tapes agree', () => {
    expect(['widthTop', 'heightLeft', 'diagonalDown', 'edgeThickness'].map((k) => field(k).value)).toEqual(['860', '2040', '2214', '40']);
    expect(verdict()).toContain('The tapes agree. Square and parallel within 2 mm.');
    expect(grooves().map((g) => g.querySelector('span')!.textContent)).toEqual(['takes 13 of film over 10', 'takes 13 of film over 10']);
    expect([...root().querySelectorAll('yp-panel-drawing text')].map((t) => t.textContent!.trim())).toEqual(
      expect.arrayContaining(['860', '2040', '2214', 'seen from the front']),
    );
  });
  test('a string that was not pressed in is told beside its groove and above; pressed in, it is settled', async () => {
    await pick('Door 3');
    expect(verdict()).toContain('One thing does not fit. The frame of grooves 1: the string is 3 mm shorter');
    expect(grooves()[0]!.textContent).toContain('Press it into the corners');
    await type(part(grooves()[0]!, 'girthMm'), '13');
    expect(kept('Door 3').grooves[0]!.girthMm).toBe(13);
    expect(verdict()).toContain('The tapes agree');
  });
  test('one measured like another shows its tapes, and its own before them', async () => {
    await pick('Door 6');
    expect(field('widthTop').className).toContain('border-dashed');
    expect(field('heightLeft').value).toBe('2035');
    expect(field('heightLeft').className).not.toContain('border-dashed');
  });
  test('a groove is put on, cut otherwise, placed, and taken off again', async () => {
    button('+ Level').click();
    await settle();
    expect(kept().grooves.at(-1)!.run).toEqual({ way: 'level', fromFootMm: 1020 });
    await type(part(grooves()[2]!, 'fromFootMm'), '0');
    expect(kept().grooves.at(-1)!.run).toEqual({ way: 'level', fromFootMm: 0 });
    await choose('[data-groove]:nth-of-type(3) select', 'moulding');
    expect(kept().grooves.at(-1)!.form).toBe('moulding');
    expect(part(grooves()[2]!, 'depthMm')).toBeNull();
    expect(root().querySelector('[data-cut-note]')!.textContent).toContain('press a string into it');
    grooves()[2]!.querySelector<HTMLButtonElement>('[aria-label^="Delete"]')!.click();
    await settle();
    expect(kept().grooves).toHaveLength(2);
  });
  test('nothing can be nothing wide, and the string may be taken back', async () => {
    await type(part(grooves()[0]!, 'widthMm'), '0');
    expect(root().textContent).toContain('It has to be more than nothing.');
    expect(kept().grooves[0]!.widthMm).toBe(10);
    await type(part(grooves()[0]!, 'girthMm'), '');
    expect(kept().grooves[0]!.girthMm).toBeNull();
  });
  test('hardware: what comes off and what is cut round; what is electric is said where it bites', async () => {
    button('+ Something on it').click();
    await settle();
    expect(kept().hardware.at(-1)).toMatchObject({ what: 'Part 2', handling: 'off', isElectric: false });
    const [, last] = [...root().querySelectorAll<HTMLElement>('[data-hardware]')];
    const electric = last!.querySelector<HTMLInputElement>('[type=checkbox]')!;
    electric.checked = true;
    electric.dispatchEvent(new Event('change'));
    await settle();
    expect(kept().hardware.at(-1)!.isElectric).toBe(true);
    expect(root().textContent).toContain('a licensed electrician’s work');
    await choose('[data-hardware]:nth-of-type(2) select', 'round');
    expect(kept().hardware.at(-1)!.handling).toBe('round');
    await type(part([...root().querySelectorAll<HTMLElement>('[data-hardware]')][1]!, 'fromLeftMm'), '9000');
    expect(verdict()).toContain('Part 2 would stand');
  });
  test('edges, faces and the film’s direction are choices of the door; an untaped edge stops the piece, not the page', async () => {
    await choose('[data-wrap="top"]', 'return');
    await choose('[data-choice="grain"]', 'level');
    await choose('[data-choice="fire"]', 'rated');
    expect(kept()).toMatchObject({ wraps: { top: 'return', left: 'edge' }, grain: 'level', fire: 'rated' });
    button('wall panel').click();
    await settle();
    expect(kept().what).toBe('panel');
    await type(field('edgeThickness'), '');
    expect(root().querySelector('[data-cut-note]')!.textContent).toContain('tape how thick its edge is first');
    await choose('[data-choice="faces"]', 'both');
    expect(root().textContent).toContain('no seam lies on an arris');
  });
  test('in inches it is told and typed in inches', async () => {
    TestBed.inject(RecordStore).toggleUnits();
    await settle();
    await type(part(grooves()[0]!, 'depthMm'), '3/16');
    expect(kept().grooves[0]!.depthMm).toBeCloseTo(4.76, 2);
  });
});
