import type { Request, Response, Router } from 'express';
import type * as z from 'zod';
import { errorTable, routes, type AdmittedDevice, type Fault, type RouteName } from '@yellow-pane/contracts';
import { Refusal } from '../problem.js';

type Definition<N extends RouteName> = (typeof routes)[N];
type Part<N extends RouteName, P extends 'params' | 'query' | 'body'> = Definition<N> extends Record<P, infer S extends z.ZodType> ? z.output<S> : undefined;
type Result<N extends RouteName> = Definition<N>['result'] extends z.ZodType ? z.input<Definition<N>['result']> : FileAnswer;

/** A file as an answer. */
export interface FileAnswer {
  readonly name: string;
  readonly bytes: Buffer | string;
}
export interface Call<N extends RouteName> {
  readonly params: Part<N, 'params'>;
  readonly query: Part<N, 'query'>;
  readonly body: Part<N, 'body'>;
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

/** Mounts one call of the contract: what comes in is read by its schemas, what goes out is the schema's or a file. */
export function mount<N extends RouteName>(router: Router, name: N, work: (call: Call<N>) => Promise<Result<N>>): void {
  const definition = routes[name] as {
    method: 'get' | 'post';
    path: string;
    params?: z.ZodType;
    query?: z.ZodType;
    body?: z.ZodType;
    result: z.ZodType | null;
    fileType?: string;
  };
  router[definition.method](definition.path, async (req: Request, res: Response) => {
    const call = {
      params: read(definition.params, req.params, 'path'),
      query: read(definition.query, req.query, 'query'),
      body: read(definition.body, req.body, 'body'),
      device: deviceOf(res),
    } as Call<N>;
    const result = await work(call);
    res.set('Cache-Control', 'no-store');
    if (definition.result !== null) return void res.json(result);
    const file = result as FileAnswer;
    res.set('Content-Disposition', `inline; filename="${file.name.replace(/[^\w .-]/g, '_')}"`);
    res.type(definition.fileType ?? 'application/octet-stream').send(file.bytes);
  });
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
