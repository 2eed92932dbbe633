import type { HandOverData } from "~/core/crew";
import type { Channel } from "~/core/exposure";
import type { SharingRules } from "~/core/plan";
import type { HoursCount } from "~/core/season";

/** What the crew's page asks for. */
export type CrewIntent =
  /** To join the friend's file that was looked into. */
  | {
      readonly act: "join";
      /** By which the file was looked into. */
      readonly handle: string;
      readonly letsAheadIn: boolean;
      /** Of what it would change here, what was said yes to. */
      readonly chosen: readonly string[];
    }
  /** Who shoots what. */
  | { readonly act: "sharing"; readonly projectId: string; readonly rev: string; readonly rules: SharingRules }
  /** By whose place and rig hours are measured. */
  /** How hours count. */
  | { readonly act: "hours"; readonly projectId: string; readonly rev: string; readonly hours: HoursCount }
  | { readonly act: "measure"; readonly projectId: string; readonly rev: string; readonly memberId: string }
  /** Tells the others one's free evenings and the places one drives to, or takes it back. */
  | { readonly act: "evenings"; readonly projectId: string; readonly tells: boolean }
  /** Channels that one promises. */
  | { readonly act: "promise"; readonly projectId: string; readonly channels: readonly Channel[] }
  /** What is handed over, and what of it has come. */
  | {
      readonly act: "handOver";
      readonly projectId: string;
      readonly rev: string;
      readonly terms: Omit<HandOverData, "projectId">;
    };
