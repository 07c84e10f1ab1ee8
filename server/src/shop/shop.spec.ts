import { v7 as uuidv7 } from 'uuid';
import { existsSync, mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { createServer, request as secureRequest, type RequestOptions } from 'node:https';
import { request as plainRequest, type IncomingHttpHeaders } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pino } from 'pino';
import request from 'supertest';
import type { AdmissionCode, Problem, ShopAddress, ShopStatus } from '@yellow-pane/contracts';
import type { App } from '../app.js';
import { ines, okan, openBench, ternPointId, type TestDatabase } from '../bench.testing.js';
import { Admission } from './admission.js';
import { Certificates, signFor, type Pair } from './certificates.js';
import { fingerprintOf, isPrivate } from './identity.js';
import { DeviceRegister } from './device-register.js';
import { privateAddresses, ShopService } from './shop.service.js';

const dirs: string[] = [];
const folder = (): string => {
  const dir = mkdtempSync(join(tmpdir(), 'yp-shop-'));
  dirs.push(dir);
  return dir;
};
const silent = pino({ level: 'silent' });
const own: ShopAddress[] = [{ address: '127.0.0.1', network: 'test' }];

let app: App;
let open: TestDatabase;
const dir = folder();
beforeAll(async () => {
  ({ app, open } = await openBench(null, { shop: { dir, securePort: 0, setUpPort: 0, addresses: () => own } }));
});
afterAll(async () => {
  await app.shop!.close();
  await open.close();
  dirs.forEach((d) => rmSync(d, { recursive: true, force: true }));
});

const atBench = {
  status: async () => (await request(app.http).get('/api/shop').set('Host', 'localhost')).body as ShopStatus,
  post: (path: string, body: object) => request(app.http).post(path).set('Host', 'localhost').send(body),
  listen: async (address: string | null) => (await atBench.post('/api/shop/listen', { address })).body as ShopStatus,
  code: async (name = 'Okan’s phone', personId: string | null = okan) => (await atBench.post('/api/shop/code', { name, personId })).body as AdmissionCode,
};

interface Answer {
  status: number;
  headers: IncomingHttpHeaders;
  text: string;
}
/** A device in the same network that trusts nothing but the certificate it fetched. */
const from = (url: string, options: RequestOptions & { body?: string } = {}): Promise<Answer> =>
  new Promise((resolve, reject) => {
    const { body, ...rest } = options;
    const send = url.startsWith('https') ? secureRequest : plainRequest;
    const req = send(url, { ...rest, agent: false }, (res) => {
      let text = '';
      res.on('data', (d: Buffer) => (text += d.toString()));
      res.on('end', () => resolve({ status: res.statusCode!, headers: res.headers, text }));
      res.on('error', reject);
    });
    req.on('error', reject);
    req.end(body);
  });
const trusted = async (): Promise<string> => (JSON.parse(readFileSync(join(dir, 'root.json'), 'utf8')) as Pair).cert;
const admit = async (url: string, code: string) =>
  from(`${url}/admit`, {
    ca: await trusted(),
    method: 'POST',
    headers: { 'Content-Type': 'application/x-www-form-urlencoded', Origin: url },
    body: new URLSearchParams({ code }).toString(),
  });
const cookieOf = (a: Answer): string => a.headers['set-cookie']![0]!.split(';')[0]!;

describe('certificates of the bench', () => {
  const handshake = async (name: Parameters<typeof signFor>[1], host: string): Promise<string> => {
    const root = await new Certificates(folder(), () => new Date()).root();
    const server = createServer({ ...(await signFor(root, name, new Date())) }, (_req, res) => res.end('ok'));
    await new Promise<void>((r) => server.listen(0, '127.0.0.1', r));
    try {
      const { port } = server.address() as AddressInfo;
      return (await from(`https://127.0.0.1:${port}/`, { ca: root.cert, servername: host === '127.0.0.1' ? '' : host, checkServerIdentity: () => undefined }))
        .text;
    } catch (error) {
      return (error as Error).message;
    } finally {
      server.close();
    }
  };
  // judged by OpenSSL's own path checking
  test('whoever stole the root’s key could pose as no site and no public address: only private addresses are believed', async () => {
    expect(await handshake({ type: 'ip', value: '127.0.0.1' }, '127.0.0.1')).toBe('ok');
    expect(await handshake({ type: 'ip', value: '203.0.113.5' }, '203.0.113.5')).toBe('permitted subtree violation');
    expect(await handshake({ type: 'dns', value: 'harbour.example' }, 'harbour.example')).toBe('permitted subtree violation');
  });
  test.each([
    ['10.0.0.1', true], ['172.15.255.255', false], ['172.16.0.0', true], ['172.31.255.255', true], ['172.32.0.0', false],
    ['192.168.1.20', true], ['192.169.0.1', false], ['169.254.9.9', true], ['203.0.113.5', false], ['100.64.0.1', false],
  ] as const)('%s is private: %s (RFC 1918)', (address, yes) => expect(isPrivate(address)).toBe(yes)); // prettier-ignore
  test('the root stays, so phones need it once; the server’s is new for a new address and before it ends', async () => {
    let now = new Date('2026-11-25T10:00:00Z');
    const certificates = new Certificates(folder(), () => now);
    const root = fingerprintOf((await certificates.root()).cert);
    const first = (await certificates.server('192.168.1.20')).cert;
    expect((await certificates.server('192.168.1.20')).cert).toBe(first);
    expect((await certificates.server('192.168.1.21')).cert).not.toBe(first);
    const second = (await certificates.server('192.168.1.21')).cert;
    now = new Date('2027-10-01T10:00:00Z');
    expect((await certificates.server('192.168.1.21')).cert).toBe(second);
    now = new Date('2027-11-25T10:00:00Z');
    expect((await certificates.server('192.168.1.21')).cert).not.toBe(second);
    expect(fingerprintOf((await certificates.root()).cert)).toBe(root);
  });
});

describe('the code', () => {
  test('is good once, for ten minutes, however it is typed, and void after ten wrong ones', () => {
    let now = 0;
    const admission = new Admission(() => new Date(now));
    const who = { name: 'Phone', personId: null };
    expect(admission.take('')).toBeNull();
    const { code } = admission.make(who);
    expect(code).toMatch(/^[A-HJ-NP-Z2-9]{4}-[A-HJ-NP-Z2-9]{4}$/);
    expect(admission.take(` ${code.toLowerCase().replace('-', ' ')}`)).toEqual(who);
    expect(admission.take(code)).toBeNull();
    const late = admission.make(who).code;
    now += 10 * 60_000;
    expect(admission.take(late)).toBeNull();
    const guessed = admission.make(who).code;
    for (let i = 0; i < 10; i++) expect(admission.take('AAAA-AAAA')).toBeNull();
    expect(admission.take(guessed)).toBeNull();
  });
});

describe('listening in the shop', () => {
  test('is off until somebody at the bench chooses an address of this machine', async () => {
    expect(await atBench.status()).toMatchObject({ addresses: own, chosen: null, url: null, setUpUrl: null, fingerprint: null, code: null, devices: [] });
    expect(existsSync(join(dir, 'root.json'))).toBe(false);
    expect((await atBench.post('/api/shop/code', { name: 'Phone' })).body).toMatchObject({ code: 'address-away' });
    const elsewhere = await atBench.post('/api/shop/listen', { address: '192.168.77.5' });
    expect(elsewhere.status).toBe(409);
    expect((elsewhere.body as Problem).detail).toBe('192.168.77.5 is not a private address of this machine. It has 127.0.0.1.');
    expect((await atBench.post('/api/shop/listen', { address: 'shop' })).body).toMatchObject({ code: 'bad-input', faults: [{ path: 'body.address' }] });
  });

  test('a device that is not let in gets the admission page and nothing else, whatever it asks for', async () => {
    const { url } = await atBench.listen('127.0.0.1');
    const ca = await trusted();
    const page = await from(`${url}/`, { ca, headers: { Accept: 'text/html' } });
    expect([page.status, page.headers.location]).toEqual([303, '/admit']);
    const form = await from(`${url}/admit`, { ca, headers: { Accept: 'text/html' } });
    expect(form.text).toContain('Let this device in');
    expect(form.headers['content-security-policy']).toMatch(/^default-src 'none'; style-src 'sha256-/);
    for (const [method, path] of [
      ['GET', '/api/health'], ['GET', '/api/session'], ['GET', '/api/jobs'], ['GET', `/api/jobs/${ternPointId}`], ['GET', `/api/jobs/${ternPointId}/stream`],
      ['POST', `/api/jobs/${ternPointId}/changes`], ['GET', '/api/export'], ['POST', '/api/backup'], ['GET', '/api/openapi.json'], ['GET', '/main-ABCDEFGH.js'],
      ['GET', '/ngsw-worker.js'], ['GET', '/api/shop'], ['POST', '/api/shop/code'], ['GET', `/api/photos/${'0'.repeat(64)}`], ['PUT', '/admit'],
    ] as const) {
      const answer = await from(url + path, { ca, method, headers: { Cookie: `__Host-yp-device=${'A'.repeat(43)}` } });
      expect([path, answer.status, (JSON.parse(answer.text) as Problem).code]).toEqual([path, 401, 'not-admitted']);
      expect(answer.headers['www-authenticate']).toContain('DeviceCode');
    } // prettier-ignore
    await expect(from(`${url}/admit`)).rejects.toThrow(/certificate/);
  });

  test('the set-up page hands out the certificate of the bench, with its fingerprint, and nothing else', async () => {
    const { setUpUrl, fingerprint } = await atBench.status();
    expect((await from(setUpUrl!)).text).toContain(fingerprint);
    const file = await from(`${setUpUrl}/bench.crt`);
    expect(file.headers['content-type']).toBe('application/x-x509-ca-cert');
    expect(fingerprint).toBe(fingerprintOf(await trusted()));
    for (const path of ['/api/health', '/admit', '/index.html', '/../root.json']) expect((await from(setUpUrl + path)).status).toBe(404);
  });

  test('a foreign Host or Origin is turned away at both doors', async () => {
    const { url, setUpUrl } = await atBench.status();
    const ca = await trusted();
    for (const headers of [
      { Host: 'harbour.example' },
      { Host: 'localhost' },
      { Origin: 'https://harbour.example' },
      { Origin: url!.replace('https', 'http') },
    ])
      expect((JSON.parse((await from(`${url}/admit`, { ca, headers, checkServerIdentity: () => undefined })).text) as Problem).code).toBe('wrong-origin');
    expect((await from(setUpUrl!, { headers: { Host: 'harbour.example' } })).status).toBe(403);
    // nor does the local listener answer to the shop's name
    expect((await request(app.http).get('/api/health').set('Host', '192.168.1.20:4781')).status).toBe(403);
  });

  test('a code lets one device in; the bench knows it by name and person, and it settles nothing about others', async () => {
    const { url } = await atBench.status();
    const ca = await trusted();
    const made = await atBench.code();
    expect(made.url).toBe(`${url}/admit#${made.code}`);
    expect((await atBench.status()).code).toEqual(made);
    const wrong = await admit(url!, 'AAAA-AAAA');
    expect([wrong.status, wrong.text.includes('does not fit')]).toEqual([403, true]);
    const taken = await admit(url!, made.code);
    expect([taken.status, taken.headers.location]).toEqual([303, '/']);
    expect(taken.headers['set-cookie']![0]).toMatch(/^__Host-yp-device=[\w-]{43}; Max-Age=31536000; Path=\/; Expires=.*; HttpOnly; Secure; SameSite=Strict$/);
    expect((await admit(url!, made.code)).status).toBe(403);
    const headers = { Cookie: cookieOf(taken) };
    const session = JSON.parse((await from(`${url}/api/session`, { ca, headers })).text) as { admitted: { name: string; personId: string } };
    expect(session.admitted).toMatchObject({ name: 'Okan’s phone', personId: okan });
    expect(JSON.parse((await from(`${url}/api/jobs`, { ca, headers })).text)).toMatchObject({ total: 5 });
    for (const [method, path, body] of [['GET', '/api/shop', ''], ['POST', '/api/shop/code', '{"name":"x"}'], ['POST', '/api/shop/listen', '{"address":null}']] as const)
      expect([path, (JSON.parse((await from(url + path, { ca, method, headers: { ...headers, 'Content-Type': 'application/json' }, body })).text) as Problem).code]).toEqual([path, 'bench-only']); // prettier-ignore
    expect((await request(app.http).get('/api/session').set('Host', 'localhost')).body.admitted).toBeNull();
    // the file tells nobody the secret, and only this user reads it
    expect(readFileSync(join(dir, 'devices.json'), 'utf8')).not.toContain(cookieOf(taken).split('=')[1]);
    expect(statSync(join(dir, 'devices.json')).mode & 0o077).toBe(0);
    expect(statSync(join(dir, 'root.json')).mode & 0o077).toBe(0);
  });

  test('a device that was let in for one person writes in no other person’s name', async () => {
    const { url } = await atBench.status();
    const ca = await trusted();
    const headers = { Cookie: cookieOf(await admit(url!, (await atBench.code('Okan’s tablet')).code)), 'Content-Type': 'application/json' };
    const { persons } = JSON.parse((await from(`${url}/api/session`, { ca, headers })).text) as { persons: { id: string }[] };
    const other = persons.find((p) => p.id !== okan)!.id;
    const [job] = (JSON.parse((await from(`${url}/api/jobs`, { ca, headers })).text) as { jobs: { id: string }[] }).jobs;
    const { revision } = JSON.parse((await from(`${url}/api/jobs/${job!.id}`, { ca, headers })).text) as { revision: number };
    const write = (personId: string) => {
      const patches = [{ op: 'set', kind: 'job', id: job!.id, field: 'customer', value: `for ${personId}` }];
      const draft = { id: uuidv7(), jobId: job!.id, personId, deviceId: uuidv7(), deviceSeq: 1, baseRevision: revision, label: 'Customer', patches };
      return from(`${url}/api/jobs/${job!.id}/changes`, { ca, headers, method: 'POST', body: JSON.stringify(draft) });
    };
    const wrong = await write(other);
    expect([wrong.status, (JSON.parse(wrong.text) as Problem).code]).toEqual([403, 'wrong-person']);
    expect((await write(okan)).status).toBe(200);
    const tablet = (await atBench.status()).devices.find((d) => d.name === 'Okan’s tablet')!;
    await atBench.post('/api/shop/remove', { deviceId: tablet.id });
  });

  test('taken out at the bench: what it has open is cut, and it is asked for a code again', async () => {
    const { url } = await atBench.status();
    const ca = await trusted();
    const headers = { Cookie: cookieOf(await admit(url!, (await atBench.code('Lost phone', ines)).code)) };
    const device = (await atBench.status()).devices.find((d) => d.name === 'Lost phone')!;
    const stream = from(`${url}/api/jobs/${ternPointId}/stream`, { ca, headers }).then(
      () => 'ended',
      () => 'cut',
    );
    await new Promise((r) => setTimeout(r, 200));
    const left = (await atBench.post('/api/shop/remove', { deviceId: device.id })).body as ShopStatus;
    expect(left.devices.map((d) => d.name)).toEqual(['Okan’s phone']);
    expect(await stream).toBe('cut');
    expect((await from(`${url}/api/jobs`, { ca, headers })).status).toBe(401);
    expect((await from(`${url}/jobs`, { ca, headers: { ...headers, Accept: 'text/html' } })).headers.location).toBe('/admit');
    expect((await atBench.post('/api/shop/remove', { deviceId: device.id })).body).toMatchObject({ code: 'not-found' });
  });

  test('strangers may not knock for ever; a device that is let in is not held up by them', async () => {
    const { url } = await atBench.status();
    const ca = await trusted();
    const headers = { Cookie: cookieOf(await admit(url!, (await atBench.code('Van tablet', null)).code)) };
    // codes: ten tries from one address, right or wrong; then not even a right one
    let tried = await admit(url!, 'AAAA-AAAA');
    for (let i = 0; i < 12 && tried.status !== 429; i++) tried = await admit(url!, 'AAAA-AAAA');
    expect([tried.status, tried.text.includes('Too many codes were tried from here')]).toEqual([429, true]);
    expect((await admit(url!, (await atBench.code('Late phone', null)).code)).status).toBe(429);
    expect((await atBench.status()).devices.map((d) => d.name)).not.toContain('Late phone');
    let last = 0;
    for (let i = 0; i < 70 && last !== 429; i++) last = (await from(`${url}/api/health`, { ca })).status;
    expect(last).toBe(429);
    expect((await from(`${url}/api/health`, { ca, headers })).status).toBe(200);
  });

  test('a bench that starts anew listens where it did, for whom it did; back to this machine alone, nobody answers', async () => {
    const { url, devices } = await atBench.status();
    await app.shop!.close();
    await app.shop!.start();
    const again = await atBench.status();
    expect([again.chosen, again.devices, again.code]).toEqual(['127.0.0.1', devices, null]);
    expect(again.trouble).toBeNull();
    const gone = again.url!;
    expect(gone).not.toBe(url);
    expect(await atBench.listen(null)).toMatchObject({ chosen: null, url: null });
    await expect(from(`${gone}/admit`, { ca: await trusted() })).rejects.toThrow('ECONNREFUSED');
  });

  test('the machine moves to another network while it listens: that is said, until it is back', async () => {
    await atBench.listen('127.0.0.1');
    const [home] = own.splice(0, 1);
    expect((await atBench.status()).trouble).toContain('does not have the address 127.0.0.1 now');
    own.push(home!);
    expect((await atBench.status()).trouble).toBeNull();
    await atBench.listen(null);
  });

  test('an address that is away is said, and the bench is not stopped by it', async () => {
    const other = folder();
    writeFileSync(join(other, 'listen.json'), JSON.stringify({ address: '192.0.2.7' }));
    const shop = new ShopService({ dir: other, securePort: 0, setUpPort: 0, addresses: () => own }, () => new Date(), silent);
    shop.setDoors(app.http, app.http);
    await shop.start();
    expect(shop.status()).toMatchObject({ chosen: '192.0.2.7', url: null, trouble: expect.stringContaining('does not have the address 192.0.2.7 now') });
    await shop.close();
  });

  test('this machine’s own addresses are private ones, never the loopback', () => {
    for (const a of privateAddresses()) expect([isPrivate(a.address), a.address.startsWith('127.')]).toEqual([true, false]);
  });
});

describe('the register', () => {
  test('that does not read lets nobody in, and is kept aside', () => {
    const file = join(folder(), 'devices.json');
    const now = () => new Date('2026-11-25T10:00:00Z');
    const { secret, device } = new DeviceRegister(file, now).admit({ name: 'Phone', personId: null });
    expect(new DeviceRegister(file, now).find(secret)).toEqual(device);
    expect(new DeviceRegister(file, now).find(`${secret}x`)).toBeNull();
    writeFileSync(file, '[{"name":');
    expect(new DeviceRegister(file, now).find(secret)).toBeNull();
    expect(existsSync(`${file}.unreadable`)).toBe(true);
  });
  test('knows when a device was last seen, to the minute', () => {
    let now = new Date('2026-11-25T10:00:00Z');
    const register = new DeviceRegister(join(folder(), 'devices.json'), () => now);
    const { secret } = register.admit({ name: 'Phone', personId: null });
    now = new Date('2026-11-25T10:00:30Z');
    register.find(secret);
    expect(register.all()[0]!.lastSeenAt).toBe('2026-11-25T10:00:00.000Z');
    now = new Date('2026-11-25T10:05:00Z');
    register.find(secret);
    expect(register.all()[0]!.lastSeenAt).toBe('2026-11-25T10:05:00.000Z');
  });
});
