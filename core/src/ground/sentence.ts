/** Several things in a sentence: “a, b and c”. */
export const listed = (words: readonly string[]): string => (words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')} and ${words.at(-1)!}`);
/** As the first word of a sentence. */
export const capital = (s: string): string => s[0]!.toUpperCase() + s.slice(1);
/** In the middle of a sentence. */
export const uncapital = (s: string): string => s[0]!.toLowerCase() + s.slice(1);
