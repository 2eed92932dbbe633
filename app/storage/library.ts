import type { Filter, Rig } from "~/core/exposure";
import type { Heads, RecordKind, StoredRecord } from "~/core/crew";
import type { CalibrationData, ContributionData, LookData } from "~/core/ledger";
import type { Place } from "~/core/night";
import type { ForecastData } from "~/core/weather";
import type { FrameData, GoalData, ProjectData } from "~/core/plan";
import type { OwnTarget } from "~/core/catalog";

/** Who one is, and what is chosen when a link does not say. */
export interface Settings {
  readonly memberId: string;
  readonly placeId: string;
  readonly rigId: string;
  readonly lastBackupMs: number | null;
  /** Usable hours that make going out worth while; absent = 2. */
  readonly wishHours?: number;
}

/** Something a person owns, as screens use it. */
export interface Entity<D> {
  readonly id: string;
  readonly rev: string;
  readonly author: string;
  readonly data: D;
  /** Versions written at the same time elsewhere, latest first; normally none. */
  readonly copies: readonly StoredRecord<D>[];
}

/** A stored thing that does not decode; kept as it is. */
export interface Quarantined {
  readonly key: string;
  readonly reason: string;
  readonly raw: unknown;
}

/** All a person owns. */
export interface Library {
  readonly places: readonly Entity<Place>[];
  readonly rigs: readonly Entity<Rig>[];
  readonly filters: readonly Entity<Filter>[];
  readonly projects: readonly Entity<ProjectData>[];
  readonly frames: readonly Entity<FrameData>[];
  readonly goals: readonly Entity<GoalData>[];
  readonly contributions: readonly Entity<ContributionData>[];
  readonly calibrations: readonly Entity<CalibrationData>[];
  readonly members: readonly Entity<{ readonly name: string }>[];
  readonly forecasts: readonly Entity<ForecastData>[];
  readonly looks: readonly Entity<LookData>[];
  readonly ownTargets: readonly Entity<OwnTarget>[];
  readonly settings: Entity<Settings> | null;
  readonly quarantine: readonly Quarantined[];
  /** False when the browser refuses to store: all is gone when the tab closes. */
  readonly isLasting: boolean;
}

/** Sorts stored records into a library; tombstones drop out. */
export function libraryOf(
  store: ReadonlyMap<string, Heads>,
  quarantine: readonly Quarantined[],
  isLasting: boolean,
): Library {
  const of = <D>(kind: RecordKind): Entity<D>[] =>
    [...store.values()]
      .filter(([winner]) => winner.kind === kind && winner.deletedAt === undefined)
      .map(([winner, ...rest]) => ({
        id: winner.id,
        rev: winner.rev,
        author: winner.author,
        data: winner.data as D,
        copies: rest.filter((r) => r.deletedAt === undefined) as StoredRecord<D>[],
      }));
  const named = <D extends { readonly name: string }>(kind: RecordKind) =>
    of<D>(kind).sort((a, b) => a.data.name.localeCompare(b.data.name));
  return {
    places: named("place"),
    rigs: named("rig"),
    filters: named("filter"),
    projects: named("project"),
    frames: of("frame"),
    goals: of("goal"),
    contributions: of("contribution"),
    calibrations: of("calibration"),
    members: named("member"),
    forecasts: of("forecast"),
    looks: of("look"),
    ownTargets: named("target"),
    settings: of<Settings>("settings")[0] ?? null,
    quarantine,
    isLasting,
  };
}
