import { AsyncLocalStorage } from 'node:async_hooks';

/** Whoever asked for what is being worked out: when they are gone, nobody needs it any more. */
export const asker = new AsyncLocalStorage<{ readonly isGone: AbortSignal }>();
