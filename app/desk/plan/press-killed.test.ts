import { describe, expect, it } from "vitest";
import { inOrder, type Happening } from "~/core/live";
import { nightDate } from "~/core/time";
import { memoryBrowser, testDesk, type MemoryBrowser } from "~/desk/desk.test-data";
import { demoRecords } from "~/desk/demo-library.test-data";
import type { Cupboard } from "~/storage/ports";
import { doneOn, eventsOf, keepPress } from "./live";

/** A tab of a browser that is killed after so many accesses to what it stores: nothing of it answers any more, its lock is free. */
function dyingTab(browser: MemoryBrowser, accesses: number): Cupboard {
  const tab = browser.tab();
  let left = accesses;
  const isDead = () => left-- <= 0;
  const never = () => new Promise<never>(() => undefined);
  return {
    ...tab,
    open: async (name, ...rest) => {
      const drawer = await tab.open(name, ...rest);
      return new Proxy(drawer, {
        get: (of, key) => {
          const value = Reflect.get(of, key) as unknown;
          if (typeof value !== "function") return value;
          return (...args: unknown[]) => (isDead() ? never() : Reflect.apply(value, of, args) as unknown); // prettier-ignore
        },
      });
    },
    tabs: { ...tab.tabs, exclusively: (_, work) => work() },
  };
}

const records = demoRecords().filter((r) => ["place", "rig", "filter", "member", "settings"].includes(r.kind));
const supplies = { sample: () => Promise.resolve(records) };
const PRESSES: readonly Happening[] = [
  { what: "checked", check: "sun", isDone: true },
  { what: "begun" },
  { what: "cloud", isClear: false },
  { what: "cloud", isClear: true },
  { what: "focused", airC: 3, steps: 5_000 },
  { what: "trouble", words: "cable round the mount" },
  { what: "packedUp" },
];

describe("a browser killed in the night", () => {
  it("at thirty different moments loses no press, and brings none twice", async () => {
    const night = nightDate("2026-12-05");
    const placeId = records.find((r) => r.kind === "place")!.id;
    const rigId = records.find((r) => r.kind === "rig")!.id;
    let killed = 0;
    for (let moment = 0; moment < 30; moment++) {
      const browser = memoryBrowser();
      // Settled before: what is killed is the tab of the night.
      await testDesk({ browser, isDemo: true, supplies }).library();
      const dying = dyingTab(browser, 4 + moment * 2);
      const tab = testDesk({ browser: { ...browser, tab: () => dying }, isDemo: true, supplies });
      const pressed: Happening[] = [];
      const press = async () => {
        for (const is of PRESSES) {
          const library = await tab.library();
          pressed.push(is);
          await keepPress(library, { night, rigId, placeId }, is);
        }
      };
      const end = await Promise.race([press().then(() => "through"), new Promise((r) => setTimeout(() => r("killed"), 150))]); // prettier-ignore
      if (end === "killed") killed++;
      const after = await testDesk({ browser, isDemo: true, supplies }).library();
      const known = inOrder(eventsOf(after, night, rigId)).map((e) => e.is);
      expect(known, `moment ${moment}`).toEqual(pressed.filter((is) => is.what !== "checked"));
      expect([...doneOn(after, night, rigId)]).toEqual(pressed.length > 0 ? ["sun"] : []);
    }
    expect(killed).toBeGreaterThan(10);
  });
});
