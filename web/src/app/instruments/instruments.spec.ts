import { TestBed } from '@angular/core/testing';
import type { InstrumentReading, InstrumentStatus, Sent } from '@yellow-pane/contracts';
import { Api, ApiProblem } from '../record/api';
import { Device } from '../record/device';
import { Instruments } from './instruments';

/** A stream as the browser holds it, told what to say. */
class FakeStream {
  static last: FakeStream;
  onopen: (() => void) | null = null;
  onmessage: ((e: { data: string }) => void) | null = null;
  isClosed = false;
  constructor(readonly url: string) {
    FakeStream.last = this;
  }
  close(): void {
    this.isClosed = true;
  }
  says(status: InstrumentStatus): void {
    this.onmessage!({ data: JSON.stringify(status) });
  }
}

const laser = (seq: number, lengthMm: number, deviceId: string | null = null): InstrumentStatus => ({
  kind: 'laser', name: 'Laser', isSimulated: true, isConnected: true, batteryPct: 80,
  last: { kind: 'laser', seq, at: '2026-12-03T09:00:00Z', deviceId, lengthMm },
}); // prettier-ignore

let instruments: Instruments;
let heard: InstrumentReading[];
let stop: () => void;
let acts: Sent<'instrumentAct'>['body'][];
let refuse: ApiProblem | null;

beforeEach(() => {
  sessionStorage.clear();
  (globalThis as Record<string, unknown>)['EventSource'] = FakeStream;
  [heard, acts, refuse] = [[], [], null];
  const api = {
    instrumentAct: async ({ body: act }: Sent<'instrumentAct'>) => {
      acts.push(act);
      if (refuse) throw refuse;
      return laser(7, 1200, TestBed.inject(Device).id);
    },
  };
  TestBed.configureTestingModule({ providers: [{ provide: Api, useValue: api }] });
  instruments = TestBed.inject(Instruments);
  stop = instruments.onReading((r) => heard.push(r));
  FakeStream.last.onopen!();
});
afterEach(() => delete (globalThis as Record<string, unknown>)['EventSource']);
const lengths = () => heard.map((r) => r.kind === 'laser' && r.lengthMm);

describe('what the instruments say to this bench', () => {
  test('the first word only tells where it stands; each reading after it is handed on once', () => {
    FakeStream.last.says(laser(4, 900));
    expect(heard).toEqual([]);
    FakeStream.last.says(laser(5, 901));
    FakeStream.last.says(laser(5, 901));
    FakeStream.last.says(laser(6, 1203));
    expect(lengths()).toEqual([901, 1203]);
    expect(instruments.statuses().laser?.last?.seq).toBe(6);
  });
  test('a shot asked for on another device fills no field here; its status is shown all the same', () => {
    FakeStream.last.says(laser(4, 900));
    FakeStream.last.says(laser(5, 777, '018f0000-0000-7000-8000-000000000099'));
    expect(heard).toEqual([]);
    expect(instruments.statuses().laser?.last).toMatchObject({ lengthMm: 777 });
    FakeStream.last.says(laser(6, 778, TestBed.inject(Device).id));
    expect(lengths()).toEqual([778]);
  });
  test('the instrument’s own button fills a field only where the bench is in view', () => {
    FakeStream.last.says(laser(4, 900));
    Object.defineProperty(document, 'visibilityState', { value: 'hidden', configurable: true });
    FakeStream.last.says(laser(5, 905));
    Object.defineProperty(document, 'visibilityState', { value: 'visible', configurable: true });
    FakeStream.last.says(laser(6, 906));
    expect(lengths()).toEqual([906]);
  });
  test('after a dropped connection, or a bench started anew with its count at nought, what was read meanwhile goes nowhere', () => {
    FakeStream.last.says(laser(40, 900));
    FakeStream.last.onopen!();
    FakeStream.last.says(laser(43, 950));
    expect(heard).toEqual([]);
    FakeStream.last.onopen!();
    FakeStream.last.says(laser(0, 1));
    FakeStream.last.says(laser(1, 960));
    expect(lengths()).toEqual([960]);
  });
  test('a shot goes out in this device’s name, and its answer and its echo on the stream count as one', async () => {
    FakeStream.last.says(laser(6, 900));
    await instruments.act({ act: 'shoot', kind: 'laser', trueMm: 1200, deviceId: null });
    expect(acts).toEqual([{ act: 'shoot', kind: 'laser', trueMm: 1200, deviceId: TestBed.inject(Device).id }]);
    FakeStream.last.says(laser(7, 1200, TestBed.inject(Device).id));
    expect(lengths()).toEqual([1200]);
  });
  test('why it did not shoot is said, and forgotten with the next try', async () => {
    refuse = new ApiProblem('instrument-away', 'The laser meter does not answer: its battery is empty.');
    await instruments.act({ act: 'shoot', kind: 'laser', trueMm: 1200, deviceId: null });
    expect(instruments.trouble()).toContain('battery is empty');
    refuse = null;
    await instruments.act({ act: 'mend', kind: 'laser' });
    expect(instruments.trouble()).toBeNull();
  });
  test('listened to only as long as somebody hears', () => {
    const other = instruments.onReading(() => undefined);
    const stream = FakeStream.last;
    stop();
    expect(stream.isClosed).toBe(false);
    other();
    expect(stream.isClosed).toBe(true);
    instruments.onReading(() => undefined);
    expect(FakeStream.last).not.toBe(stream);
  });
});
