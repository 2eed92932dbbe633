import type { SkyEvent } from "./RunSheetView";
import { nightWay, targetNight, type NightSteps, type NightWay } from "~/core/night";
import { cautionsOf, eveningShare, filterOfGoal, nightSheet, panelLabel } from "~/core/plan";
import { USUAL_GUST_LIMIT_KMH, type WeatherHour } from "~/core/weather";
import { HOUR_MS, MINUTE_MS, utcMs, utcOffsetMinutes, type UtcInterval } from "~/core/time";
import { nightEvents, type NightEvents } from "~/core/sky";
import { loadChoice } from "~/desk/choice";
import { nightOver } from "~/desk/nights";
import { leftForOthersWords } from "~/components/words/target-words";
import { ownContextsOf } from "~/desk/project";
import { nightAt } from "~/desk/tonight";

/** What Sun, Moon and skyline do, in order. */
function skyEvents(events: NightEvents, steps: NightSteps, way: NightWay | null): SkyEvent[] {
  const found: SkyEvent[] = [];
  const line = (l: NightEvents["horizon"], down: string, up: string) => {
    if (l.kind !== "passes") return;
    if (l.downMs !== null) found.push({ atMs: l.downMs, words: down });
    if (l.upMs !== null) found.push({ atMs: l.upMs, words: up });
  };
  line(events.horizon, "Sunset", "Sunrise: tube capped before");
  line(events.astronomical, "Dark: Sun below −18°", "Light begins: Sun above −18°");
  const end = steps.startMs + steps.count * steps.stepMin * 60_000;
  const isNight = (ms: number) => ms >= steps.startMs && ms <= end;
  events.moonrises.filter(isNight).forEach((atMs) => found.push({ atMs, words: "Moon rises" }));
  events.moonsets.filter(isNight).forEach((atMs) => found.push({ atMs, words: "Moon sets" }));
  for (const o of way?.obstructions ?? []) {
    const name = o.name === "" ? "the skyline" : o.name;
    found.push({ atMs: o.startMs, words: `Target goes behind ${name}` });
    found.push({ atMs: o.endMs, words: `Target clears ${name}` });
  }
  for (const p of way?.passages ?? []) {
    if (p.risesMs !== null) found.push({ atMs: p.risesMs, words: `Target over ${p.altitudeDeg}°` });
    if (p.setsMs !== null) found.push({ atMs: p.setsMs, words: `Target under ${p.altitudeDeg}°` });
  }
  return found;
}

const CLOCK = /^([01]\d|2[0-3]):([0-5]\d)$/;

/** The stretch between two clock times of a night, as the address asks; null = all night. */
function clearStretch(params: URLSearchParams, window: UtcInterval, zone: string): UtcInterval | null {
  const at = (name: string): number | null => {
    const m = CLOCK.exec(params.get(name) ?? "");
    if (!m) return null;
    const minute = Number(m[1]) * 60 + Number(m[2]);
    for (let ms = Math.ceil(window.startMs / MINUTE_MS) * MINUTE_MS; ms < window.endMs; ms += MINUTE_MS)
      if ((ms / MINUTE_MS + utcOffsetMinutes(zone, utcMs(ms))) % 1440 === minute) return ms;
    return null;
  };
  const [from, to] = [at("from"), at("to")];
  if (from === null && to === null) return null;
  return { startMs: utcMs(from ?? window.startMs), endMs: utcMs(to ?? window.endMs) };
}

const LIKELY = 0.5;

/** The longest run of hours that forecasts call clear rather than not; null when they say nothing, or none is. */
function clearRun(hours: readonly WeatherHour[]): UtcInterval | null {
  let best: UtcInterval | null = null;
  let from: number | null = null;
  for (const [i, h] of hours.entries()) {
    const isClear = h.basis !== "longTerm" && h.odds >= LIKELY;
    if (isClear && from === null) from = h.atMs;
    const isEnd = from !== null && (!isClear || i === hours.length - 1);
    if (!isEnd || from === null) continue;
    const endMs = utcMs(isClear ? h.atMs + HOUR_MS : h.atMs);
    if (!best || endMs - from > best.endMs - best.startMs) best = { startMs: utcMs(from), endMs };
    from = null;
  }
  return best;
}

/** What two stretches have in common; one that is null leaves the other as it is. */
function inBoth(a: UtcInterval | null, b: UtcInterval | null): UtcInterval | null {
  if (!a || !b) return a ?? b;
  return {
    startMs: utcMs(Math.max(a.startMs, b.startMs)),
    endMs: utcMs(Math.max(Math.max(a.startMs, b.startMs), Math.min(a.endMs, b.endMs))),
  };
}

/** The run sheet of the asked project, or of the one the verdict would begin with. */
export async function loadNight(request: Request) {
  const { library, choice } = await loadChoice(request);
  const contexts = ownContextsOf(library);
  const list = contexts.map((c) => ({ id: c.id, name: c.project.data.name }));
  if (contexts.length === 0) return { list, view: null, night: choice.night };
  const asked = contexts.find((c) => c.id === new URL(request.url).searchParams.get("project"));
  const best = () => {
    if (!choice.place) return undefined;
    const { choice: verdict } = nightAt(library, choice.place, choice.night);
    return verdict.kind === "go" ? contexts.find((c) => c.id === verdict.first.id) : undefined;
  };
  const c = asked ?? best() ?? contexts[0]!;
  const place = c.place.data;
  const night = nightOver(place, choice.night, c.moon);
  const { weather, choice: evening } = nightAt(library, c.place, choice.night);
  const params = new URL(request.url).searchParams;
  const clear = clearStretch(params, night.sky.window, place.timeZone);
  const nameOf = (id: string) => contexts.find((x) => x.id === id)?.project.data.name ?? id;
  const share = eveningShare(evening, c.id, night.sky.window);
  const filterName = (channel: string) => {
    const goal = c.goal.data.channels.find((g) => g.channel === channel);
    return (goal ? filterOfGoal(goal, c.filters) : null)?.data.name ?? channel;
  };
  const bare = nightSheet({
    night,
    panels: c.panels,
    centre: c.layout.centre,
    needs: c.needs,
    rules: c.rules,
    flips: c.rig.data.flipsAtMeridian,
    standsBeforeDark: library.settings?.data.standsBeforeDark ?? true,
    within: inBoth(clear, share?.within ?? null),
    filterName,
  });
  // Panels as their owner calls them: "P3 the arch".
  const sheet = {
    ...bare,
    lines: bare.lines.map((l) =>
      l.kind === "block" ? { ...l, panel: panelLabel(c.frame.data, Number(l.panel.slice(1))) } : l,
    ),
  };
  const blocks = sheet.lines.filter((l) => l.kind === "block");
  const [first, last] = [blocks[0], blocks.at(-1)];
  const rules = { gustLimitKmh: c.rig.data.gustLimitKmh ?? USUAL_GUST_LIMIT_KMH };
  const outside = weather.hours.filter((h) => first && last && h.atMs + HOUR_MS > first.startMs && h.atMs < last.endMs);
  const channel = c.needs.find((n) => n.remainingMin > 0.5)?.channel;
  const way = channel
    ? nightWay(place, night.sky, night.steps, targetNight(night, c.layout.centre, channel).ofDate)
    : null;
  return {
    list,
    night: choice.night,
    view: {
      id: c.id,
      name: c.project.data.name,
      place,
      rig: c.rig.data,
      sheet,
      events: skyEvents(nightEvents(night.sky), night.steps, way),
      isSimulated: weather.isSimulated,
      clear,
      share: share && { ...share, other: nameOf(share.otherId) },
      // A sheet that takes an evening from another one takes its place in a calendar too.
      calendarId: share || evening.kind !== "go" ? c.id : evening.first.id,
      clearHours: clearRun(weather.hours),
      cautions: cautionsOf(outside, {
        ...rules,
        ...(place.windShare === undefined ? {} : { windShare: place.windShare }),
        coolsToC: c.rig.data.isCooled ? c.rig.data.workingTempC : null,
      }),
      isDone: channel === undefined,
      others: leftForOthersWords(c),
      channels: [...new Set(sheet.lines.flatMap((l) => (l.kind === "block" ? [l.channel] : [])))],
    },
  };
}
