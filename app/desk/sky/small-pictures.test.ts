import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { CatalogEntry } from "~/core/catalog";
import { ok } from "~/core/result";
import type { Survey } from "~/core/survey";
import { testDesk, type TestDesk } from "~/desk/desk.test-data";
import type { Workers } from "~/workers/workers";
import { smallPicture, type SmallLook, type SmallSky } from "./small-pictures";
import { theSurveyChoice } from "./surveys";

const SURVEY: Survey = { title: "Red plates", credit: "Their makers", orderMin: 3, orderMax: 9, tilePx: 512, format: "png", frame: "equatorial" }; // prettier-ignore
const inks = (ground: string) => ({ ground }) as SmallLook["ink"];
const LOOK: SmallLook = { theme: "dusk", ink: inks("#111") };
const own = { id: "own-1", at: { frame: "icrs", raDeg: 80, decDeg: 34 } } as unknown as CatalogEntry;
const listed = { id: "IC 405", at: own.at } as unknown as CatalogEntry;
const sky: SmallSky = { centre: own.at, heightDeg: 2, own: null, frame: null, widthPx: 56, heightPx: 56 };

/** A desk whose worker writes down what it is asked for. */
function deskWith(of: TestDesk = {}, kept: ReadonlySet<string> = new Set()) {
  const asked: Awaited<ReturnType<Parameters<Workers["survey"]["small"]>[1]>>[] = [];
  const names: string[] = [];
  const desk = testDesk({
    sky: { within: () => Promise.resolve([listed]) },
    surveys: ["plates", "simulated"],
    ...of,
    survey: {
      facts: () => Promise.resolve(ok(SURVEY)),
      small: async (name, question) => {
        names.push(name);
        if (!kept.has(name)) asked.push(await question());
        return new Blob(["png"]);
      },
      ...of.survey,
    },
  });
  return { desk, asked, names };
}

describe("small pictures", () => {
  const revoked: string[] = [];
  beforeEach(() => {
    let made = 0;
    revoked.length = 0;
    vi.spyOn(URL, "createObjectURL").mockImplementation(() => `blob:${made++}`);
    vi.spyOn(URL, "revokeObjectURL").mockImplementation((url) => void revoked.push(url));
  });
  afterEach(() => vi.restoreAllMocks());

  it("are made once for the same sky and the same look, and anew for another theme", async () => {
    const { desk, asked } = deskWith();
    const first = await smallPicture(desk, sky, LOOK);
    expect(await smallPicture(desk, { ...sky }, LOOK)).toBe(first);
    expect(asked).toHaveLength(1);
    expect(first).toMatchObject({ of: "", isSimulated: false });
    await smallPicture(desk, sky, { theme: "ember", ink: inks("#000") });
    expect(asked).toHaveLength(2);
    await smallPicture(desk, sky, { ...LOOK, ink: inks("#222") }); // the colours of a later version
    expect(asked).toHaveLength(3);
  });

  it("show a target of one's own among what the catalogue has there, and what is listed once", async () => {
    const { desk, asked } = deskWith();
    await smallPicture(desk, { ...sky, own }, LOOK);
    await smallPicture(desk, { ...sky, own: listed }, LOOK);
    expect(asked.map((a) => a.objects.map((e) => e.id))).toEqual([["IC 405", "own-1"], ["IC 405"]]);
  });

  it("come from the survey that charts show, with its credit; a simulated one only where there is room to call it so", async () => {
    const { desk, asked } = deskWith();
    const choose = (id: string) => desk.at(theSurveyChoice).write({ id, brightness: 0.2, contrast: 0 });
    choose("plates");
    expect(await smallPicture(desk, sky, { ...LOOK, theme: "ember" })).toMatchObject({ of: "Red plates", credit: "Their makers", isSimulated: false }); // prettier-ignore
    expect(asked.at(-1)).toMatchObject({
      survey: { id: "plates", look: { brightness: 0.2, ink: "red" } },
      objects: [],
    });
    choose("simulated");
    expect(await smallPicture(desk, sky, LOOK)).toMatchObject({ of: "", isSimulated: false });
    expect(asked.at(-1)).toMatchObject({ survey: null, objects: [listed] });
    expect(await smallPicture(desk, { ...sky, heightPx: 320, widthPx: 320 }, LOOK)).toMatchObject({
      isSimulated: true,
    });
    choose("gone from this server");
    expect(await smallPicture(desk, sky, LOOK)).toMatchObject({ of: "" });
  });

  it("are drawn from the catalogue where the survey is silent, and asked for anew where one could not be made", async () => {
    let isBroken = true;
    const { desk } = deskWith({
      survey: {
        facts: () => Promise.reject(new Error("silent")),
        small: () => (isBroken ? Promise.reject(new Error("no worker")) : Promise.resolve(new Blob())),
      },
    });
    desk.at(theSurveyChoice).write({ id: "plates", brightness: 0, contrast: 0 });
    await expect(smallPicture(desk, sky, LOOK)).rejects.toThrow("no worker");
    isBroken = false;
    expect(await smallPicture(desk, sky, LOOK)).toMatchObject({ of: "" });
  });

  it("never call a picture a survey's that is drawn because the survey is silent, and ask it again next time", async () => {
    let isSilent = true;
    const { desk } = deskWith({
      survey: {
        small: async (_, question) => ((await question()).survey && isSilent ? null : new Blob()),
      },
    });
    desk.at(theSurveyChoice).write({ id: "plates", brightness: 0, contrast: 0 });
    expect(await smallPicture(desk, sky, LOOK)).toMatchObject({ of: "", credit: "" });
    isSilent = false;
    expect(await smallPicture(desk, sky, LOOK)).toMatchObject({ of: "Red plates" });
  });

  it("are let go, the oldest first, when there are very many", async () => {
    const { desk } = deskWith();
    for (let i = 0; i < 405; i++) await smallPicture(desk, { ...sky, heightDeg: 1 + i }, LOOK);
    await Promise.resolve();
    expect(revoked).toEqual(["blob:0", "blob:1", "blob:2", "blob:3", "blob:4"]);
  });

  it("have one name for one picture: where the browser keeps it, nothing is asked of the catalogue", async () => {
    const before = deskWith();
    await smallPicture(before.desk, sky, LOOK);
    const after = deskWith({}, new Set(before.names));
    await smallPicture(after.desk, sky, LOOK);
    expect(after.asked).toEqual([]);
    expect(after.names).toEqual(before.names);
  });
});
