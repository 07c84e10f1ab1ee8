import request from 'supertest';
import type { BenchDocument, JobDocument, Patch } from '@yellow-pane/contracts';
import type { App } from './app.js';
import { ines, lanternStreetId, openBench, TestDevice, ternPointId, type TestDatabase } from './bench.testing.js';

let app: App;
let open: TestDatabase;
beforeAll(async () => ({ app, open } = await openBench()), 60_000);
afterAll(() => open.close());

const get = async <T>(path: string): Promise<T> => (await request(app.http).get(path).set('Host', 'localhost')).body as T;
const post = (path: string, body: object) => request(app.http).post(path).set('Host', 'localhost').send(body);
const bench = () => get<BenchDocument>(`/api/bench?personId=${ines}`);
const device = new TestDevice(ines);
const change = async (ownerId: string, label: string, patches: Patch[]) =>
  post(`/api/jobs/${ownerId}/changes`, device.draft(ownerId, label, patches, (await bench()).revision));

describe('what belongs to the firm', () => {
  test('people, films and rolls, and on how many panes each film is', async () => {
    const doc = await bench();
    expect(doc.persons.map((p) => p.name)).toEqual(['Ines', 'Okan']);
    const guard = doc.films.find((f) => f.name === 'Breakwater 200')!;
    expect(doc.panesWithFilm[guard.id]).toBe(6);
  });

  test('an allowance of the firm changes the pieces of a job that says nothing of its own, and undo brings them back', async () => {
    const { firm } = await bench();
    const piecesOf = async () => (await request(app.http).get(`/api/jobs/${lanternStreetId}/cut-list.csv`).set('Host', 'localhost')).text;
    const before = await piecesOf();
    const answer = await change(firm.id, 'Allowances of the firm', [
      { op: 'set', kind: 'firm', id: firm.id, field: 'allowances', value: { ...firm.allowances, overhangMm: 30 } },
    ]);
    expect(answer.status).toBe(200);
    expect(answer.body.canUndo).toBe('Allowances of the firm');
    expect(await piecesOf()).not.toBe(before);
    expect((await post(`/api/jobs/${firm.id}/undo`, device.undo())).status).toBe(200);
    expect(await piecesOf()).toBe(before);
  });

  test('the job’s own history does not know of it', async () => {
    expect((await get<JobDocument>(`/api/jobs/${ternPointId}?personId=${ines}`)).canUndo).not.toBe('Allowances of the firm');
  });

  test('an hour rate that is no price is refused by its path, and the count stays', async () => {
    const { firm } = await bench();
    const answer = await change(firm.id, 'Hour rate', [{ op: 'set', kind: 'firm', id: firm.id, field: 'hourRate', value: 'a lot' }]);
    device.takeBack();
    expect(answer.status).toBe(400);
    expect(answer.body.faults[0]).toEqual({ path: 'patches[0].hourRate', message: 'a price such as 13.50' });
    expect((await change(firm.id, 'Hour rate', [{ op: 'set', kind: 'firm', id: firm.id, field: 'hourRate', value: '52.00' }])).status).toBe(200);
  });

  test('somebody new at the bench is a fact: there is nothing to undo in it', async () => {
    const { firm } = await bench();
    const person = { id: '01930000-0000-7000-8000-00000000aaaa', firmId: firm.id, name: 'Bo', role: 'helper' };
    const answer = await change(firm.id, 'Bo works here', [{ op: 'add', kind: 'person', id: person.id, value: person }]);
    expect(answer.body.change.undoable).toBe(false);
    expect((await bench()).persons.map((p) => p.name)).toContain('Bo');
  });
});

test('the methods’ money is film and the firm’s hours', async () => {
  const doc = await get<JobDocument>(`/api/jobs/${ternPointId}?personId=${ines}`);
  const figures = await get<{ minutes: number; workCost: number }[]>(`/api/jobs/${ternPointId}/films/${doc.films[1]!.id}/methods`);
  for (const f of figures) expect(f.workCost).toBeCloseTo((f.minutes / 60) * Number(doc.firm.hourRate), 6);
});
