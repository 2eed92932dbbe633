import { nightOutcomes } from "~/core/ledger";
import { type Place } from "~/core/night";
import { learnChances, type LearntChance } from "~/core/weather";
import type { Entity, Library } from "~/storage/library";

/** Chances of clear nights by month at a place: its owner's guess and what the log says. */
export const learntChances = (library: Library, place: Entity<Place>): LearntChance[] =>
  learnChances(
    place.data.clearChance,
    nightOutcomes(
      { id: place.id, timeZone: place.data.timeZone },
      library.looks.map((l) => l.data),
      library.contributions.map((c) => c.data),
    ),
  );

/** A place with its chances of clear nights as learnt from the log. */
export const withLearntChances = (library: Library, place: Entity<Place>): Entity<Place> => ({
  ...place,
  data: { ...place.data, clearChance: learntChances(library, place).map((c) => c.chance) },
});
