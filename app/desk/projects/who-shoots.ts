import { inRatio, type ChannelGoal } from "~/core/crew";
import { depthRate, type Channel } from "~/core/exposure";
import { opticsOf } from "~/core/framing";
import { coveredShare } from "~/core/ledger";
import { partId, promises, type PartData, type SharingRules } from "~/core/plan";
import { type HoursCount } from "~/core/season";
import type { KeepFault } from "~/core/records";
import { err, type Result } from "~/core/result";
import { addNights, nightsBetween, nightDate, type NightDate } from "~/core/time";
import { orAborted } from "~/workers/client";
import type { Sharing, SharingSite } from "~/workers/sky";
import { keep, type Kept } from "~/desk/records/acts";
import { withLearntChances } from "~/desk/sky/learnt";
import type { Library } from "~/desk/records/library";
import { meOf, partOf } from "~/desk/records/parts";
import { type ProjectContext } from "./project";
import { ownOf } from "./weights";
import { filtersOf, kitOf, shotOf, shotWith, hourWith } from "./reference";
import { SEASON_NIGHTS } from "~/desk/plan/season-question";

/** Keeps how the hours of a project count. */
export const keepHours = (c: ProjectContext, rev: string, hours: HoursCount): Promise<Result<Kept, KeepFault>> =>
  keep(c.desk, [{ kind: "project", id: c.id, data: { ...c.project.data, hours }, baseRev: rev }]);

/** Who could shoot what of a project, and what was agreed. */
export interface SharingView {
  readonly rev: string;
  readonly rules: SharingRules;
  /** Last night counted. */
  readonly until: NightDate;
  readonly answer: Promise<Sharing> | null;
  /** What other rules than the kept ones come to, asked while they are typed. */
  readonly ask: (rules: SharingRules, signal: AbortSignal) => Promise<Sharing>;
}

/** Hours that channels still want, all panels together, at the reference. */
function openGoals(c: ProjectContext, ratio: SharingRules["ratio"]): ChannelGoal[] {
  const channels = [...new Set(c.cells.filter((x) => x.goalMin > 0).map((x) => x.channel))];
  const goals = channels.map((channel) => ({
    channel,
    hours:
      c.cells.reduce((sum, x) => sum + (x.channel === channel ? Math.max(0, x.goalMin - x.countedMin) : 0), 0) / 60,
  }));
  return ratio && ratio.length === goals.length ? inRatio(goals, ratio) : goals;
}

/** Each member's site: what an hour of worth 1 there is at the reference, over what their frame covers of its panels. */
function sitesOf(library: Library, c: ProjectContext, rules: SharingRules): SharingSite[] {
  const shotBy = shotOf(library, c.stock);
  const drawn = c.stock.frames.find((f) => f.id === c.stock.referenceId)!;
  const reference = shotWith(drawn.data, opticsOf(c.reference.rig.data));
  const at = kitOf(c.reference);
  const { light } = c.project.data;
  return library.parts.flatMap(({ data: part }): SharingSite[] => {
    if (part.projectId !== c.id) return [];
    const home = library.places.find((p) => p.id === part.placeId);
    const rig = library.rigs.find((r) => r.id === part.rigId);
    const shot = shotBy({ rigId: part.rigId, ...(part.frameId === undefined ? {} : { frameId: part.frameId }) });
    if (!home || !rig || !shot || shot.panels.length === 0) return [];
    const kit = kitOf({ place: home, rig, filters: filtersOf(library, rig.data) });
    const fills = (coveredShare(reference, shot) * reference.panels.length) / shot.panels.length;
    const wanted = [...new Set(c.goal.data.channels.map((g) => g.channel))];
    const factors = wanted.flatMap((channel) => {
      const canTake = depthRate(channel, kit, light) !== null;
      const best = c.bestThere[channel] ?? 0;
      // Nobody's reference without the filter: then hours of this channel count as they are.
      const is = hourWith(channel, kit, at, light) ?? 1;
      return canTake && best > 0 ? [[channel, (is * fills) / best] as const] : [];
    });
    if (factors.length === 0) return [];
    return [
      {
        memberId: part.memberId,
        place: withLearntChances(library, home).data,
        factors: Object.fromEntries(factors),
        own: ownOf({ place: home, rig, filters: filtersOf(library, rig.data) }, c.goal.data.channels, light),
        promised: rules.hours?.[part.memberId] ?? null,
      },
    ];
  });
}

/** The ways a project's members can share its open hours, by the end of what is planned or its deadline, with the odds of each. */
export function sharingOf(library: Library, c: ProjectContext, today: NightDate, signal: AbortSignal): SharingView {
  const rules = c.project.data.sharing ?? { way: "advantage" };
  const { deadline } = c.project.data;
  const last = addNights(today, SEASON_NIGHTS - 1);
  const until = deadline !== undefined && deadline < last && deadline >= today ? nightDate(deadline) : last;
  const ask: SharingView["ask"] = (asked, whileWanted) =>
    orAborted(
      library.desk.workers.sky.sharing({
        sites: sitesOf(library, c, asked),
        goals: openGoals(c, asked.ratio),
        target: c.layout.centre,
        moon: c.moon,
        from: today,
        nights: nightsBetween(today, until) + 1,
        floor: asked.floor ?? 0,
        hand: asked.hand ?? null,
      }),
      whileWanted,
    );
  const answer = sitesOf(library, c, rules).length < 2 ? null : ask(rules, signal);
  answer?.catch(() => undefined); // an aborted one is nobody's fault; the screen that asked is gone
  return { rev: c.project.rev, rules, until, answer, ask };
}

/** Keeps who shoots what. */
export const keepSharing = (c: ProjectContext, rev: string, sharing: SharingRules): Promise<Result<Kept, KeepFault>> =>
  keep(c.desk, [{ kind: "project", id: c.id, data: { ...c.project.data, sharing }, baseRev: rev }]);

/** Says by whose place and rig hours are measured. */
export const keepReference = (c: ProjectContext, rev: string, memberId: string): Promise<Result<Kept, KeepFault>> =>
  keep(c.desk, [{ kind: "project", id: c.id, data: { ...c.project.data, measuredBy: memberId }, baseRev: rev }]);

/** Promises the channels that fall to oneself: only one's own part is written, since friends keep theirs. */
export async function promiseChannels(
  library: Library,
  c: ProjectContext,
  channels: readonly Channel[],
): Promise<Result<Kept, KeepFault>> {
  const part = partOf(library, c.id, meOf(library));
  if (!part) return err({ code: "takesNoPart" });
  const { channels: _, ...rest } = part.data;
  const isAll = c.goal.data.channels.every((g) => channels.includes(g.channel));
  const data: PartData = isAll ? rest : { ...rest, channels };
  return keep(library.desk, [{ kind: "part", id: partId(c.id, part.data.memberId), data, baseRev: part.rev }]);
}

/** The channels one has promised, of those the project wants. */
export function promisedBy(library: Library, c: ProjectContext): Channel[] {
  const part = partOf(library, c.id, meOf(library));
  const wanted = [...new Set(c.goal.data.channels.map((g) => g.channel))];
  return part ? wanted.filter((ch) => promises(part.data, ch)) : [];
}
