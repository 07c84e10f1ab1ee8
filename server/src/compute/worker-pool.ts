import { Worker } from 'node:worker_threads';
import { Refusal } from '../problem.js';
import { asker } from './asker.js';
import type { Compute, RunnerName } from './runners.js';

/** Longest that one computation may take, ms. @source house rule: what an interface asks for is there within seconds */
const MOST_MS: Record<RunnerName, number> = {
  layout: 60_000,
  methods: 60_000,
  verdict: 60_000,
  shrink: 4_500,
  cloud: 30_000,
  survey: 4_500,
  taped: 4_500,
  heat: 4_500,
  strokes: 30_000,
  recess: 60_000,
  corrugation: 4_500,
  joints: 30_000,
  days: 60_000,
  zones: 30_000,
  dome: 30_000,
  wrappedCorner: 4_500,
};
/** More than this in line is not taken in. */
const MOST_WAITING = 200;

interface Call {
  readonly name: RunnerName;
  readonly input: unknown;
  readonly resolve: (value: never) => void;
  readonly reject: (error: Error) => void;
  readonly stopHearing: () => void;
}

/**
 * One worker thread and a line before it: the main thread keeps answering while a layout is searched. One call is in the worker at a time. A call whose
 * asker has gone leaves the line, or, when it is being worked on, is stopped with its worker; so is one that takes too long. A new worker goes on with the next.
 */
export function startWorker(script: URL, mostMs: Partial<Record<RunnerName, number>> = {}): Compute {
  const line: Call[] = [];
  let worker: Worker | null = null;
  let now: Call | null = null;
  let clock: NodeJS.Timeout | null = null;

  const end = (call: Call): void => {
    if (clock) clearTimeout(clock);
    clock = null;
    call.stopHearing();
    now = null;
  };
  /** The worker is in the middle of something that nobody waits for: only its end stops it. */
  const stopWorker = (): void => {
    void worker?.terminate();
    worker = null;
  };
  const fresh = (): Worker => {
    const started = new Worker(script);
    started.unref();
    started.on('message', ({ result, error }: { result: never; error?: string }) => {
      const call = now;
      if (started !== worker || !call) return;
      end(call);
      if (error === undefined) call.resolve(result);
      else call.reject(new Error(error));
      next();
    });
    started.on('error', (error) => {
      if (started !== worker) return;
      worker = null;
      const call = now;
      if (call) {
        end(call);
        call.reject(error);
      }
      next();
    });
    return started;
  };
  const next = (): void => {
    if (now) return;
    const call = line.shift();
    if (!call) return;
    now = call;
    worker ??= fresh();
    const most = mostMs[call.name] ?? MOST_MS[call.name];
    clock = setTimeout(() => {
      end(call);
      stopWorker();
      call.reject(new Refusal('took-too-long'));
      next();
    }, most);
    worker.postMessage({ call: 0, name: call.name, input: call.input });
  };

  return {
    run: (name, input) =>
      new Promise((resolve, reject) => {
        const isGone = asker.getStore()?.isGone;
        if (isGone?.aborted) return reject(new Refusal('took-too-long', 'Nobody waits for this any more.'));
        if (line.length >= MOST_WAITING) return reject(new Refusal('too-many', 'Too much is being worked out at once. Wait a moment and try again.'));
        const leave = (): void => {
          const at = line.indexOf(call);
          if (at >= 0) line.splice(at, 1);
          else if (now === call) {
            end(call);
            stopWorker();
            next();
          } else return;
          reject(new Refusal('took-too-long', 'Nobody waits for this any more.'));
        };
        const call: Call = { name, input, resolve: resolve as Call['resolve'], reject, stopHearing: () => isGone?.removeEventListener('abort', leave) };
        isGone?.addEventListener('abort', leave, { once: true });
        line.push(call);
        next();
      }),
    close: async () => {
      await worker?.terminate();
    },
  };
}
