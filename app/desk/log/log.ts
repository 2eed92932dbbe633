import { meOf } from "~/desk/records/parts";
import {
  nightTotals,
  withKept,
  type ContributionData,
  type CullReason,
  type Impossible,
  type NightTotal,
} from "~/core/ledger";
import { panelName } from "~/core/framing";
import { nightOffer } from "~/core/plan";
import type { KeepFault } from "~/core/records";
import type { Result } from "~/core/result";
import { nightDate, type NightDate } from "~/core/time";
import type { Desk } from "~/desk/desk";
import { keep, remove, type Kept } from "~/desk/records/acts";
import type { Entity, Library } from "~/desk/records/library";
import { contextOf, type ProjectContext } from "~/desk/projects/project";
import { choiceOf } from "~/desk/sky/choice";
import { nightOver } from "~/desk/sky/nights";
import { topic } from "~/desk/memo";
import { doubtsAbout } from "./doubts";

/** What somebody writes into the log by hand; who, where and with what is added here. */
export type WrittenEntry = Pick<
  ContributionData,
  "projectId" | "panel" | "channel" | "night" | "exposureSec" | "taken" | "kept" | "reason" | "note"
>;

/** Mean worth of a usable minute of a project in one channel on one night, by the model; null when there is none. */
export function worthRateOf(c: ProjectContext, channel: ContributionData["channel"], night: string): number | null {
  const offer = nightOffer(nightOver(c.desk, c.place.data, nightDate(night), c.moon), c.layout.centre, [channel], c.own)
    .channels[channel];
  return offer && offer.usableMin > 0 ? Math.round((1000 * offer.worthMin) / offer.usableMin) / 1000 : null;
}

/** What bounds an entry of a project: the night that is tonight at its place. */
export function logBounds(library: Library, projectId: string): { readonly today: NightDate } {
  const c = contextOf(library, projectId);
  const { today } = choiceOf(library, new URLSearchParams(c ? { place: c.place.id } : {}));
  return { today };
}

/** Where a panel of a project points as it is drawn now. */
function pointingOf(c: ProjectContext, panel: string): Pick<ContributionData, "at"> {
  const drawn = c.panels.find((p) => panelName(p.number) === panel);
  if (!drawn) return {};
  const { raDeg, decDeg } = drawn.centre;
  return { at: { raDeg, decDeg, positionAngleDeg: drawn.positionAngleDeg } };
}

/** Why entries written by hand cannot be as they stand, each reason once. */
export function writtenDoubts(library: Library, entries: readonly WrittenEntry[]): readonly Impossible[] {
  const found = doubtsAbout(
    library,
    entries.map((entry) => writtenData(library, entry)),
  );
  const reasons = new Map(found.flatMap((why) => (why ? [[why.code, why] as const] : [])));
  return [...reasons.values()];
}

/** Books entries written by hand, all or none. */
export function bookByHand(library: Library, ...entries: readonly WrittenEntry[]): Promise<Result<Kept, KeepFault>> {
  return keep(
    library.desk,
    entries.map((entry) => ({
      kind: "contribution",
      id: library.desk.newId("contribution"),
      data: writtenData(library, entry),
      baseRev: null,
    })),
  );
}

/** An entry written by hand with who, where and with what. */
function writtenData(library: Library, entry: WrittenEntry): ContributionData {
  const c = contextOf(library, entry.projectId);
  return {
    ...entry,
    memberId: meOf(library) ?? "me",
    rigId: c?.rig.id ?? "unknown",
    placeId: c?.place.id ?? "unknown",
    worthRate: c ? worthRateOf(c, entry.channel, entry.night) : null,
    startMs: null,
    fileName: "",
    ...(c ? { frameId: c.frame.id, ...pointingOf(c, entry.panel) } : {}),
  };
}

/** An entry as a page shows it. */
export type LogRecord = Pick<Entity<ContributionData>, "id" | "rev" | "data">;

/** Changes what was kept of an entry, and why not more; what it was before stays in its history. */
export const changeKept = (
  desk: Desk,
  { id, rev, data }: LogRecord,
  kept: number,
  reason: CullReason | "",
): Promise<Result<Kept, KeepFault>> =>
  keep(desk, [{ kind: "contribution", id, data: withKept(data, kept, reason, desk.now()), baseRev: rev }]);

/** Deletes entries. */
export const deleteEntries = (desk: Desk, entries: readonly LogRecord[]): Promise<Result<Kept, KeepFault>> =>
  remove(
    desk,
    entries.map((e) => ({ kind: "contribution", ...e })),
  );

const nights = topic<NightTotal<LogRecord>[]>(100);

/** The log by nights, of one project or of all; the same list until an entry changes. */
export function logNights(library: Library, projectId: string | null): readonly NightTotal<LogRecord>[] {
  const list = projectId === null ? library.contributions : (library.log.byProject.get(projectId) ?? []);
  return library.desk.memo(nights, projectId ?? "all", [list], () => nightTotals(list));
}
