import { expect, it } from "vitest";
import objects from "~/data/objects.json";
import { buildSearchIndex, searchCatalog, unpackCatalog, type PackedCatalog } from "~/core/catalog";
import { decodeData } from "~/core/records";
import { frameCorners, mosaicExtent, opticsOf, skyToFrame } from "~/core/framing";
import { offsetBy } from "~/core/sky";
import { nightDate } from "~/core/time";
import { filters, places, rigs } from "../../../scripts/demo/group";
import { layoutOf, newProject } from ".";

const unpacked = unpackCatalog(objects as unknown as PackedCatalog);
const index = buildSearchIndex(unpacked.ok ? unpacked.value : []);
const start = (query: string, rigId = "rig-refractor") => {
  const rig = rigs[rigId]!;
  const own = rig.filterIds.map((id) => ({ id, data: filters[id]! }));
  const entry = searchCatalog(index, query)[0]!;
  return {
    entry,
    rig,
    made: newProject(entry, { rig, filters: own, place: places["place-garden"]! }, nightDate("2026-12-05")),
  };
};

it("takes lines for what shines in lines, luminance and colours for galaxies, and the one filter a colour camera has", () => {
  expect(start("NGC 6960").made.goal.channels.map((c) => c.channel)).toEqual(["OIII", "Ha"]);
  expect(start("M 81").made.goal.channels.map((c) => c.channel)).toEqual(["L", "R", "G", "B"]);
  expect(start("M 81", "rig-newtonian").made.goal.channels.map((c) => c.channel)).toEqual(["Colour"]);
  expect(start("NGC 6960", "rig-newtonian").made.goal.channels.map((c) => c.channel)).toEqual(["Dual"]);
});

it("lays an object into its frame: the whole outline of the North America Nebula, the Rosette and M 81 is covered", () => {
  for (const query of ["NGC 7000", "NGC 2237", "M 81", "NGC 253", "Sh2-103"]) {
    const { entry, rig, made } = start(query);
    const layout = layoutOf({ projectId: "p", ...made.frame }, opticsOf(rig));
    const extent = mosaicExtent(layout);
    expect(frameCorners(layout, extent.widthArcmin, extent.heightArcmin)).toHaveLength(4);
    for (const turn of [0, 90, 180, 270]) {
      const half = (turn % 180 === 0 ? entry.majorArcmin! : (entry.minorArcmin ?? entry.majorArcmin!)) / 120;
      const tip = offsetBy(entry.at, { positionAngleDeg: (entry.positionAngleDeg ?? 90) + turn, distanceDeg: half });
      const p = skyToFrame(layout, tip)!;
      expect(Math.abs(p.xArcmin), query).toBeLessThanOrEqual(extent.widthArcmin / 2);
      expect(Math.abs(p.yArcmin), query).toBeLessThanOrEqual(extent.heightArcmin / 2);
    }
  }
});

it("makes records that storage takes", () => {
  const { made } = start("Sh2-132");
  expect(decodeData("project", made.project).ok).toBe(true);
  expect(decodeData("frame", { projectId: "p", ...made.frame }).ok).toBe(true);
  expect(decodeData("goal", { projectId: "p", ...made.goal }).ok).toBe(true);
});
