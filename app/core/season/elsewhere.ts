import type { Place } from "~/core/night";
import type { NightDate, UtcInterval } from "~/core/time";
import type { Programme } from "./model";
import { bestColumn } from "./night";
import { scratchFor } from "./night-scratch";
import { shortFirst } from "./short-first";
import { nightTable } from "./table";
import { eveningsFrom, keyOfJob } from "./evening";
import type { Evening } from "./blocks";
import { pricesOf } from "./before";
import type { SeasonPlan } from "./season-plan";
import { requestOf, type HourOdds, type NightStock, type SeasonQuestion } from "./question";
import { seasonTables } from "./tables";

/**
 * What the rigs would do on a night that the plan has no lane for: another place, a night gone by, one beyond the season. By the
 * prices of the plan, so that it goes for what is missing most.
 */
export function eveningsElsewhere(
  question: SeasonQuestion,
  plan: SeasonPlan,
  at: {
    readonly id: string;
    readonly place: Place;
    readonly night: NightDate;
    readonly chance: number;
    readonly hours: readonly HourOdds[] | null;
    readonly within: UtcInterval | null;
  },
  stock: NightStock = new Map(),
): Evening[] {
  const moved: SeasonQuestion = {
    ...question,
    from: at.night,
    nights: 1,
    fromMs: null,
    places: [
      {
        id: at.id,
        place: at.place,
        chances: [at.chance],
        hours: at.hours ? { [at.night]: at.hours } : {},
        within: at.within ? { [at.night]: at.within } : {},
      },
    ],
    projects: question.projects.map(({ deadline: _, ...p }) => ({ ...p, placeId: at.id })),
    rules: { ...question.rules, busyWeekdays: [], drives: [] },
    locks: [],
    trips: [],
  };
  const tables = seasonTables(requestOf(moved, [], stock));
  const { task, jobs } = tables;
  const prices = pricesOf(plan, jobs.map(keyOfJob), task);
  const lanes = task.lanes.map((lane) => nightTable(task, lane));
  const scratch = scratchFor(task, lanes);
  const programmes = lanes.map(
    (lane): Programme => shortFirst(task, lane, bestColumn(task, lane, prices, scratch)).blocks,
  );
  return eveningsFrom(moved, tables, [])(programmes);
}
