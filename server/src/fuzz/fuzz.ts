import request from 'supertest';
import { routes, type RouteDefinition, type RouteName } from '@yellow-pane/contracts';
import { seededRandom } from '@yellow-pane/core';
import type { App } from '../app.js';
import { Nonsense } from './nonsense.js';

/** An answer that should not have come. */
export interface Finding {
  readonly what: 'a 500' | 'too slow' | 'no problem details' | 'no answer';
  readonly call: string;
  readonly status: number;
  /** Of the processor, not of the clock: a busy machine is no fault of the bench. */
  readonly cpuMs: number;
  /** Enough to send it again. */
  readonly sent: string;
}
export interface FuzzResult {
  readonly count: number;
  readonly byStatus: Readonly<Record<number, number>>;
  readonly findings: readonly Finding[];
  readonly slowestCpuMs: number;
  readonly heaviestCpuMs: number;
}

/** Nonsense may cost three times what the heaviest proper question does here and now. @source house figure */
const SLOW_TIMES = 3;
/** One that hangs. */
const HANGS_AFTER_MS = 120_000;
const mimes = ['application/json', 'application/json; charset=utf-8', 'application/json; charset=latin-9', 'application/json; charset=\u0001x', 'text/csv', 'text/plain', 'text/plain; charset=koi8-x', 'image/png', 'multipart/form-data', 'application/x-www-form-urlencoded', '']; // prettier-ignore
const encodings = ['gzip', 'br', 'deflate', 'compress', 'x-none', 'identity'];
/** The exchange of cuts and stops of outside machines, and what dumps the whole bench, are left alone: they take long by design. */
const passedOver: readonly string[] = ['backup', 'instrumentStream', 'layStream', 'jobStream', 'shopListen', 'plotterStart'];

const table = ['place,surface,measure,value', 'Hall,W1,widthTop,902', 'Hall,W1,widthTop,"9,0', 'label,film,widthMm,lengthM', 'name,kind,thicknessUm', '"', ';;;;', '\u0000', '=cmd,@x,+1,-1']; // prettier-ignore

/** A request that is right: one thing in it is made wrong. */
export interface Example {
  readonly name: RouteName;
  readonly path: string;
  readonly query?: Record<string, unknown>;
  readonly body?: unknown;
}

/**
 * Sends requests that nearly fit the API, and some that do not at all, and looks at every answer: none may be a 500, none without problem details where
 * it is a refusal, none may cost much more of the processor than the heaviest proper question, asked first: how fast the machine is, is no matter.
 * @param heaviest address of that question
 * @param seed the same seed sends the same requests
 */
export async function fuzz(
  app: App,
  ids: readonly string[],
  examples: readonly Example[],
  heaviest: string,
  count: number,
  seed: number,
  tell: (done: number) => void = () => undefined,
): Promise<FuzzResult> {
  const random = seededRandom(seed);
  const make = new Nonsense(random, ids);
  const calls = (Object.entries(routes) as [string, RouteDefinition][]).filter(([name]) => !passedOver.includes(name));
  const findings: Finding[] = [];
  const byStatus: Record<number, number> = {};
  let slowestCpuMs = 0;
  const beforeAll = process.cpuUsage();
  await request(app.http).get(heaviest).set('Host', 'localhost').expect(200);
  const heaviestCpuMs = cpuMsSince(beforeAll);
  for (let i = 0; i < count; i++) {
    const example = examples.length && make.chance(0.5) ? make.one(examples) : null;
    const [name, route]: [string, RouteDefinition] = example ? [example.name, routes[example.name]] : make.one(calls);
    const wrong = make.one([0, 0.02, 0.1, 0.4]);
    const path = example?.path ?? route.path.replace(/:(\w+)/g, () => (make.chance(0.85) ? make.one(ids) : encodeURIComponent(wellEnough(make.strange()))));
    const query = example
      ? ((make.chance(0.1) ? make.spoiled(example.query ?? {}) : (example.query ?? null)) as Record<string, unknown> | null)
      : route.query && !make.chance(0.1)
        ? (make.of(route.query, wrong) as Record<string, unknown> | null)
        : null;
    const ask = request(app.http)[route.method](path).set('Host', 'localhost').ok(() => true).timeout(HANGS_AFTER_MS); // prettier-ignore
    if (query && typeof query === 'object') ask.query(Object.fromEntries(Object.entries(query).map(([k, v]) => [k, wellEnough(v)])));
    let sent = '';
    if (route.method === 'post') {
      const kind = random();
      const body = example ? make.spoiled(example.body) : route.body && kind < 0.85 ? make.of(route.body, wrong) : make.strange();
      sent = typeof body === 'string' && kind > 0.9 ? body : JSON.stringify(body ?? null);
      if (!example && make.chance(0.1)) sent = Array.from({ length: 1 + Math.floor(5 * random()) }, () => make.one(table)).join('\n');
      if (make.chance(0.03)) sent = sent.slice(0, Math.floor(random() * sent.length));
      // a header with a sign that may not stand in one is refused by the client itself
      const mime = (make.chance(0.8) ? (typeof body === 'string' && !sent.startsWith('{') ? 'text/csv' : 'application/json') : make.one(mimes)).replace(/[^\x20-\x7e]/g, ''); // prettier-ignore
      if (mime) ask.set('Content-Type', mime);
      if (make.chance(0.05)) ask.set('Content-Encoding', make.one(encodings));
      ask.send(Buffer.from(sent, 'utf8') as unknown as string).serialize((x: unknown) => x as string);
    }
    const from = process.cpuUsage();
    let status = 0;
    let type = '';
    try {
      const answer = await ask;
      status = answer.status;
      type = String(answer.headers['content-type'] ?? '');
    } catch {
      status = 0;
    }
    const cpuMs = cpuMsSince(from);
    slowestCpuMs = Math.max(slowestCpuMs, cpuMs);
    byStatus[status] = (byStatus[status] ?? 0) + 1;
    const find = (what: Finding['what']) => findings.push({ what, call: `${name} ${path} ${JSON.stringify(query)}`, status, cpuMs, sent: sent.slice(0, 2000) });
    if (status === 0) find('no answer');
    else if (status === 500) find('a 500');
    else if (status >= 400 && !type.startsWith('application/problem+json')) find('no problem details');
    if (cpuMs > SLOW_TIMES * heaviestCpuMs) find('too slow');
    if (i % 500 === 499) tell(i + 1);
  }
  return { count, byStatus, findings, slowestCpuMs, heaviestCpuMs };
}

const cpuMsSince = (from: NodeJS.CpuUsage): number => {
  const used = process.cpuUsage(from);
  return (used.user + used.system) / 1000;
};

/** As text in an address: half a surrogate pair cannot stand there. */
const wellEnough = (v: unknown): string =>
  (typeof v === 'string' ? v : (JSON.stringify(v) ?? '')).replace(/[\ud800-\udbff](?![\udc00-\udfff])|(?<![\ud800-\udbff])[\udc00-\udfff]/g, '?').slice(0, 500);
