import { Worker } from 'node:worker_threads';
import type { Compute } from './runners.js';

interface Waiting {
  resolve: (value: never) => void;
  reject: (error: Error) => void;
}

/** One worker thread with a queue: the main thread keeps answering while a layout is searched. */
export function startWorker(script: URL): Compute {
  let next = 0;
  const waiting = new Map<number, Waiting>();
  let worker: Worker | null = null;
  const ensure = (): Worker => {
    if (worker) return worker;
    const started = new Worker(script);
    started.unref();
    started.on('message', ({ call, result, error }: { call: number; result: never; error?: string }) => {
      const w = waiting.get(call);
      waiting.delete(call);
      if (error === undefined) w?.resolve(result);
      else w?.reject(new Error(error));
    });
    started.on('error', (error) => {
      worker = null;
      waiting.forEach((w) => w.reject(error));
      waiting.clear();
    });
    return (worker = started);
  };
  return {
    run: (name, input) =>
      new Promise((resolve, reject) => {
        const call = next++;
        waiting.set(call, { resolve, reject });
        ensure().postMessage({ call, name, input });
      }),
    close: async () => {
      await worker?.terminate();
    },
  };
}
