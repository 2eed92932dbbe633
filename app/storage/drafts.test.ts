import { beforeEach, describe, expect, it, vi } from "vitest";

/** The storage code as a new page has it, over the same browser; pages before it count as gone. */
async function page() {
  vi.resetModules();
  const drafts = await import("./drafts");
  await drafts.openDrafts();
  return { ...drafts, driver: await import("./driver") };
}
beforeEach(async () => {
  const last = await page();
  last.dropAllDrafts();
  await last.draftsWritten();
});

describe("drafts", () => {
  it("lie in localStorage before the key press is over, and are there on the next page", async () => {
    const first = await page();
    first.putDraft("place new", { title: "a new place", value: "Yard" });
    expect(Object.values({ ...localStorage }).join()).toContain("Yard"); // nothing awaited
    const second = await page();
    expect(second.draftOf("place new")).toEqual({ title: "a new place", value: "Yard" });
    const third = await page();
    expect(third.draftNames()).toEqual(["place new"]);
  });

  it("outlive a browser that was killed before it wrote localStorage down: the database has them", async () => {
    const first = await page();
    first.putDraft("place new", "Yard");
    await first.draftsWritten();
    localStorage.clear();
    expect((await page()).draftOf("place new")).toBe("Yard");
  });

  it("are taken from whichever copy is later", async () => {
    const first = await page();
    first.putDraft("a", "early");
    await first.draftsWritten();
    const kept = { ...localStorage } as Record<string, string>;
    first.putDraft("a", "late");
    await first.draftsWritten();
    for (const [key, text] of Object.entries(kept)) localStorage.setItem(key, text);
    expect((await page()).draftOf("a")).toBe("late");
  });

  it("are gone once taken away", async () => {
    const first = await page();
    first.putDraft("a", 1);
    first.dropDraft("a");
    await first.draftsWritten();
    expect((await page()).draftNames()).toEqual([]);
  });

  it("stay gone when a browser that was killed has an earlier copy in localStorage, however often it is opened", async () => {
    const first = await page();
    first.putDraft("a", "saved since");
    await first.draftsWritten();
    const kept = { ...localStorage } as Record<string, string>;
    first.dropDraft("a");
    await first.draftsWritten();
    for (let i = 0; i < 2; i++) {
      for (const [key, text] of Object.entries(kept)) localStorage.setItem(key, text);
      expect((await page()).draftNames()).toEqual([]);
    }
  });

  it("taken away more than a day ago are forgotten where they lay", async () => {
    const first = await page();
    first.putDraft("a", 1);
    first.dropDraft("a");
    await first.draftsWritten();
    const later = vi.spyOn(Date, "now").mockReturnValue(Date.now() + 2 * 86_400_000);
    const { driver } = await page();
    later.mockRestore();
    expect((await (await driver.openDrawer("zenithar-drafts", "drafts")).readAll()).size).toBe(0);
  });

  it("stay gone when the page is closed before the database has heard of it", async () => {
    const first = await page();
    first.putDraft("a", "saved");
    await first.draftsWritten();
    const drop = vi.spyOn(IDBObjectStore.prototype, "put").mockImplementation(() => {
      throw new DOMException("closing", "AbortError");
    });
    first.dropDraft("a");
    await first.draftsWritten();
    drop.mockRestore();
    expect((await page()).draftNames()).toEqual([]);
    expect((await page()).draftNames()).toEqual([]);
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
    first.putDraft("a", "being typed");
    const second = await page();
    expect(second.draftNames()).toEqual([]);
    held.held.shift(); // the page before this test
    held.held.shift(); // the first one is closed
    expect((await page()).draftOf("a")).toBe("being typed");
    vi.unstubAllGlobals();
  });

  it("that are no drafts do no harm", async () => {
    localStorage.setItem("zenithar.draft.x|a", "{");
    localStorage.setItem("zenithar.draft.x|b", '{"stamp":"late"}');
    expect((await page()).draftNames()).toEqual([]);
  });
});
