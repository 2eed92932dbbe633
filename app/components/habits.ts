import type { Settings } from "~/core/records";

/** How somebody is used to reading: what is stored and computed stays metric and in UTC. */
export interface Habits {
  /** Clock times as 9:05 pm instead of 21:05. */
  readonly is12h: boolean;
  /** Feet, inches, miles an hour and °F beside or instead of their metric ones. */
  readonly isImperial: boolean;
}

const USUAL: Habits = { is12h: false, isImperial: false };
let habits = USUAL;

/** Everything that is written from now on is written so: said by whoever reads the library for the page, as a language would be. */
export function setHabits(settings: Pick<Settings, "clock" | "units"> | null): void {
  habits = { is12h: settings?.clock === "12h", isImperial: settings?.units === "imperial" };
}

/** How the reader of this page is used to reading. */
export const habitsNow = (): Habits => habits;
