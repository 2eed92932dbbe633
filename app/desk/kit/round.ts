import type { Desk } from "~/desk/desk";
import type { Entity, Library } from "~/desk/records/library";
import type { Place } from "~/core/night";
import type { Rig } from "~/core/exposure";
import { betterNext, type BetterNext } from "./better";

/** The stops of the round through one's first picture, in the order of the work; at the last one it tells what is still assumed. */
export const ROUND = ["tonight", "place", "target", "frame", "hours", "plan", "sheet", "log", "assumed"] as const;
export type RoundStop = (typeof ROUND)[number];

/** Where somebody is on the round: at a stop, or asked whether they want to go. */
export type RoundAt = RoundStop | "offered";

const NAME = "round";
const LEFT = "left ";

const isRoundAt = (word: string): word is RoundAt => word === "offered" || (ROUND as readonly string[]).includes(word);

/** Where this browser's round is; null = nobody is on it. */
export function roundHere(desk: Desk): RoundAt | null {
  const noted = desk.cupboard.notes.read(NAME);
  return noted !== null && isRoundAt(noted) ? noted : null;
}

/** Offers the round once to whoever has just said where and with what they observe. */
export function offerRound(desk: Desk): void {
  if (desk.cupboard.notes.read(NAME) === null) desk.cupboard.notes.write(NAME, "offered" satisfies RoundAt);
}

/** Goes to a stop. */
export function goRound(desk: Desk, stop: RoundStop): void {
  desk.cupboard.notes.write(NAME, stop);
}

/** Leaves the round; where it was left is remembered. */
export function leaveRound(desk: Desk): void {
  const here = roundHere(desk);
  desk.cupboard.notes.write(NAME, `${LEFT}${here === null || here === "offered" ? ROUND[0] : here}`);
}

/** Takes the round up where it was left, or begins it: after its end from the first stop. */
export function takeUpRound(desk: Desk): RoundStop {
  const noted = desk.cupboard.notes.read(NAME)?.replace(LEFT, "") ?? "";
  const stop = isRoundAt(noted) && noted !== "offered" && noted !== "assumed" ? noted : ROUND[0];
  goRound(desk, stop);
  return stop;
}

/** A stop, with what of one's own it is about. */
export interface RoundView {
  readonly at: RoundAt;
  /** Path of the stop's page; null = what it needs is not there yet. */
  readonly paths: Readonly<Record<RoundStop, string | null>>;
  readonly placeName: string | null;
  readonly projectName: string | null;
  /** What is still a guess. */
  readonly assumed: readonly BetterNext[];
}

/** The round on what somebody owns: their place, and the picture they began last. */
export function roundOn(
  at: RoundAt,
  library: Library,
  { place, rig }: { readonly place: Entity<Place> | null; readonly rig: Entity<Rig> | null },
  projectId: string | null,
): RoundView {
  const project = library.projects.find((p) => p.id === projectId) ?? library.projects.at(-1);
  const of = (page: string) => (project ? `/projects/${project.id}/${page}` : null);
  return {
    at,
    paths: {
      tonight: "/",
      place: place ? `/kit/places/${place.id}` : null,
      target: project?.data.targetId ? `/targets/${encodeURIComponent(project.data.targetId)}` : "/targets",
      frame: of("frame"),
      hours: of("budget"),
      plan: of("plan"),
      sheet: project ? "/nights" : null,
      log: "/log",
      assumed: "/",
    },
    placeName: place?.data.name ?? null,
    projectName: project?.data.name ?? null,
    assumed: place ? betterNext(library, place, rig) : [],
  };
}
