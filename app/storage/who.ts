import type { Cupboard, Ids } from "./ports";

/** This browser's own name, for whoever has none yet; kept for good, or for the tab where storage is blocked. */
export function browserIdOf({ notes }: Cupboard, ids: Ids): () => string {
  let browser: string | null = null;
  return () => {
    if (browser !== null) return browser;
    browser = notes.read("node") ?? ids.fresh();
    notes.write("node", browser);
    return browser;
  };
}
