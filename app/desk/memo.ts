/** A kind of thing that is derived from parts of a library, and how many of it are kept at most. */
export interface Topic<T> {
  readonly most: number;
  /** Says what is derived; never set. */
  readonly of?: T;
}

export const topic = <T>(most: number): Topic<T> => ({ most });

/**
 * Remembers what was derived, by a name and the parts themselves: as long as every part is the same object, the answer is. A library
 * shares what did not change, so a change elsewhere forgets nothing.
 */
export type Memo = <T>(of: Topic<T>, name: string, parts: readonly unknown[], derive: () => T) => T;

interface Known {
  readonly parts: readonly unknown[];
  readonly value: unknown;
}

/** One memory for all topics of a desk; of each the oldest are forgotten first. */
export function createMemo(): Memo {
  const topics = new Map<Topic<unknown>, Map<string, Known>>();
  return <T>(of: Topic<T>, name: string, parts: readonly unknown[], derive: () => T): T => {
    const known = topics.get(of) ?? new Map<string, Known>();
    topics.set(of, known);
    const before = known.get(name);
    if (before && before.parts.length === parts.length && before.parts.every((p, i) => p === parts[i]))
      return before.value as T; // what a topic holds was derived for it
    const value = derive();
    known.delete(name);
    known.set(name, { parts, value });
    const [oldest] = known.keys();
    if (known.size > of.most && oldest !== undefined) known.delete(oldest);
    return value;
  };
}
