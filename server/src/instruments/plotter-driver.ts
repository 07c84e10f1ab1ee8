import { connect, type Socket } from 'node:net';
import type { PlotSettings } from '@yellow-pane/contracts';
import { HPGL_END, HPGL_UNITS_PER_MM, hpglStart, type PlotPath } from '@yellow-pane/core';

/** Where a plotter listens: a byte stream over TCP, as a serial-to-network box or the machine itself offers it. */
export interface PlotterAddress {
  readonly host: string;
  readonly port: number;
}

/** What the driver tells while it works. */
export interface PlotterReport {
  /** A path is done: the machine said where its knife was along it, mm. */
  done(index: number, trace: readonly (readonly [number, number])[]): void;
  /** It broke off: what the machine, or the line to it, says. */
  failed(message: string): void;
  finished(): void;
}

/** Corners sent between two questions where the knife is. */
const CORNERS_AT_ONCE = 6;
/** How long the machine may say nothing while it has little to do, ms. */
const SILENCE_MS = 20_000;
/** @source common error numbers of HP-GL: 1 unknown instruction, 2 wrong parameters; 6 stands for whatever stops the machine itself */
const errorWords: Record<string, string> = {
  '1': 'it does not know an instruction',
  '2': 'a number did not read',
  '6': 'the film is caught or the carriage is blocked',
};

/**
 * Sends paths to a plotter one small step after the other and waits for its word after each: so a pause takes effect at once, the machine's
 * buffer never holds more than a few corners, and what is confirmed is cut.
 */
export class PlotterDriver {
  private socket: Socket | null = null;
  private answers: ((line: string) => void)[] = [];
  private text = '';
  private isPaused = false;
  private isStopped = false;
  private wake: (() => void) | null = null;

  constructor(private readonly address: PlotterAddress) {}

  /** Opens the line. @throws when nobody answers there */
  open(): Promise<void> {
    return new Promise((resolve, reject) => {
      const socket = connect(this.address.port, this.address.host);
      socket.setNoDelay(true);
      socket.setEncoding('latin1');
      socket.once('connect', () => {
        this.socket = socket;
        resolve();
      });
      socket.once('error', reject);
      socket.on('data', (data: string) => {
        this.text += data;
        for (let end = this.text.indexOf('\r'); end >= 0; end = this.text.indexOf('\r')) {
          const line = this.text.slice(0, end);
          this.text = this.text.slice(end + 1);
          this.answers.shift()?.(line);
        }
      });
    });
  }

  pause(): void {
    this.isPaused = true;
  }
  resume(): void {
    this.isPaused = false;
    this.wake?.();
  }
  /** Throws away what the machine still has, lifts the knife, and ends. */
  stop(): void {
    this.isStopped = true;
    this.socket?.write('\u001b.KPU;');
    this.wake?.();
  }
  close(): void {
    this.isStopped = true;
    this.socket?.destroy();
    this.wake?.();
  }

  /** Cuts from a path on until the end, a stop or a failure. */
  async run(paths: readonly PlotPath[], from: number, settings: PlotSettings, report: PlotterReport): Promise<void> {
    try {
      this.send(hpglStart(settings));
      for (let i = from; i < paths.length; i++) {
        await this.turn();
        if (this.isStopped) return;
        report.done(i, await this.cut(paths[i]!, settings));
        const error = await this.ask('OE;');
        if (this.isStopped) return;
        if (error !== '0') return report.failed(`The plotter stopped: ${errorWords[error] ?? `it says error ${error}`}.`);
      }
      this.send(HPGL_END);
      report.finished();
    } catch (error) {
      if (!this.isStopped) report.failed((error as Error).message);
    }
  }

  private async cut(path: PlotPath, s: PlotSettings): Promise<[number, number][]> {
    const at = (p: { x: number; y: number }) => `${Math.round(p.x * s.scaleX * HPGL_UNITS_PER_MM)},${Math.round(p.y * s.scaleY * HPGL_UNITS_PER_MM)}`;
    const trace: [number, number][] = [];
    const where = async (go: string) => {
      const [x, y] = (await this.ask(`${go}OA;`)).split(',').map(Number);
      trace.push([x! / HPGL_UNITS_PER_MM, y! / HPGL_UNITS_PER_MM]);
    };
    await where(`PU${at(path.points[0]!)};`);
    for (let i = 1; i < path.points.length; i += CORNERS_AT_ONCE) {
      await this.turn();
      if (this.isStopped) return trace;
      const next = path.points.slice(i, i + CORNERS_AT_ONCE);
      // asked after each corner, so that the trace has them all
      await Promise.all(next.map((p) => where(`PD${at(p)};`)));
    }
    this.send('PU;');
    return trace;
  }

  /** Waits while paused. */
  private async turn(): Promise<void> {
    while (this.isPaused && !this.isStopped) await new Promise<void>((r) => (this.wake = r));
  }
  private send(text: string): void {
    if (!this.socket || this.socket.destroyed) throw new Error('The line to the plotter is broken. Look at its cable and its switch, then go on.');
    this.socket.write(text, 'latin1');
  }
  private ask(text: string): Promise<string> {
    return new Promise((resolve, reject) => {
      const lost = () => reject(new Error('The line to the plotter is broken. Look at its cable and its switch, then go on.'));
      const timer = setTimeout(() => reject(new Error('The plotter says nothing any more. Is it switched on, and does it have film?')), SILENCE_MS);
      timer.unref();
      this.socket?.once('close', lost);
      this.answers.push((line) => {
        clearTimeout(timer);
        this.socket?.off('close', lost);
        resolve(line);
      });
      try {
        this.send(text);
      } catch (error) {
        clearTimeout(timer);
        reject(error as Error);
      }
    });
  }
}
