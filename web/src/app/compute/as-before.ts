/** One film's part of an answer: itself, or that it is what was answered last. */
export type OrAsBefore<T> = T | 'as before';

/** What is answered of each film: in full only where it is other than last time. @param answered as text, film by film; brought along */
export function onlyWhatIsOther<T extends object>(parts: ReadonlyMap<string, T>, answered: Map<string, string>): Map<string, OrAsBefore<T>> {
  for (const filmId of answered.keys()) if (!parts.has(filmId)) answered.delete(filmId);
  return new Map(
    [...parts].map(([filmId, part]) => {
      const text = JSON.stringify(part);
      const isAsBefore = answered.get(filmId) === text;
      answered.set(filmId, text);
      return [filmId, isAsBefore ? 'as before' : part];
    }),
  );
}

/** The whole answer again. @param before what the last answer made */
export function inFull<T extends object>(answer: ReadonlyMap<string, OrAsBefore<T>>, before: ReadonlyMap<string, T>): ReadonlyMap<string, T> {
  return new Map([...answer].map(([filmId, part]) => [filmId, part === 'as before' ? before.get(filmId)! : part]));
}
