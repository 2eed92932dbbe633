import { beforeEach, describe, expect, it } from "vitest";
import type { Rig, TypicalFilters, TypicalKit } from "~/core/exposure";
import { testPlace } from "~/core/test-data";
import { memoryBrowser, testDesk } from "~/desk/desk.test-data";
import type { Desk } from "~/desk/desk";
import { savePlace } from "./kit";
import { KIT_PRESETS, rigOfKinds, saveRigOfKinds } from "./start";

const of = <T extends { readonly id: string }>(list: readonly T[], id: string): T => list.find((x) => x.id === id)!;
const kinds = (filters: string): TypicalKit & { readonly filters: TypicalFilters } => ({
  optics: of(KIT_PRESETS.optics, "lens-85"),
  camera: of(KIT_PRESETS.cameras, "c-aps-26"),
  mount: of(KIT_PRESETS.mounts, "tracker"),
  isColour: false,
  filters: of(KIT_PRESETS.filterSets, filters),
});

describe("a rig begun with its kinds", () => {
  let d: Desk & { library: ReturnType<typeof testDesk>["library"] };
  beforeEach(() => {
    d = testDesk({ browser: memoryBrowser() });
  });
  const added = async (filters: string, change: (rig: Rig) => object = () => ({})) => {
    const kit = kinds(filters);
    const { typical: _, ...rig } = rigOfKinds(kit, {}).rig; // a form sends no marks
    const saved = await saveRigOfKinds(
      await d.library(),
      { id: "new", baseRev: "", data: { ...rig, ...change(rig) } },
      kit,
    );
    expect(saved.ok).toBe(true);
    return (await d.library()).rigs.at(-1)!.data;
  };

  it("brings the filters that are still ticked, once, and keeps what else is here", async () => {
    await added("lrgb", (rig) => ({ filterIds: rig.filterIds.slice(0, 3) }));
    const names = async () => (await d.library()).filters.map((f) => f.data.name).sort();
    expect(await names()).toEqual(["G", "L", "R"]);
    await added("lrgb-sho-7");
    expect(await names()).toEqual(["B", "G", "Ha 7 nm", "L", "OIII 7 nm", "R", "SII 7 nm"]);
  });

  it("marks as typical what nobody typed over, and nothing where its owner says that all of it is theirs", async () => {
    const rig = await added("lrgb", () => ({ readNoiseE: 1.9 }));
    expect(rig.typical).toContain("focalLengthMm");
    expect(rig.typical).not.toContain("readNoiseE");
    expect((await added("lrgb", () => ({ typical: [] }))).typical).toBeUndefined();
  });

  it("keeps of a place what nobody measured, until somebody does", async () => {
    const place = { ...testPlace, name: "Yard" };
    await savePlace(await d.library(), { id: "new", baseRev: "", data: place }, ["skyMagPerArcsec2", "skyline"]);
    const [kept] = (await d.library()).places;
    expect(kept!.data.typical).toEqual(["skyMagPerArcsec2", "skyline"]);
    const measured = { ...kept!.data, skyMagPerArcsec2: 21.1, typical: undefined } as unknown as typeof place;
    await savePlace(await d.library(), { id: kept!.id, baseRev: kept!.rev, data: measured });
    expect((await d.library()).places[0]!.data.typical).toEqual(["skyline"]);
  });
});
