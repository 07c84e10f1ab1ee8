import { HttpClient, HttpErrorResponse } from '@angular/common/http';
import { inject, Injectable, signal } from '@angular/core';
import { firstValueFrom, timeout, TimeoutError, type Observable } from 'rxjs';
import type {
  AdmissionCode,
  AdmittedDevice,
  BenchDocument,
  Change,
  ChangeAnswer,
  ChangeDraft,
  Firm,
  Job,
  JobDocument,
  BroughtBack,
  DeletedJob,
  JobSummary,
  LearnedMinutes,
  Person,
  PlotRun,
  PlotSettings,
  PlotStatus,
  Problem,
  ShopStatus,
  UndoRequest,
  UnitSystem,
  InstrumentAct,
  InstrumentStatus,
  WeatherDay,
} from '@yellow-pane/contracts';

/** A refusal as the server words it, or that the server was not reached. */
export class ApiProblem extends Error {
  constructor(
    readonly code: Problem['code'] | 'offline',
    message: string,
    readonly faults: readonly { path: string; message: string }[] = [],
  ) {
    super(message);
  }
}

/** In a dead spot nothing answers, for minutes; after this it is taken as out of reach and tried again. @source house rule */
const PATIENCE_MS = { greeting: 8000, usual: 30_000, large: 180_000 };

function asProblem(error: unknown): ApiProblem {
  if (error instanceof TimeoutError) return outOfReach();
  if (!(error instanceof HttpErrorResponse)) return new ApiProblem('internal', String(error));
  const problem = (typeof error.error === 'string' ? safeJson(error.error) : error.error) as Problem | null;
  // the service worker answers 504 for a bench it cannot reach, as would something between
  if (error.status === 0 || (error.status >= 502 && !problem?.code)) return outOfReach();
  return new ApiProblem(problem?.code ?? 'internal', problem?.detail ?? 'Yellow Pane itself failed at this.', problem?.faults ?? []);
}
const outOfReach = () => new ApiProblem('offline', 'The bench does not answer. What you typed is kept here and sent again.');
const safeJson = (text: string): unknown => {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
};

export interface Session {
  firm: Firm;
  persons: Person[];
  lastDeviceSeq: number;
  /** The bench's clock when it answered. */
  at: string;
  apiVersion: number;
  /** How this device was let in; null: it is the bench itself. */
  admitted: AdmittedDevice | null;
}

/** Every call that the interface makes. */
@Injectable({ providedIn: 'root' })
export class Api {
  private readonly http = inject(HttpClient);

  /** The bench was reached and does not let this device in, or no longer. */
  readonly isPutOut = signal(false);

  private async get<T>(url: string, patienceMs = PATIENCE_MS.usual): Promise<T> {
    return this.answered(this.http.get<T>(url), patienceMs);
  }
  private async post<T>(url: string, body: unknown, headers: Record<string, string> = {}, patienceMs = PATIENCE_MS.usual): Promise<T> {
    return this.answered(this.http.post<T>(url, body, { headers }), patienceMs);
  }
  private async answered<T>(call: Observable<T>, patienceMs: number): Promise<T> {
    try {
      const answer = await firstValueFrom(call.pipe(timeout(patienceMs)));
      this.isPutOut.set(false);
      return answer;
    } catch (error) {
      const problem = asProblem(error);
      if (problem.code !== 'offline') this.isPutOut.set(problem.code === 'not-admitted');
      throw problem;
    }
  }

  session = (deviceId: string) => this.get<Session>(`/api/session?deviceId=${deviceId}`, PATIENCE_MS.greeting);
  bench = (personId: string, deviceId: string) => this.get<BenchDocument>(`/api/bench?personId=${personId}&deviceId=${deviceId}`);
  changesSince = (jobId: string, after: number) =>
    this.get<{ changes: Change[]; revision: number; isTooMuch: boolean }>(`/api/jobs/${jobId}/changes?after=${after}`);
  jobs = () => this.get<JobSummary[]>('/api/jobs');
  deletedJobs = () => this.get<DeletedJob[]>('/api/deleted-jobs');
  bringBackJob = (jobId: string, who: { personId: string; deviceId: string }) => this.post<BroughtBack>(`/api/deleted-jobs/${jobId}/bring-back`, who);
  createJob = (body: { name: string; customer: string; units: UnitSystem; personId: string; deviceId: string }) => this.post<Job>('/api/jobs', body);
  job = (jobId: string, personId: string, deviceId: string) => this.get<JobDocument>(`/api/jobs/${jobId}?personId=${personId}&deviceId=${deviceId}`);
  addPhoto = (photo: Blob) =>
    this.post<{ photo: string; bytes: number }>('/api/photos', photo, { 'Content-Type': photo.type || 'image/jpeg' }, PATIENCE_MS.large);
  layMinutes = () => this.get<LearnedMinutes>('/api/lay/minutes');
  shop = () => this.get<ShopStatus>('/api/shop');
  shopListen = (address: string | null) => this.post<ShopStatus>('/api/shop/listen', { address });
  shopCode = (name: string, personId: string | null) => this.post<AdmissionCode>('/api/shop/code', { name, personId });
  shopRemove = (deviceId: string) => this.post<ShopStatus>('/api/shop/remove', { deviceId });
  change = (draft: ChangeDraft) => this.post<ChangeAnswer>(`/api/jobs/${draft.jobId}/changes`, draft);
  undo = (jobId: string, request: UndoRequest) => this.post<ChangeAnswer>(`/api/jobs/${jobId}/undo`, request);
  redo = (jobId: string, request: UndoRequest) => this.post<ChangeAnswer>(`/api/jobs/${jobId}/redo`, request);
  importJob = (file: unknown, who: { personId: string; deviceId: string }) =>
    this.post<{ jobId: string; isCopy: boolean }>(`/api/job-files?personId=${who.personId}&deviceId=${who.deviceId}`, file, {}, PATIENCE_MS.large);
  importFilms = (body: unknown, same: string, who: { personId: string; deviceId: string }) =>
    this.post<{ added: number; renewed: number; skipped: number }>(
      `/api/films?personId=${who.personId}&deviceId=${who.deviceId}&same=${same}`,
      body,
      typeof body === 'string' ? { 'Content-Type': 'text/csv' } : {},
      PATIENCE_MS.large,
    );
  importStock = (csv: string, same: string, who: { personId: string; deviceId: string }) =>
    this.post<{ added: number; counted: number; skipped: number }>(`/api/stock.csv?personId=${who.personId}&deviceId=${who.deviceId}&same=${same}`, csv, {
      'Content-Type': 'text/csv',
    });
  instrumentAct = (act: InstrumentAct) => this.post<InstrumentStatus>('/api/instruments/act', act);
  /** @param sky null: as the service says it will be */
  weather = (jobId: string, on: string, sky: WeatherDay['sky'] | null) =>
    this.get<WeatherDay>(`/api/jobs/${jobId}/weather?on=${on}${sky ? `&sky=${sky}` : ''}`);
  plotter = (from: number) => this.get<PlotStatus>(`/api/plotter?from=${from}`);
  plotterStart = (jobId: string, body: { pieceId: string; settings: PlotSettings; personId: string; resumeId: string | null }) =>
    this.post<PlotRun>(`/api/jobs/${jobId}/plotter`, body);
  plotterAct = (act: 'pause' | 'resume' | 'stop' | 'jam') => this.post<PlotStatus>('/api/plotter/act', { act });
  acceptQuote = (quoteId: string, body: { filmId: string; personId: string; deviceId: string }) =>
    this.post<{ jobId: string }>(`/api/quotes/${quoteId}/accept`, body);
  importMeasures = (jobId: string, csv: string, who: { personId: string; deviceId: string }) =>
    this.post<{ readings: number; surfaces: number }>(`/api/jobs/${jobId}/measures.csv?personId=${who.personId}&deviceId=${who.deviceId}`, csv, {
      'Content-Type': 'text/csv',
    });
}
