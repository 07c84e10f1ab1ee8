import { mkdirSync, mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { brotliCompressSync } from 'node:zlib';
import request from 'supertest';
import { openBench } from './bench.testing.js';

const script = `export const light = 'how much of it comes in';`.repeat(50);
let http: Awaited<ReturnType<typeof openBench>>['app']['http'];
let close: () => Promise<void>;
beforeAll(async () => {
  const webDir = mkdtempSync(join(tmpdir(), 'yellow-pane-web-'));
  mkdirSync(join(webDir, 'media'));
  writeFileSync(join(webDir, 'index.html'), '<!doctype html><title>Yellow Pane</title>');
  for (const name of ['chunk-AAAAAAAA.js', 'worker-BBBBBBBB.js']) {
    writeFileSync(join(webDir, name), script);
    writeFileSync(join(webDir, `${name}.br`), brotliCompressSync(script));
  }
  writeFileSync(join(webDir, 'chunk-CCCCCCCC.js'), script);
  const { app, open } = await openBench(null, { webDir });
  http = app.http;
  close = open.close;
});
afterAll(() => close());
const ask = (path: string, encoding: string) => request(http).get(path).set('Accept-Encoding', encoding).buffer(true);

describe('The built interface', () => {
  it.each(['/chunk-AAAAAAAA.js', '/worker-BBBBBBBB.js'])('%s goes out as it was packed when it was built, to be kept for good', async (path) => {
    const packed = await ask(path, 'gzip, br').parse((res, done) => {
      const parts: Buffer[] = [];
      res.on('data', (part: Buffer) => parts.push(part)).on('end', () => done(null, Buffer.concat(parts)));
    });
    expect(packed.status).toBe(200);
    expect(packed.headers).toMatchObject({ 'content-encoding': 'br', 'content-length': String(brotliCompressSync(script).length), vary: 'Accept-Encoding' });
    expect(packed.headers['cache-control']).toContain('immutable');
    expect(packed.headers['content-type']).toMatch(/^text\/javascript/);
  });
  it('whoever cannot unpack it gets it plain', async () => {
    const plain = await ask('/chunk-AAAAAAAA.js', 'identity');
    expect(plain.headers['content-encoding']).toBeUndefined();
    expect(plain.text).toBe(script);
  });
  it('what was not packed beside is there all the same', async () => {
    expect((await ask('/chunk-CCCCCCCC.js', 'identity')).text).toBe(script);
  });
  it('a worker carries the rules for scripts, a part of a page is spared them', async () => {
    expect((await ask('/worker-BBBBBBBB.js', 'br')).headers['content-security-policy']).toContain("script-src 'self'");
    const part = await ask('/chunk-AAAAAAAA.js', 'identity');
    expect(part.headers['content-security-policy']).toBeUndefined();
    expect(part.headers['x-content-type-options']).toBe('nosniff');
  });
  it('every address of a page is the page, looked after anew each time', async () => {
    const page = await ask('/jobs/1/measure', 'identity');
    expect(page.text).toContain('Yellow Pane');
    expect(page.headers['cache-control']).toBe('no-cache');
  });
  it('a part that is gone since the last build is no page', async () => {
    const gone = await ask('/chunk-DDDDDDDD.js', 'identity');
    expect(gone.status).toBe(404);
  });
});
