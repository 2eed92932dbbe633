import type { NightDate } from "~/core/time";
import type { Evening } from "./blocks";
import type { LockConflict } from "./locks";
import type { SeasonTask } from "./model";
import type { SeasonQuestion } from "./question";
import type { JobKey, SeasonTables } from "./request";
import type { SeasonAnswer } from "./solve";

/** What a project still wants in a channel, and what the plan brings of it. */
export interface PlannedJob extends JobKey {
  readonly needMin: number;
  /** In expectation, clouds taken in; minutes at the target's best. */
  readonly expectedMin: number;
  /** What one more minute of it would add to the plan's worth. */
  readonly price: number;
}

/** When a project is done, over the seasons played. */
export interface FinishDates {
  readonly projectId: string;
  readonly tenth: NightDate | null;
  readonly half: NightDate | null;
  readonly ninetieth: NightDate | null;
  /** Share of seasons done by the end of each night. */
  readonly doneBy: readonly number[];
  /** Share done within the season. */
  readonly doneShare: number;
}

/** One plan for everything a person shoots. */
export interface SeasonPlan {
  readonly from: NightDate;
  readonly nights: number;
  readonly evenings: readonly Evening[];
  readonly jobs: readonly PlannedJob[];
  /** Expected minutes at their best towards all goals, weighed by priority; no plan brings more than the bound. */
  readonly value: number;
  readonly bound: number;
  readonly gap: number;
  /** Null until seasons have been played. */
  readonly odds: readonly FinishDates[] | null;
  /** The same for somebody who keeps the nights as printed, whatever comes; null until seasons have been played. */
  readonly literally: readonly FinishDates[] | null;
  readonly runs: number;
  readonly conflicts: readonly LockConflict[];
  /** What stands for a plan before there is one; a first plan, a better one, the last one, and that one with its odds. */
  readonly stage: "soon" | "first" | "better" | "settled" | "whole";
}

/** What the plan was worked out with: for asking why, and for planning on from it. */
export interface SeasonWork {
  readonly question: SeasonQuestion;
  readonly tables: SeasonTables;
  /** With clouds in its rewards. */
  readonly task: SeasonTask;
  readonly answer: SeasonAnswer;
}
