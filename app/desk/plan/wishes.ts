import { isCalled, searchKey, type OwnTarget } from "~/core/catalog";
import { openPanelList } from "~/core/formats";
import { bestRate } from "~/core/night";
import { looksLikePosition, parsePosition } from "~/core/notation";
import type { WishData } from "~/core/plan";
import type { SeasonProject } from "~/core/season";
import type { KeepFault, EditOf } from "~/core/records";
import type { Result } from "~/core/result";
import { separationDeg } from "~/core/sky";
import type { Desk } from "~/desk/desk";
import { keep, remove, type Kept } from "~/desk/records/acts";
import { moonOf, type Choice } from "~/desk/sky/choice";
import type { Entity, Library } from "~/desk/records/library";
import { meOf } from "~/desk/records/parts";
import { pictureAt } from "~/desk/projects/picture";
import { findTarget } from "~/desk/sky/targets";

/** One's own wishes. */
export const ownWishes = (library: Library): readonly Entity<WishData>[] => {
  const me = meOf(library) ?? "me";
  return library.wishes.filter((w) => w.data.memberId === me);
};

/** One wish has one name, so that wishing twice is one wish. */
const wishEdit = (library: Library, targetId: string): EditOf<"wish" | "target"> => {
  const memberId = meOf(library) ?? "me";
  return {
    kind: "wish",
    id: `wish-${memberId}-${targetId}`.slice(0, 200),
    data: { memberId, targetId },
    baseRev: "latest",
  };
};

/** Puts a target on the wish list. */
export const wishFor = (library: Library, targetId: string): Promise<Result<Kept, KeepFault>> =>
  keep(library.desk, [wishEdit(library, targetId)]);

/** Takes targets off the wish list. */
export const unwish = (library: Library, targetIds: readonly string[]): Promise<Result<Kept, KeepFault>> =>
  remove(
    library.desk,
    ownWishes(library).flatMap((w) => (targetIds.includes(w.data.targetId) ? [{ kind: "wish" as const, ...w }] : [])),
  );

/** What a list of wishes comes to: the edits that keep it, what was found, and what was not. */
export interface ReadWishes {
  readonly edits: readonly EditOf<"wish" | "target">[];
  readonly found: readonly string[];
  readonly missing: readonly string[];
}

const MOST_WISHES = 200;
const SAME_DEG = 0.05; // a listed object that near a position is meant
const MOST_NAMED = 60; // letters

/** The listed object at a position, else a target of one's own there. */
async function atPosition(
  library: Library,
  at: { readonly raDeg: number; readonly decDeg: number; readonly name: string },
): Promise<{ readonly targetId: string; readonly edit: EditOf<"wish" | "target"> | null; readonly name: string }> {
  const centre = { frame: "icrs", raDeg: at.raDeg, decDeg: at.decDeg } as const;
  const near = await library.desk.workers.sky.within({
    raDeg: at.raDeg,
    decDeg: at.decDeg,
    radiusDeg: SAME_DEG,
    limit: 20,
  });
  const [nearest] = [...near].sort((a, b) => separationDeg(centre, a.at) - separationDeg(centre, b.at));
  if (nearest) return { targetId: nearest.id, edit: null, name: nearest.id };
  const name = (at.name.trim() || `${at.raDeg.toFixed(3)} ${at.decDeg.toFixed(3)}`).slice(0, MOST_NAMED);
  const known = library.ownTargets.find((t) => t.data.name === name);
  if (known) return { targetId: known.id, edit: null, name };
  const data: OwnTarget = {
    name,
    raDeg: at.raDeg,
    decDeg: at.decDeg,
    kind: "emissionNebula",
    majorArcmin: null,
    light: "mixed",
    neighbourId: "",
    note: "",
  };
  const id = library.desk.newId("target");
  return { targetId: id, edit: { kind: "target", id, data, baseRev: null }, name };
}

/**
 * Reads wishes from a text: a CSV or VOTable with positions, or a name or a position a line. What is not found is named; what is
 * there already is no wish twice.
 */
export async function readWishes(library: Library, text: string): Promise<ReadWishes> {
  const edits: EditOf<"wish" | "target">[] = [];
  const found: string[] = [];
  const missing: string[] = [];
  const take = (targetId: string, name: string, target: EditOf<"wish" | "target"> | null) => {
    if (target) edits.push(target);
    edits.push(wishEdit(library, targetId));
    found.push(name);
  };
  const table = openPanelList(text);
  if (table.rows.ok) {
    for (const row of table.rows.value.slice(0, MOST_WISHES)) {
      const at = await atPosition(library, { raDeg: row.raDeg, decDeg: row.decDeg, name: row.name || row.panel });
      take(at.targetId, at.name, at.edit);
    }
    return { edits, found, missing };
  }
  const lines = text
    .split(/\r?\n/)
    .map((l) => l.trim())
    .filter((l) => l !== "")
    .slice(0, MOST_WISHES);
  for (const line of lines) {
    const position = looksLikePosition(line) ? parsePosition(line) : null;
    if (position?.ok) {
      const at = await atPosition(library, { raDeg: position.value.raDeg, decDeg: position.value.decDeg, name: "" });
      take(at.targetId, at.name, at.edit);
      continue;
    }
    // The first cell of a line of a table.
    const name = line
      .split(/[,;\t]/)[0]!
      .replaceAll('"', "")
      .trim();
    const own = library.ownTargets.find((t) => searchKey(t.data.name) === searchKey(name));
    const entry = own ? null : (await library.desk.workers.sky.search(name, 5)).find((e) => isCalled(e, name));
    if (own) take(own.id, own.data.name, null);
    else if (entry) take(entry.id, entry.id, null);
    else missing.push(name);
  }
  return { edits, found, missing };
}

/** Keeps what was read. */
export const keepWishes = (desk: Desk, read: ReadWishes): Promise<Result<Kept, KeepFault>> => keep(desk, read.edits);

/** A wish as a project that could be started tonight, with the chosen rig at the chosen place; null where that is not to be had. */
export async function wishedProject(
  library: Library,
  targetId: string,
  { place, rig }: Pick<Choice, "place" | "rig">,
): Promise<{
  readonly name: string;
  readonly project: SeasonProject;
  readonly rig: Entity<NonNullable<Choice["rig"]>["data"]>;
} | null> {
  const entry = await findTarget(library, targetId);
  if (!entry || !place || !rig) return null;
  const { hours, jobs } = pictureAt(library, entry, rig.data, place.data);
  const { channel, subSec, own } = jobs[0]!;
  const minutes = hours * 60;
  return {
    name: entry.name || entry.id,
    rig,
    project: {
      id: `wish ${targetId}`,
      priority: 1,
      counts: "light",
      target: entry.at,
      placeId: place.id,
      rigId: rig.id,
      moon: moonOf(library),
      wants: [
        {
          channel,
          subSec,
          own,
          goalMin: minutes,
          remainingMin: minutes,
          bestRate: bestRate(place.data, entry.at, channel, own),
        },
      ],
    },
  };
}
