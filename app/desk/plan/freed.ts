import { bestRate, targetNight, type NightSteps, type Place } from "~/core/night";
import { freedHours, type FreedHours, type WishOffer } from "~/core/plan";
import { nightEvents } from "~/core/sky";
import { MINUTE_MS, utcMs, type NightDate } from "~/core/time";
import type { NightCalibration } from "./calibration";
import type { Entity, Library } from "~/desk/records/library";
import { nightOver } from "~/desk/sky/nights";
import type { EveningSheet } from "./sheet";
import { ownWishes, wishedProject } from "./wishes";

const MOST_WISHES = 40; // looked at for one night

/** What a night has for a wish with a rig: when, and what its minutes are worth against its best here. */
async function offerOf(
  library: Library,
  targetId: string,
  at: { readonly place: Entity<Place>; readonly night: NightDate; readonly rigId: string },
): Promise<WishOffer | null> {
  const rig = library.rigs.find((r) => r.id === at.rigId) ?? null;
  const wished = await wishedProject(library, targetId, { place: at.place, rig });
  const [want] = wished?.project.wants ?? [];
  if (!wished || !want) return null;
  const { project, name } = wished;
  const over = nightOver(library.desk, at.place.data, at.night, project.moon);
  const { walk, windows } = targetNight(over, project.target, want.channel, want.own);
  const best = bestRate(at.place.data, project.target, want.channel, want.own);
  const { startMs, stepMin } = over.steps;
  const step = (ms: number) => (ms - startMs) / MINUTE_MS / stepMin;
  return {
    targetId,
    name,
    channel: want.channel,
    windows,
    worthMin: (from, to) =>
      walk.worth.slice(Math.ceil(step(from)), Math.floor(step(to))).reduce((sum, w) => sum + (w / best) * stepMin, 0),
  };
}

/** The dark hours of a sheet whose goals are met, and what they are good for: the best of one's wishes, then the darks that are due. */
export async function freedOf(
  library: Library,
  chosen: EveningSheet,
  at: {
    readonly place: Entity<Place>;
    readonly night: NightDate;
    readonly steps: NightSteps;
    readonly calibration: NightCalibration;
  },
): Promise<FreedHours | null> {
  const rig = chosen.contexts[0]!.rig;
  const { astronomical } = nightEvents(nightOver(library.desk, at.place.data, at.night, chosen.contexts[0]!.moon).sky);
  const darkEndMs =
    (astronomical.kind === "passes" ? astronomical.upMs : null) ??
    utcMs(at.steps.startMs + at.steps.count * at.steps.stepMin * MINUTE_MS);
  const bare = { darkEndMs, wishes: [], darks: [], slewMin: rig.data.overheads.panelChangeSec / 60 };
  if (!freedHours(chosen.sheet, bare)) return null;
  const wishes = ownWishes(library).slice(0, MOST_WISHES);
  const offers = await Promise.all(wishes.map((w) => offerOf(library, w.data.targetId, { ...at, rigId: rig.id })));
  const darks = at.calibration.needs.flatMap((n) =>
    n.kind === "dark" && n.state !== "serves" ? [{ count: n.want - n.have, exposureSec: n.exposureSec ?? 0 }] : [],
  );
  return freedHours(chosen.sheet, { ...bare, wishes: offers.flatMap((o) => o ?? []), darks });
}
