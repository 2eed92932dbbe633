import { efficiencyOf, equivalentHours } from "~/core/exposure";
import {
  accountOf,
  firstDarkNight,
  isChanceAssumed,
  isEverDark,
  targetNight,
  USUAL_MOON,
  type NightSteps,
  type Place,
} from "~/core/night";
import { USUAL_GUST_LIMIT_KMH } from "~/core/weather";
import {
  chooseTonight,
  hoursOf,
  judgeNight,
  projectTonight,
  reasonsOf,
  restOfNight,
  weighNight,
  type AwayNight,
  type GoingRules,
  type TonightChoice,
  type TonightProject,
} from "~/core/plan";
import {
  drivesOf,
  eveningsElsewhere,
  eveningsOf,
  type Evening,
  type NightStock,
  type PlannedBlock,
  type SeasonPlan,
} from "~/core/season";
import { USUAL_WISH_HOURS } from "~/core/records";
import { nightEvents, type NightSky } from "~/core/sky";
import { MINUTE_MS, addMs, nightsBetween, utcMs, type NightDate } from "~/core/time";
import { moonOf, type Choice } from "~/desk/sky/choice";
import { withLearntChances } from "~/desk/sky/learnt";
import type { Entity, Library } from "~/desk/records/library";
import { ownContextsOf, ownUnder, type ProjectContext } from "~/desk/projects/project";
import { nightOver } from "~/desk/sky/nights";
import { slot } from "~/desk/desk";
import { lastNightOf } from "~/desk/log/last-night";
import { topic } from "~/desk/memo";
import { inTurns } from "~/desk/turns";
import type { SoonPlan } from "./season";
import { begunOn, forecastOf, seasonQuestion } from "./season-question";
import { weatherKept, type Weather } from "~/desk/sky/weather";

/** Nights ahead of which forecasts are asked: */
export const NIGHTS_AHEAD = 2; // as far as the odds of an hour mean something
const BEGUN_WISH_MIN = 20; // with the kit outside
const FARTHEST_MIN = 240; // nobody drives longer for one night

const projectNights = topic<TonightProject | null>(400);
const stock = slot((): NightStock => new Map());

/** What the rigs do on a night at a place: as the plan has it, or, where it has nothing to say, as it would go about it. */
function eveningsAt(
  library: Library,
  plan: SeasonPlan,
  place: Entity<Place>,
  night: NightDate,
  chance: number,
): readonly Evening[] {
  const question = seasonQuestion(library);
  const planned = eveningsOf(plan, night).filter((e) => e.placeId === place.id && e.closed !== "elsewhere");
  if (planned.length > 0 || question.projects.length === 0) return planned;
  const said = forecastOf(library, place, night);
  return eveningsElsewhere(
    question,
    plan,
    { id: place.id, place: place.data, night, chance, hours: said?.hours ?? null, within: said?.within ?? null },
    library.desk.at(stock),
  );
}

/** Everything about a night that depends on the place: its sky, its targets, its weather, and what the plan has for it. */
export function nightAt(
  library: Library,
  plan: SeasonPlan,
  place: Entity<Place>,
  night: NightDate,
  contexts: readonly ProjectContext[] = ownContextsOf(library),
): {
  readonly sky: NightSky;
  readonly steps: NightSteps;
  /** Whether it gets dark enough at all, as its owner takes twilight. */
  readonly isDark: boolean;
  readonly evenings: readonly Evening[];
  readonly tonight: readonly (TonightProject & { readonly name: string })[];
  readonly choice: TonightChoice;
  readonly weather: ReturnType<typeof weatherKept>;
} {
  const { sky, steps } = nightOver(library.desk, place.data, night, USUAL_MOON);
  const isDark = isEverDark(nightOver(library.desk, place.data, night, moonOf(library)));
  const weather = weatherKept(library, place, night, hoursOf(steps));
  const worth = (e: Evening) => e.blocks.reduce((sum, b) => sum + b.countsMin, 0);
  const evenings = [...eveningsAt(library, plan, place, night, weather.climatology)].sort(
    (a, b) => worth(b) - worth(a),
  );
  const blocks = evenings.flatMap((e) => e.blocks);
  const tonight = contexts.flatMap((c) => {
    const at = nightOver(library.desk, place.data, night, c.moon);
    const planned = blocks.filter((b) => b.projectId === c.id).map((b) => b.channel);
    const t = library.desk.memo(
      projectNights,
      `${c.id} ${place.id} ${night} ${planned.join()}`,
      [at, c.layout, c.needs, c.own],
      () =>
        projectTonight(
          at,
          { id: c.id, target: c.layout.centre, needs: c.needs, own: ownUnder(c, place.data) },
          planned,
        ),
    );
    return t ? [{ ...t, name: c.project.data.name }] : [];
  });
  const walkOf = (block: PlannedBlock) => {
    const c = contexts.find((x) => x.id === block.projectId);
    return c
      ? targetNight(
          nightOver(library.desk, place.data, night, c.moon),
          c.layout.centre,
          block.channel,
          ownUnder(c, place.data)[block.channel],
        ).walk
      : null;
  };
  return {
    sky,
    steps,
    isDark,
    evenings,
    tonight,
    choice: chooseTonight(evenings, { steps, isDark, projects: tonight, walkOf }),
    weather,
  };
}

/** Whether some service has not answered yet. */
const isAsking = ({ sources }: Pick<Weather, "sources">): boolean => sources.some((s) => s.state === "asking");

/** Works out in turns what projects get out of a night at a place, so that `nightAt` is quick. */
async function readyNight(
  library: Library,
  place: Entity<Place>,
  night: NightDate,
  contexts: readonly ProjectContext[],
  turn: () => Promise<void>,
): Promise<void> {
  for (const c of contexts) {
    const own = ownUnder(c, place.data);
    for (const channel of new Set(c.needs.map((n) => n.channel))) {
      targetNight(nightOver(library.desk, place.data, night, c.moon), c.layout.centre, channel, own[channel]);
      await turn();
    }
  }
}

/** The place one could drive to, weighed with what is left of the night after the drive. */
async function awayAt(
  library: Library,
  plan: SeasonPlan,
  there: Entity<Place>,
  home: Entity<Place>,
  night: NightDate,
  contexts: readonly ProjectContext[],
  rules: GoingRules,
  turn: () => Promise<void>,
): Promise<{ readonly night: AwayNight; readonly isHeard: boolean }> {
  await readyNight(library, there, night, contexts, turn);
  const travelMin = there.data.travelMin ?? 0;
  const setUpMin = rules.setUpMin - (home.data.extraSetUpMin ?? 0) + (there.data.extraSetUpMin ?? 0);
  const { steps, tonight, choice, weather } = nightAt(library, plan, there, night, contexts);
  await turn();
  const thereRules: GoingRules = {
    wishMin: rules.wishMin,
    setUpMin,
    gustLimitKmh: rules.gustLimitKmh,
    ...(there.data.windShare === undefined ? {} : { windShare: there.data.windShare }),
    fromMs: addMs(rules.fromMs, (travelMin + setUpMin) * MINUTE_MS),
  };
  const weighed = weighNight({ steps, choice, projects: tonight, weather: weather.hours, rules: thereRules });
  await turn();
  // What is shot first there says by what an hour is compared.
  const block = choice.kind === "go" ? choice.blocks[0] : undefined;
  const led = block && contexts.find((c) => c.id === block.projectId)?.own[block.channel];
  return {
    isHeard: !isAsking(weather),
    night: {
      placeId: there.id,
      name: there.data.name,
      timeZone: there.data.timeZone,
      travelMin,
      lightFactor: equivalentHours(there.data.skyMagPerArcsec2, home.data.skyMagPerArcsec2, led),
      weighed,
      reasons: reasonsOf(weighed, { steps, choice, rules: thereRules }),
    },
  };
}

/** Places near enough to drive to for one night. */
export const placesAway = (library: Library, home: Entity<Place>) =>
  library.places.filter((p) => p.id !== home.id && (p.data.travelMin ?? 0) > 0 && p.data.travelMin! <= FARTHEST_MIN);

/** The place that the plan spends a night at, where that is another one. */
function planElsewhere(library: Library, plan: SeasonPlan, placeId: string, night: NightDate) {
  const evenings = eveningsOf(plan, night).filter((e) => e.blocks.length > 0);
  const away = evenings.find((e) => e.placeId !== placeId);
  if (!away || evenings.some((e) => e.placeId === placeId)) return null;
  return { placeId: away.placeId, name: library.places.find((p) => p.id === away.placeId)?.data.name ?? "elsewhere" };
}

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
