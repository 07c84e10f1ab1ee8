import { connect } from 'node:net';
import DxfParser from 'dxf-parser';
import request from 'supertest';
import { v7 as uuidv7 } from 'uuid';
import type { JobDocument, PlotRun, PlotStatus, Problem, Surface } from '@yellow-pane/contracts';
import { defaultPlotSettings } from '@yellow-pane/contracts';
import type { App } from '../../app.js';
import { ines, openBench, ternPointId, type TestDatabase } from '../../bench.testing.js';
import { PlotterDriver } from '../../instruments/plotter-driver.js';
import { SimulatedPlotter } from '../../instruments/simulated-plotter.js';

let app: App;
let open: TestDatabase;
let panes: Surface[];
beforeAll(async () => {
  ({ app, open } = await openBench());
  panes = ((await get(`/api/jobs/${ternPointId}`)).body as JobDocument).surfaces;
});
afterAll(async () => {
  app.plotter.close();
  await open.close();
});

const get = (path: string) => request(app.http).get(path).set('Host', 'localhost').buffer(true);
const post = (path: string, body: object) => request(app.http).post(path).set('Host', 'localhost').send(body);
/** The door has its marks on two sheets: the lower one. */
const pieceOf = (name: string) => panes.find((s) => s.name === name)!.id + (name === 'Door' ? '.1' : '');
const status = async (): Promise<PlotStatus> => (await get('/api/plotter?from=1000000')).body as PlotStatus;
const until = async (is: (s: PlotStatus) => boolean): Promise<PlotStatus> => {
  for (const end = Date.now() + 120_000; Date.now() < end;) {
    const s = await status();
    if (is(s)) return s;
    await new Promise((r) => setTimeout(r, 25));
  }
  throw new Error(`The plotter did not come to that: ${JSON.stringify((await status()).run)}`);
};
const start = (name: string, resumeId: string | null = null, settings = defaultPlotSettings) =>
  post(`/api/jobs/${ternPointId}/plotter`, { pieceId: pieceOf(name), settings, personId: ines, resumeId });

describe('the files a plotter takes', () => {
  test('DXF read again by an independent parser: millimetres, a layer per purpose, as many closed cuts as marks', async () => {
    const sheet = (await get(`/api/jobs/${ternPointId}/pieces/${pieceOf('Door')}/plot`)).body as { paths: { kind: string }[]; widthMm: number };
    const dxf = new DxfParser().parseSync((await get(`/api/jobs/${ternPointId}/pieces/${pieceOf('Door')}/plot.dxf`)).text)!;
    expect(dxf.header['$INSUNITS']).toBe(4);
    const lines = dxf.entities as unknown as { layer: string; shape: boolean; vertices: { x: number; y: number }[] }[];
    const count = (kind: string) => sheet.paths.filter((p) => p.kind === kind).length;
    expect(lines.filter((l) => l.layer === 'CUT' && l.shape)).toHaveLength(count('cut'));
    expect(lines.filter((l) => l.layer === 'REGISTER')).toHaveLength(3);
    for (const l of lines) for (const v of l.vertices) expect(v.x >= -0.01 && v.x <= sheet.widthMm + 0.01).toBe(true);
  });
  test('HP-GL without weeding and marks has the cuts alone', async () => {
    const text = (
      (await get(`/api/jobs/${ternPointId}/pieces/${pieceOf('Door')}/plot.hpgl?weeding=0&registration=0`).responseType('blob')).body as Buffer
    ).toString();
    const sheet = (await get(`/api/jobs/${ternPointId}/pieces/${pieceOf('Door')}/plot?weeding=0&registration=0`)).body as { paths: unknown[] };
    expect(text.match(/PD\d/g)).toHaveLength(sheet.paths.length);
    expect(text.startsWith('IN;PA;SP1;')).toBe(true);
  });
  test('a plain pane has nothing to plot, and says so', async () => {
    const answer = await get(`/api/jobs/${ternPointId}/pieces/${pieceOf('W1')}/plot`);
    expect([answer.status, (answer.body as Problem).code]).toEqual([422, 'not-plotted']);
  });
});

describe('the simulated plotter, through its byte stream', () => {
  test('says where its knife is, in the order it was asked, and what went wrong', async () => {
    const machine = new SimulatedPlotter({ haste: 500 });
    const { host, port } = await machine.listen();
    const answers: string[] = [];
    const socket = connect(port, host);
    await new Promise((r) => socket.once('connect', r));
    socket.on('data', (d) => answers.push(...d.toString().split('\r').filter(Boolean)));
    socket.write('IN;PU400,800;OA;PD4000,800;OA;PR;PU-400,0;OA;PA;OE;XX1;OE;');
    for (let i = 0; i < 100 && answers.length < 5; i++) await new Promise((r) => setTimeout(r, 20));
    const at = answers.slice(0, 3).map((a) => a.split(',').map(Number));
    for (const [i, want] of [[400, 800, 0], [4000, 800, 1], [3600, 800, 0]].entries()) want.forEach((w, k) => expect(Math.abs(at[i]![k]! - w)).toBeLessThanOrEqual(k < 2 ? 1 : 0)); // prettier-ignore
    // asked before the unknown instruction, and after it
    expect(answers.slice(3)).toEqual(['0', '1']);
    socket.destroy();
    machine.close();
  });
  test('nobody there: the driver says so at once', async () => {
    await expect(new PlotterDriver({ host: '127.0.0.1', port: 1 }).open()).rejects.toThrow();
  });
});

describe('a piece at the plotter', () => {
  test('is cut path by path, paused and stopped at once, and goes on where it was', async () => {
    expect((await start('Door')).status).toBe(200);
    await until((s) => s.run!.confirmedCount > 3);
    expect((await start('Desk')).body).toMatchObject({ code: 'plotter-busy' });
    const paused = (await post('/api/plotter/act', { act: 'pause' })).body as PlotStatus;
    expect(paused.run!.state).toBe('paused');
    await new Promise((r) => setTimeout(r, 200));
    const held = (await status()).run!.confirmedCount;
    await new Promise((r) => setTimeout(r, 200));
    expect((await status()).run!.confirmedCount).toBe(held);
    await post('/api/plotter/act', { act: 'resume' });
    await until((s) => s.run!.confirmedCount > held + 2);
    const stopped = (await post('/api/plotter/act', { act: 'stop' })).body as PlotStatus;
    expect(stopped.run).toMatchObject({ state: 'stopped', message: expect.stringMatching(/^Stopped at path \d+ of \d+\.$/) });
    const again = await start('Door', stopped.run!.id);
    expect((again.body as PlotRun).confirmedCount).toBe(stopped.run!.confirmedCount);
    const done = await until((s) => s.run!.state === 'done');
    expect(done.run!.confirmedCount).toBe(done.run!.pathCount);
    // the machine's size is off by 0.06 %: over 740 mm that is about 0.45 mm
    expect(done.worstOffMm).toBeGreaterThan(0.3);
    expect(done.worstOffMm).toBeLessThan(0.7);
    // the machine is told of at once, the record follows
    const inRecord = async () => ((await get(`/api/jobs/${ternPointId}`)).body as JobDocument).plotRuns;
    for (let i = 0; i < 200 && (await inRecord())[0]?.state !== 'done'; i++) await new Promise((r) => setTimeout(r, 25));
    expect(await inRecord()).toEqual([expect.objectContaining({ id: stopped.run!.id, state: 'done' })]);
  });

  test('a size typed in makes the machine’s error good', async () => {
    await start('Door', null, { ...defaultPlotSettings, scaleX: 1 / 1.0006, scaleY: 1 / 1.0006 });
    const done = await until((s) => s.run!.state === 'done');
    expect(done.worstOffMm).toBeLessThan(0.1);
  });

  test('a jam ends the run with what to do, and it goes on with the path that was not confirmed', async () => {
    expect((await start('Desk')).status).toBe(200);
    await until((s) => s.run!.confirmedCount > 5);
    await post('/api/plotter/act', { act: 'jam' });
    const failed = await until((s) => s.run!.state === 'failed');
    expect(failed.run!.message).toMatch(/caught or the carriage is blocked.*is cut again when you go on/);
    expect((await start('Desk', failed.run!.id)).status).toBe(200);
    await until((s) => s.run!.confirmedCount > failed.run!.confirmedCount + 3);
    await post('/api/plotter/act', { act: 'stop' });
  });

  test('closed in the middle: the run is there, broken off, and knows what was confirmed', async () => {
    expect((await start('Desk')).status).toBe(200);
    await until((s) => s.run!.confirmedCount > 20);
    await new Promise((r) => setTimeout(r, 1100));
    await until((s) => s.run!.confirmedCount > 40);
    app.plotter.close();
    await app.plotter.tidyUp();
    const runs = ((await get(`/api/jobs/${ternPointId}`)).body as JobDocument).plotRuns;
    const last = runs.at(-1)!;
    expect(last).toMatchObject({ state: 'interrupted', message: expect.stringContaining('It goes on there') });
    expect(last.confirmedCount).toBeGreaterThan(5);
  });
  test('what was at work when the power went is told broken off at the next start; what had ended is left alone', async () => {
    const runs = async () => ((await get(`/api/jobs/${ternPointId}`)).body as JobDocument).plotRuns;
    const last = (await runs()).at(-1)!;
    const left = (['running', 'paused', 'done', 'stopped'] as const).map((state, n): PlotRun => ({
      ...last,
      id: uuidv7(),
      state,
      message: `run ${n}`,
      endedAt: null,
      confirmedCount: 7,
    }));
    for (const run of left) await app.jobs.change(ternPointId, { personId: ines, deviceId: uuidv7() }, 'A run', [{ op: 'add', kind: 'plotRun', id: run.id, value: { ...run } }]); // prettier-ignore
    await app.plotter.tidyUp();
    const now = await runs();
    const after = left.map((l) => now.find((r) => r.id === l.id)!);
    expect(after.map((r) => r.state)).toEqual(['interrupted', 'interrupted', 'done', 'stopped']);
    expect(after[0]!.message).toBe(`Yellow Pane was closed at path 8 of ${last.pathCount}. It goes on there.`);
    expect(after[2]!.message).toBe('run 2');
  });
});
