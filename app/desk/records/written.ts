import { recordKey, type StoredRecord } from "~/core/crew";
import { encodeBundle } from "~/core/formats";
import { fieldsOf, isOf } from "~/core/records";
import type { NightDate } from "~/core/time";
import type { Desk } from "~/desk/desk";
import { changeSettings } from "~/desk/kit/kit";
import { planForBackup } from "~/desk/plan/season";
import { theStore } from "./kept";
import type { Library } from "./library";

/** A file to hand over. */
export interface Written {
  readonly name: string;
  readonly text: string;
}

/** Every version of every record, for a backup or a friend. */
const allRecords = async (desk: Desk): Promise<StoredRecord[]> => [...(await desk.at(theStore).open()).all()].flat();

/** Records of one project and of what it refers to: places, rigs, filters, members, a target of one's own. */
export function belonging(records: readonly StoredRecord[], projectId: string): StoredRecord[] {
  const own = records.filter(
    // Which nights somebody keeps for it is nobody else's business.
    (r) =>
      (r.kind === "project" && r.id === projectId) || (r.kind !== "lock" && fieldsOf(r)["projectId"] === projectId),
  );
  const wanted = new Set(own.map((r) => `member/${r.author}`));
  for (const r of own)
    for (const kind of ["place", "rig", "member", "target"] as const) {
      const id = fieldsOf(r)[`${kind}Id`];
      if (typeof id === "string") wanted.add(`${kind}/${id}`);
    }
  // Places that a member says they can go to.
  for (const r of own) if (isOf("part", r)) for (const id of r.data.evenings?.placeIds ?? []) wanted.add(`place/${id}`);
  const kit = records.filter((r) => wanted.has(recordKey(r)));
  const filters = new Set(kit.flatMap((r) => (isOf("rig", r) ? r.data.filterIds : [])));
  return [...own, ...kit, ...records.filter((r) => r.kind === "filter" && filters.has(r.id))];
}

/** One project with all it needs, as a file for a friend. */
export async function writeProject(desk: Desk, projectId: string, stem: string): Promise<Written> {
  const at = new Date(desk.now()).toISOString();
  return {
    name: `${stem}-${at.slice(0, 10)}.zenithar.json`,
    text: encodeBundle(belonging(await allRecords(desk), projectId), "project", at),
  };
}

/** A project to invite somebody to: its frame, goals and kit without the hours, small, under a name that says what it is. */
export async function writeInvitation(desk: Desk, projectId: string, stem: string): Promise<Written> {
  const at = new Date(desk.now()).toISOString();
  const asked = belonging(await allRecords(desk), projectId).filter(
    (r) => !["contribution", "handOver"].includes(r.kind),
  );
  return { name: `join-${stem}.zenithar.json`, text: encodeBundle(asked, "project", at) };
}

/** What was pressed in one night, with the plan that it began by and what was said of the sky: small, from phone to laptop and back. */
export async function writeNight(desk: Desk, night: NightDate): Promise<Written> {
  const all = await allRecords(desk);
  const ofNight = all.filter((r) => (r.kind === "event" || r.kind === "begun") && fieldsOf(r)["night"] === night);
  const pressed = new Set(ofNight.map((r) => fieldsOf(r)["atMs"]));
  const looks = all.filter((r) => r.kind === "look" && pressed.has(fieldsOf(r)["atMs"]));
  const at = new Date(desk.now()).toISOString();
  return { name: `night-${night}.zenithar.json`, text: encodeBundle([...ofNight, ...looks], "project", at) };
}

/** Everything as a file, what does not read included; the settings remember when. */
export async function writeEverything(library: Library): Promise<Written> {
  const { desk } = library;
  const at = new Date(desk.now()).toISOString();
  const unread = (await desk.at(theStore).open()).unread().map((u) => u.raw);
  const text = encodeBundle(await allRecords(desk), "everything", at, unread, await planForBackup(desk));
  if (library.settings) await changeSettings(library, { lastBackupMs: desk.now() });
  return { name: `zenithar-everything-${at.slice(0, 10)}.zenithar.json`, text };
}
