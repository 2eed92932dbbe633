import { describe, expect, it } from "vitest";
import { RECORD_KINDS, type RecordKind, type StoredRecord } from "~/core/crew";
import { belonging } from "./written";

const record = (kind: RecordKind, id: string, data: object, author = "ines"): StoredRecord => ({
  kind,
  id,
  rev: "1",
  author,
  seen: {},
  data,
});
/** One of every kind that names the project and a member, and the kit it refers to. */
const refers = { projectId: "p", memberId: "ines", placeId: "place-1", rigId: "rig-1" };
const all: readonly StoredRecord[] = [
  ...RECORD_KINDS.map((kind) => record(kind, kind === "project" ? "p" : `${kind}-x`, kind === "project" ? {} : refers)),
  record("place", "place-1", {}),
  record("rig", "rig-1", { filterIds: ["filter-1"] }),
  record("filter", "filter-1", {}),
  record("filter", "filter-2", {}),
  record("member", "ines", {}),
  record("member", "somebody", {}),
  record("rig", "rig-2", {}),
];

describe("the file of a project", () => {
  it("hands out nothing of how its members keep their nights: no lock, whoever made it (mutant)", () => {
    const kinds = belonging(all, "p").map((r) => r.kind);
    expect(kinds).not.toContain("lock");
    expect(kinds).toEqual(expect.arrayContaining(["project", "part", "frame", "goal", "contribution", "place", "rig"]));
  });
  it("holds the kit it needs and who made it, and nobody else's", () => {
    const ids = belonging(all, "p").map((r) => r.id);
    expect(ids).toEqual(expect.arrayContaining(["p", "place-1", "rig-1", "filter-1", "ines"]));
    for (const other of ["filter-2", "rig-2", "somebody"]) expect(ids).not.toContain(other);
    expect(belonging(all, "another")).toEqual([]);
  });
});
