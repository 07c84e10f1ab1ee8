import type { Panel } from '@yellow-pane/contracts';
import { OpenedInterior } from './interior.testing';
import { PanelPage } from './panel-page';

let on: OpenedInterior<PanelPage>;
beforeEach(async () => {
  on = await OpenedInterior.at(PanelPage, 'Door 1');
});
const grooves = () => [...on.root.querySelectorAll<HTMLElement>('[data-groove]')];
const part = (of: HTMLElement, key: string) => of.querySelector<HTMLInputElement>(`[data-part="${key}"] input`)!;
const choose = (selector: string, value: string) => on.change(on.root.querySelector<HTMLSelectElement>(selector)!, value);
const kept = (name = 'Door 1') => on.kept<Panel>(name);

describe('Measure, of a door', () => {
  test('shows its face with its tapes, what film its grooves take, and that the tapes agree', () => {
    expect(['widthTop', 'heightLeft', 'diagonalDown', 'edgeThickness'].map((k) => on.field(k).value)).toEqual(['860', '2040', '2214', '40']);
    expect(on.verdict()).toContain('The tapes agree. Square and parallel within 2 mm.');
    expect(grooves().map((g) => g.querySelector('span')!.textContent)).toEqual(['takes 13 of film over 10', 'takes 13 of film over 10']);
    expect(on.drawn('yp-panel-drawing')).toEqual(expect.arrayContaining(['860', '2040', '2214', 'seen from the front']));
  });
  test('a string that was not pressed in is told beside its groove and above; pressed in, it is settled', async () => {
    await on.pick('Door 3');
    expect(on.verdict()).toContain('One thing does not fit. The frame of grooves 1: the string is 3 mm shorter');
    expect(grooves()[0]!.textContent).toContain('Press it into the corners');
    await on.type(part(grooves()[0]!, 'girthMm'), '13');
    expect(kept('Door 3').grooves[0]!.girthMm).toBe(13);
    expect(on.verdict()).toContain('The tapes agree');
  });
  test('one measured like another shows its tapes, and its own before them', async () => {
    await on.pick('Door 6');
    expect(on.field('widthTop').className).toContain('border-dashed');
    expect(on.field('heightLeft').value).toBe('2035');
    expect(on.field('heightLeft').className).not.toContain('border-dashed');
  });
  test('a groove is put on, cut otherwise, placed, and taken off again', async () => {
    on.button('+ Level').click();
    await on.settle();
    expect(kept().grooves.at(-1)!.run).toEqual({ way: 'level', fromFootMm: 1020 });
    await on.type(part(grooves()[2]!, 'fromFootMm'), '0');
    expect(kept().grooves.at(-1)!.run).toEqual({ way: 'level', fromFootMm: 0 });
    await choose('[data-groove]:nth-of-type(3) select', 'moulding');
    expect(kept().grooves.at(-1)!.form).toBe('moulding');
    expect(part(grooves()[2]!, 'depthMm')).toBeNull();
    expect(on.root.querySelector('[data-cut-note]')!.textContent).toContain('press a string into it');
    grooves()[2]!.querySelector<HTMLButtonElement>('[aria-label^="Delete"]')!.click();
    await on.settle();
    expect(kept().grooves).toHaveLength(2);
  });
  test('a recess is put on, placed and taken off; one that cannot be is named', async () => {
    const recesses = () => [...on.root.querySelectorAll<HTMLElement>('[data-recess]')];
    on.button('+ Recess').click();
    await on.settle();
    expect(kept().recesses.at(-1)).toMatchObject({ fromLeftMm: 129, acrossMm: 602, depthMm: 10, slopeMm: 8 });
    await on.type(part(recesses()[0]!, 'depthMm'), '6');
    expect(recesses()[0]!.textContent).toContain('takes 4 more film than it is wide and high');
    await on.type(part(recesses()[0]!, 'slopeMm'), '0');
    expect(kept().recesses[0]).toMatchObject({ depthMm: 6, slopeMm: 0 });
    await on.type(part(recesses()[0]!, 'depthMm'), '40');
    expect(on.verdict()).toContain('Recess 1 would be deeper than the edge is thick');
    expect(on.root.querySelector('[data-cut-note]')!.textContent).toContain('A recess cannot be');
    recesses()[0]!.querySelector<HTMLButtonElement>('[aria-label^="Delete"]')!.click();
    await on.settle();
    expect(kept().recesses).toEqual([]);
  });
  test('ribs of a corrugated sheet: their section drawn, what they take said; grooves across them are not reckoned with', async () => {
    const ribs = () => on.root.querySelector<HTMLElement>('[data-ribs]');
    const choose = async (field: string, value: string) => {
      const box = ribs()!.querySelector<HTMLSelectElement>(`[data-rib="${field}"]`)!;
      box.value = value;
      box.dispatchEvent(new Event('change'));
      await on.settle();
    };
    on.button('+ Ribs all over it').click();
    await on.settle();
    expect(kept().corrugation).toMatchObject({ form: 'wave', pitchMm: 76, depthMm: 18, way: 'fed' });
    expect(ribs()!.textContent).toContain('not reckoned with');
    for (let b; (b = on.root.querySelector<HTMLButtonElement>('[data-groove] [aria-label^="Delete"]'));) {
      b.click();
      await on.settle();
    }
    expect(ribs()!.textContent).not.toContain('not reckoned with');
    expect(ribs()!.querySelector('[data-rib-word]')!.textContent).toContain('14 % more than it is wide');
    expect(ribs()!.querySelector('yp-rib-drawing svg')).not.toBeNull();
    const across = () => on.root.querySelector('[data-cut-note]')?.textContent ?? '';
    await choose('way', 'bridged');
    expect(kept().corrugation!.way).toBe('bridged');
    await choose('form', 'trapezoid');
    await on.type(part(ribs()!, 'crestMm'), '90');
    expect(ribs()!.textContent).toContain('No sheet has such ribs');
    expect(across()).toContain('No sheet has such ribs');
    expect(ribs()!.querySelector('yp-rib-drawing')).toBeNull();
    ribs()!.querySelector<HTMLButtonElement>('[aria-label="Delete ribs"]')!.click();
    await on.settle();
    expect(kept().corrugation).toBeNull();
  });
  test('a face that stands out in its middle: two bows, what they ask of film, what cannot be', async () => {
    const domed = () => on.root.querySelector<HTMLElement>('[data-dome]');
    on.button('+ It stands out in its middle').click();
    await on.settle();
    expect(kept().dome).toEqual({ acrossBowMm: 10, upBowMm: 10 });
    await on.type(part(domed()!, 'acrossBowMm'), '40');
    expect(kept().dome).toEqual({ acrossBowMm: 40, upBowMm: 10 });
    expect(domed()!.querySelector('[data-dome-word]')!.textContent).toMatch(/Over its middle \d+ across/);
    expect(domed()!.textContent).toContain('Grooves, recesses and ribs of a domed sheet');
    await on.type(part(domed()!, 'acrossBowMm'), '500');
    expect(domed()!.textContent).toContain('lie on no ball');
    domed()!.querySelector<HTMLButtonElement>('[aria-label="Delete bows"]')!.click();
    await on.settle();
    expect(kept().dome).toBeNull();
  });
  test('round corners: how round, what that asks of film, and when they do not count', async () => {
    const round = () => on.root.querySelector<HTMLElement>('[data-round-corners]');
    const word = () => round()!.querySelector('[data-corner-word]')!.textContent;
    on.button('+ Its corners are round').click();
    await on.settle();
    expect(kept().corners).toEqual({ radiusMm: 20, arrisMm: 2 });
    // a door goes over left and right only
    expect(word()).toContain('They count where film goes over two edges that meet');
    const top = on.root.querySelector<HTMLSelectElement>('[data-wrap="top"]')!;
    top.value = 'edge';
    top.dispatchEvent(new Event('change'));
    await on.settle();
    expect(word()).toMatch(/Not without a cut: its 30 % take it \d+ mm down\. It is folded\./);
    await on.type(part(round()!, 'radiusMm'), '400');
    expect(kept().corners).toEqual({ radiusMm: 400, arrisMm: 2 });
    expect(word()).toMatch(/drawn over them warm, without a cut: \d+ % at its end/);
    await on.type(part(round()!, 'radiusMm'), '0');
    expect(kept().corners!.radiusMm).toBe(400);
    await on.type(part(round()!, 'radiusMm'), '9000');
    expect(kept().corners!.radiusMm).toBe(400);
    round()!.querySelector<HTMLButtonElement>('[aria-label="Delete round corners"]')!.click();
    await on.settle();
    expect(kept().corners).toBeNull();
  });
  test('nothing can be nothing wide, and the string may be taken back', async () => {
    await on.type(part(grooves()[0]!, 'widthMm'), '0');
    expect(on.root.textContent).toContain('It has to be more than nothing.');
    expect(kept().grooves[0]!.widthMm).toBe(10);
    await on.type(part(grooves()[0]!, 'girthMm'), '');
    expect(kept().grooves[0]!.girthMm).toBeNull();
  });
  test('hardware: what comes off and what is cut round; what is electric is said where it bites', async () => {
    on.button('+ Something on it').click();
    await on.settle();
    expect(kept().hardware.at(-1)).toMatchObject({ what: 'Part 2', handling: 'off', isElectric: false });
    const [, last] = [...on.root.querySelectorAll<HTMLElement>('[data-hardware]')];
    const electric = last!.querySelector<HTMLInputElement>('[type=checkbox]')!;
    electric.checked = true;
    electric.dispatchEvent(new Event('change'));
    await on.settle();
    expect(kept().hardware.at(-1)!.isElectric).toBe(true);
    expect(on.root.textContent).toContain('a licensed electrician’s work');
    await choose('[data-hardware]:nth-of-type(2) select', 'round');
    expect(kept().hardware.at(-1)!.handling).toBe('round');
    await on.type(part([...on.root.querySelectorAll<HTMLElement>('[data-hardware]')][1]!, 'fromLeftMm'), '9000');
    expect(on.verdict()).toContain('Part 2 would stand');
  });
  test('edges, faces and the film’s direction are choices of the door; an untaped edge stops the piece, not the page', async () => {
    await choose('[data-wrap="top"]', 'return');
    await choose('[data-choice="grain"]', 'level');
    await choose('[data-choice="fire"]', 'rated');
    expect(kept()).toMatchObject({ wraps: { top: 'return', left: 'edge' }, grain: 'level', fire: 'rated' });
    on.button('wall panel').click();
    await on.settle();
    expect(kept().what).toBe('panel');
    await on.type(on.field('edgeThickness'), '');
    expect(on.root.querySelector('[data-cut-note]')!.textContent).toContain('tape how thick its edge is first');
    await choose('[data-choice="faces"]', 'both');
    expect(on.root.textContent).toContain('no seam lies on an arris');
  });
  test('in inches it is told and typed in inches', async () => {
    on.store.toggleUnits();
    await on.settle();
    await on.type(part(grooves()[0]!, 'depthMm'), '3/16');
    expect(kept().grooves[0]!.depthMm).toBeCloseTo(4.76, 2);
  });
});
