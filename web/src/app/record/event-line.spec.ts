import { EventLine } from './event-line';

class FakeSource {
  static readonly all: FakeSource[] = [];
  static readonly CLOSED = 2;
  readyState = 1;
  onopen: () => void = () => undefined;
  onmessage: (e: { data: string }) => void = () => undefined;
  onerror: () => void = () => undefined;
  constructor(readonly url: string) {
    FakeSource.all.push(this);
  }
  close(): void {
    this.readyState = 2;
  }
}
const living = () => FakeSource.all.filter((s) => s.readyState === 1);
const rest = (ms: number) => new Promise((r) => setTimeout(r, ms));
let seen: DocumentVisibilityState = 'visible';
const turn = (state: DocumentVisibilityState) => {
  seen = state;
  document.dispatchEvent(new Event('visibilitychange'));
};

describe('a line of events', () => {
  let line: EventLine;
  let heard: string[];
  let at = 0;
  beforeEach(() => {
    FakeSource.all.length = 0;
    Object.assign(globalThis, { EventSource: FakeSource });
    Object.defineProperty(document, 'visibilityState', { configurable: true, get: () => seen });
    seen = 'visible';
    heard = [];
    at = 0;
    line = new EventLine(
      () => `/stream?after=${at}`,
      (d) => heard.push(d),
      undefined,
      40,
    );
  });
  afterEach(() => {
    line.close();
    delete (globalThis as { EventSource?: unknown }).EventSource;
  });

  test('rests while its page is out of view, and asks for what it missed when it is back', () => {
    living()[0]!.onmessage({ data: 'one' });
    at = 7;
    turn('hidden');
    expect(living()).toEqual([]);
    turn('visible');
    expect(living().map((s) => s.url)).toEqual(['/stream?after=7']);
    expect(heard).toEqual(['one']);
  });
  test('a refusal is asked again after a while; a line that only broke is the browser’s to take up', async () => {
    const [source] = living();
    source!.onerror();
    await rest(100);
    expect(FakeSource.all).toHaveLength(1);
    source!.readyState = 2;
    source!.onerror();
    await rest(5);
    expect(FakeSource.all).toHaveLength(1);
    await rest(100);
    expect(living()).toHaveLength(1);
  });
  test('back in reach it begins anew, once; out of view it stays at rest', () => {
    window.dispatchEvent(new Event('online'));
    expect([FakeSource.all.length, living().length]).toEqual([2, 1]);
    turn('hidden');
    window.dispatchEvent(new Event('online'));
    expect(living()).toEqual([]);
  });
  test('closed, it hears nothing of the page any more', () => {
    line.close();
    turn('hidden');
    turn('visible');
    expect(living()).toEqual([]);
  });
});
