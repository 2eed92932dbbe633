import { beforeEach, describe, expect, it, vi } from "vitest";
import { browserCupboard, browserIds } from "./browser";
import { createDrafts } from "./drafts";
import { openDrawer } from "./driver";

/** The drafts of a new page of the same browser; pages before it count as gone. */
async function page() {
  const drafts = createDrafts(browserCupboard(false), browserIds);
  await drafts.open();
  return drafts;
}
beforeEach(async () => {
  const last = await page();
  last.dropAll();
  await last.written();
});

describe("drafts", () => {
  it("lie in localStorage before the key press is over, and are there on the next page", async () => {
    const first = await page();
    first.put("place new", { title: "a new place", value: "Yard" });
    expect(Object.values({ ...localStorage }).join()).toContain("Yard"); // nothing awaited
    const second = await page();
    expect(second.get("place new")).toEqual({ title: "a new place", value: "Yard" });
    const third = await page();
    expect(third.names()).toEqual(["place new"]);
  });

  it("outlive a browser that was killed before it wrote localStorage down: the database has them", async () => {
    const first = await page();
    first.put("place new", "Yard");
    await first.written();
    localStorage.clear();
    expect((await page()).get("place new")).toBe("Yard");
  });

  it("are taken from whichever copy is later", async () => {
    const first = await page();
    first.put("a", "early");
    await first.written();
    const kept = { ...localStorage } as Record<string, string>;
    first.put("a", "late");
    await first.written();
    for (const [key, text] of Object.entries(kept)) localStorage.setItem(key, text);
    expect((await page()).get("a")).toBe("late");
  });

  it("are gone once taken away", async () => {
    const first = await page();
    first.put("a", 1);
    first.drop("a");
    await first.written();
    expect((await page()).names()).toEqual([]);
  });

  it("stay gone when a browser that was killed has an earlier copy in localStorage, however often it is opened", async () => {
    const first = await page();
    first.put("a", "saved since");
    await first.written();
    const kept = { ...localStorage } as Record<string, string>;
    first.drop("a");
    await first.written();
    for (let i = 0; i < 2; i++) {
      for (const [key, text] of Object.entries(kept)) localStorage.setItem(key, text);
      expect((await page()).names()).toEqual([]);
    }
  });

  it("taken away more than a day ago are forgotten where they lay", async () => {
    const first = await page();
    first.put("a", 1);
    first.drop("a");
    await first.written();
    const later = vi.spyOn(Date, "now").mockReturnValue(Date.now() + 2 * 86_400_000);
    await page();
    later.mockRestore();
    expect((await (await openDrawer("zenithar-drafts", "drafts")).readAll()).size).toBe(0);
  });

  it("stay gone when the page is closed before the database has heard of it", async () => {
    const first = await page();
    first.put("a", "saved");
    await first.written();
    const drop = vi.spyOn(IDBObjectStore.prototype, "put").mockImplementation(() => {
      throw new DOMException("closing", "AbortError");
    });
    first.drop("a");
    await first.written();
    drop.mockRestore();
    expect((await page()).names()).toEqual([]);
    expect((await page()).names()).toEqual([]);
  });

  it("of a page that is still open are left to it", async () => {
    const held = { held: [] as { name: string }[] };
    vi.stubGlobal("navigator", {
      ...navigator,
      locks: {
        query: () => Promise.resolve(held),
        request: (name: string) => {
          held.held.push({ name });
          return new Promise(() => undefined);
        },
      },
    });
    const first = await page();
    first.put("a", "being typed");
    const second = await page();
    expect(second.names()).toEqual([]);
    held.held.shift(); // the page before this test
    held.held.shift(); // the first one is closed
    expect((await page()).get("a")).toBe("being typed");
    vi.unstubAllGlobals();
  });

  it("that are no drafts do no harm", async () => {
    localStorage.setItem("zenithar.draft.x|a", "{");
    localStorage.setItem("zenithar.draft.x|b", '{"stamp":"late"}');
    expect((await page()).names()).toEqual([]);
  });
});
