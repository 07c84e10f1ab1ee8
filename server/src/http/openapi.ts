import { OpenApiGeneratorV31, OpenAPIRegistry, extendZodWithOpenApi } from '@asteasolutions/zod-to-openapi';
import * as z from 'zod';
import { errorTable, problem, routes, type RouteDefinition } from '@yellow-pane/contracts';

extendZodWithOpenApi(z);

/** OpenAPI 3.1 of the whole API, written from the same schemas that read every request. */
export function openApiDocument(): object {
  const registry = new OpenAPIRegistry();
  for (const [name, raw] of Object.entries(routes)) {
    const r: RouteDefinition = raw;
    const problems = Object.fromEntries(
      [...new Set(r.errors.map((e) => errorTable[e].status))].map((status) => [
        status,
        {
          description: r.errors
            .filter((e) => errorTable[e].status === status)
            .map((e) => `${e}: ${errorTable[e].sentence}`)
            .join(' '),
          content: { 'application/problem+json': { schema: problem } },
        },
      ]),
    );
    registry.registerPath({
      method: r.method,
      path: r.path.replace(/:(\w+)/g, '{$1}'),
      operationId: name,
      summary: r.summary,
      request: {
        ...(r.params ? { params: r.params } : {}),
        ...(r.query ? { query: r.query } : {}),
        ...(r.body ? { body: { content: bodyContent(r.body, r.takes ?? ['application/json']) } } : {}),
      },
      responses: {
        200: {
          description: 'Done',
          content: r.result ? { 'application/json': { schema: r.result } } : { [r.fileType ?? 'application/octet-stream']: { schema: z.string() } },
        },
        ...problems,
      },
    });
  }
  return new OpenApiGeneratorV31(registry.definitions).generateDocument({
    openapi: '3.1.0',
    info: {
      title: 'Yellow Pane',
      version: '0.1.0',
      description: 'Everything the interface does and computes can be called. Lengths are in mm unless the name says otherwise.',
    },
  });
}

const bodyContent = (schema: z.ZodType, takes: readonly string[]) => Object.fromEntries(takes.map((type) => [type, { schema }]));

const escape = (s: string): string => s.replace(/&/g, '&amp;').replace(/</g, '&lt;');

/** The API to read: every call and every refusal with its sentence. */
export function apiPage(): string {
  const calls = Object.entries(routes)
    .map(([name, raw]) => {
      const r: RouteDefinition = raw;
      const refusals = r.errors.map((e) => `<a href="#${e}">${e}</a>`).join(', ') || 'none';
      return `<tr id="${name}"><td><code>${r.method.toUpperCase()} ${escape(r.path)}</code></td><td>${escape(r.summary)}</td><td>${refusals}</td></tr>`;
    })
    .join('\n');
  const errors = Object.entries(errorTable)
    .map(([code, e]) => `<tr id="${code}"><td><code>${code}</code></td><td>${e.status}</td><td>${escape(e.sentence)}</td></tr>`)
    .join('\n');
  return `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>Yellow Pane: the API</title>
<style>body{font:16px/1.5 sans-serif;max-width:70rem;margin:2rem auto;padding:0 1rem;background:#F4F1E8;color:#1C2226}table{border-collapse:collapse;width:100%;background:#FFFEFA}td,th{border:1px solid #D8D2C2;padding:.4rem .6rem;text-align:left;vertical-align:top}a{color:#1C2226}</style></head><body>
<h1>Yellow Pane: the API</h1><p>The same in machine-readable form: <a href="/api/openapi.json">/api/openapi.json</a>. Refusals are problem details (RFC 9457).</p>
<h2>Calls</h2><table><tr><th>Call</th><th>What it does</th><th>Refusals</th></tr>${calls}</table>
<h2>Refusals</h2><table><tr><th>Code</th><th>Status</th><th>Sentence</th></tr>${errors}</table></body></html>`;
}
