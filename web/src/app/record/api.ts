import { HttpClient, HttpErrorResponse } from '@angular/common/http';
import { inject, InjectionToken, signal, type Signal } from '@angular/core';
import { firstValueFrom, timeout, TimeoutError } from 'rxjs';
import { addresses, addressFrom, type Answer, type DocumentCall, type Problem, type RouteName, type SentArgs } from '@yellow-pane/contracts';

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
const patienceOf: Partial<Record<RouteName, number>> = {
  session: PATIENCE_MS.greeting,
  addPhoto: PATIENCE_MS.large,
  importJob: PATIENCE_MS.large,
  importFilms: PATIENCE_MS.large,
  importStock: PATIENCE_MS.large,
  importMeasures: PATIENCE_MS.large,
};

function asProblem(error: unknown): ApiProblem {
  if (error instanceof TimeoutError) return outOfReach();
  if (!(error instanceof HttpErrorResponse)) return new ApiProblem('internal', String(error));
  const problem = (typeof error.error === 'string' ? safeJson(error.error) : error.error) as Problem | null;
  // the service worker answers 504 for a bench it cannot reach, as would something between
  if (error.status === 0 || (error.status >= 502 && !problem?.code)) return outOfReach();
  // the bench is there and its record is not: as good as out of reach
  if (problem?.code === 'database-away') return outOfReach();
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

/** What the bench says of itself and of this device. */
export type Session = Answer<'session'>;
export type { Answer } from '@yellow-pane/contracts';

/** Every call that answers with a document, typed by the contract that the server answers by. */
export type Calls = { readonly [N in DocumentCall]: (...sent: SentArgs<N>) => Promise<Answer<N>> };
export interface Api extends Calls {
  /** The bench was reached and does not let this device in, or no longer. */
  readonly isPutOut: Signal<boolean>;
}
export const Api = new InjectionToken<Api>('the calls of the bench', { providedIn: 'root', factory: () => apiThrough(inject(HttpClient)) });

/** Where a file or a stream of the bench is found, for a link. */
export function hrefOf<N extends RouteName>(name: N, ...[sent]: SentArgs<N>): string {
  const { params, query } = (sent ?? {}) as Loose;
  return addressFrom(addresses[name].path, params, query);
}

/** What any call may have been handed; which parts it has is settled by its type. */
interface Loose {
  readonly params?: Record<string, string>;
  readonly query?: Record<string, string | number | boolean | null | undefined>;
  readonly body?: unknown;
}
/** A text is a table, a blob says itself what it is, the rest is JSON. */
function mediaTypeOf(body: unknown): string {
  if (typeof body === 'string') return 'text/csv';
  return body instanceof Blob ? body.type || 'image/jpeg' : 'application/json';
}

function apiThrough(http: HttpClient): Api {
  const isPutOut = signal(false);
  const ask = async (name: DocumentCall, { params, query, body }: Loose): Promise<unknown> => {
    const { method, path } = addresses[name];
    const headers: Record<string, string> = body === undefined ? {} : { 'Content-Type': mediaTypeOf(body) };
    try {
      const call = http.request(method, addressFrom(path, params, query), { body, headers });
      const answer = await firstValueFrom(call.pipe(timeout(patienceOf[name] ?? PATIENCE_MS.usual)));
      isPutOut.set(false);
      return answer;
    } catch (error) {
      const problem = asProblem(error);
      if (problem.code !== 'offline') isPutOut.set(problem.code === 'not-admitted');
      throw problem;
    }
  };
  const calls = Object.fromEntries((Object.keys(addresses) as DocumentCall[]).map((name) => [name, (sent: Loose = {}) => ask(name, sent)])) as unknown as Calls;
  return { ...calls, isPutOut: isPutOut.asReadonly() };
}
