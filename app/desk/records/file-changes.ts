import { joinHeads, recordKey, type Heads, type StoredRecord } from "~/core/crew";
import { changedFields, fieldsOf } from "~/core/records";
import { groupBy } from "~/core/numeric";
import { inTurns } from "~/desk/turns";
import { contextsOf } from "~/desk/projects/project";
import type { Library } from "./library";
import { nameOf, type RecordChange } from "./named-records";
import { meOf } from "./parts";

/** Whether a thing here is another member's alone: their entries, their part, their kit that one does not use. */
function isTheirs(library: Library, { kind, id, author, data }: StoredRecord): boolean {
  const me = meOf(library);
  const { memberId } = fieldsOf({ data });
  if (kind === "member") return id !== me;
  if (memberId !== undefined) return memberId !== me;
  if (kind === "place" || kind === "rig" || kind === "filter") return author !== me && !kitInUse(library).has(id);
  return false;
}

/** Ids of the places, rigs and filters one uses: chosen in the settings, in one's parts, in one's log. */
function kitInUse(library: Library): ReadonlySet<string> {
  const me = meOf(library);
  const mine = [
    ...library.parts.filter((p) => p.data.memberId === me).map((p) => p.data),
    ...(library.log.byMember.get(me ?? "") ?? []).map((c) => c.data),
    ...(library.settings ? [library.settings.data] : []),
  ];
  const used = new Set(mine.flatMap((x) => [x.placeId, x.rigId]));
  for (const rig of library.rigs) if (used.has(rig.id)) rig.data.filterIds.forEach((id) => used.add(id));
  return used;
}

/** What of the news would change something here that is not its writer's alone; worked out in turns, `between` its steps. */
export async function changesIn(
  library: Library,
  here: ReadonlyMap<string, Heads>,
  fresh: readonly StoredRecord[],
  between: () => Promise<void> = inTurns(),
): Promise<RecordChange[]> {
  const me = meOf(library);
  const myFrames = new Set(contextsOf(library).flatMap((c) => (c.part.isMine ? [c.frame.id] : [])));
  const changes: RecordChange[] = [];
  const changeOf = ([key, versions]: readonly [string, readonly StoredRecord[]]): RecordChange[] => {
    const mine = here.get(key)?.[0];
    const [theirs] = joinHeads(versions, []);
    if (!mine || !theirs || mine.deletedAt !== undefined || mine.kind === "settings" || isTheirs(library, mine))
      return [];
    if (mine.kind === "member") return [];
    const isDeleted = theirs.deletedAt !== undefined;
    const fields = isDeleted ? [] : changedFields(mine.kind, mine.data, theirs.data);
    if (!isDeleted && fields.length === 0) return [];
    const isShared =
      ["project", "goal", "target"].includes(mine.kind) || (mine.kind === "frame" && !myFrames.has(mine.id));
    return [
      {
        kind: mine.kind,
        id: mine.id,
        name: nameOfThing(library, mine),
        isMine: !isShared || (mine.kind === "target" && mine.author === me),
        isDeleted,
        fields,
      },
    ];
  };
  for (const group of groupBy(fresh, recordKey)) {
    changes.push(...changeOf(group));
    await between();
  }
  return changes;
}

/** As `nameOf`, with the project's name for what has none of its own. */
function nameOfThing(library: Library, record: StoredRecord): string {
  const said = fieldsOf(record);
  const text = (name: "night" | "panel" | "title") => (typeof said[name] === "string" ? said[name] : undefined);
  const project = library.projects.find((p) => p.id === said["projectId"])?.data.name;
  if (record.kind === "contribution")
    return [project, text("panel"), text("night")].filter((x) => x !== undefined).join(", ");
  const title = text("title");
  return project === undefined ? nameOf(record.kind, record) : [project, ...(title ? [title] : [])].join(", ");
}
