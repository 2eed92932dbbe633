import type { Channel, Overheads } from "~/core/exposure";
import type { MoonWishes, OwnLight, Place, PlaceNight } from "~/core/night";
import type { Equatorial } from "~/core/sky";
import type { NightDate, UtcInterval, UtcMs } from "~/core/time";
import type { CycleStep, TurnStep } from "./rules";
import type { SeasonTask } from "./model";

/** How hours count towards the goals of a project: every hour kept as one, or by light, as hours at the target's best. */
export type HoursCount = "kept" | "light";

/** What one project wants in one channel and sub length, in minutes of exposure: of any that is kept, or at the target's best. */
export interface ChannelWant {
  readonly channel: Channel;
  readonly goalMin: number;
  readonly remainingMin: number;
  readonly subSec: number;
  /** Worth of a minute at the target's best, over the place's moonless zenith; absent = the zenith's own. */
  readonly bestRate?: number;
  /** What the rig sees beside the sky; absent = the sky alone is weighed. */
  readonly own?: OwnLight;
  /** The only place it is shot at; absent = wherever the rig stands. */
  readonly onlyAt?: string;
  /** A short set for what burns out in the long subs: it comes first of its picture in a night, and its hours count as kept. */
  readonly isShort?: boolean;
}

/** A project as it takes part in a season: with its owner's place and rig. */
export interface SeasonProject {
  readonly id: string;
  /** What a minute of it counts against one of the others. */
  readonly priority: number;
  readonly counts: HoursCount;
  /** Panels of its frame: a night goes to each of them in turn, or to one; absent = one. */
  readonly pointings?: number;
  readonly target: Equatorial<"icrs">;
  readonly placeId: string;
  readonly rigId: string;
  readonly moon: MoonWishes;
  readonly wants: readonly ChannelWant[];
  /** The last night that counts. */
  readonly deadline?: NightDate;
  /** Its own shortest stretch; absent = the person's. */
  readonly leastMin?: number;
  /** Channels shot in turn. */
  readonly cycle?: readonly CycleStep[];
  /** Panels in turn, so many subs each; absent = once a night each, or there is one. */
  readonly round?: number;
  /** Done before anything else of it is begun. */
  readonly first?: Channel;
  /** So many clear nights in a row, or none. */
  readonly clearRun?: number;
  /** For laying evenings out by the clock; absent = they stay as the slots come. */
  readonly shot?: ShotPlan;
  /** Other rigs that shoot it as well, like its own. */
  readonly alsoRigs?: readonly string[];
}

/** The odds of an hour that begins at an instant. */
export interface HourOdds {
  readonly atMs: UtcMs;
  readonly odds: number;
}

/** A rig as the season takes it. */
export interface SeasonRig {
  readonly id: string;
  readonly overheads: Overheads;
  /** Changes sides at the meridian, which takes its time. */
  readonly flips?: boolean;
  /** Has more than one filter; absent = it has. */
  readonly changesFilters?: boolean;
}

/** What the sheet of an evening needs of a project: its panels, what is left of each, and in what order they are shot. */
export interface ShotPlan {
  readonly panels: readonly { readonly number: number; readonly centre: Equatorial<"icrs"> }[];
  readonly needs: readonly {
    readonly panel: string;
    readonly channel: Channel;
    readonly goalMin: number;
    readonly remainingMin: number;
    readonly subSec: number;
  }[];
  /** By what its minutes are weighed at home. */
  readonly own: Readonly<Partial<Record<Channel, OwnLight>>>;
  readonly school: "allPanelsEveryNight" | "panelAfterPanel" | "sinkingFirst";
  readonly roundSubs?: number;
}

/** A person's season: what is to be shot, with what, from where, under which rules. */
export interface SeasonRequest {
  readonly from: NightDate;
  readonly nights: number;
  readonly places: readonly { readonly id: string; readonly place: Place }[];
  readonly rigs: readonly SeasonRig[];
  readonly projects: readonly SeasonProject[];
  /** Chance that a night is clear at a place, 0 to 1. */
  readonly chanceOf: (placeId: string, night: NightDate) => number;
  /** The odds by the hour, where forecasts reach; null = only the chance of the night is known. */
  readonly hoursOf?: (placeId: string, night: NightDate) => readonly HourOdds[] | null;
  /** Whether the person can be out that night. */
  readonly isFree: (night: NightDate) => boolean;
  /** Whether a project may be shot that night; absent = any. */
  readonly mayShoot?: (projectId: string, placeId: string, night: NightDate, channels: readonly Channel[]) => boolean;
  /** Share of a project's clear nights that count, for those that want several in a row; 0 = that night waits. */
  readonly runShare?: (project: SeasonProject, placeId: string, night: NightDate) => number;
  /** Where the rigs of a place stand on a night; absent = at home. */
  readonly standsAt?: (placeId: string, night: NightDate) => string;
  /** Places that the rigs of home could be taken to on any night: another lane each; the caller sees to it that one is used. */
  readonly drives?: readonly string[];
  /** The part of a night that counts; null = all of it. */
  readonly within?: (placeId: string, night: NightDate) => Partial<UtcInterval> | null;
  /** Hours that a night may take at most. */
  readonly mostHours?: number;
  /** One rig at a time: the rigs of a place share its night. */
  readonly isOneRig?: boolean;
  readonly targetsANight: number;
  readonly minBlockMin: number;
  /** A night over a place; absent = made anew. */
  readonly nightOver?: (placeId: string, night: NightDate, moon: MoonWishes) => PlaceNight;
}

/** A lane as people know it. */
export interface SeasonLane {
  readonly night: NightDate;
  readonly placeId: string;
  /** The rigs that share it: normally one. */
  readonly rigIds: readonly string[];
  /** Start of its first slot. */
  readonly startMs: UtcMs;
  /** Worth of a slot by slot and job when it is clear, whatever forecasts say. */
  readonly worth: readonly (readonly number[])[];
  /** By slot and job: the minutes of it that are usable, and from and to which minute of it. */
  readonly usableMin: readonly Uint8Array[];
  readonly fromMin: readonly Uint8Array[];
  readonly toMin: readonly Uint8Array[];
}

/** A job as people know it. */
export interface JobKey {
  readonly projectId: string;
  readonly channel: Channel;
  readonly subSec: number;
  /** Channels shot in turn, of which `channel` is the first; absent = that channel by itself. */
  readonly turn?: readonly TurnStep[];
  /** The short set of the channel. */
  readonly isShort?: boolean;
}

/** A season as numbers, and what the numbers stand for. */
export interface SeasonTables {
  readonly task: SeasonTask;
  readonly lanes: readonly SeasonLane[];
  readonly jobs: readonly (JobKey & { readonly needMin: number; readonly efficiency: number })[];
}
