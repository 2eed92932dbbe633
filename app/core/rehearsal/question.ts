import type { CatalogEntry } from "~/core/catalog";
import { objectLight, type Filter, type Rig } from "~/core/exposure";
import type { CloudChoice, NightEvent } from "~/core/live";
import type { CullReason } from "~/core/ledger";
import type { Block, PanelSky, RunSheet } from "~/core/night";
import type { Command, FrameSubject, HourForecast, TakenExposure, TrueWeather } from "~/core/observatory";
import type { Equatorial } from "~/core/sky";
import type { NightDate, UtcMs } from "~/core/time";

/** Where a panel lies and how the picture is turned. */
export interface PanelPointing {
  readonly pointing: Equatorial<"icrs">;
  readonly positionAngleDeg: number;
}

/** What a rig would do on a night. */
export interface RehearsalRig {
  readonly rigId: string;
  readonly rig: Rig;
  /** By name. */
  readonly filters: Readonly<Record<string, Filter>>;
  readonly sheet: Pick<RunSheet, "lines">;
  /** Of projects, by id. */
  readonly names: Readonly<Record<string, string>>;
  readonly subjects: Readonly<Record<string, FrameSubject | null>>;
  /** By `panelKey`. */
  readonly pointings: Readonly<Record<string, PanelPointing>>;
  /** By `skyKey`. */
  readonly skies: Readonly<Record<string, PanelSky>>;
  /** Minutes of darks still wanted. */
  readonly darksMin: number;
  /** °C of air by which focus is lost. */
  readonly focusPerC: number;
}

/** A night to be rehearsed. Plain data: it goes to a worker as it is. */
export interface RehearsalNight {
  readonly night: NightDate;
  readonly memberId: string;
  readonly site: { readonly latitudeDeg: number; readonly longitudeDeg: number };
  /** V, without Moon. */
  readonly zenithSkyMag: number;
  readonly hours: readonly HourForecast[];
  readonly rigs: readonly RehearsalRig[];
  /** What the night turns out to be, where that is prepared; null = drawn from the forecast. */
  readonly weather: TrueWeather | null;
}

/** What a picture shows of an object, as frames of it are made. */
export const subjectOf = (entry: CatalogEntry): FrameSubject | null =>
  entry.majorArcmin === null
    ? null
    : {
        centre: entry.at,
        majorArcmin: entry.majorArcmin,
        minorArcmin: entry.minorArcmin ?? entry.majorArcmin,
        positionAngleDeg: entry.positionAngleDeg ?? 0,
        light: objectLight(entry),
      };

/** The name of a panel among the pointings of a rig. */
export const panelKey = ({ projectId, panel }: Pick<Block, "projectId" | "panel">): string => `${projectId} ${panel}`;
/** The name of a panel's sky in a channel. */
export const skyKey = ({ projectId, panel, channel }: Pick<Block, "projectId" | "panel" | "channel">): string =>
  `${projectId} ${panel} ${channel}`;

/** What somebody may do where a decision is due. */
export const WAYS = [
  "wait", "darks", "packUp", "sleep", "focusNow", "flipNow", "flipLater", "waitForWind", "heaterOn", "dry", "coolerOff", "goOn",
] as const; // prettier-ignore
export type WayKey = (typeof WAYS)[number];

/** One way to go on, with what it can be expected to bring and what it takes. */
export interface Way {
  readonly does: WayKey;
  readonly untilMs: UtcMs | null;
  /** Of a way under cloud, as beside the mount; null of others. */
  readonly cloud: CloudChoice | null;
  /** Minutes of the clock that it takes at once. */
  readonly takesMin: number;
}

/** What has come up. */
export type Trouble =
  | { readonly about: "cloud" }
  | { readonly about: "focus"; readonly byC: number }
  | { readonly about: "flip"; readonly stopsMs: UtcMs }
  | { readonly about: "wind"; readonly gustKmh: number; readonly limitKmh: number }
  | { readonly about: "dew"; readonly spreadC: number }
  | { readonly about: "battery"; readonly emptyMs: UtcMs };

/** A decision that is due. */
export interface Decision {
  readonly atMs: UtcMs;
  /** Of which rig. */
  readonly rig: number;
  readonly trouble: Trouble;
  /** The app's advice first. */
  readonly ways: readonly Way[];
}

/** A sub that was taken in a rehearsal. */
export interface RehearsedSub {
  readonly rig: number;
  readonly of: Block;
  readonly exposure: TakenExposure;
  /** Why it is lost; null = kept. */
  readonly lostTo: CullReason | null;
}

/** What a night brought. */
export interface NightBrought {
  readonly keptMin: number;
  readonly lostMin: number;
  readonly darksMin: number;
  /** From the first line of the sheet until somebody went to bed. */
  readonly upMin: number;
}

/** A night as far as it was played. */
export interface Played {
  readonly decided: readonly { readonly decision: Decision; readonly does: WayKey }[];
  /** What is to be decided next; null = the night is over. */
  readonly due: Decision | null;
  readonly subs: readonly RehearsedSub[];
  /** What was done, as presses beside the mount would tell it. */
  readonly events: readonly NightEvent[];
  /** What each rig was told to do, in order. */
  readonly commands: readonly (readonly Command[])[];
  readonly untilMs: UtcMs;
  readonly brought: NightBrought;
}
