import type { Sign } from '@yellow-pane/contracts';
import { ApiProblem } from '../../record/api';
import { OpenedInterior } from './interior.testing';
import { SignPage } from './sign-page';

let on: OpenedInterior<SignPage>;
let asked: unknown[];
beforeEach(async () => {
  on = await OpenedInterior.at(SignPage, 'Gate canvas');
  asked = [];
  (on.api as unknown as Record<string, unknown>)['computeLettering'] = async ({ body }: { body: unknown }) => {
    asked.push(body);
    return { svgPath: 'M0 0V-700H100V0ZM300 0V-700H400V0Z', capUnits: 700 };
  };
});
const kept = () => on.kept<Sign>('Gate canvas');
const lines = () => [...on.root.querySelectorAll<HTMLElement>('[data-line]')];
const labelled = (label: string, of: ParentNode = on.root) => of.querySelector<HTMLInputElement>(`[aria-label="${label}"]`)!;
const part = (field: string, of: ParentNode) => of.querySelector<HTMLInputElement>(`[data-part="${field}"] input`)!;
async function write(text: string): Promise<void> {
  labelled('A new line of letters').value = text;
  on.root.querySelector('form')!.dispatchEvent(new Event('submit'));
  await on.settle();
}

describe('Measure, of a sign', () => {
  test('shows its ground with what stands on it, each baseline with its height, and marks the tape that is suspected', () => {
    expect(on.verdict()).toContain('bottom width would be 2400');
    expect(on.field('widthBottom').className).toContain('bg-tint');
    const drawn = on.drawn('yp-sign-drawing');
    // the two lower ones are too close for two figures
    expect(drawn).toEqual(expect.arrayContaining(['2401', '2040', '370', '140, 128', 'as one reads it']));
    // over letters only what is suspected is written
    expect(drawn).not.toContain('2500');
    expect(on.root.querySelectorAll('yp-sign-drawing path[fill-rule="evenodd"]')).toHaveLength(3);
    expect(lines().map((l) => l.getAttribute('aria-label'))).toEqual(['“TERN POINT”', '“Departures”', 'Arrow']);
  });
  test('a new line is set by the bench and comes under what is there, as high as the last one, in the middle', async () => {
    await write(' Pier 2 ');
    expect(asked).toEqual([{ text: 'Pier 2', face: 'heavy', spacing: 0 }]);
    expect(kept().lines.at(-1)).toMatchObject({ is: 'letters', text: 'Pier 2', heightMm: 130, align: 'middle', atMm: 1201, baselineMm: 0, capUnits: 700 });
    expect(labelled('A new line of letters').value).toBe('');
  });
  test('nothing is asked for where nothing is typed; what the bench refuses is said, and the letters stay as they were', async () => {
    await write('  ');
    expect(asked).toEqual([]);
    expect(on.root.querySelector('[role="alert"]')!.textContent).toContain('Say what is written there.');
    (on.api as unknown as Record<string, unknown>)['computeLettering'] = async () => {
      throw new ApiProblem('bad-input', 'This face has no “→”.');
    };
    const before = kept().lines;
    await on.change(labelled('What is written', lines()[0]!), 'TERN → POINT');
    expect(on.root.querySelector('[role="alert"]')!.textContent).toContain('This face has no “→”.');
    expect(kept().lines).toEqual(before);
    expect(labelled('What is written', lines()[0]!).value).toBe('TERN POINT');
  });
  test('other words or another face are set anew; another height or place only moves them', async () => {
    await on.change(labelled('What is written', lines()[1]!), 'Arrivals');
    await on.change(labelled('Face', lines()[1]!) as never, 'pitched');
    expect(asked).toEqual([
      { text: 'Arrivals', face: 'plain', spacing: 0 },
      { text: 'Arrivals', face: 'pitched', spacing: 0 },
    ]);
    await on.type(part('heightMm', lines()[1]!), '120');
    await on.type(part('atMm', lines()[1]!), '400');
    expect(asked).toHaveLength(2);
    expect(kept().lines[1]).toMatchObject({ text: 'Arrivals', face: 'pitched', heightMm: 120, atMm: 400, baselineMm: 140 });
  });
  test('letters that would lie on each other or past the edge are told at their line and at the piece', async () => {
    await on.type(part('baselineMm', lines()[1]!), '370');
    expect(lines()[0]!.textContent).toContain('“TERN POINT” and “Departures” would lie on each other.');
    expect(on.root.querySelector('[data-cut-note]')!.textContent).toContain('would lie on each other');
    await on.type(part('baselineMm', lines()[1]!), '140');
    await on.type(part('atMm', lines()[1]!), '1700');
    expect(lines()[1]!.textContent).toContain('past the edge of its ground');
  });
  test('in an inch job a new line is half an inch by half an inch high, and stands on a mark of the tape', async () => {
    await on.store.set('inches', 'job', on.api.doc.job.id, { units: 'in' });
    while (lines().length) {
      lines()[0]!.querySelector('button')!.click();
      await on.settle();
    }
    await write('PIER');
    const [line] = kept().lines;
    // a quarter of 27½ in is 6⅞ in
    expect(line!.heightMm / 25.4).toBeCloseTo(7, 9);
    for (const mm of [line!.atMm, line!.baselineMm]) expect((mm / 25.4) * 16).toBeCloseTo(Math.round((mm / 25.4) * 16), 6);
    expect(part('heightMm', lines()[0]!).value).toBe('7"');
  });
  test('a line is deleted; what it is on, and how that feels, is one choice each', async () => {
    labelled('Delete Arrow').click();
    await on.settle();
    expect(kept().lines).toHaveLength(2);
    on.button('sign board').click();
    await on.choose('texture', 'smooth');
    expect(kept()).toMatchObject({ what: 'board', texture: 'smooth' });
  });
  test('a figure comes out of an SVG file; a file without a path is told', async () => {
    const file = (text: string, name: string) => {
      const box = on.root.querySelector<HTMLInputElement>('input[type="file"]')!;
      Object.defineProperty(box, 'files', { value: [Object.assign(new Blob([text]), { name, text: async () => text })], configurable: true });
      box.dispatchEvent(new Event('change'));
      return on.settle();
    };
    await file('<svg xmlns="http://www.w3.org/2000/svg"><path d="M0 0H10V10H0Z"/><path d="M20 0H30V10H20Z"/></svg>', 'two squares.svg');
    expect(kept().lines.at(-1)).toMatchObject({ is: 'figure', what: 'two squares', svgPath: 'M0 0H10V10H0Z M20 0H30V10H20Z', heightMm: 130 });
    await file('<svg xmlns="http://www.w3.org/2000/svg"><rect width="3" height="3"/></svg>', 'rect.svg');
    expect(on.root.querySelector('[role="alert"]')!.textContent).toContain('There is no path in this file.');
  });
});
