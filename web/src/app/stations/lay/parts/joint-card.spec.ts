import { signal, type WritableSignal } from '@angular/core';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { defaultLaySettings, type LayEntry, type LaySettings, type Wall } from '@yellow-pane/contracts';
import { replayJoints, texturedWallOf, zonesOfPanel, type PanelZones, type TexturedPanel, type ZoneDone, type ZonesAsked } from '@yellow-pane/core/lay';
import { JointsSearch } from '../../../compute/joints-search';
import { Api } from '../../../record/api';
import { FakeApi } from '../../../record/fake-api.testing';
import { interiorDocument } from '../../../record/interior-document.testing';
import { RecordStore } from '../../../record/record.store';
import { LayStore } from '../lay.store';
import { JointCard } from './joint-card';

let fixture: ComponentFixture<JointCard>;
let root: HTMLElement;
const lines = signal<readonly Partial<LayEntry>[]>([]);
const settings = signal<LaySettings>(defaultLaySettings);
let panels: readonly TexturedPanel[];
let lay: { placeInHand: WritableSignal<{ name: string; done: () => void } | null> } & Record<string, unknown>;
const placeDone = async () => {
  lay.placeInHand()!.done();
  await settle();
};

/** The worker’s work, in place. */
const search = {
  zones: async (all: readonly TexturedPanel[], logged: readonly ZoneDone[], asked: ZonesAsked): Promise<PanelZones[]> =>
    all.map((p) => zonesOfPanel(p, logged, asked)),
};
const settle = async () => {
  for (let i = 0; i < 3; i++) {
    fixture.detectChanges();
    await fixture.whenStable();
  }
};
const button = (text: string | RegExp) => [...root.querySelectorAll('button')].find((b) => (typeof text === 'string' ? b.textContent.trim() === text : text.test(b.textContent)))!; // prettier-ignore
const click = async (b: HTMLElement) => {
  b.click();
  await settle();
};
const said = (what: string) => root.querySelector(`[data-${what}]`)?.textContent.trim() ?? '';

beforeEach(async () => {
  localStorage.clear();
  lines.set([]);
  settings.set(defaultLaySettings);
  const api = new FakeApi();
  api.doc = interiorDocument();
  lay = {
    lines,
    placeInHand: signal<{ name: string; done: () => void } | null>(null),
    settings,
    step: () => ({ key: 'wall-joints' }),
    write: async (kind: LayEntry['kind'], _label: string, more: Partial<LayEntry>) => {
      // newest first, as the log gives them
      lines.update((list) => [{ kind, ...more }, ...list]);
      return true;
    },
  };
  TestBed.configureTestingModule({
    providers: [
      { provide: Api, useValue: api },
      { provide: LayStore, useValue: lay },
      { provide: JointsSearch, useValue: search },
    ],
  });
  const record = TestBed.inject(RecordStore);
  await record.open(api.doc.job.id);
  const wall = record.doc()!.surfaces.find((s) => s.name === 'Corridor wall') as Wall;
  panels = texturedWallOf(wall, record.records()!)!.panels;
  fixture = TestBed.createComponent(JointCard);
  fixture.componentRef.setInput('surface', wall);
  root = fixture.nativeElement as HTMLElement;
  await settle();
});

test('place by place: from the floor, then from the platform, then the next drop; each tap is written with what was pressed', async () => {
  expect(said('zone')).toMatch(/^Drop 1, from the floor, /);
  expect(root.querySelector('ol')!.textContent).toMatch(/Faces: \d+ lanes/);
  expect(lay.placeInHand()!.name).toBe('Drop 1, from the floor');
  await placeDone();
  expect(said('zone')).toMatch(/^Drop 1, from the platform, /);
  await placeDone();
  expect(said('zone')).toMatch(/^Drop 2, from the floor, /);
  expect(root.textContent).toContain('promoter on the lap of drop 1');
  const done = [...lines()].reverse().map((l) => l.zone!);
  expect(done.map((z) => z.panel)).toEqual([1, 1]);
  expect(replayJoints(panels[0]!.graph, done.flatMap((z) => z.strokes))).toEqual({ isClean: true, trapped: [], left: [], broken: [] }); // prettier-ignore
  expect(button(/^\s*1 ✓/)).toBeTruthy();
});

test('a place that was done already is tapped in the list: the rest is planned anew from there', async () => {
  await click(button('I did this one already'));
  expect(said('zone')).toMatch(/^Drop 1, from the floor, /);
  expect(root.textContent).toContain('planned anew from what was done');
  expect(lines()).toHaveLength(1);
});

test('joints that were taped anew since: what was written for others says nothing', async () => {
  lines.set([{ kind: 'zone-done', zone: { panel: 1, graph: '0'.repeat(16), strokes: [] } }]);
  await settle();
  expect(said('zone')).toMatch(/^Drop 1, from the floor, /);
  expect(root.textContent).toContain('Place 1 of 2');
});

test('the order stroke by stroke: one on, one back, to the end, with nothing shut in; the border set first shuts all of it in', async () => {
  await click(button('See the order'));
  // the big button is for the place in hand, and there is none in hand here
  expect(lay.placeInHand()).toBeNull();
  expect(said('replay')).toMatch(/^\d+ strokes\. Hollow: it breathes/);
  await click(button('One on'));
  expect(said('replay')).toMatch(/^Stroke 1 of \d+: (the upright|level) joint/);
  expect(root.querySelector('[data-air]')).not.toBeNull();
  await click(button('One back'));
  expect(said('replay')).toMatch(/^\d+ strokes/);
  const bar = root.querySelector<HTMLInputElement>('input[type=range]')!;
  bar.value = bar.max;
  bar.dispatchEvent(new Event('input'));
  await settle();
  expect(said('replay')).toMatch(/the border is sealed, (left|right|top|foot)\.$/);
  settings.set({ ...defaultLaySettings, jointBorder: 'set-first' });
  await settle();
  await click(button('One back'));
  const first = root.querySelector<HTMLInputElement>('input[type=range]')!;
  // with the last stretch of it the last way out is gone
  for (let i = 1; !/shuts in/.test(said('replay')); i++) {
    expect(i).toBeLessThan(20);
    first.value = String(i);
    first.dispatchEvent(new Event('input'));
    await settle();
  }
  expect(said('replay')).toMatch(/shuts in .*the border was closed over its way out/);
  await click(button('Place by place'));
  expect(said('mind')).toMatch(/^Pierce .* from the left/);
});

test('an order of one’s own by keys: Enter presses, each is judged, Backspace takes back', async () => {
  await click(button('Try your own'));
  expect(said('own-verdict')).toContain('Each is judged');
  const svg = root.querySelector<SVGSVGElement>('svg[tabindex="0"]')!;
  const key = async (k: string, shiftKey = false) => {
    svg.dispatchEvent(new KeyboardEvent('keydown', { key: k, shiftKey }));
    await settle();
  };
  await key('Enter');
  expect(said('own-verdict')).toMatch(/^Nothing is shut in; \d+ pieces of joint to go/);
  // a level joint from end to end shuts the upright ones between it and the next
  for (let i = 0; i < 12; i++) {
    await key('ArrowRight');
    await key('Enter');
  }
  await key('ArrowUp');
  await key('Enter', true);
  const pressed = button('Take one back');
  expect(pressed.hasAttribute('disabled')).toBe(false);
  for (let i = 0; i < 20; i++) await key('Backspace');
  expect(said('own-verdict')).toContain('Each is judged');
});

test('a conduit beside a lap shuts a joint in; hung from the other end none would be, and that is said before anything is done', async () => {
  const record = TestBed.inject(RecordStore);
  const wall = record.doc()!.surfaces.find((x) => x.name === 'Corridor wall') as Wall;
  const conduit = { ...wall.hardware[0]!, fromLeftMm: 2675, fromFootMm: 100, widthMm: 60, heightMm: 500 };
  fixture.componentRef.setInput('surface', { ...wall, hardware: [conduit] });
  await settle();
  await click(root.querySelector<HTMLElement>('[aria-label="Drop 3"]')!);
  const minds = () => [...root.querySelectorAll('[data-mind]')].map((m) => m.textContent!.trim());
  expect(minds().some((m) => m.startsWith('Pierce'))).toBe(true);
  expect(minds().at(-1)).toBe('Hung from its right end it would be pierced nowhere: say so in Measure before the first drop is cut.');
  fixture.componentRef.setInput('surface', { ...wall, hardware: [conduit], hungFrom: 'right' });
  await settle();
  expect(minds().some((m) => m.startsWith('Hung from'))).toBe(false);
});

test('two people: each is shown the places of his own side; on a phone one says which of the two one is', async () => {
  settings.set({ ...defaultLaySettings, jointHands: 'two' });
  await settle();
  expect(said('zone')).toMatch(/^Drop 1, .*, left person$/);
  expect(root.textContent).toContain('both done in about');
  await click(button('I am on the right'));
  expect(said('zone')).toMatch(/, right person$/);
  expect(lay.placeInHand()!.name).toMatch(/, right$/);
  const first = said('zone');
  await placeDone();
  expect(said('zone')).not.toBe(first);
  // the other one's taps go on as planned
  await click(button('I am on the left'));
  await placeDone();
  expect(root.textContent).not.toContain('planned anew');
});
test('with all of the border set first nobody has a way out: no two are planned', async () => {
  settings.set({ ...defaultLaySettings, jointHands: 'two', jointBorder: 'set-first' });
  await settle();
  expect(root.querySelector('[data-pair]')).toBeNull();
});
test('round an arris: a strip of the film on the joints of the next wall, turned round first, for one person', async () => {
  settings.set({ ...defaultLaySettings, jointHands: 'two' });
  fixture.componentRef.setInput(
    'surface',
    TestBed.inject(RecordStore)
      .doc()!
      .surfaces.find((x) => x.name === 'Corridor, long side') as Wall,
  );
  await settle();
  const names = () => [...root.querySelectorAll('[aria-pressed][aria-label]')].map((b) => [b.textContent!.trim(), b.getAttribute('aria-label')]);
  expect(names().slice(2, 4)).toEqual([['3', 'Length 3'], ['Arris 1', 'Right arris of length 1']]); // prettier-ignore
  await click(root.querySelector<HTMLElement>('[aria-label="Right arris of length 2"]')!);
  expect(said('zone')).toBe('Right arris of length 2, from the floor, 50 mm on Corridor, end');
  expect(root.textContent).toContain('First turn length 2 round the right arris');
  // nobody else would stand there: nothing is said of two
  expect(root.querySelector('[data-pair]')).toBeNull();
  expect(root.textContent).not.toContain('One person here');
  expect(lay.placeInHand()!.name).toBe('Right arris of length 2, from the floor');
});
