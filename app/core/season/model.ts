import type { Reward } from "./reward";

/**
 * A season to be planned: lanes (a rig on a night) are handed out to jobs (a project in a channel) in slots of equal length. All
 * yields are worth minutes (MATHS 6.2): minutes weighed by what they are worth against the place's moonless zenith.
 */
export interface SeasonTask {
  readonly slotMin: number;
  /** Runs of blocks of one project that a night may have at most. */
  readonly targetsANight: number;
  /** Slots that a block takes at least. */
  readonly minSlots: number;
  /** Minutes lost at a night's first block, at a change of target, and of filter; at most a slot each. */
  readonly lostMin: { readonly start: number; readonly target: number; readonly filter: number };
  /** What a block costs by itself, worth minutes: of two like plans the one with fewer changes. */
  readonly tick: number;
  /** Usable minutes that a block takes at least; absent = as its slots come. */
  readonly leastMin?: number;
  readonly jobs: readonly SeasonJob[];
  readonly lanes: readonly Lane[];
  /** Nights on which one of several places has to be chosen, or on which going out costs something by itself; other lanes stand alone. */
  readonly choices?: readonly NightChoice[];
}

/** The lanes that can be used together on a night, by place: one of them, or none. */
export interface NightChoice {
  readonly places: readonly {
    readonly lanes: readonly number[];
    /** What going there costs, in value, as soon as one of its lanes does anything. */
    readonly cost: number;
  }[];
}

/** What one project wants in one channel. */
export interface SeasonJob {
  /** Any number; jobs of one project have the same. */
  readonly project: number;
  /** What having worth minutes is worth, from nothing more on. */
  readonly reward: Reward;
  /** Slots that a block of it takes at least; absent = the task's. */
  readonly minSlots?: number;
  /** Usable minutes that a block of it takes at least; absent = the task's. */
  readonly leastMin?: number;
  /** Worth minutes that are left to do: no night gives it more than that; absent = any number. */
  readonly need?: number;
  /** It comes before whatever else of its project a night does. */
  readonly isAhead?: boolean;
  /** What a worth minute of it counts; absent = the steepest slope of its reward. */
  readonly priority?: number;
}

/** A rig on a night. */
export interface Lane {
  /** That it is clear, 0 to 1. */
  readonly chance: number;
  /** Worth minutes of a slot given wholly to a job when it is clear, by slot and job; 0 = not usable. */
  readonly worth: readonly (readonly number[])[];
  /** The same when it is clear, whatever forecasts say of single hours: what a need is held against; absent = `worth`. */
  readonly clear?: readonly (readonly number[])[];
  /** Usable minutes by slot and job; absent = all of each. */
  readonly minutes?: readonly ArrayLike<number>[];
  /** The kit stands already: a block takes so little; absent = as usual. */
  readonly leastSlots?: number;
  readonly leastMin?: number;
  /** How late in the season it is, as a share of the priority that a worth minute costs there: earlier is better. */
  readonly lateness?: number;
  /** What a slot costs beside its time, by slot and job, in value: poor light where every minute counts the same. */
  readonly charge?: readonly (readonly number[])[];
  /** What its owner saw planned here, and what keeping it is worth, in value. */
  readonly seen?: { readonly blocks: Programme; readonly bonus: number };
  /** What is to be done whatever else would be better; it is not changed. */
  readonly fixed?: Programme;
}

/** A job from one slot up to another, which it does not take. */
export type Block = readonly [job: number, from: number, to: number];

/** What a lane does, in order. */
export type Programme = readonly Block[];

/** A programme for every lane. */
export type Programmes = readonly Programme[];

/** A programme with what it brings in expectation. */
export interface Column {
  readonly blocks: Programme;
  /** The jobs it is for, each once. */
  readonly jobs: readonly number[];
  /** Worth minutes times the chance of a clear night, by place in `jobs`. */
  readonly yields: readonly number[];
  readonly cost: number;
}

/** Doing nothing. */
export const IDLE: Column = { blocks: [], jobs: [], yields: [], cost: 0 };
