import { nightOutcomes, skyOutcomes } from "~/core/ledger";
import type { Place } from "~/core/night";
import { learnChances, type LearntChance, type Outcome } from "~/core/weather";
import type { Entity, Library } from "~/desk/records/library";
import { topic } from "~/desk/memo";

const NONE: Library["contributions"] = [];
const chances = topic<LearntChance[]>(200);
const outcomes = topic<Outcome[]>(200);
const places = topic<Entity<Place>>(200);

const logAt = (library: Library, placeId: string) => library.log.byPlace.get(placeId) ?? NONE;

/** A place as its owner entered it, also when what the log says has been put into it: else the log would count twice. */
const asEntered = (library: Library, place: Entity<Place>): Entity<Place> =>
  library.places.find((p) => p.id === place.id) ?? place;

/** Chances of clear nights by month at a place: its owner's guess and what the log says. */
export const learntChances = (library: Library, known: Entity<Place>): LearntChance[] => {
  const place = asEntered(library, known);
  const log = logAt(library, place.id);
  return library.desk.memo(chances, place.id, [place, library.looks, log], () =>
    learnChances(
      place.data.clearChance,
      nightOutcomes(
        { ...place.data, id: place.id },
        library.looks.map((l) => l.data),
        log.map((c) => c.data),
      ),
    ),
  );
};

/** A place with its chances of clear nights as learnt from the log. */
export const withLearntChances = (library: Library, known: Entity<Place>): Entity<Place> => {
  const place = asEntered(library, known);
  const learnt = learntChances(library, place);
  return library.desk.memo(places, place.id, [place, learnt], () => ({
    ...place,
    data: { ...place.data, clearChance: learnt.map((c) => c.chance) },
  }));
};

/** What the sky of a place truly was, hour by hour, as far as anybody wrote down. */
export const outcomesAt = (library: Library, placeId: string): readonly Outcome[] => {
  const log = logAt(library, placeId);
  return library.desk.memo(outcomes, placeId, [library.looks, log], () =>
    skyOutcomes(
      placeId,
      library.looks.map((l) => l.data),
      log.map((c) => c.data),
    ),
  );
};
