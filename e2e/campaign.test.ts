import type * as chrome from "selenium-webdriver/chrome.js";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { hands, killAll, newProfile, openBrowser, startPlainDemo, type RunningApp, WAIT_MS } from "./browser";

// Few in `npm test`; all of them with `npm run laws`.
const ROUNDS = Number(process.env["CAMPAIGN_ROUNDS"] ?? 1);

/** A deed on a page: what is typed there, the button that does it, what is said then, and where the stored value stands. */
interface Deed {
  readonly name: string;
  readonly path: string;
  readonly label: string;
  readonly button: string;
  readonly said: string;
  /** What is typed the n-th time. */
  readonly value: (n: number) => string;
  /** Where what is stored is shown, if not in the same box. */
  readonly shown?: string;
}

const DEEDS: readonly Deed[] = [
  { name: "one's own name", path: "/kit/data", label: "Your name", button: "Save name", said: "Your name is changed.", value: (n) => `Name ${n}` },
  { name: "a place", path: "/kit/places/place-garden", label: "Elevation", button: "Save place", said: "saved", value: (n) => String(300 + n) },
  { name: "a rig", path: "/kit/rigs/rig-newtonian", label: "Focal length", button: "Save rig", said: "saved", value: (n) => String(600 + n) },
  { name: "the facts of a night", path: "/log/nights?night=2026-11-08&place=place-garden", label: "Trouble", button: "Write down", said: "is written down.", value: (n) => `trouble ${n}` },
  { name: "limits for subs", path: "/log/subs?night=2026-11-08", label: "Stars wider than", button: "Save these limits", said: "Your limits are kept", value: (n) => String(3 + n) },
]; // prettier-ignore

/** Boxes that one leaves at once, and that have what was typed when one comes back. */
const LEFT: readonly (readonly [what: string, path: string, label: string, value: (n: number) => string])[] = [
  ["lines for the log", "/log?night=2026-12-04", "Evening of 2026-12-04, a line each", (n) => `${n + 1} x 60 s`],
  ["a note of the log", "/log", "Note", (n) => `note ${n}`],
  ["trouble of a night", "/log/nights?night=2026-11-08&place=place-garden", "What cured it", (n) => `cure ${n}`],
  ["a place", "/kit/places/place-terrace", "Elevation", (n) => String(40 + n)],
  ["the hours worth going out for", "/", "Minimum hours", (n) => String(2 + (n % 4))],
];

const UNFOLD =
  "const folded = [...document.querySelectorAll('main details')]; folded.forEach((d) => (d.open = true)); return folded.length > 0";

describe("a long campaign against what is kept", () => {
  const profile = newProfile();
  let app: RunningApp;
  let driver: chrome.Driver;
  let me: ReturnType<typeof hands>;
  const at = (path: string) => driver.get(app.url + path);
  const open = async () => {
    driver = await openBrowser(profile.path);
    me = hands(driver);
  };
  beforeAll(async () => {
    app = await startPlainDemo();
    await open();
    await at("");
    await me.see("Go, from");
  });
  afterAll(async () => {
    await driver.quit().catch(() => undefined);
    await app.stop();
    profile.remove();
  });

  it.each(DEEDS)(
    "$name is kept if that was said, whole or as before if not, when the browser is killed",
    async ({ path, label, button, said, value }) => {
      await at(path);
      let before = await me.value(label);
      for (let n = 1; n <= ROUNDS; n++) {
        await at(path);
        await me.fill(label, value(n));
        await me.press(button);
        // Killed from at once to well after it is said, a few milliseconds later every time.
        const until = Date.now() + ((n * 53) % 420) + (ROUNDS === 1 ? 400 : 0);
        let isSaid = false;
        while (Date.now() < until && !isSaid)
          isSaid = await driver.executeScript<boolean>("return document.body.textContent.includes(arguments[0])", said);
        killAll(profile.path);
        await driver.quit().catch(() => undefined);
        await open();
        await at(path);
        const found = await me.value(label);
        // A draft of what was not kept may stand in its box: it is told as one, and it is what was typed.
        if (isSaid) expect(found, `round ${n}, said`).toBe(value(n));
        else expect([before, value(n)], `round ${n}, not said`).toContain(found);
        before = found;
        await at("/kit/data");
        await me.see("Take it with you");
        expect(await me.text()).not.toContain("not read");
      }
    },
    60_000 + ROUNDS * 20_000,
  );

  it.each(LEFT)(
    "%s: what was typed is there again, however quickly one left",
    async (_, path, label, value) => {
      for (let n = 1; n <= ROUNDS; n++) {
        await at(path);
        // Boxes by hand are folded until something of them was typed.
        if (path === "/log") await driver.wait(() => driver.executeScript<boolean>(UNFOLD), WAIT_MS, "boxes by hand");
        await me.fill(label, value(n));
        await at(n % 2 === 0 ? "/kit" : "/kit/rigs");
        await at(path);
        await driver.wait(async () => (await me.value(label)) === value(n), WAIT_MS, `round ${n}: ${value(n)}`);
      }
    },
    60_000 + ROUNDS * 10_000,
  );
});
