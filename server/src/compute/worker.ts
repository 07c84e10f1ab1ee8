import { parentPort } from 'node:worker_threads';
import { runners, type RunnerName } from './runners.js';

/** Thread entry: answers each call with its result or the message of its error. */
parentPort?.on('message', ({ call, name, input }: { call: number; name: RunnerName; input: unknown }) => {
  try {
    parentPort!.postMessage({ call, result: (runners[name] as (x: unknown) => unknown)(input) });
  } catch (error) {
    parentPort!.postMessage({ call, error: (error as Error).message });
  }
});
