import { createServer, type Server, type Socket } from 'node:net';
import type { AddressInfo } from 'node:net';

/** Plotter units in a millimetre, as HP-GL has them. */
const UNITS_PER_MM = 40;
/** Bytes that the machine takes before it makes the sender wait. */
const BUFFER_BYTES = 4096;
const TICK_MS = 15;

interface Move {
  readonly x: number;
  readonly y: number;
  readonly isDown: boolean;
}
type Job = Move | { readonly reply: () => string } | { readonly fault: number };
/** From this number on an error stops the machine; smaller ones are instructions that it passes over. */
const STOPS_FROM = 5;

/** What the stand-in makes of its work, for its own panel and for tests: a real machine shows that on the bed. */
export interface SimulatedPlotterOptions {
  /** How much faster than a real machine it runs. */
  readonly haste?: number;
  /** It draws this much too large, as machines do until they are measured. */
  readonly scaleError?: number;
}

/**
 * A knife plotter that is not there: listens on this machine only, reads HP-GL from a byte stream, moves a knife in real time and answers what it
 * is asked (OA: where the knife is, OE: the error, OS: the state), in the order it was asked. Its knife lands a hair beside where it
 * was sent. A jam stops it until it is started afresh with IN.
 */
export class SimulatedPlotter {
  private server: Server | null = null;
  private socket: Socket | null = null;
  private text = '';
  private queue: Job[] = [];
  private x = 0;
  private y = 0;
  private isDown = false;
  private isRelative = false;
  private speedMmPerS = 400;
  private error = 0;
  private timer: NodeJS.Timeout | null = null;
  private dice = 12345;
  /** When the knife last moved on, ms. */
  private movedAt = 0;

  constructor(private readonly options: SimulatedPlotterOptions = {}) {}

  listen(): Promise<{ host: string; port: number }> {
    return new Promise((resolve) => {
      this.server = createServer((socket) => this.take(socket));
      this.server.unref();
      this.server.listen(0, '127.0.0.1', () => resolve({ host: '127.0.0.1', port: (this.server!.address() as AddressInfo).port }));
    });
  }

  close(): void {
    if (this.timer) clearInterval(this.timer);
    this.socket?.destroy();
    this.server?.close();
  }

  /** The film has run crooked and is caught: the machine stops and says error 6. */
  jam(): void {
    this.error = 6;
  }

  /** Its cable is pulled. */
  unplug(): void {
    this.socket?.destroy();
  }

  private take(socket: Socket): void {
    // one sender at a time, as one cable
    this.socket?.destroy();
    this.socket = socket;
    this.text = '';
    this.queue = [];
    socket.setNoDelay(true);
    socket.setEncoding('latin1');
    socket.on('data', (data: string) => {
      this.text += data;
      this.read();
      this.work();
      if (this.text.length + this.queue.length * 8 > BUFFER_BYTES) socket.pause();
    });
    socket.on('error', () => undefined);
    if (!this.timer) {
      this.timer = setInterval(() => this.work(), TICK_MS);
      this.timer.unref();
    }
  }

  private read(): void {
    const abort = this.text.lastIndexOf('\u001b.K');
    if (abort >= 0) {
      // device control: throw away what was not done yet
      this.text = this.text.slice(abort + 3);
      this.queue = [];
    }
    for (let end = this.text.indexOf(';'); end >= 0; end = this.text.indexOf(';')) {
      const instruction = this.text.slice(0, end).trim();
      this.text = this.text.slice(end + 1);
      if (instruction) this.obey(instruction.slice(0, 2).toUpperCase(), instruction.slice(2));
    }
  }

  private obey(code: string, rest: string): void {
    const numbers = rest === '' ? [] : rest.split(',').map(Number);
    const move = (isDown: boolean) => {
      if (numbers.length === 0) this.queue.push({ ...this.last(), isDown });
      for (let i = 0; i + 1 < numbers.length; i += 2) {
        const from = this.last();
        this.queue.push({ x: (this.isRelative ? from.x : 0) + numbers[i]!, y: (this.isRelative ? from.y : 0) + numbers[i + 1]!, isDown });
      }
    };
    if (numbers.some((n) => !Number.isFinite(n))) this.queue.push({ fault: 2 });
    else if (code === 'IN') {
      this.error = 0;
      this.isRelative = false;
    } else if (code === 'PU') move(false);
    else if (code === 'PD') move(true);
    else if (code === 'PA') this.isRelative = false;
    else if (code === 'PR') this.isRelative = true;
    else if (code === 'VS') this.speedMmPerS = Math.max(10, (numbers[0] ?? 40) * 10);
    else if (code === 'OA') this.queue.push({ reply: () => `${this.real(this.x)},${this.real(this.y)},${this.isDown ? 1 : 0}` });
    else if (code === 'OE') this.queue.push({ reply: () => String(this.error) });
    else if (code === 'OS') this.queue.push({ reply: () => (this.error ? '32' : '16') });
    else if (code !== 'SP' && code !== 'FS') this.queue.push({ fault: 1 });
  }

  /** Where the knife will be when all that is queued is done. */
  private last(): { x: number; y: number } {
    for (let i = this.queue.length - 1; i >= 0; i--) {
      const job = this.queue[i]!;
      if ('x' in job) return { x: job.x, y: job.y };
    }
    return { x: this.x, y: this.y };
  }

  /** Moves the knife on by the time that has passed. */
  private work(): void {
    const now = performance.now();
    let left = (this.speedMmPerS * UNITS_PER_MM * Math.min(TICK_MS * 2, now - this.movedAt) * (this.options.haste ?? 1)) / 1000;
    this.movedAt = now;
    while (this.queue.length && left > 0) {
      const job = this.queue[0]!;
      if ('reply' in job) {
        this.queue.shift();
        this.socket?.write(`${job.reply()}\r`);
        continue;
      }
      if ('fault' in job) {
        this.error = Math.max(this.error, job.fault);
        this.queue.shift();
        continue;
      }
      if (this.error >= STOPS_FROM) {
        // stuck: moves are swallowed, questions still answered
        this.queue.shift();
        continue;
      }
      const way = Math.hypot(job.x - this.x, job.y - this.y);
      this.isDown = job.isDown;
      if (way <= left) {
        left -= way;
        this.x = job.x;
        this.y = job.y;
        this.queue.shift();
      } else {
        this.x += ((job.x - this.x) * left) / way;
        this.y += ((job.y - this.y) * left) / way;
        left = 0;
      }
    }
    if (this.socket?.isPaused() && this.queue.length * 8 < BUFFER_BYTES / 2) this.socket.resume();
  }

  /** Where the knife really is when it was sent somewhere: the stand-in's own error of size and of its belt, units. */
  private real(unit: number): number {
    this.dice = (this.dice * 1103515245 + 12345) % 2147483648;
    return Math.round(unit * (1 + (this.options.scaleError ?? 0)) + (this.dice / 2147483648 - 0.5) * 2);
  }
}
