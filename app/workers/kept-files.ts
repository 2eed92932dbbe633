/** How much is kept. */
export interface FilesKept {
  readonly files: number;
  readonly bytes: number;
  readonly mostBytes: number;
}

/** Files as this browser keeps them, the oldest of them going where it would be too much: each under its address with its length, so that a list of them tells how much there is. */
export class KeptFiles {
  private readonly at: Cache;
  private readonly kept: Map<string, { readonly key: string; readonly bytes: number }>;
  private bytes: number;

  private constructor(
    at: Cache,
    keys: readonly Request[],
    private readonly mostBytes: number,
  ) {
    this.at = at;
    this.kept = new Map(
      keys.map(({ url }) => {
        const { origin, pathname, searchParams } = new URL(url);
        return [origin + pathname, { key: url, bytes: Number(searchParams.get("bytes") ?? 0) }] as const;
      }),
    );
    this.bytes = [...this.kept.values()].reduce((sum, k) => sum + k.bytes, 0);
  }

  /** Null where the browser keeps nothing, as on a page that came over plain http. */
  static async open(name: string, mostBytes: number): Promise<KeptFiles | null> {
    if (typeof caches === "undefined") return null;
    try {
      const at = await caches.open(name);
      return new KeptFiles(at, await at.keys(), mostBytes);
    } catch {
      return null;
    }
  }

  async find(url: string): Promise<Blob | null> {
    const known = this.kept.get(url);
    const response = known ? await this.at.match(known.key) : undefined;
    return response ? response.blob() : null;
  }

  has(url: string): boolean {
    return this.kept.has(url);
  }

  /** Keeps a file; the oldest go where it would be too much. A full disk keeps nothing and says nothing: the picture is there all the same. */
  async keep(url: string, file: Blob): Promise<void> {
    const key = `${url}?bytes=${file.size}`;
    try {
      await this.at.put(key, new Response(file));
    } catch {
      return;
    }
    this.bytes += file.size - (this.kept.get(url)?.bytes ?? 0);
    this.kept.delete(url);
    this.kept.set(url, { key, bytes: file.size });
    for (const [oldest, { key: oldestKey, bytes }] of this.kept) {
      if (this.bytes <= this.mostBytes) break;
      this.kept.delete(oldest);
      this.bytes -= bytes;
      await this.at.delete(oldestKey);
    }
  }

  told(): FilesKept {
    return { files: this.kept.size, bytes: this.bytes, mostBytes: this.mostBytes };
  }
}
