import { panesIn } from '../../../../../demo/src/index';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import { defaultPlotSettings, type PlotRun, type PlotStatus, type Sent } from '@yellow-pane/contracts';
import { contentHash, paneToPiece, plotOfPiece, Memo } from '@yellow-pane/core';
import { Api, ApiProblem } from '../../record/api';
import { FakeApi } from '../../record/fake-api.testing';
import { RecordStore } from '../../record/record.store';
import { PlotterPage } from './plotter-page';

/** A plotter that does what it is told, at once. */
class FakePlotter extends FakeApi {
  status: PlotStatus = {
    run: null,
    plotted: [],
    plottedFrom: 0,
    plottedCount: 0,
    widthMm: 0,
    heightMm: 0,
    worstOffMm: null,
    isConnected: false,
    machine: 'simulated plotter',
  };
  readonly acts: string[] = [];
  started: { pieceId: string; resumeId: string | null; scaleX: number } | null = null;
  away = false;
  plotter = async (sent?: Sent<'plotter'>): Promise<PlotStatus> => {
    const plottedFrom = Number(sent?.query?.from ?? 0);
    return { ...this.status, plotted: this.status.plotted.slice(plottedFrom - this.status.plottedFrom), plottedFrom };
  };
  plotterStart = async ({ params: { jobId }, body }: Sent<'plotterStart'>): Promise<PlotRun> => {
    if (this.away) throw new ApiProblem('plotter-away', 'The plotter does not answer. Is it switched on and on this network?');
    this.started = { pieceId: body.pieceId, resumeId: body.resumeId ?? null, scaleX: body.settings.scaleX };
    const run = runOf(jobId, body.pieceId, 'running');
    this.status = { ...this.status, run };
    return run;
  };
  plotterAct = async ({ body: { act } }: Sent<'plotterAct'>): Promise<PlotStatus> => {
    this.acts.push(act);
    const run = this.status.run!;
    this.status = { ...this.status, run: { ...run, state: act === 'pause' ? 'paused' : act === 'resume' ? 'running' : act === 'stop' ? 'stopped' : 'failed', message: act === 'jam' ? 'The plotter stopped: the film is caught.' : '' } }; // prettier-ignore
    return this.status;
  };
}
const runOf = (jobId: string, pieceId: string, state: PlotRun['state'], more: Partial<PlotRun> = {}): PlotRun => ({
  id: '01930000-0000-7000-8000-00000000aa01', jobId, pieceId, label: 'Desk', settings: defaultPlotSettings, pathsHash: '', pathCount: 800, confirmedCount: 40, state, message: '',
  personId: '01930000-0000-7000-8000-000000000002', startedAt: '2026-09-14T09:00:00Z', endedAt: null, ...more,
}); // prettier-ignore

let api: FakePlotter;
let fixture: ComponentFixture<PlotterPage>;
const root = () => fixture.nativeElement as HTMLElement;
const text = () => root().textContent.replace(/\s+/g, ' ');
const button = (words: string) => [...root().querySelectorAll('button')].find((b) => b.textContent.includes(words))!;
const settle = async () => {
  for (let i = 0; i < 4; i++) {
    await fixture.whenStable();
    await new Promise((r) => setTimeout(r, 5));
  }
  fixture.detectChanges();
};
const desk = () => panesIn(api.doc).find((s) => s.name === 'Desk')!;
const press = async (words: string) => {
  button(words).click();
  await settle();
};
async function open(runs: PlotRun[] = []): Promise<void> {
  api.doc = { ...api.doc, plotRuns: runs };
  await TestBed.inject(RecordStore).open(api.doc.job.id);
  fixture = TestBed.createComponent(PlotterPage);
  fixture.componentRef.setInput('piece', desk().id);
  await settle();
}

beforeEach(() => {
  localStorage.clear();
  sessionStorage.clear();
  api = new FakePlotter();
  TestBed.configureTestingModule({ providers: [provideRouter([]), { provide: Api, useValue: api }] });
});
afterEach(() => fixture.destroy());

describe('the plotter', () => {
  test('shows the piece it was called for, with what there is to cut; only plotted pieces are offered', async () => {
    await open();
    expect(root().querySelector('svg')!.getAttribute('aria-label')).toContain('Desk');
    expect(text()).toMatch(/\d+ paths, \d+\.\d m under the knife, about \d+ min/);
    expect([...root().querySelectorAll('option')].map((o) => o.textContent.split(',')[0])).toEqual(['M7', 'Door marks 1', 'Door marks 2', 'Desk']);
  });
  test('cut, paused, gone on with, stopped: what can be done next is what is offered', async () => {
    await open();
    await press('Cut it');
    expect(api.started).toEqual({ pieceId: desk().id, resumeId: null, scaleX: 1 });
    expect(text()).toContain('Desk: cutting');
    expect(root().querySelector('[role=progressbar]')!.getAttribute('aria-valuenow')).toBe('5');
    await press('Pause');
    expect(text()).toContain('Desk: paused');
    await press('Go on');
    await press('Stop');
    expect(api.acts).toEqual(['pause', 'resume', 'stop']);
    expect(text()).toContain('Desk: stopped');
  });
  test('what 100 mm come out as sets the size; what no machine does is refused in words', async () => {
    await open();
    const box = [...root().querySelectorAll('label')].find((l) => l.textContent.includes('100 mm across'))!.querySelector('input')!;
    box.value = '100.5';
    box.dispatchEvent(new Event('change'));
    await settle();
    await press('Cut it');
    expect(api.started!.scaleX).toBeCloseTo(100 / 100.5, 9);
    box.value = '150';
    box.dispatchEvent(new Event('change'));
    await settle();
    expect(root().querySelector('[role=alert]')!.textContent).toContain('between 95.3 and 105.2 mm');
  });
  test('a run that broke off goes on only with the very same paths', async () => {
    const doc = api.doc;
    const film = doc.films.find((f) => f.id === desk().filmId)!;
    const sheet = plotOfPiece(paneToPiece(desk(), { ...doc, memo: new Memo() }, film), desk().id, { weeding: true, registration: true })!;
    await open([
      runOf(doc.job.id, desk().id, 'interrupted', {
        pathsHash: contentHash(sheet.paths),
        message: 'Yellow Pane was closed at path 41 of 800. It goes on there.',
      }),
    ]);
    expect(text()).toContain('Yellow Pane was closed at path 41');
    expect(button('Go on at path 41').disabled).toBe(false);
    // without the weeding lines it would be another sheet
    [...root().querySelectorAll<HTMLInputElement>('input[type=checkbox]')][0]!.dispatchEvent(new Event('change'));
    await settle();
    expect(button('Go on at path 41').disabled).toBe(true);
    expect(text()).toContain('what is cut does not fit any more');
  });
  test('far from the plan: says by how much and what to do', async () => {
    await open();
    await press('Cut it');
    api.status = { ...api.status, worstOffMm: 0.72 };
    await press('Pause');
    expect(text()).toContain('0.72 mm. Cut a test square');
  });
  test('a plotter that does not answer is told, and nothing is started', async () => {
    await open();
    api.away = true;
    await press('Cut it');
    expect(root().querySelector('[role=alert]')!.textContent).toContain('Is it switched on');
    expect(button('Cut it')).toBeDefined();
  });
});
