import { writeDurably } from '../db/durable.js';

/** Writes a file whole or not at all, for this user’s eyes only. */
export const keep = (file: string, text: string): void => writeDurably(file, text, { mode: 0o600 });
