import { panelName } from "~/core/framing";
import { inOrder, packedUpMs, toldSubs, type ToldSubs } from "~/core/live";
import { groupBy } from "~/core/numeric";
import type { NightDate } from "~/core/time";
import { eventsOf } from "~/desk/plan/live";
import { contextOf } from "~/desk/projects/project";
import type { Library } from "~/desk/records/library";
import { meOf } from "~/desk/records/parts";
import type { WrittenEntry } from "./log";

/** Subs that were told at the mount and are not in the log. */
export interface ToldEntry extends WrittenEntry {
  readonly projectName: string;
}

/** What was said to be lost of subs that the log, made from their files, has all kept. */
export interface ToldReason {
  readonly projectName: string;
  readonly of: Pick<ToldSubs["of"], "panel" | "channel" | "subSec">;
  readonly lost: number;
  readonly reason: ToldSubs["reason"];
}

/** What the presses of a night say beside its log. */
export interface ToldNight {
  readonly night: NightDate;
  /** Of which the log knows nothing yet: one press makes entries of them. */
  readonly entries: readonly ToldEntry[];
  /** Where the log has files, the counts are theirs; why some should not be kept, files do not know. */
  readonly reasons: readonly ToldReason[];
}

/**
 * Nights whose presses say something that the log does not have, the latest first. Files are the truth for counts: of a panel's channel
 * of which the log has anything of that night by the same rig, nothing more is offered; so a night is offered once it is over.
 */
export function toldNights(library: Library, today: NightDate): readonly ToldNight[] {
  const me = meOf(library);
  const own = library.nightEvents.filter((e) => e.data.memberId === me);
  return [...groupBy(own, (e) => e.data.night)]
    .map(([night, list]): ToldNight => {
      const rigs = [...new Set(list.map((e) => e.data.rigId))].filter(
        (rigId) => night < today || packedUpMs(inOrder(eventsOf(library, night, rigId))) !== null,
      );
      const told = rigs.flatMap((rigId) =>
        toldSubs(eventsOf(library, night, rigId)).map((subs) => ({
          rigId,
          subs,
          logged: logged(library, night, rigId, subs),
        })),
      );
      return {
        night,
        entries: joined(told.filter((t) => t.logged.length === 0).map((t) => t.subs)).flatMap(
          (subs) => entryOf(library, night, subs) ?? [],
        ),
        reasons: told.flatMap(({ subs, logged: entries }) =>
          entries.length > 0 && subs.kept < subs.taken && entries.every((e) => e.kept === e.taken)
            ? [
                {
                  projectName: nameOf(library, subs.of.projectId),
                  of: subs.of,
                  lost: subs.taken - subs.kept,
                  reason: subs.reason,
                },
              ]
            : [],
        ),
      };
    })
    .filter((n) => n.entries.length + n.reasons.length > 0)
    .sort((a, b) => (a.night < b.night ? 1 : -1));
}

const nameOf = (library: Library, id: string): string =>
  library.projects.find((p) => p.id === id)?.data.name ?? "a deleted project";

/** What the log has of a block's panel and channel that night with that rig. */
const logged = (library: Library, night: NightDate, rigId: string, { of }: ToldSubs) =>
  (library.log.byNight.get(night) ?? []).flatMap(({ data }) =>
    data.rigId === rigId &&
    data.projectId === of.projectId &&
    data.channel === of.channel &&
    panelsAlike(data.panel, panelOf(of.panel))
      ? [data]
      : [],
  );

/** "P3" of what a sheet calls "P3 the arch". */
const panelOf = (label: string): string => label.split(" ")[0] ?? "";

/** A frame of one panel has no name for it in some files. */
const panelsAlike = (a: string, b: string): boolean => a === b || a === "" || b === "";

/** Blocks of one panel, channel and sub as one: a night's log is not cut where the sheet was. */
function joined(all: readonly ToldSubs[]): readonly ToldSubs[] {
  const groups = groupBy(all, ({ of }) => [of.projectId, panelOf(of.panel), of.channel, of.subSec].join(" "));
  return [...groups.values()].map((group) => {
    const most = group.reduce((a, b) => (b.taken - b.kept > a.taken - a.kept ? b : a));
    const sum = (what: "taken" | "kept") => group.reduce((total, one) => total + one[what], 0);
    return { ...group.at(-1)!, taken: sum("taken"), kept: sum("kept"), reason: most.reason };
  });
}

/** The entry that told subs make; null where their project is gone, or their panel. */
function entryOf(library: Library, night: NightDate, { of, taken, kept, reason }: ToldSubs): ToldEntry | null {
  const { projectId, channel, subSec } = of;
  const [c, panel] = [contextOf(library, projectId), panelOf(of.panel)];
  if (!c?.panels.some((p) => panelName(p.number) === panel)) return null;
  const note = "told at the mount";
  return {
    projectId,
    panel,
    channel,
    night,
    exposureSec: subSec,
    taken,
    kept,
    reason,
    note,
    projectName: c.project.data.name,
  };
}
