// Results that cost something and are asked for over and over, kept by whoever asks: a page, a worker, a service. The core itself keeps nothing.

/** One kind of kept result, and how many of it are kept. The constant itself is the shelf's name. */
export interface Shelf<T> {
  readonly most: number;
  /** Says of what kind its results are; never filled. */
  readonly of?: T;
}

/** @param most results kept at a time; beyond it the one that was asked for longest ago goes */
export const shelf = <T>(most: number): Shelf<T> => ({ most });

/**
 * What has been worked out. A function that is handed one gives the same answer as without it, sooner.
 * It belongs to one thread: its methods are own properties, so that a message to a worker with a memo in it is refused at once instead of copying all of it.
 */
export class Memo {
  private readonly byKey = new Map<Shelf<unknown>, Map<string, unknown>>();
  private readonly byOwner = new Map<Shelf<unknown>, WeakMap<object, { readonly from: readonly unknown[]; readonly made: unknown }>>();

  /** @param key everything that `make` depends on. What throws is not kept. */
  readonly once = <T>(on: Shelf<T>, key: string, make: () => T): T => {
    const kept = this.byKey.get(on) ?? new Map<string, unknown>();
    this.byKey.set(on, kept);
    const isKept = kept.has(key);
    const made = isKept ? (kept.get(key) as T) : make();
    // a Map goes through its keys in the order they were set: the newest asked for last
    if (isKept) kept.delete(key);
    kept.set(key, made);
    if (kept.size > on.most) kept.delete(kept.keys().next().value!);
    return made;
  };

  /** As long as `owner` lives and `from` are the very same objects: nothing has to be hashed. `most` does not count here. */
  readonly onceFor = <T>(on: Shelf<T>, owner: object, from: readonly unknown[], make: () => T): T => {
    const kept = this.byOwner.get(on) ?? new WeakMap<object, { readonly from: readonly unknown[]; readonly made: unknown }>();
    this.byOwner.set(on, kept);
    const before = kept.get(owner);
    if (before && before.from.length === from.length && before.from.every((x, i) => x === from[i])) return before.made as T;
    const made = make();
    kept.set(owner, { from, made });
    return made;
  };
}
