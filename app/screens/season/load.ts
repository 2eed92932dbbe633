import { firstStepOf } from "~/desk/kit/better";
import type { Desk } from "~/desk/desk";
import { opticsOf } from "~/core/framing";
import { hasLeft } from "~/core/season";
import { channelAdvice, type Channel } from "~/core/exposure";
import {
  bestRate,
  clearHoursByMonth,
  firstDarkNight,
  isEverDark,
  type MoonWishes,
  type OwnLight,
  type Place,
} from "~/core/night";
import type { Equatorial } from "~/core/sky";
import { addNights, weekdayOf, type NightDate } from "~/core/time";
import { entryTitle } from "~/components/words/target-words";
import { withLearntChances } from "~/desk/sky/learnt";
import { loadChoice, type Choice } from "~/desk/sky/choice";
import type { Library } from "~/desk/records/library";
import { namesOfDeleted } from "~/desk/records/deleted";
import { ownLocks } from "~/desk/plan/locks";
import { nightOver } from "~/desk/sky/nights";
import { meOf } from "~/desk/records/parts";
import { pictureAt } from "~/desk/projects/picture";
import { ownContextsOf } from "~/desk/projects/project";
import { filtersOf } from "~/desk/projects/reference";
import { seasonInTurns } from "~/desk/plan/season";
import { SEASON_NIGHTS } from "~/desk/plan/season-question";
import { findTarget, targetNameOf } from "~/desk/sky/targets";
import { ownWishes } from "~/desk/plan/wishes";
import { orAborted } from "~/desk/sky/answers";
import { initialsOf } from "./season-words";

/** Monday of the week of an evening. */
const mondayOf = (night: NightDate): NightDate => addNights(night, -((weekdayOf(night) + 6) % 7));

/** A row of the year: what clear nights would bring a project or a wish, month by month. */
export interface YearRow {
  readonly id: string;
  readonly name: string;
  readonly channel: string;
  readonly isWish: boolean;
  /** Hours that count, clear nights only, by month from the present one on. */
  readonly months: readonly { readonly month: string; readonly hours: number }[];
  /** Usable minutes by night, the Moon as its owner takes it. */
  readonly usableMin: Readonly<Record<NightDate, number>>;
  /** Of a wish: what the same nights bring where others shoot, in its best month there. */
  readonly others: readonly {
    readonly memberName: string;
    readonly placeName: string;
    readonly month: string;
    readonly hours: number;
  }[];
}

/** Where others of the group shoot, each place of each once. */
function placesOfOthers(library: Library): readonly { readonly memberName: string; readonly place: Place }[] {
  const me = meOf(library);
  const keys = library.parts.filter((p) => p.data.memberId !== me).map((p) => `${p.data.memberId} ${p.data.placeId}`);
  return [...new Set(keys)].flatMap((key) => {
    const [memberId, placeId] = key.split(" ");
    const member = library.members.find((m) => m.id === memberId);
    const place = library.places.find((p) => p.id === placeId);
    return member && place ? [{ memberName: member.data.name, place: withLearntChances(library, place).data }] : [];
  });
}

/** What the coming year brings projects and wishes where they are shot: worth of every night over their best, times the chance that it is clear. */
async function yearRows(
  library: Library,
  choice: Choice & { readonly place: NonNullable<Choice["place"]> },
  signal: AbortSignal,
): Promise<YearRow[]> {
  const row = async (
    of: Pick<YearRow, "id" | "name" | "isWish" | "others">,
    at: {
      readonly place: Place;
      readonly target: Equatorial<"icrs">;
      readonly channel: Channel;
      readonly own: OwnLight | undefined;
      readonly moon: MoonWishes;
    },
  ): Promise<YearRow> => {
    const best = bestRate(at.place, at.target, at.channel, at.own);
    const { own, ...rest } = at;
    const nights = await orAborted(
      library.desk.workers.sky.year({ ...rest, ...(own ? { own } : {}), from: choice.today }),
      signal,
    );
    return {
      ...of,
      channel: at.channel,
      months: clearHoursByMonth(nights, at.place, best).slice(0, 12),
      usableMin: Object.fromEntries(nights.slice(0, SEASON_NIGHTS).map((n) => [n.date, n.usableMin])),
    };
  };
  const rows: YearRow[] = [];
  for (const c of ownContextsOf(library)) {
    const channel = c.needs.find(hasLeft)?.channel;
    const place = withLearntChances(library, c.place).data;
    if (channel)
      rows.push(
        await row(
          { id: c.id, name: c.project.data.name, isWish: false, others: [] },
          { place, target: c.layout.centre, channel, own: c.own[channel], moon: c.moon },
        ),
      );
  }
  for (const wish of ownWishes(library)) {
    const entry = await findTarget(library, wish.data.targetId);
    if (!entry) continue;
    const { rig } = choice;
    const jobAt = (place: Place) => (rig ? pictureAt(library, entry, rig.data, place).jobs[0] : undefined);
    const channel = jobAt(choice.place.data)?.channel ?? channelAdvice(entry, []).lead;
    const at = (place: Place) => ({ place, target: entry.at, channel, own: jobAt(place)?.own, moon: choice.moon });
    const others: YearRow["others"][number][] = [];
    for (const { memberName, place } of placesOfOthers(library)) {
      const { months } = await row({ id: entry.id, name: "", isWish: true, others: [] }, at(place));
      const best = months.reduce((a, b) => (b.hours > a.hours ? b : a), { month: "", hours: 0 });
      if (best.hours >= 1) others.push({ memberName, placeName: place.name, ...best });
    }
    rows.push(await row({ id: entry.id, name: entryTitle(entry), isWish: true, others }, at(choice.place.data)));
  }
  return rows;
}

/** The season of the owner of the library: the plan being made, the sky of its nights, and what stands in it by hand. */
export async function loadSeason(desk: Desk, request: Request) {
  const { library, choice } = await loadChoice(desk, request);
  const contexts = ownContextsOf(library);
  const initials = initialsOf(contexts.map((c) => c.project.data.name));
  const place = choice.place ? withLearntChances(library, choice.place) : null;
  const run = contexts.length > 0 ? await seasonInTurns(library) : null;
  const from = mondayOf(choice.today);
  if (run) await run.settled;
  const year = place ? yearRows(library, { ...choice, place }, request.signal) : Promise.resolve([]);
  year.catch(() => undefined); // an aborted year is nobody's fault; the screen that asked is gone
  return {
    run,
    firstStep: firstStepOf(library),
    year,
    rigName: choice.rig?.data.name ?? null,
    /** For whom the catalogue is looked through; null without a place or a rig. */
    ask:
      place && choice.rig
        ? {
            place: place.data,
            moon: choice.moon,
            rig: choice.rig.data,
            filters: filtersOf(library, choice.rig.data).map((f) => f.data),
            own: [],
            from: choice.today,
          }
        : null,
    today: choice.today,
    /** The first night that gets dark here, where tonight does not; null = it does, or there is no place. */
    firstDark:
      place && !isEverDark(nightOver(desk, place.data, choice.today, choice.moon))
        ? firstDarkNight(place.data, choice.today, choice.moon)
        : null,
    night: choice.night,
    from,
    sky: place ? await desk.workers.sky.ribbon({ place: place.data, from, count: SEASON_NIGHTS + 7 }) : [],
    projects: contexts.map((c, i) => ({
      id: c.id,
      name: c.project.data.name,
      initial: initials[i]!,
      placeName: c.place.data.name,
      zone: c.place.data.timeZone,
      rigName: c.rig.data.name,
      layout: c.layout,
      channels: [...new Set(c.needs.filter(hasLeft).map((n) => n.channel))],
    })),
    /** Projects by name, deleted ones among them. */
    names: {
      ...(await namesOfDeleted(desk)),
      ...Object.fromEntries(library.projects.map((p) => [p.id, p.data.name])),
    } as Readonly<Record<string, string>>,
    rigNames: Object.fromEntries(library.rigs.map((r) => [r.id, r.data.name])),
    placeNames: Object.fromEntries(library.places.map((p) => [p.id, p.data.name])),
    zones: Object.fromEntries(library.places.map((p) => [p.id, p.data.timeZone])),
    /** Those that the plan knows: where one shoots, and would drive to. */
    plannedPlaces: run?.question.places.map((p) => p.id) ?? [],
    places: library.places.map((p) => ({ id: p.id, name: p.data.name, travelMin: p.data.travelMin ?? 0 })),
    /** Of the rig that is chosen: what a wish would be framed with; null without one. */
    optics: choice.rig ? opticsOf(choice.rig.data) : null,
    wishes: await Promise.all(
      ownWishes(library).map(async ({ data: { targetId } }) => {
        const entry = await findTarget(library, targetId);
        return { targetId, entry, name: entry ? entryTitle(entry) : targetNameOf(library, targetId) };
      }),
    ),
    locks: ownLocks(library).map((l) => ({ id: l.id, ...l.data })),
    /** Before the first sub: the longest set-up of one's rigs, and the road. */
    alarmMin: Math.max(
      30,
      ...contexts.map(
        (c) => c.rig.data.overheads.setUpMin + (c.place.data.extraSetUpMin ?? 0) + (c.place.data.travelMin ?? 0),
      ),
    ),
    leastMin: run?.question.rules.minBlockMin ?? 45,
    calendarId: meOf(library) ?? "me",
    zone: place?.data.timeZone ?? "Etc/UTC",
  };
}

/** The season as its page shows it. */
export type SeasonView = Awaited<ReturnType<typeof loadSeason>>;
