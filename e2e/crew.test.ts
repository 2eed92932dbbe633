import { readFileSync, renameSync, writeFileSync } from "node:fs";
import { basename, join } from "node:path";
import { By } from "selenium-webdriver";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import {
  closeStage,
  downloaded,
  hands,
  newProfile,
  openBrowser,
  openStage,
  sharedApp,
  type Stage,
  textOf,
  visit,
  WAIT_MS,
} from "./browser";

/** A crew whose hours add up: three members in three browsers, who shoots what, how deep where. */
const demo = JSON.parse(readFileSync("app/data/demo.json", "utf8")) as {
  readonly records: readonly { readonly id: string; readonly kind: string; readonly data: object }[];
};
const CREW = "/projects/project-shell/crew";

describe("one of a crew", () => {
  const profile = newProfile();
  let { app, driver, me } = {} as Stage;
  beforeAll(async () => {
    ({ app, driver, me } = await openStage(profile.path));
  });
  afterAll(() => closeStage({ app, driver }, profile));
  const main = () => textOf(driver, "main");

  it("sees how deep the picture is where, which step will show, and takes the map along", async () => {
    await visit(driver, `${app.url}${CREW}`);
    await me.see("How deep where");
    const channel = (name: string) => By.xpath(`//fieldset[contains(., '${name}')]//label[normalize-space(.)='${name}']/input[@name='coverage-channel']`); // prettier-ignore
    await driver.findElement(channel("OIII")).click();
    // Within what the picture is to fill Wren's wide field has no edge, and Ines' is that field itself: nothing will show.
    await me.see("No step of depth in OIII will show inside the picture.");
    // Tomasz' tight field ends inside it: all round, with nothing beside.
    await driver.findElement(channel("Ha")).click();
    await me.see("Steps that will show in Ha");
    expect(await main()).toMatch(/an end in nothing\s+all round\s+6\.2°\s+4\.4 h\s+nothing\s+–\s+3\.0 h more there/);
    expect(await main()).toMatch(
      /of the 3\.57 square degrees of the reference field is at the goal yet\. 1\.\d+ of them \(3\d %\)/,
    );
    await me.see("Ines and Wren leave Ha to the others.");
    await driver.findElement(channel("OIII")).click();
    expect(await main()).toMatch(/Tomasz Terrace refractor\s+1\.77° × 1\.34°\s+1\s+1\.37 ″\/px\s+69 %/);
    const map = await driver.findElement(By.css("canvas[role=img]"));
    const [before] = /Here: .*/.exec(await main())!;
    await driver.executeScript("arguments[0].focus()", map);
    for (let i = 0; i < 60; i++) await map.sendKeys("\uE012"); // to the left, off the field
    await driver.wait(
      async () => (await main()).includes("Here: nothing was taken."),
      WAIT_MS,
      "the probe should move",
    );
    expect(before).toMatch(/shows \d\d\.\d mag/);
    await me.press("Save the map as a picture");
    const png = readFileSync(await downloaded(driver, profile.path, (f) => f.endsWith("depth-oiii.png")));
    expect([...png.subarray(0, 4)]).toEqual([0x89, 0x50, 0x4e, 0x47]);
    expect(png.length).toBeGreaterThan(5000);
  });

  it("compares ways to share the work, keeps one, and promises their own channels of it", async () => {
    await visit(driver, `${app.url}${CREW}`);
    await me.see("Each what they do best");
    // Ten hours of Ines and Tomasz each, forty of Wren.
    await me.fill("Hours Ines can give", "10");
    await me.fill("Hours Tomasz can give", "10x");
    await me.see("is not a number");
    await me.fill("Hours Tomasz can give", "10");
    await me.fill("Hours Wren can give", "40");
    await me.choose("Everyone gives at least", "10 % of the picture");
    await me.press("Keep this for all");
    await me.see("Who shoots what is kept.");
    const row = async (name: string) => textOf(driver, By.xpath(`//table[caption[contains(., 'hours of their own')]]//tr[th[contains(., '${name}')]]`)); // prettier-ignore
    expect(await row("Tomasz")).toMatch(/no filter[\s\S]*no filter/); // OIII and L
    const met = async (way: string) => {
      const text = await textOf(driver, By.xpath(`//tr[contains(., '${way}') and td]`));
      const found = /(\d+(?:\.\d+)?) (%|times)/.exec(text)!;
      return Number(found[1]) * (found[2] === "%" ? 0.01 : 1);
    };
    expect(await met("Each what they do best")).toBeGreaterThanOrEqual(await met("All shoot all"));
    await driver.navigate().refresh();
    await me.see("Each what they do best");
    expect(await me.value("Hours Ines can give")).toBe("10");
    // Another ratio of the channels is worked out while it is typed, and kept only when somebody says so.
    const asKept = await row("Wren");
    await me.fill("Ratio Ha:OIII:L", "1:1:9");
    await me.see("Worked out as typed; not kept yet.");
    await driver.wait(async () => (await row("Wren")) !== asKept, WAIT_MS, "another ratio gives others the work");
    await me.fill("Ratio Ha:OIII:L", "");
    await me.gone("Worked out as typed");
    await driver.wait(async () => (await row("Wren")) === asKept, WAIT_MS, "what is kept stands again");
    const promise = await driver.findElements(By.xpath("//button[starts-with(., 'Promise mine')]"));
    if (promise[0]) {
      const words = await promise[0].getText();
      await promise[0].click();
      await me.see(`You promise ${words.replace("Promise mine: ", "")}.`);
    }
  });

  it("calls a picture finished and takes it up again; nothing is planned for it meanwhile", async () => {
    await visit(driver, `${app.url}/projects/project-loop/record`);
    await me.see("More would be seen.");
    await me.see("Keep for next season, from");
    await me.press("Call it finished");
    await me.see("Finished, on Saturday 5 December 2026.");
    await visit(driver, `${app.url}/projects/project-loop/plan`);
    await me.see("Nothing is planned for it: it is finished");
    await visit(driver, `${app.url}/projects/project-loop/record`);
    await me.press("Take it up again");
    await me.see("More would be seen.");
  });

  it("measures everyone's hours by whoever's place and rig they agree on, and back", async () => {
    await visit(driver, `${app.url}${CREW}`);
    await me.see("What each gives to the picture");
    const rows = async () => {
      const found = await driver.findElements(
        By.xpath("//section[.//h2[.='What each gives to the picture']]//tbody/tr"),
      );
      return Promise.all(found.map(async (r) => (await r.getText()).replaceAll(/\s+/g, " ")));
    };
    const before = await rows();
    await me.choose("Goals and hours are told for", "Wren: Barn telephoto");
    await me.see("as hours with Barn telephoto");
    const after = await rows();
    expect(after).not.toEqual(before);
    expect(after.find((r) => r.startsWith("Wren"))).toContain("1.00 h");
    await me.choose("Goals and hours are told for", "Ines: Garden refractor, Garden behind the mill");
    await me.see("as hours with Garden refractor");
    expect(await rows()).toEqual(before);
  });

  it("invites by a small file without hours", async () => {
    await visit(driver, `${app.url}${CREW}`);
    await me.press("Invite somebody");
    const invitation = await downloaded(driver, profile.path, (f) => f.startsWith("join-"));
    expect(basename(invitation)).toBe("join-sh2-216-three-gardens.zenithar.json");
    const kinds = (JSON.parse(readFileSync(invitation, "utf8")) as typeof demo).records.map((r) => r.kind);
    expect(kinds).toContain("project");
    expect(kinds).not.toContain("contribution");
  });
});

describe("three members, five exchanges in any order", () => {
  it("come to the same totals, weights and map, each with their own rig and place", async () => {
    const app = sharedApp();
    const profiles = { ines: newProfile(), tomasz: newProfile(), wren: newProfile() };
    type Name = keyof typeof profiles;
    const names = Object.keys(profiles) as Name[];
    const as = async <T>(name: Name, deed: (at: { readonly driver: Awaited<ReturnType<typeof openBrowser>>; readonly me: ReturnType<typeof hands> }) => Promise<T>): Promise<T> => {
      const driver = await openBrowser(profiles[name].path);
      try {
        return await deed({ driver, me: hands(driver) });
      } finally {
        await driver.quit();
      }
    }; // prettier-ignore
    const files: Partial<Record<Name, string>> = {};
    const send = (name: Name) =>
      as(name, async ({ driver, me }) => {
        await visit(driver, `${app.url}${CREW}`);
        await me.press("Export this project");
        const path = await downloaded(driver, profiles[name].path, (f) => f.startsWith("sh2-216") && f.endsWith(".zenithar.json")); // prettier-ignore
        files[name] = join(profiles[name].path, `from-${name}-${Math.random().toString(36).slice(2)}.zenithar.json`);
        renameSync(path, files[name]); // never taken twice
      });
    const take = (name: Name, from: Name) =>
      as(name, async ({ driver, me }) => {
        await visit(driver, `${app.url}${CREW}`);
        await me.see("Import a friend's file");
        await driver.findElement(By.css(`input[aria-label="Import a friend's file"]`)).sendKeys(files[from]!);
        await me.see("What from-");
        const merge = await driver.findElements(By.xpath("//button[.='Merge']"));
        if (merge[0]) {
          await merge[0].click();
          await me.gone("What from-");
        } else await me.press("Close");
      });
    try {
      for (const name of names)
        await as(name, async ({ driver, me }) => {
          await visit(driver, app.url);
          await me.see("Go, from");
          if (name !== "ines") {
            const records = demo.records.map((r) => {
              if (r.kind !== "settings") return r;
              const uses = name === "tomasz" ? { placeId: "place-terrace", rigId: "rig-city" } : { placeId: "place-barn", rigId: "rig-lens" }; // prettier-ignore
              const rev = "0mx9000zz.0000.own";
              return { ...r, rev, seen: { own: rev }, data: { ...r.data, ...uses, memberId: `member-${name}` } };
            });
            const path = join(profiles[name].path, "own.json");
            writeFileSync(path, JSON.stringify({ ...demo, records }));
            await visit(driver, `${app.url}/kit/data`);
            await me.see("Everything stays in this browser");
            await driver.findElement(By.css('input[aria-label="Import a file"]')).sendKeys(path);
            await me.see("Whose file is it?");
            await driver.findElement(By.xpath("//label[contains(., 'My own backup')]/input")).click();
            await me.press("Merge");
            await me.gone("Whose file is it?");
          }
          await visit(driver, `${app.url}/projects/project-shell/log?night=2026-12-04`);
          await me.see("Or in a line");
          const line = { ines: "12 x 300 s OIII P1", tomasz: "24 of 30 x 300 s Ha P1, cloud", wren: "15 of 18 x 300 s OIII P1, wind" }[name]; // prettier-ignore
          await me.fill("Evening of 2026-12-04, a line each", line);
          await me.press("Add lines");
          await me.see("1 entry added.");
        });
      // Five exchanges, scrambled: some twice, some by way of a third.
      await send("tomasz");
      await send("ines");
      await take("wren", "tomasz");
      await take("wren", "ines");
      await send("wren");
      await take("ines", "wren");
      await take("tomasz", "wren");
      const seen = await Promise.all([]).then(async () => {
        const all: string[] = [];
        for (const name of names)
          all.push(
            await as(name, async ({ driver, me }) => {
              await visit(driver, `${app.url}${CREW}`);
              await me.see("How deep where");
              await driver
                .findElement(By.xpath("//label[normalize-space(.)='OIII']/input[@name='coverage-channel']"))
                .click();
              await me.see("What lies there in OIII");
              const text = (heading: string) => textOf(driver, By.xpath(`//section[.//h2[.='${heading}']]`));
              const headings = ["What have we together?", "What each gives to the picture", "How deep where"];
              const read = async () => (await Promise.all(headings.map(text))).join("\n");
              // Parts of it come one after the other: until a look says what the one before said.
              let said = await read();
              const isSteady = async () => {
                await driver.sleep(1000);
                const before = said;
                said = await read();
                return said === before;
              };
              await driver.wait(isSteady, WAIT_MS, "the page should come to rest");
              return said;
            }),
          );
        return all;
      });
      expect(seen[1]).toBe(seen[0]);
      expect(seen[2]).toBe(seen[0]);
      expect(seen[0]).toContain("10 h 30"); // Tomasz: 8 h 30 and 24 × 300 s
      expect(seen[0]).toMatch(/Wren[\s\S]*3 h 45/); // 2 h 30 and 15 × 300 s
    } finally {
      void app.stop();
      for (const name of names) profiles[name].remove();
    }
  });
});
