import type { HandOverData } from "~/core/crew";

/** What the crew's page asks for. */
export type CrewIntent =
  /** To join the friend's file that was looked into. */
  | {
      readonly act: "join";
      readonly letsAheadIn: boolean;
      /** Of what it would change here, what was said yes to. */
      readonly chosen: readonly string[];
    }
  /** What is handed over, and what of it has come. */
  | {
      readonly act: "handOver";
      readonly projectId: string;
      readonly rev: string;
      readonly terms: Omit<HandOverData, "projectId">;
    };
