import type { Request, Response, Router } from 'express';
import type * as z from 'zod';
import { errorTable, routes, type AdmittedDevice, type Fault, type Received, type RouteDefinition, type RouteName } from '@yellow-pane/contracts';
import { asker } from '../compute/asker.js';
import { Refusal } from '../problem.js';

type Result<N extends RouteName> = (typeof routes)[N]['result'] extends infer S extends z.ZodType ? z.input<S> : FileAnswer;

/** A file as an answer. */
export interface FileAnswer {
  readonly name: string;
  readonly bytes: Buffer | string;
}
export interface Call<N extends RouteName> {
  readonly params: Received<N, 'params'>;
  readonly query: Received<N, 'query'>;
  readonly body: Received<N, 'body'>;
  /** The device that was let in; null: the bench itself. */
  readonly device: AdmittedDevice | null;
}

/** How the request came: by a device that was let in, or (null) at the bench itself. */
export const deviceOf = (res: Response): AdmittedDevice | null => (res.locals['device'] as AdmittedDevice | null | undefined) ?? null;

const faultsOf = (error: z.ZodError, where: string): Fault[] =>
  error.issues.map((i) => ({ path: [where, ...i.path.map(String)].join('.'), message: i.message }));

/** What came in, by its schema. @throws Refusal bad-input that names the field */
export function readPart<S extends z.ZodType>(schema: S, value: unknown, where: string): z.output<S> {
  return read(schema, value, where) as z.output<S>;
}

function read(schema: z.ZodType | undefined, value: unknown, where: string): unknown {
  if (!schema) return undefined;
  const parsed = schema.safeParse(value);
  if (!parsed.success) throw new Refusal('bad-input', undefined, faultsOf(parsed.error, where));
  return parsed.data;
}

/** Half a surrogate pair and the sign of nothing are in no text that a person typed, and no database keeps them. */
// eslint-disable-next-line no-control-regex
const ILL_FORMED = /\u0000|[\ud800-\udbff](?![\udc00-\udfff])|(?<![\ud800-\udbff])[\udc00-\udfff]/;

/** What came in, if every text in it is well formed. @throws Refusal bad-input with the place */
function wellFormed(value: unknown, where: string): unknown {
  const queue: { value: unknown; path: string }[] = [{ value, path: where }];
  for (let at = queue.pop(); at; at = queue.pop()) {
    const { value: v, path } = at;
    if (typeof v === 'string') {
      if (ILL_FORMED.test(v)) throw new Refusal('bad-input', undefined, [{ path, message: 'This text holds signs that are none. Type it again.' }]);
    } else if (typeof v === 'object' && v !== null && !ArrayBuffer.isView(v))
      for (const [k, x] of Object.entries(v)) {
        if (ILL_FORMED.test(k)) throw new Refusal('bad-input', undefined, [{ path, message: 'A name in it holds signs that are none.' }]);
        if (typeof x === 'string' || (typeof x === 'object' && x !== null)) queue.push({ value: x, path: `${path}.${k}` });
      }
  }
  return value;
}

/**
 * Mounts one call of the contract: what comes in is read by its schemas, what goes out is the schema's or a file.
 * @param write makes the text of the answer
 */
export function mount<N extends RouteName>(
  router: Router,
  name: N,
  work: (call: Call<N>) => Promise<Result<N>>,
  write: (result: Result<N>) => string = JSON.stringify,
): void {
  const definition: RouteDefinition = routes[name];
  router[definition.method](definition.path, async (req: Request, res: Response) => {
    const call = {
      params: read(definition.params, req.params, 'path'),
      query: read(definition.query, wellFormed(req.query, 'query'), 'query'),
      body: read(definition.body, wellFormed(req.body, 'body'), 'body'),
      device: deviceOf(res),
    } as Call<N>;
    ownName(call);
    const gone = new AbortController();
    res.on('close', () => {
      if (!res.writableEnded) gone.abort();
    });
    const result = await asker.run({ isGone: gone.signal }, () => work(call));
    if (gone.signal.aborted) return;
    res.set('Cache-Control', 'no-store');
    if (definition.result !== null) return void res.type('json').send(write(result));
    const file = result as FileAnswer;
    res.set('Content-Disposition', `inline; filename="${file.name.replace(/[^\w .-]/g, '_')}"`);
    res.type(definition.fileType ?? 'application/octet-stream').send(file.bytes);
  });
}

/** A device that was let in for one person writes in that person's name only. @throws Refusal wrong-person */
function ownName({ device, body, query }: { readonly device: AdmittedDevice | null; readonly body: unknown; readonly query: unknown }): void {
  if (!device?.personId) return;
  for (const part of [body, query]) {
    const said = (part as { personId?: unknown } | null | undefined)?.personId;
    if (typeof said === 'string' && said !== device.personId) throw new Refusal('wrong-person');
  }
}

/** RFC 9457 problem details for a refusal. */
export function sendProblem(res: Response, refusal: Refusal, instance: string): void {
  const { status, sentence } = errorTable[refusal.code];
  res
    .status(status)
    .type('application/problem+json')
    .send(
      JSON.stringify({
        type: `/api/docs#${refusal.code}`,
        title: sentence,
        status,
        detail: refusal.message,
        code: refusal.code,
        instance,
        ...(refusal.faults.length ? { faults: refusal.faults } : {}),
      }),
    );
}
