import { v7 as uuidv7 } from 'uuid';
import type { Patch, PlotRun, PlotSettings, PlotState, PlotStatus } from '@yellow-pane/contracts';
import { contentHash, cutsForFilm, plotLengths, plotOfSurface, type PlotSheet } from '@yellow-pane/core';
import type { RecordsRepository } from '../../db/records.repository.js';
import { PlotterDriver, type PlotterAddress } from '../../instruments/plotter-driver.js';
import { SimulatedPlotter } from '../../instruments/simulated-plotter.js';
import { Refusal } from '../../problem.js';
import type { JobsService } from '../jobs/jobs.service.js';
import { plotDxf, plotHpgl } from './plot-files.js';

/** Progress is written down at least this often while the plotter cuts, ms. */
const WRITE_MS = 1000;

interface AtWork {
  run: PlotRun;
  readonly sheet: PlotSheet;
  readonly driver: PlotterDriver;
  readonly plotted: (readonly (readonly [number, number])[])[];
  readonly startedFrom: number;
  worstOffMm: number | null;
  writtenAt: number;
}

/** The knife plotter: sheets, files, and one run at a time, whose progress outlives this program. */
export class PlotterService {
  private readonly deviceId = uuidv7();
  private simulated: SimulatedPlotter | null = null;
  private at: AtWork | null = null;
  private writing: Promise<unknown> = Promise.resolve();

  constructor(
    private readonly jobs: JobsService,
    private readonly records: Pick<RecordsRepository, 'all' | 'find'>,
    private readonly now: () => Date,
    /** A real machine's address; null = the simulated one. */
    private readonly address: PlotterAddress | null,
    private readonly haste: number,
  ) {}

  /** Runs that were at work when the program ended: they broke off, and can go on where they were. */
  async tidyUp(): Promise<void> {
    for (const run of await this.records.all('plotRun'))
      if (run.state === 'running' || run.state === 'paused')
        await this.write(run, { state: 'interrupted', message: `Yellow Pane was closed at path ${run.confirmedCount + 1} of ${run.pathCount}. It goes on there.`, endedAt: this.now().toISOString() }); // prettier-ignore
  }

  close(): void {
    this.at?.driver.close();
    this.simulated?.close();
  }

  async sheet(
    jobId: string,
    pieceId: string,
    settings: Pick<PlotSettings, 'weeding' | 'registration'>,
  ): Promise<PlotSheet & { cutMm: number; travelMm: number }> {
    const { sheet } = await this.find(jobId, pieceId, settings);
    return { ...sheet, ...plotLengths(sheet) };
  }
  async hpgl(jobId: string, pieceId: string, settings: Pick<PlotSettings, 'weeding' | 'registration'>): Promise<{ name: string; bytes: string }> {
    const { sheet, label } = await this.find(jobId, pieceId, settings);
    return { name: `${label}.hpgl`, bytes: plotHpgl(sheet, settings) };
  }
  async dxf(jobId: string, pieceId: string, settings: Pick<PlotSettings, 'weeding' | 'registration'>): Promise<{ name: string; bytes: string }> {
    const { sheet, label } = await this.find(jobId, pieceId, settings);
    return { name: `${label}.dxf`, bytes: plotDxf(sheet) };
  }

  private async find(jobId: string, pieceId: string, settings: Pick<PlotSettings, 'weeding' | 'registration'>): Promise<{ sheet: PlotSheet; label: string }> {
    const doc = await this.jobs.openWithMemo(jobId);
    for (const film of doc.films) {
      const cut = cutsForFilm(doc, film.id).find((c) => c.pieces.some((p) => p.id === pieceId));
      if (!cut) continue;
      const sheet = plotOfSurface(cut.surface, doc, film, pieceId, settings);
      if (!sheet) break;
      return { sheet, label: cut.pieces.find((p) => p.id === pieceId)!.label };
    }
    throw new Refusal('not-plotted', 'This piece has no design that a plotter cuts: dots, stripes, marks, a figure or letters.');
  }

  /** Starts a piece, or goes on with one that broke off. */
  async start(jobId: string, request: { pieceId: string; settings: PlotSettings; personId: string; resumeId: string | null }): Promise<PlotRun> {
    if (this.at && (this.at.run.state === 'running' || this.at.run.state === 'paused'))
      throw new Refusal('plotter-busy', `The plotter is at ${this.at.run.label}. Stop it there first.`);
    const { sheet, label } = await this.find(jobId, request.pieceId, request.settings);
    const pathsHash = contentHash(sheet.paths);
    let run: PlotRun;
    if (request.resumeId) {
      const old = await this.records.find('plotRun', request.resumeId);
      if (!old || old.jobId !== jobId || old.pieceId !== request.pieceId) throw new Refusal('not-found', 'There is no such run to go on with.');
      if (old.pathsHash !== pathsHash)
        throw new Refusal(
          'conflict',
          'The design or the pane has changed since this run began: what is cut does not fit it any more. Start afresh with new film.',
        );
      run = { ...old, settings: request.settings };
    } else {
      run = {
        id: uuidv7(), jobId, pieceId: request.pieceId, label, settings: request.settings, pathsHash, pathCount: sheet.paths.length, confirmedCount: 0,
        state: 'running', message: '', personId: request.personId, startedAt: this.now().toISOString(), endedAt: null,
      }; // prettier-ignore
    }
    const driver = new PlotterDriver(await this.where());
    try {
      await driver.open();
    } catch {
      throw new Refusal('plotter-away', 'The plotter does not answer. Is it switched on and on this network?');
    }
    if (request.resumeId) run = await this.write(run, { state: 'running', message: '', endedAt: null, settings: request.settings });
    else await this.change(run.jobId, run.personId, `Plot ${label}`, [{ op: 'add', kind: 'plotRun', id: run.id, value: run }]);
    const at: AtWork = { run, sheet, driver, plotted: [], startedFrom: run.confirmedCount, worstOffMm: null, writtenAt: Date.now() };
    this.at = at;
    void driver.run(sheet.paths, run.confirmedCount, run.settings, {
      done: (index, trace) => this.confirmed(at, index, trace),
      failed: (message) => this.end(at, 'failed', `${message} Path ${at.run.confirmedCount + 1} of ${at.run.pathCount} is cut again when you go on.`),
      finished: () => this.end(at, 'done', ''),
    });
    return run;
  }

  async act(act: 'pause' | 'resume' | 'stop' | 'jam'): Promise<PlotStatus> {
    const { at } = this;
    if (act === 'jam') {
      if (!this.simulated) throw new Refusal('not-found', 'Only the simulated plotter can be jammed from here.');
      this.simulated.jam();
    } else if (!at || (at.run.state !== 'running' && at.run.state !== 'paused')) throw new Refusal('not-found', 'The plotter is not at work.');
    else if (act === 'pause' && at.run.state === 'running') {
      at.driver.pause();
      this.settle(at, { state: 'paused' });
    } else if (act === 'resume' && at.run.state === 'paused') {
      at.driver.resume();
      this.settle(at, { state: 'running' });
    } else if (act === 'stop') {
      at.driver.stop();
      this.end(at, 'stopped', `Stopped at path ${at.run.confirmedCount + 1} of ${at.run.pathCount}.`);
    }
    return this.status(0);
  }

  async status(from: number): Promise<PlotStatus> {
    const { at } = this;
    const first = at ? Math.max(0, from - at.startedFrom) : 0;
    return {
      run: at?.run ?? null,
      plotted: (at?.plotted.slice(first, first + 400) ?? []).map((line) => line.map(([x, y]): [number, number] => [round(x), round(y)])),
      plottedFrom: (at?.startedFrom ?? 0) + first,
      plottedCount: (at?.startedFrom ?? 0) + (at?.plotted.length ?? 0),
      widthMm: at?.sheet.widthMm ?? 0,
      heightMm: at?.sheet.heightMm ?? 0,
      worstOffMm: at?.worstOffMm ?? null,
      isConnected: at !== null && at.run.state !== 'failed',
      machine: this.address ? `${this.address.host}:${this.address.port}` : 'simulated plotter',
    };
  }

  private async where(): Promise<PlotterAddress> {
    if (this.address) return this.address;
    if (!this.simulated) {
      this.simulated = new SimulatedPlotter({ haste: this.haste, scaleError: 0.0006 });
      this.simulatedAt = await this.simulated.listen();
    }
    return this.simulatedAt!;
  }
  private simulatedAt: PlotterAddress | null = null;

  private confirmed(at: AtWork, index: number, trace: readonly (readonly [number, number])[]): void {
    at.plotted.push(trace);
    at.run = { ...at.run, confirmedCount: index + 1 };
    const planned = at.sheet.paths[index]!.points;
    trace.forEach(([x, y], i) => {
      const p = planned[i];
      // size settings make the machine's own error good: what counts is the size that comes out
      if (p) at.worstOffMm = Math.max(at.worstOffMm ?? 0, Math.hypot(x - p.x, y - p.y));
    });
    if (Date.now() - at.writtenAt > WRITE_MS) this.settle(at, {});
  }

  private end(at: AtWork, state: PlotState, message: string): void {
    this.settle(at, { state, message, endedAt: this.now().toISOString() });
    at.driver.close();
  }

  /** Takes a new state at once and writes it down in turn. */
  private settle(at: AtWork, fields: Partial<PlotRun>): void {
    at.run = { ...at.run, ...fields };
    at.writtenAt = Date.now();
    const now = at.run;
    void this.write(now, { ...fields, confirmedCount: now.confirmedCount }).catch(() => undefined);
  }

  private async write(run: PlotRun, fields: Partial<PlotRun>): Promise<PlotRun> {
    const patches = Object.entries(fields).map(([field, value]): Patch => ({ op: 'set', kind: 'plotRun', id: run.id, field, value }));
    await this.change(run.jobId, run.personId, `Plot ${run.label}: ${fields.state ?? run.state}`, patches);
    return { ...run, ...fields };
  }
  /** One after the other, in the order in which it came about: that a run was stopped is in the record before it goes on. */
  private change(jobId: string, personId: string, label: string, patches: Patch[]): Promise<void> {
    const next = this.writing.then(() => this.jobs.change(jobId, { personId, deviceId: this.deviceId }, label, patches));
    this.writing = next.catch(() => undefined);
    return next;
  }
}

const round = (mm: number): number => Math.round(mm * 100) / 100;
