const say = (words: unknown): void => void process.stderr.write(`${String(words)}\n`);
/** For whoever sits at a command line: sentences, not records. */
export const plainLog = { warn: say, error: (about: unknown, words?: unknown) => say(words ?? about) };
