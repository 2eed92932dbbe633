import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { CARE_PARTS, typicalRig, type KitPresets, type Rig } from "~/core/exposure";
import { testRig } from "~/core/test-data";
import presets from "~/data/kit-presets.json";
import { changedCare, checklistOf, doneChecks, leftOutOf, wholeChecklist, type CareChange } from ".";

const kit = presets as KitPresets;
const kitOf = (optics: string, camera: string, mount: string): Rig => {
  const one = <T extends { readonly id: string }>(list: readonly T[], id: string) => list.find((x) => x.id === id)!;
  const isColour = camera.startsWith("p-");
  return typicalRig("A rig", { optics: one(kit.optics, optics), camera: one(kit.cameras, camera), mount: one(kit.mounts, mount), isColour }, ["f"]); // prettier-ignore
};
const idsOf = (rig: Rig, night = { isAway: false, hasTwoRigs: false }) => checklistOf(rig, night).map((c) => c.id);

describe("a checklist", () => {
  // What each kind needs, and what would be wrong with it: common practice, no source.
  it.each([
    ["a tracker with a lens", kitOf("lens-135", "p-aps-24", "tracker"), ["trackerLoad", "polar", "ring", "photoSettings", "unguided", "darksInCold", "ownBattery"], ["balance", "guiding", "flipSet", "cool", "warmUp", "collimation", "weightsLast"]],
    ["a guided refractor, cooled", kitOf("ref-480", "c-aps-26", "eq"), ["balance", "polar", "guiding", "flipSet", "cool", "warmUp", "weightsLast"], ["trackerLoad", "ring", "photoSettings", "airOut", "darksInCold", "collimation", "lifting"]],
    ["a very small refractor, which has a focuser", kitOf("ref-250", "p-aps-24", "tracker"), ["trackerLoad", "focus"], ["ring"]],
    ["a large Newtonian", kitOf("newt-1200", "c-aps-26", "heavy-eq"), ["collimation", "lifting", "weights"], ["ring", "unguided"]],
    ["a photo camera on a guided mount", kitOf("ref-480", "p-aps-24", "light-eq"), ["guiding", "photoSettings", "airOut", "darksInCold"], ["cool", "warmUp", "unguided"]],
    ["a mount in altitude and azimuth", kitOf("ref-360", "c-sq-9", "altaz"), ["levelTwoStars", "turning", "unguided"], ["polar", "polarAgain", "balance", "flipSet", "laser"]],
  ])("of %s has what it needs and nothing it has not got", (_, rig, has, hasNot) => {
    expect(idsOf(rig)).toEqual(expect.arrayContaining(has));
    expect(idsOf(rig).filter((id) => hasNot.includes(id))).toEqual([]);
  }); // prettier-ignore

  it("of every kind says what keeps people from harm: the Sun, the mains, ice, lasers; away, that somebody knows", () => {
    for (const optics of kit.optics)
      for (const mount of kit.mounts) {
        const rig = kitOf(optics.id, "c-aps-26", mount.id);
        expect(idsOf(rig)).toEqual(expect.arrayContaining(["sun", "mains", "ice", "cap"]));
        expect(idsOf(rig).includes("laser")).toBe(!rig.isAltAz);
        expect(idsOf(rig, { isAway: true, hasTwoRigs: false })).toEqual(expect.arrayContaining(["told", "animals", "drive"])); // prettier-ignore
        expect(idsOf(rig)).not.toContain("told");
      }
  });

  it("has no word of mains with a battery, and one of two rigs only with two", () => {
    const power = { mountW: 8, cameraW: 5, coolerW: 20, dewW: 10, computerW: 10, batteryWh: 500, chemistry: "lithium" } as const; // prettier-ignore
    expect(idsOf({ ...testRig, power })).not.toContain("mains");
    expect(idsOf(testRig)).not.toContain("together");
    expect(idsOf(testRig, { isAway: false, hasTwoRigs: true })).toEqual(expect.arrayContaining(["together", "apart", "labelled"])); // prettier-ignore
  });

  it("changed by its owner follows, line by line, whatever comes after what", () => {
    // Judged by a plain list that is kept beside it.
    const pick = fc.nat(60);
    const words = fc.constantFrom("Keys in the pocket", "Red light", "Tea");
    const step = fc.oneof(
      fc.record({ what: fc.constant("add" as const), part: fc.constantFrom(...CARE_PARTS), words }),
      fc.record({ what: fc.constant("reword" as const), pick, words }),
      fc.record({ what: fc.constant("leaveOut" as const), pick }),
      fc.record({ what: fc.constant("takeBack" as const), pick }),
    );
    const rigs = [testRig, kitOf("lens-135", "p-aps-24", "tracker"), kitOf("ref-360", "c-sq-9", "altaz")];
    fc.assert(
      fc.property(fc.constantFrom(...rigs), fc.array(step, { maxLength: 25 }), (start, steps) => {
        let [rig, made] = [start, 0];
        const usual = wholeChecklist(start).map((c) => ({ id: c.id, part: c.part, words: null as string | null, isOut: false })); // prettier-ignore
        const own: { id: string; part: string; words: string }[] = [];
        for (const s of steps) {
          const now = wholeChecklist(rig);
          const id = s.what === "add" ? "" : s.what === "takeBack" ? (leftOutOf(rig)[s.pick % Math.max(1, leftOutOf(rig).length)] ?? "none") : (now[s.pick % Math.max(1, now.length)]?.id ?? "none"); // prettier-ignore
          const change: CareChange = s.what === "add" ? { ...s, occasion: "always" } : s.what === "reword" ? { what: "reword", id, words: s.words } : { what: s.what, id }; // prettier-ignore
          rig = { ...rig, care: changedCare(rig, change, () => `own-${++made}`) };
          const at = usual.find((u) => u.id === id);
          if (s.what === "add") own.push({ id: `own-${made}`, part: s.part, words: s.words });
          else if (s.what === "reword") {
            const mine = at ?? own.find((o) => o.id === id);
            if (mine) mine.words = s.words;
          } else if (s.what === "takeBack") {
            if (at) at.isOut = false;
          } else if (at) [at.isOut, at.words] = [true, null];
          else own.splice(0, own.length, ...own.filter((o) => o.id !== id));
        }
        const wanted = CARE_PARTS.flatMap((part) => [
          ...usual.filter((u) => u.part === part && !u.isOut).map(({ id, words: w }) => ({ id, words: w })),
          ...own.filter((o) => o.part === part).map(({ id, words: w }) => ({ id, words: w })),
        ]);
        expect(wholeChecklist(rig).map(({ id, words: w }) => ({ id, words: w }))).toEqual(wanted);
        expect(leftOutOf(rig)).toEqual(usual.filter((u) => u.isOut).map((u) => u.id));
        expect(wholeChecklist({ ...rig, care: changedCare(rig, { what: "asUsual" }, () => "") })).toEqual(wholeChecklist(start)); // prettier-ignore
      }),
    );
  });

  it("keeps its owner's words of a check that the kit no longer has", () => {
    const care = changedCare(testRig, { what: "reword", id: "cool", words: "Cooled slowly" }, () => "own-1");
    const warm = wholeChecklist({ ...testRig, isCooled: false, care });
    expect(warm.map((c) => c.words)).toContain("Cooled slowly");
    expect(warm.map((c) => c.id)).toContain("airOut");
  });

  it("counts a line as done by the last word on it", () => {
    const done = doneChecks([
      { id: "sun", isDone: true },
      { id: "focus", isDone: true },
      { id: "sun", isDone: false },
    ]);
    expect([...done]).toEqual(["focus"]);
  });
});
