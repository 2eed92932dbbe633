import { By } from "selenium-webdriver";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { closeStage, newProfile, openStage, type Stage, textOf, visit, WAIT_MS } from "./browser";

/** The checklist: kept with the rig in its owner's words, ticked on the sheet and beside the mount. */
describe("care", () => {
  const profile = newProfile();
  let { app, driver, me } = {} as Stage;
  beforeAll(async () => {
    ({ app, driver, me } = await openStage(profile.path));
    await visit(driver, app.url);
    await me.see("Go, from");
  });
  afterAll(() => closeStage({ app, driver }, profile));

  const tickOf = (words: string) => driver.findElement(By.xpath(`//label[contains(., "${words}")]/input`));
  /** Ticks a line and waits until it is kept. */
  const tick = async (words: string) => {
    await driver.executeScript("arguments[0].scrollIntoView({ block: 'center' })", tickOf(words));
    await tickOf(words).click();
    await driver.wait(async () => (await tickOf(words).getAttribute("aria-busy")) === "false", WAIT_MS);
  };
  const isTicked = async (words: string) => (await tickOf(words)).isSelected();

  it("is found from the rig, said in one's own words, left out, and added to", async () => {
    await visit(driver, `${app.url}/kit/rigs`);
    await me.press("Garden refractor");
    await me.press("Its checklist for the night");
    await me.see("Counterweights on before the telescope");
    await me.press("Reword: Focused on a bright star, one test exposure");
    await me.fill("What to check", "Focused with the mask, mask off again");
    await me.press("Save");
    await me.see("your words");
    await me.press("Leave out: A laser to align by: only where it is allowed, never towards aircraft or people");
    await me.see("Left out.");
    await me.press("Add a check: By daylight");
    await me.fill("What to check", "Gate to the lane locked");
    await me.press("Add");
    await me.see("Check added.");
    expect(await textOf(driver, By.css('[aria-label="Left out"]'))).toContain("A laser to align by");
  });

  it("keeps what is typed and not added, through a reload", async () => {
    await me.press("Add a check: Packing up");
    await me.fill("What to check", "Key of the shed back on");
    await driver.navigate().refresh();
    await me.see("Not saved yet");
    expect(await me.value("What to check")).toBe("Key of the shed back on");
    await me.press("Discard it");
    await me.press("Back");
  });

  it("is ticked on the sheet, and stays so", async () => {
    await visit(driver, `${app.url}/nights`);
    await me.see("Gate to the lane locked");
    await tick("Gate to the lane locked");
    await driver.navigate().refresh();
    await me.see("Gate to the lane locked");
    await driver.wait(() => isTicked("Gate to the lane locked"), WAIT_MS);
    expect(await isTicked("Ground firm")).toBe(false);
    expect(await textOf(driver, By.css('[aria-label="By daylight"]'))).toContain("7 left");
    await me.press("Before the first sub");
    await me.see("Focused with the mask, mask off again");
    expect(await driver.findElements(By.xpath('//label[contains(., "A laser to align by")]'))).toEqual([]);
  });

  it("is the same beside the mount, where a tick begins nothing", async () => {
    await visit(driver, `${app.url}/nights/live`);
    await me.see("Gate to the lane locked");
    expect(await isTicked("Gate to the lane locked")).toBe(true);
    await tick("Ground firm");
    await visit(driver, `${app.url}/nights`);
    await me.see("Gate to the lane locked");
    await driver.wait(() => isTicked("Ground firm"), WAIT_MS);
    expect(await textOf(driver, "main")).not.toContain("Begun at");
  });
});
