import {
  impossibles,
  strangerIn,
  type ContributionData,
  type ExposureFacts,
  type Impossible,
  type Mismatch,
} from "~/core/ledger";
import { placeSky } from "~/core/night";
import { nightEvents } from "~/core/sky";
import { DAY_MS, MINUTE_MS, type NightDate } from "~/core/time";
import type { Library } from "~/desk/records/library";

/** Entries that cannot be for one reason, to be asked about once. */
export interface DoubtGroup {
  /** The same for the same entries. */
  readonly key: string;
  readonly why: Impossible;
  readonly projectName: string;
  readonly rigName: string;
  readonly night: string;
  readonly count: number;
  /** Whether somebody said that they are right all the same. */
  readonly isSure: boolean;
}

/** A light that was placed, with what its file says. */
export interface PlacedLight {
  readonly data: ContributionData;
  readonly facts: ExposureFacts;
  readonly mismatches: readonly Mismatch[];
}

/** From sunset to sunrise at a place, minutes; a whole day where the Sun does not come back, or the place is not known. */
function nightMinutes(library: Library, placeId: string, night: NightDate): number {
  const place = library.places.find((p) => p.id === placeId)?.data;
  const { horizon } = place ? nightEvents(placeSky(place, night)) : { horizon: null };
  return horizon?.kind === "passes" && horizon.downMs !== null && horizon.upMs !== null
    ? (horizon.upMs - horizon.downMs) / MINUTE_MS
    : DAY_MS / MINUTE_MS;
}

/** Which of some new entries cannot be, held against the log. */
export function doubtsAbout(library: Library, entries: readonly ContributionData[]): readonly (Impossible | null)[] {
  const begun = new Map<string, string>(library.projects.map((p) => [p.id, p.data.startedOn]));
  return impossibles(entries, {
    startedOn: (projectId) => begun.get(projectId) ?? null,
    nightMin: (placeId, night) => nightMinutes(library, placeId, night),
    known: (rigId, night) => (library.log.byNight.get(night) ?? []).map((c) => c.data).filter((d) => d.rigId === rigId),
  });
}

/** Which lights of a drop cannot be, and what is to be asked of them; `sure` = the groups that somebody said are right. */
export function doubtsOf(
  library: Library,
  lights: readonly PlacedLight[],
  sure: readonly string[],
): { readonly groups: readonly DoubtGroup[]; readonly isLeftOut: (light: PlacedLight) => boolean } {
  const strange = lights.map(({ facts, mismatches }) => strangerIn(facts, mismatches));
  const others = lights.filter((_, i) => strange[i] === null);
  const found = doubtsAbout(
    library,
    others.map((l) => l.data),
  );
  const whyOf = new Map<PlacedLight, Impossible | null>(lights.map((l, i) => [l, strange[i] ?? null]));
  others.forEach((l, i) => whyOf.set(l, found[i] ?? null));
  const keyOf = ({ data }: PlacedLight, why: Impossible) =>
    [why.code, data.projectId, data.rigId, data.night].join("|");
  const groups = new Map<string, DoubtGroup>();
  const left = new Set<PlacedLight>();
  for (const [light, why] of whyOf) {
    if (!why) continue;
    const key = keyOf(light, why);
    const isSure = sure.includes(key);
    if (!isSure) left.add(light);
    const { projectId, rigId, night } = light.data;
    groups.set(key, {
      key,
      why,
      projectName: library.projects.find((p) => p.id === projectId)?.data.name ?? "a project",
      rigName: library.rigs.find((r) => r.id === rigId)?.data.name ?? "a rig",
      night,
      count: (groups.get(key)?.count ?? 0) + 1,
      isSure,
    });
  }
  return { groups: [...groups.values()], isLeftOut: (light) => left.has(light) };
}
