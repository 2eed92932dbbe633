import { efficiencyOf } from "~/core/exposure";
import { accountOf, firstDarkNight, isChanceAssumed, type Place } from "~/core/night";
import { USUAL_GUST_LIMIT_KMH } from "~/core/weather";
import { judgeNight, restOfNight, weighNight, type GoingRules } from "~/core/plan";
import { drivesOf, eveningsOf } from "~/core/season";
import { USUAL_WISH_HOURS } from "~/core/records";
import { nightEvents } from "~/core/sky";
import { MINUTE_MS, nightsBetween, utcMs } from "~/core/time";
import { moonOf, type Choice } from "~/desk/sky/choice";
import { withLearntChances } from "~/desk/sky/learnt";
import type { Entity, Library } from "~/desk/records/library";
import { ownContextsOf } from "~/desk/projects/project";
import { lastNightOf } from "~/desk/log/last-night";
import { inTurns } from "~/desk/turns";
import type { SoonPlan } from "./season";
import { begunOn, seasonQuestion } from "./season-question";
import { awayAt, placesAway, planElsewhere } from "./away";
import { isAsking, nightAt, readyNight } from "./night-at";

/** Nights ahead of which forecasts are asked: */
export const NIGHTS_AHEAD = 2; // as far as the odds of an hour mean something
const BEGUN_WISH_MIN = 20; // with the kit outside

/** What the Tonight screen shows, from what is stored; worked out in turns. Whoever has the plan has readied the question. */
export async function tonightView(
  library: Library,
  { plan, previous }: SoonPlan,
  choice: Choice & { readonly place: Entity<Place> },
) {
  const turn = inTurns();
  const { place, night, today } = choice;
  const contexts = ownContextsOf(library);
  await readyNight(library, place, night, contexts, turn);
  const here = nightAt(library, plan, place, night, contexts);
  await turn();
  const { steps, tonight, sky, weather } = here;
  const lead = here.choice.kind === "go" ? here.choice.blocks[0]! : null;
  const context = lead ? contexts.find((c) => c.id === lead.projectId) : undefined;
  const leadNight = lead ? tonight.find((t) => t.id === lead.projectId) : undefined;
  const rig = (context?.rig ?? choice.rig)?.data;
  const wishHours = library.settings?.data.wishHours ?? USUAL_WISH_HOURS;
  const isTonight = night === today;
  const begun = isTonight ? begunOn(library, night) : null;
  const rules: GoingRules = {
    // Whoever is outside already needs no set-up any more, and stays for less.
    wishMin: begun ? BEGUN_WISH_MIN : wishHours * 60,
    setUpMin: begun ? 0 : (rig?.overheads.setUpMin ?? 25) + (place.data.extraSetUpMin ?? 0),
    gustLimitKmh: rig?.gustLimitKmh ?? USUAL_GUST_LIMIT_KMH,
    ...(place.data.windShare === undefined ? {} : { windShare: place.data.windShare }),
    fromMs: utcMs(isTonight ? Math.max(library.desk.now(), steps.startMs) : steps.startMs),
    isChanceAssumed: isChanceAssumed(withLearntChances(library, place).data, night),
  };
  const weighed = weighNight({ steps, choice: here.choice, projects: tonight, weather: weather.hours, rules });
  await turn();
  const ahead = nightsBetween(today, night);
  const away: Awaited<ReturnType<typeof awayAt>>[] = [];
  for (const there of ahead >= 0 && ahead <= NIGHTS_AHEAD ? placesAway(library, place) : []) {
    const leaving = { ...rules, fromMs: isTonight ? library.desk.now() : steps.startMs };
    away.push(await awayAt(library, plan, there, place, night, contexts, leaving, turn));
  }
  const overheads = rig?.overheads;
  const elsewhere = planElsewhere(library, plan, place.id, night);
  const firstMs = here.choice.kind === "go" ? here.choice.startMs : Number.MAX_SAFE_INTEGER;
  const events = nightEvents(sky);
  return {
    place: place.data,
    placeId: place.id,
    night,
    isTonight,
    isPast: ahead < 0,
    /** When the night was begun; null = nobody is outside. */
    begunMs: begun?.atMs ?? null,
    /** Forecasts are still being asked, or the season is still being planned: what is told now is not the last word. */
    isProvisional: plan.stage === "soon" || (isTonight && isAsking(weather)),
    nowMs: library.desk.now(),
    /** What last night brought, until tonight is begun. */
    lastNight: isTonight && !begun ? lastNightOf(library, today) : [],
    steps,
    tonight,
    choice: here.choice,
    evenings: here.evenings,
    /** Where the plan spends this night, where that is not here; null = here, or nowhere. */
    planElsewhere: elsewhere,
    rigNames: Object.fromEntries(contexts.map((c) => [c.rig.id, c.rig.data.name])),
    weather,
    weighed,
    away: away.map((a) => a.night),
    rules,
    /** Nobody has said how many nights are clear here. */
    isChanceAssumed: rules.isChanceAssumed ?? false,
    wishHours,
    verdict: judgeNight({
      steps,
      choice: here.choice,
      weighed,
      rules,
      // A place that nothing is heard of yet wins over none.
      away: away.flatMap((a) => (a.isHeard ? [a.night] : [])),
      look: weather.look,
      planned: { drives: drivesOf(seasonQuestion(library)), placeId: elsewhere?.placeId ?? null },
    }),
    /** The rest of the night, once it has begun or somebody has looked up; null before, after, and where the plan is elsewhere. */
    rest:
      isTonight &&
      !elsewhere &&
      steps.count > 0 &&
      (begun !== null || library.desk.now() > Math.min(firstMs, weather.look?.atMs ?? firstMs) - 1)
        ? restOfNight({
            nowMs: library.desk.now(),
            nightEndMs: utcMs(steps.startMs + steps.count * steps.stepMin * MINUTE_MS),
            weighed,
            blocks: here.choice.kind === "go" ? here.choice.blocks : [],
            before: previous
              ? eveningsOf(previous, night).flatMap((e) =>
                  e.placeId === place.id ? e.blocks.map((b) => ({ ...b, rigIds: e.rigIds })) : [],
                )
              : [],
            hasWork: tonight.length > 0,
            isBegun: begun !== null,
          })
        : null,
    events,
    darkAgain: here.isDark ? null : firstDarkNight(place.data, night, moonOf(library)),
    illuminatedFraction: sky.illuminatedFraction,
    account: lead ? accountOf(steps, lead.walk) : null,
    overheadMin:
      lead && leadNight && overheads
        ? leadNight.usableMin * (1 - efficiencyOf(lead.subSec, overheads)) + overheads.flipMin
        : 0,
    hasProjects: contexts.length > 0,
    withoutFilter: [...new Set(contexts.flatMap((c) => c.withoutFilter))],
    ofOthers: [...new Set(contexts.flatMap((c) => c.ofOthers))],
    camera: rig?.isCooled ? { workingTempC: rig.workingTempC } : null,
  };
}

/** The night as Tonight shows it. */
export type TonightViewData = Awaited<ReturnType<typeof tonightView>>;
