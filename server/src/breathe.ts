/** Others get a turn: long work on the main thread asks for one now and then. */
export const breathe = (): Promise<void> => new Promise((r) => setImmediate(r));
