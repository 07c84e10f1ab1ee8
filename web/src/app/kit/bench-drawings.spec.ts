import { TestBed } from '@angular/core/testing';
import { judgeColumn, judgeCounter, judgePanel, piecesOfColumn, piecesOfCounter, piecesOfPanel, usualDry, wrappedRounds } from '@yellow-pane/core';
import {
  newCounter,
  newPanel,
  type ColumnMeasure,
  type Counter,
  type CounterMeasure,
  type Groove,
  type Panel,
  type PanelMeasure,
} from '@yellow-pane/contracts';
import { BenchDrawing } from './bench-drawing';
import { BenchList } from './bench-list';
import { ColumnDrawing } from './column-drawing';
import { CounterDrawing } from './counter-drawing';
import { PanelDrawing } from './panel-drawing';

const tapes: [ColumnMeasure, number][] = [['girthFoot', 1257], ['girthTop', 1225], ['heightFront', 2500]]; // prettier-ignore
const survey = judgeColumn('round', tapes.map(([measure, lengthMm]) => ({ measure, lengthMm }))); // prettier-ignore
const film = {
  id: 'f',
  name: 'Ash Plank',
  direction: 'one-way',
  drying: 'dry-applied',
  mounting: 'not-on-glass',
  patternRepeatMm: null,
  stretchMaxPct: null,
} as const;
const made = piecesOfColumn({
  surface: { id: 's', name: 'C', ends: { foot: 'floor', head: 'ceiling' } },
  survey,
  allowances: usualDry,
  film,
  rollWidthsMm: [1524],
  units: 'mm',
});
if ('blocked' in made) throw new Error(made.blocked);
const piece = { ...made.pieces[0]!.piece, id: 'p', label: 'Column 1' };
function shown<T>(type: new () => T, inputs: Record<string, unknown>): HTMLElement {
  const fixture = TestBed.createComponent(type);
  for (const [k, v] of Object.entries(inputs)) fixture.componentRef.setInput(k, v);
  fixture.detectChanges();
  return fixture.nativeElement as HTMLElement;
}

test('the bench drawing tells liner cuts from film cuts by their line, numbers them, and names them to whoever cannot see it', () => {
  const root = shown(BenchDrawing, { piece, units: 'mm' });
  const whole = [...root.querySelectorAll('svg > polyline')];
  expect(whole.map((l) => l.getAttribute('stroke-dasharray') !== null)).toEqual([true, true, false, false]);
  expect([...root.querySelectorAll('circle + text')].map((t) => t.textContent!.trim())).toEqual(['1', '2', '3', '4']);
  expect(root.querySelector('svg')!.getAttribute('aria-label')).toMatch(/liner up: 1\. Liner only.*4\. Top/);
});
test('both ends are drawn once more, enlarged, with the strip, the notch and 45°', () => {
  const root = shown(BenchDrawing, { piece, units: 'mm' });
  const words = [...root.querySelectorAll('text')].map((t) => t.textContent!.trim());
  expect(words).toEqual(expect.arrayContaining(['Top end, enlarged', 'Foot end, enlarged', '100', '13', '45°']));
  expect(words).toContain(String(piece.widthMm));
});
test('in words: which layer first, then where', () =>
  expect(shown(BenchList, { piece }).textContent!.replace(/\s+/g, ' ')).toMatch(
    /1Liner only\. The whole length: left side of the strip.*3Through the film\. Foot/,
  ));
test('a step shows the film as far as it has come: the strip, then half way round, then all of it', () => {
  const film = (step: string) => shown(ColumnDrawing, { body: survey.body, pieces: [piece], units: 'mm', step, label: 'x' }).querySelectorAll('polygon')[1]?.getAttribute('points')?.split(' ').map((p) => Number(p.split(',')[0])) ?? []; // prettier-ignore
  const width = (step: string) => (film(step).length ? Math.max(...film(step)) - Math.min(...film(step)) : 0);
  expect(width('column-plumb')).toBe(0);
  expect(width('column-strip')).toBeGreaterThan(0);
  expect(width('column-round')).toBeGreaterThan(width('column-strip'));
  expect(width('column-seam')).toBeGreaterThan(width('column-round'));
});

describe('a door', () => {
  const groove: Groove = { id: 'g', run: { way: 'frame', fromLeftMm: 130, fromFootMm: 150, acrossMm: 600, upMm: 700 }, toFarEdgeMm: null, form: 'square', widthMm: 10, depthMm: 2, flatMm: 0, girthMm: null }; // prettier-ignore
  const lock = { id: 'h', what: 'Lock', handling: 'off', fromLeftMm: 780, fromFootMm: 950, widthMm: 45, heightMm: 220, isElectric: false } as const;
  const door: Panel = { ...newPanel({ id: 's', jobId: 'j', placeId: 'p', name: 'Door 1', order: 1 }), grooves: [groove], hardware: [lock], hinges: 'left', wraps: { left: 'edge', right: 'edge', top: 'edge', bottom: 'trimmed' } }; // prettier-ignore
  const tapes: [PanelMeasure, number][] = [['widthMiddle', 860], ['heightMiddle', 2040], ['edgeThickness', 40]]; // prettier-ignore
  const face = judgePanel(door, tapes.map(([measure, lengthMm]) => ({ measure, lengthMm }))); // prettier-ignore
  const cut = piecesOfPanel({ surface: door, survey: face, allowances: usualDry, film, rollWidthsMm: [1220], units: 'mm' });
  if ('blocked' in cut) throw new Error(cut.blocked);
  const flat = { ...cut.pieces[0]!.piece, id: 'p', label: 'Door 1' };
  const drawing = (inputs: object = {}) => shown(PanelDrawing, { panel: door, outline: face.face.outline, label: 'x', ...inputs });

  test('at the bench: pencil lines dotted, what is cut later dashed and dotted and in words; one corner of each kind enlarged with its measure', () => {
    const root = shown(BenchDrawing, { piece: flat, units: 'mm' });
    const dashes = [...root.querySelectorAll('svg > polyline')].map((l) => l.getAttribute('stroke-dasharray'));
    expect(dashes.slice(0, 2)).toEqual(['1 2.5', '1 2.5']);
    expect(new Set(dashes.slice(2))).toEqual(new Set(['5 2 1 2']));
    const words = [...root.querySelectorAll('text')].map((t) => t.textContent!.trim());
    expect(words).toEqual(expect.arrayContaining(['Frame of grooves 1, top left, enlarged', '4 out', 'Top left, enlarged', 'tab 13']));
    const list = shown(BenchList, { piece: flat }).textContent!.replace(/\s+/g, ' ');
    expect(list).toMatch(/1Pencil, no cut\. The face.*2Pencil, no cut\. The liner is folded back.*Later, when it lies\. Frame of grooves 1, top left/);
  });
  test('before one: hinges on their side, handle where it is, film over three edges', () => {
    const root = drawing();
    const rects = [...root.querySelectorAll('rect')].map((r) => ({ x: Number(r.getAttribute('x')), w: Number(r.getAttribute('width')), dash: r.getAttribute('stroke-dasharray') })); // prettier-ignore
    expect(rects.filter((r) => r.w === 5)).toHaveLength(3);
    const face = root.querySelector('[data-face]')!.getAttribute('d')!.split(/[MLQZ]/).filter(Boolean).flatMap((q) => { const n = q.split(' ').map(Number); return n.filter((_, i) => i % 2 === 0); }); // prettier-ignore
    expect(Math.max(...rects.filter((r) => r.w === 5).map((r) => r.x))).toBeLessThan(Math.min(...face));
    expect(rects.filter((r) => r.dash === '3 2')).toHaveLength(4);
  });
  test('each step shows what it is about: the corner by its school, the order in a groove', () => {
    const text = (step: string, school = 'relief') => drawing({ step, school }).textContent!.replace(/\s+/g, ' ');
    expect(text('panel-corner')).toContain('tab, 1st');
    expect(text('panel-corner', 'envelope')).toContain('ear behind');
    expect(text('panel-corner', 'mitre')).not.toMatch(/tab|ear/);
    expect(text('panel-groove')).toMatch(/1 straight in.*2 last/);
    const film = (step: string) =>
      Number([...drawing({ step }).querySelectorAll('rect')].find((r) => r.getAttribute('fill') === '#FFE9A8')?.getAttribute('height') ?? 0);
    expect(film('none')).toBe(0);
    expect(film('panel-face')).toBeGreaterThan(film('panel-centre'));
    expect(film('panel-edges')).toBeGreaterThan(film('panel-face'));
  });
});

describe('a counter top', () => {
  const top: Counter = { ...newCounter({ id: 's', jobId: 'j', placeId: 'p', name: 'Top', order: 1 }), round: ['frontRight'], sides: { front: 'return', right: 'return', back: 'wall', left: 'strip' } }; // prettier-ignore
  const tapes: [CounterMeasure, number][] = [['widthFront', 2400], ['depthLeft', 700], ['setbackFrontRight', 250], ['edgeThickness', 30]]; // prettier-ignore
  const survey = judgeCounter(top, tapes.map(([measure, lengthMm]) => ({ measure, lengthMm }))); // prettier-ignore
  const body = survey.body!;
  const cut = piecesOfCounter({ surface: top, survey, allowances: usualDry, film, rollWidthsMm: [1220], units: 'mm' });
  if ('blocked' in cut) throw new Error(cut.blocked);
  const rounds = wrappedRounds(body, top.sides, 30, usualDry, null);
  const drawing = (inputs: object = {}) => shown(CounterDrawing, { counter: top, body, label: 'x', rounds, ...inputs });

  test('a piece that lies is drawn wide, its enlarged corners below it; an arc of its pencil line is an arc', () => {
    const piece = { ...cut.pieces.find((p) => p.suffix === 'top')!.piece, id: 'p', label: 'Top' };
    const root = shown(BenchDrawing, { piece, units: 'mm' });
    const [whole, ...others] = [...root.querySelectorAll('svg > rect')].map((r) => ({ x: Number(r.getAttribute('x')), y: Number(r.getAttribute('y')), w: Number(r.getAttribute('width')), h: Number(r.getAttribute('height')) })); // prettier-ignore
    expect(whole!.w).toBeGreaterThan(2.5 * whole!.h);
    expect(others.length).toBeGreaterThan(1);
    for (const e of others) expect(e.y).toBeGreaterThan(whole!.y + whole!.h);
    const room = Number(root.querySelector('svg')!.getAttribute('viewBox')!.split(' ')[2]);
    for (const e of others) expect(e.x + e.w).toBeLessThanOrEqual(room);
    expect(root.querySelector('polyline')!.getAttribute('points')!.split(' ').length).toBeGreaterThan(10);
    const words = [...root.querySelectorAll('text')].map((t) => t.textContent!.trim());
    expect(words).toEqual(expect.arrayContaining(['▲ back', 'Round front right, enlarged']));
    expect(words.some((t) => t.includes('times as high'))).toBe(false);
  });
  test('a long strip is drawn higher than it is, and says so', () => {
    const piece = { ...cut.pieces.find((p) => p.suffix === 'edge')!.piece, id: 'e', label: 'Top edge' };
    const long = { ...piece, widthMm: 3000 };
    const words = [...shown(BenchDrawing, { piece: long, units: 'mm' }).querySelectorAll('text')].map((t) => t.textContent!.trim());
    expect(words).toEqual(expect.arrayContaining(['▲ top']));
    expect(words.find((t) => t.includes('times as high'))).toMatch(/^drawn [2-9](\.\d)? times as high$/);
  });
  test('from above: a wall at its back, its rounded corner an arc, film from the end that is tacked first', () => {
    const wide = (step: string, first = 'left') => {
      const clip = drawing({ step, first }).querySelector('clipPath rect');
      return clip ? [Number(clip.getAttribute('x')), Number(clip.getAttribute('width'))] : null;
    };
    expect(wide('none')).toBeNull();
    const [end, top] = [wide('counter-end')!, wide('counter-top')!];
    expect(end[0]).toBe(0);
    expect(top[1]!).toBeGreaterThan(end[1]!);
    // the top is 300 px wide and begins at 22
    expect(wide('counter-end', 'right')![0]).toBeGreaterThan(290);
    expect(drawing().querySelectorAll('path[stroke-width="2"]')).toHaveLength(1);
    // the strip of its left end, and two edges with film underneath
    const bands = [...drawing().querySelectorAll('rect')].map((r) => r.getAttribute('fill'));
    expect(bands.filter((f) => f === '#F4B400')).toHaveLength(1);
    expect([...drawing({ step: 'counter-edges' }).querySelectorAll('rect')].filter((r) => r.getAttribute('fill') === '#FFD54F')).toHaveLength(2);
  });
  test('its round is drawn with as many Vs as it has, its edge cut through with its own figures, its sharp corner by its school', () => {
    const vs = drawing({ step: 'counter-round' }).querySelector('path[stroke-width="1.4"]')!.getAttribute('d')!;
    expect(vs.match(/Z/g)).toHaveLength(rounds[0]!.vs);
    expect(drawing({ step: 'counter-round' }).textContent).toContain(`${rounds[0]!.vs} Vs, none on the edge`);
    expect(drawing({ step: 'counter-strip', edge: { onTop: '25', edge: '30', under: '24', ruler: '3' } }).textContent).toMatch(
      /3.*the top, last.*25.*edge 30.*24 underneath/,
    );
    expect(drawing({ step: 'counter-corner', school: 'envelope' }).textContent).toContain('ear behind');
    expect(drawing({ step: 'counter-seam' }).textContent).toContain('the lap, in yellow');
  });
});
