import type * as chrome from "selenium-webdriver/chrome.js";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { hands, newProfile, openBrowser, startApp, type RunningApp, WAIT_MS } from "./browser";

/** A page that is open keeps working when its server goes away: every screen, every save, every worker. */
describe("an open page without its server", () => {
  const profile = newProfile();
  let app: RunningApp;
  let driver: chrome.Driver;
  let me: ReturnType<typeof hands>;
  beforeAll(async () => {
    app = await startApp();
    driver = await openBrowser(profile.path);
    me = hands(driver);
    await driver.get(app.url);
    await me.see("Go, from");
    await driver.wait(
      () => driver.executeScript<boolean>("return document.documentElement.dataset.ahead === 'done'"),
      WAIT_MS,
      "the other screens should be fetched ahead",
    );
    await app.stop();
  });
  afterAll(async () => {
    await driver.quit();
    profile.remove();
  });

  it("goes to every screen and back", async () => {
    const rounds = [
      ["Targets", "What suits"],
      ["Projects", "kept, counts"],
      ["Season", "of the best possible"],
      ["Nights", "Print"],
      ["Log", "What we have"],
      ["Kit", "Garden behind the mill"],
      ["Rigs", "Garden refractor"],
      ["Filters", "A new filter"],
      ["Data in and out", "Take it with you"],
      ["Sources and licences", "Sources"],
      ["Projects", "kept, counts"],
      ["The whole Veil, two by three", "by"],
      ["Frame", "Position angle"],
      ["Budget", "Protect stars"],
      ["Crew", "What have we together?"],
      ["Tonight", "Go, from"],
    ] as const;
    for (const [press, see] of rounds) {
      await me.press(press);
      await me.see(see);
    }
  });

  it("keeps what is typed and saved", async () => {
    await me.press("Kit");
    await me.press("Tomasz’s terrace");
    await me.fill("Elevation", "77");
    await me.press("Save place");
    await me.see("Garden behind the mill");
    await me.press("Tomasz’s terrace");
    expect(await me.value("Elevation")).toBe("77");
  });

  it("says beside each forecast that it could not be reached, keeps the verdict, and lets one ask again or type", async () => {
    await me.press("Tonight");
    await me.see("Go, from");
    await me.press("Ask again");
    await me.see("cannot be reached");
    await me.see("Go, from");
    await me.see("A forecast of your own");
  });
});
