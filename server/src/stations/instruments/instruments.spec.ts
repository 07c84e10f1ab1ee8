import type { AddressInfo } from 'node:net';
import request from 'supertest';
import { instrumentStatus, type InstrumentStatus } from '@yellow-pane/contracts';
import type { App } from '../../app.js';
import { openBench, type TestDatabase } from '../../bench.testing.js';
import { SimulatedInstruments } from '../../instruments/simulated-instruments.js';

let app: App, open: TestDatabase;
beforeAll(async () => ({ app, open } = await openBench()), 60_000);
afterAll(() => open.close());
const act = (body: object) => request(app.http).post('/api/instruments/act').set('Host', 'localhost').send(body);
const shoot = { act: 'shoot', kind: 'laser', trueMm: 2046, deviceId: null } as const;

describe('the simulated instruments', () => {
  test('a shot is near the truth and counted; a dropped connection is said, and put right it goes on', async () => {
    const first = instrumentStatus.parse((await act(shoot)).body);
    expect(first.last).toMatchObject({ kind: 'laser', seq: 1 });
    expect(Math.abs((first.last as { lengthMm: number }).lengthMm - 2046)).toBeLessThanOrEqual(4);
    await act({ act: 'drop', kind: 'laser' });
    const away = await act(shoot);
    expect([away.status, away.body.code, away.body.detail]).toEqual([503, 'instrument-away', expect.stringContaining('type what you read')]);
    await act({ act: 'mend', kind: 'laser' });
    expect((await act(shoot)).body.last.seq).toBe(2);
    expect((await act({ ...shoot, trueMm: 3 })).status).toBe(400);
    // a reading says who asked for it: it goes into no one else’s field
    const mine = '01930000-0000-7000-8000-0000000000aa';
    expect((await act({ ...shoot, deviceId: mine })).body.last.deviceId).toBe(mine);
  });
  test('a weak battery makes the laser noisier, and an empty one ends it', () => {
    const bench = new SimulatedInstruments(() => new Date());
    const spread = () => {
      const shots = Array.from({ length: 25 }, () => (bench.act(shoot).last as { lengthMm: number }).lengthMm - 2046);
      return Math.sqrt(shots.reduce((s, v) => s + v * v, 0) / shots.length);
    };
    const fresh = spread();
    bench.act({ act: 'drain', kind: 'laser' });
    expect(spread()).toBeGreaterThan(1.5 * fresh);
    expect(() => Array.from({ length: 40 }, () => bench.act(shoot))).toThrow(/does not answer/);
  });
  test('out of the cold van the hygrometer needs its minutes; the thermometer wanders as it warms in the hand', () => {
    let nowMs = 0;
    const bench = new SimulatedInstruments(() => new Date(nowMs));
    const air = (airC: number) => (bench.act({ act: 'shoot', deviceId: null, kind: 'hygrometer', airC, humidityPct: 50 }).last as { airC: number }).airC;
    air(4);
    nowMs += 30_000;
    expect(air(21)).toBeLessThan(14);
    nowMs += 600_000;
    expect(air(21)).toBeGreaterThan(20);
    const glass = () => (bench.act({ act: 'shoot', deviceId: null, kind: 'thermometer', surfaceC: 20, trueEmissivityFrac: 0.9, setEmissivityFrac: 0.9, surroundingsC: 20, distanceMm: 100, targetMm: 1000, heldS: 3 }).last as { surfaceC: number }).surfaceC; // prettier-ignore
    const mean = (n: number) => Array.from({ length: n }, glass).reduce((s, v) => s + v, 0) / n;
    const cold = mean(8);
    mean(60);
    expect(mean(40)).toBeGreaterThan(cold + 0.2);
  });
  test('from too far the thermometer sees the room beside a hot edge, and waved past it has not come to it yet', () => {
    const bench = new SimulatedInstruments(() => new Date(0));
    const edge = (more: object) => (bench.act({ act: 'shoot', deviceId: null, kind: 'thermometer', surfaceC: 90, trueEmissivityFrac: 0.95, setEmissivityFrac: 0.95, surroundingsC: 20, distanceMm: 100, targetMm: 20, heldS: 3, ...more }).last as { surfaceC: number }).surfaceC; // prettier-ignore
    expect(edge({})).toBeGreaterThan(87);
    expect(edge({ distanceMm: 600 })).toBeLessThan(70);
    expect(edge({ surfaceC: 20 })).toBeLessThan(24);
    expect(edge({ heldS: 0.2 })).toBeLessThan(75);
    expect(edge({})).toBeGreaterThan(87);
  });
  test('who listens hears every status at once and every shot as it comes; nobody is told after he has gone', async () => {
    const server = app.http.listen(0, '127.0.0.1');
    await new Promise((listening) => server.once('listening', listening));
    try {
      const { port } = server.address() as AddressInfo;
      const stop = new AbortController();
      const answer = await fetch(`http://127.0.0.1:${port}/api/instruments/stream`, { signal: stop.signal });
      expect(answer.headers.get('content-type')).toBe('text/event-stream');
      const reader = answer.body!.pipeThrough(new TextDecoderStream()).getReader();
      const heard: InstrumentStatus[] = [];
      const until = async (count: number) => {
        for (let text = ''; heard.length < count;) {
          text += (await reader.read()).value ?? '';
          const lines = text.split('\n\n');
          text = lines.pop()!;
          for (const l of lines) if (l.startsWith('data: ')) heard.push(JSON.parse(l.slice(6)) as InstrumentStatus);
        }
      };
      await until(3);
      expect(heard.map((s) => s.kind).sort()).toEqual(['hygrometer', 'laser', 'thermometer']);
      await act({ act: 'shoot', kind: 'hygrometer', airC: 18, humidityPct: 55 });
      await until(4);
      expect(heard[3]!.last).toMatchObject({ kind: 'hygrometer', seq: 1 });
      stop.abort();
      await reader.cancel().catch(() => undefined);
    } finally {
      server.closeAllConnections();
      server.close();
    }
  });
});
