import { slot, type Desk } from "~/desk/desk";
import { ownContextsOf } from "~/desk/projects/project";
import { libraryHere } from "~/desk/records/open-library";
import { askAll } from "~/desk/sky/weather";

/** Services that are being asked now: what is planned meanwhile is provisional. */
const underWay = slot((): Set<Promise<unknown>> => new Set());

/** Plans are provisional as long as something is being asked. */
export async function whileAsking<T>(desk: Desk, work: Promise<T>): Promise<T> {
  const asking = desk.at(underWay);
  asking.add(work);
  try {
    return await work;
  } finally {
    asking.delete(work);
  }
}

/** Resolves when no service is being asked any more. */
export async function whenAsked(desk: Desk): Promise<void> {
  const asking = desk.at(underWay);
  while (asking.size > 0) await Promise.allSettled(asking);
}

/** Asks the forecasts of all places of the season; whether there was anything new. */
export function askForecasts(desk: Desk, signal: AbortSignal): Promise<boolean> {
  const ask = async () => {
    const before = await libraryHere(desk);
    const places = [...new Map(ownContextsOf(before).map((c) => [c.place.id, c.place])).values()];
    await Promise.all(places.map((place) => askAll(before, place, signal)));
    return (await libraryHere(desk)).forecasts !== before.forecasts;
  };
  return whileAsking(desk, ask());
}

/** Whether forecasts are being asked, so that a plan is not the last word. */
export const isProvisional = (desk: Desk): boolean => desk.at(underWay).size > 0;
