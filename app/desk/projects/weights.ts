import { besideSky, lightModel, underSky, USUAL_LIGHT, type ObjectLight } from "~/core/exposure";
import type { FilledPanel } from "~/core/ledger";
import type { OwnLight, Place } from "~/core/night";
import type { OwnByChannel, PanelGoal } from "~/core/plan";
import type { Reference } from "./reference";

/** A place with a rig and its filters. */
export type Kit = Pick<Reference, "place" | "rig" | "filters">;

const UNKNOWN_SUB_SEC = 300; // of a channel that is only in the log

/** By what minutes with a kit are weighed, by channel: subs as the goals say, light of the target as the project says. */
export function ownOf(
  at: Kit,
  goals: readonly (Pick<PanelGoal, "channel"> & Partial<Pick<PanelGoal, "isShort" | "subSec">>)[],
  light: ObjectLight = USUAL_LIGHT,
): OwnByChannel {
  const { skyMagPerArcsec2 } = at.place.data;
  return Object.fromEntries(
    [...new Set(goals.map((g) => g.channel))].flatMap((channel) => {
      const filter = at.filters.find((f) => f.data.channel === channel)?.data;
      if (!filter) return [];
      const subSec = goals.find((g) => g.channel === channel && !g.isShort)?.subSec ?? UNKNOWN_SUB_SEC;
      return [[channel, besideSky(lightModel({ rig: at.rig.data, filter, skyMagPerArcsec2 }, subSec), light)]];
    }),
  );
}

/** By what a project's minutes are weighed with its rig at another place. */
export function ownUnder(
  c: { readonly place: Reference["place"]; readonly own: OwnByChannel },
  there: Place,
): OwnByChannel {
  const [from, to] = [c.place.data.skyMagPerArcsec2, there.skyMagPerArcsec2];
  if (from === to) return c.own;
  return Object.fromEntries(
    Object.entries(c.own).map(([channel, own]: [string, OwnLight]) => [channel, underSky(own, from, to)]),
  );
}

/** Every hour kept is one, whoever took it, where and under whatever Moon. */
export const AS_KEPT = { bestRates: {}, hourIs: () => 1 } as const;

const MOST_OF_PANEL = 0.5;

/** Panels filled, where an hour is an hour: what covers most of a panel counts for it whole. */
export const wholePanels = (filled: readonly FilledPanel[]): readonly FilledPanel[] =>
  filled.map((f) => (f.share >= MOST_OF_PANEL ? { ...f, share: 1 } : f));
