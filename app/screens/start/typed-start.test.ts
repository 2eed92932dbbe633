import { describe, expect, it } from "vitest";
import { opticsOf } from "~/core/framing";
import { decodeData } from "~/core/records";
import { betterNext } from "~/desk/kit/better";
import type { Library } from "~/desk/records/library";
import { KIT_PRESETS, nearestKinds, placeOf, rigOf, takenFrom, usualKit } from "~/desk/kit/start";
import { filterSetsFor, kindsOf, nearestCamera, nearestOptics, typicalTexts } from "~/components/kit/typed-kit";
import { cameraWords, filledOf, opticsWords } from "./start-words";
import { EMPTY_START, readTypedStart, startFaults, startKitOf, startPlaceOf, type TypedStart } from "./typed-start";

const answered: TypedStart = {
  ...EMPTY_START,
  name: "Behind the barn", latitudeDeg: "-41.2", longitudeDeg: "175.46", elevationM: "90", timeZone: "Pacific/Auckland", optics: "lens-135", camera: "p-aps-24", sky: "20.8", isSkyByLook: true,
}; // prettier-ignore

describe("what is typed on the start", () => {
  it("is no place and no kit until all of it is answered", () => {
    for (const missing of ["latitudeDeg", "longitudeDeg", "sky", "timeZone"] as const)
      expect(startPlaceOf({ ...answered, [missing]: "" })).toBeNull();
    for (const missing of ["optics", "camera"] as const) expect(startKitOf({ ...answered, [missing]: "" })).toBeNull();
    expect(startPlaceOf(EMPTY_START)).toBeNull();
  });

  it("becomes a place and a rig that storage takes, with everything marked that nobody measured", () => {
    const place = placeOf(startPlaceOf(answered)!);
    expect(decodeData("place", structuredClone(place)).ok).toBe(true);
    expect(place.typical).toEqual(["skyMagPerArcsec2", "skyline", "seeingArcsec", "clearChance"]);
    expect(placeOf(startPlaceOf({ ...answered, isSkyByLook: false })!).typical).not.toContain("skyMagPerArcsec2");
    const told = placeOf(startPlaceOf({ ...answered, clearOfTen: "6" })!);
    expect(told.clearChance).toEqual(Array<number>(12).fill(0.6));
    expect(told.typical).not.toContain("clearChance");
    const rig = rigOf(startKitOf(answered)!);
    expect(decodeData("rig", structuredClone(rig)).ok).toBe(true);
    expect(rig.name).toBe("Telephoto lens 135 mm f/2.8");
    expect(rig.isGuided).toBe(false); // a lens goes on a tracker until somebody says otherwise
  });

  it("puts one's own values in the place of typical ones, and those are one's own from then on", () => {
    const typed = { ...answered, own: { focalLengthMm: "180", pixelPitchUm: "4,2", readNoiseE: "" } };
    const rig = rigOf(startKitOf(typed)!);
    expect([rig.focalLengthMm, rig.sensor.pixelPitchUm, rig.readNoiseE]).toEqual([180, 4.2, 2.8]);
    expect(rig.typical).not.toContain("focalLengthMm");
    expect(rig.typical).not.toContain("pixelPitchUm");
    expect(rig.typical).toContain("readNoiseE");
    expect(opticsOf(rig).pixelScaleArcsecPerPx).toBeCloseTo((206.265 * 4.2) / 180, 3);
    expect(typicalTexts(KIT_PRESETS, typed)["focalLengthMm"]).toBe("135");
  });

  it("says what cannot be, beside its box, and makes nothing of it", () => {
    const wrong = { ...answered, latitudeDeg: "95", own: { pixelPitchUm: "0" } };
    expect(Object.keys(startFaults(wrong)).sort()).toEqual(["latitudeDeg", "pixelPitchUm"]);
    expect(startPlaceOf(wrong)).toBeNull();
    expect(startKitOf(wrong)).toBeNull();
    expect(startFaults(answered)).toEqual({});
  });

  it("assumes nobody's sensor: a camera made in colour and in mono is none of the two until somebody says", () => {
    const cooled = { ...answered, camera: "c-aps-26" };
    expect([kindsOf(KIT_PRESETS, cooled), startKitOf(cooled), filledOf(cooled).camera]).toEqual([null, null, false]);
    for (const colour of ["colour", "mono"] as const) {
      expect(kindsOf(KIT_PRESETS, { ...cooled, colour })!.isColour).toBe(colour === "colour");
      expect(filledOf({ ...cooled, colour }).camera).toBe(true);
    }
    expect(cameraWords({ ...cooled, colour: "mono" })).toBe("a monochrome camera, cooled, APS-C, 26 megapixels");
  });

  it("takes kit that is in no list by its numbers, an aperture as f/2.8 or in inches too", () => {
    const lens = nearestOptics(KIT_PRESETS, "lens", 90);
    expect([lens.id, nearestOptics(KIT_PRESETS, "reflector", 1000).id]).toEqual(["lens-85", "newt-1200"]);
    const typed = { ...answered, optics: lens.id, own: { focalLengthMm: "90", apertureMm: "f/2.8" } };
    expect(opticsWords(typed)).toBe("a lens 90 mm f/2.8");
    const rig = rigOf(startKitOf(typed)!);
    expect([rig.name, rig.focalLengthMm]).toEqual(["Lens 90 mm f/2.8", 90]);
    expect(rig.apertureMm).toBeCloseTo(90 / 2.8, 2);
    expect(rig.typical).not.toContain("apertureMm");
    const inches = { ...answered, optics: "newt-1200", own: { focalLengthMm: "1000", apertureMm: "8 in" } };
    expect(opticsWords(inches)).toBe("a reflector 1000 mm f/4.9");
    expect(nearestCamera(KIT_PRESETS, false, 4.3).id).toBe("p-aps-18");
    expect(nearestCamera(KIT_PRESETS, true, 2).cooled).toBe(true);
    const sensor = { ...answered, own: { widthPx: "5496", heightPx: "3670", pixelPitchUm: "4.1" } };
    expect(cameraWords(sensor)).toBe("a colour photo camera, 5496 × 3670 pixels of 4.1 µm");
    expect(startFaults({ ...typed, own: { apertureMm: "f/0" } })).toHaveProperty("apertureMm");
  });

  it("offers only filters that go with the camera, and a photo camera is always colour", () => {
    expect(filterSetsFor(KIT_PRESETS, true).map((f) => f.id)).toEqual(["colour-plain", "colour-dual"]);
    expect(filterSetsFor(KIT_PRESETS, false).every((f) => !f.channels.includes("Colour"))).toBe(true);
    expect(kindsOf(KIT_PRESETS, { ...answered, colour: "mono" })!.isColour).toBe(true);
    expect(kindsOf(KIT_PRESETS, { ...answered, camera: "c-aps-26", colour: "mono" })!.filters.id).toBe("lrgb-sho-7");
  });

  it("is read back as it was left, and not from anything else", () => {
    expect(readTypedStart(structuredClone(answered))).toEqual(answered);
    const { isStock: _s, clearOfTen: _c, ...older } = answered;
    expect(readTypedStart(older)).toEqual(answered); // two questions that were not asked before
    // Drafts of the edition before had a switch that began at colour; what was chosen under it counts as said.
    const { colour: _, ...before } = answered;
    expect(readTypedStart({ ...before, isColour: false })).toEqual({ ...answered, colour: "mono" });
    expect(readTypedStart({ ...before, camera: "", isColour: true })).toEqual({ ...answered, camera: "", colour: "" });
    for (const other of [null, "text", {}, { ...answered, own: null }, { ...answered, colour: "yes" }])
      expect(readTypedStart(other)).toBeNull();
  });
});

describe("kinds nearest to an exposure", () => {
  const taken = (focalLengthMm: number | null, pixelPitchUm: number | null, widthPx: number | null) =>
    nearestKinds({ focalLengthMm, pixelPitchUm, widthPx, isFocalSolved: true, heightPx: null, cameraName: null, isColour: null, gain: null, site: null, clock: null }); // prettier-ignore
  it("are those of the same focal length, pixel and size; none where it says nothing", () => {
    expect(taken(478, 4.63, 4144)).toEqual({ optics: "ref-480", camera: "c-43-12" });
    expect(taken(1300, 3.76, 9576)).toEqual({ optics: "sct-1280", camera: "c-ff-61" });
    expect(taken(null, null, null)).toEqual({ optics: null, camera: null });
  });
  it("are taken from no file that does not read", () => {
    expect(takenFrom([{ name: "a", facts: { ok: false, error: { code: "noExif" } } }], [0])).toBeNull();
  });
  it("find every kind by its own numbers", () => {
    for (const o of KIT_PRESETS.optics) expect(taken(o.focalMm, null, null).optics).toBe(o.id);
  });
});

describe("what makes answers better next", () => {
  const place = { id: "place-1", rev: "r", copies: [], data: placeOf(startPlaceOf(answered)!) };
  const rig = { id: "rig-1", rev: "r", copies: [], data: usualKit().rig };
  const library = (nights: readonly string[], projects = 1) =>
    ({ projects: Array.from({ length: projects }), settings: { data: { memberId: "me" } }, contributions: nights.map((night) => ({ data: { memberId: "me", night } })) }) as unknown as Library; // prettier-ignore
  const whats = (l: Library, p = place, r: typeof rig | null = rig) => betterNext(l, p as never, r as never).map((n) => n.what); // prettier-ignore

  it("is everything at first, and nothing once all of it is one's own", () => {
    expect(whats(library([], 0))).toEqual(["project", "skyline", "camera", "sky", "chance", "nights"]);
    const own = { ...place, data: { ...place.data, typical: [] } };
    const measured = { ...rig, data: { ...rig.data, typical: [] } };
    expect(whats(library(["a", "b", "c"]), own, measured)).toEqual([]);
  });
  it("counts nights, not entries", () => {
    const left = (nights: readonly string[]) => betterNext(library(nights), place as never, null).find((n) => n.what === "nights")?.left; // prettier-ignore
    expect([left([]), left(["a", "a", "a"]), left(["a", "b"]), left(["a", "b", "c"])]).toEqual([3, 2, 1, undefined]);
  });
});
