import type { Cupboard } from "./ports";
import type { Checks } from "./reading";
import { readAll, type Page, type Unread } from "./pages";

/** Sorts what the first layout stored, one value a record: `{ v: 1, heads }`. */
export async function readLayout1(checks: Checks, all: ReadonlyMap<string, unknown>): Promise<Page> {
  const raws: unknown[] = [];
  const unread: Unread[] = [];
  for (const [key, value] of all) {
    const envelope = value as { readonly v?: unknown; readonly heads?: unknown } | null;
    if (typeof envelope === "object" && envelope?.v === 1 && Array.isArray(envelope.heads))
      raws.push(...(envelope.heads as unknown[]));
    else unread.push({ key, reason: "not a stored record", raw: value });
  }
  const page = await readAll(checks, raws);
  return { ...page, unread: [...unread, ...page.unread] };
}

/** What an earlier version of the app stored in this browser, and how to take it away once it is kept in the new layout; null without any. */
export async function findLayout1(
  cupboard: Cupboard,
  checks: Checks,
): Promise<{ readonly page: Page; readonly takeAway: () => Promise<unknown> } | null> {
  const drawer = await cupboard.openFirst();
  const all = drawer ? await drawer.readAll() : new Map<string, unknown>();
  return !drawer || all.size === 0 ? null : { page: await readLayout1(checks, all), takeAway: () => drawer.clear() };
}
