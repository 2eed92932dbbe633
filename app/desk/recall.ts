/**
 * Remembers what was derived from parts of the library, by a name and the parts themselves: as long as every part is the same
 * object, the answer is. The library shares what did not change, so a change elsewhere forgets nothing.
 */
export function recaller<T>(most: number): (name: string, parts: readonly unknown[], derive: () => T) => T {
  const known = new Map<string, { readonly parts: readonly unknown[]; readonly value: T }>();
  return (name, parts, derive) => {
    const before = known.get(name);
    if (before && before.parts.length === parts.length && before.parts.every((p, i) => p === parts[i]))
      return before.value;
    const value = derive();
    known.delete(name);
    known.set(name, { parts, value });
    const [oldest] = known.keys();
    if (known.size > most && oldest !== undefined) known.delete(oldest);
    return value;
  };
}
