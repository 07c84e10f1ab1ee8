import request from 'supertest';
import type { DaysPlanResult } from '@yellow-pane/contracts';
import { openBench } from '../../bench.testing.js';

describe('a plan of days by figures alone', () => {
  let bench: Awaited<ReturnType<typeof openBench>>;
  beforeAll(async () => void (bench = await openBench(null)));
  afterAll(() => bench.open.close());
  const post = (body: object) => request(bench.app.http).post('/api/compute/days').set('Host', 'localhost').send(body);
  const asked = {
    from: '2026-12-10',
    tasks: [
      { id: 'prime', minutes: 20, placeId: 'room' },
      { id: 'lay', minutes: 60, placeId: 'room', after: [{ taskId: 'prime', leastMin: 10, mostMin: 60, what: 'primer dries' }] },
    ],
    people: [{ id: 'Ines', hours: [{ fromMin: 480, toMin: 720 }] }],
    places: [{ id: 'room', site: 'pier' }],
  };

  test('who does what when, why then, and before when nobody ends', async () => {
    const answer = (await post(asked).expect(200)).body as DaysPlanResult;
    expect(answer.placed.map((p) => [p.text, p.why])).toEqual([
      ['prime: Thursday 10, 08:00, Ines.', ['Ines is not there before.']],
      ['lay: Thursday 10, 08:30, Ines.', ['It waits for prime: primer dries.']],
    ]);
    expect(answer.bound!.text).toContain('It cannot be done before Thursday 10, 09:30');
  });
  test('what names nothing is asked for; what does not read is refused with its place', async () => {
    const body = { ...asked, tasks: [{ id: 'prime', minutes: 20, placeId: 'roof' }] };
    expect(((await post(body).expect(200)).body as DaysPlanResult).doubt).toContain('no such place');
    const refused = await post({ ...asked, tasks: [{ id: 'prime', minutes: 0, placeId: 'room' }] });
    expect([refused.status, refused.type, refused.body.faults[0].path]).toEqual([400, 'application/problem+json', 'body.tasks.0.minutes']);
  });
});
