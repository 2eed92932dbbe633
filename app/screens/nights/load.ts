import { nightSheets } from "~/desk/plan/night-sheets";
import { firstStepOf } from "~/desk/kit/better";
import { focusHint, hintsOnSheet } from "~/desk/log/focus-hints";
import type { Desk } from "~/desk/desk";
import { median } from "~/core/numeric";
import type { SkyEvent } from "./sheet-lines";
import { matchedDithers, type Rig } from "~/core/exposure";
import { batteryLife, isAway, nightWay, targetNight, type NightSteps, type NightWay } from "~/core/night";
import { checklistOf } from "~/core/care";
import { doneOn } from "~/desk/plan/live";
import { cautionsOf } from "~/core/plan";
import { USUAL_GUST_LIMIT_KMH } from "~/core/weather";
import { HOUR_MS, MINUTE_MS, utcMs, utcOffsetMinutes, type UtcInterval, type UtcMs } from "~/core/time";
import { nightEvents, type NightEvents } from "~/core/sky";
import { leftForOthersWords } from "~/components/words/target-words";
import { loadChoice } from "~/desk/sky/choice";
import { calibrationOf } from "~/desk/plan/calibration";
import { freedOf } from "~/desk/plan/freed";
import { nightOver } from "~/desk/sky/nights";
import { ownContextsOf } from "~/desk/projects/project";
import { forecastOf } from "~/desk/plan/season-question";
import { type EveningSheet } from "~/desk/plan/sheet";

/** What Sun and Moon do. */
function skyEvents(events: NightEvents, steps: NightSteps): SkyEvent[] {
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
  return found;
}

/** What a target does on its way: the skyline, and the heights that people speak of. */
function targetEvents(way: NightWay, name: string): SkyEvent[] {
  const found: SkyEvent[] = [];
  for (const o of way.obstructions) {
    const thing = o.name === "" ? "the skyline" : o.name;
    found.push({ atMs: o.startMs, words: `${name} goes behind ${thing}` });
    found.push({ atMs: o.endMs, words: `${name} clears ${thing}` });
  }
  for (const p of way.passages) {
    if (p.risesMs !== null) found.push({ atMs: p.risesMs, words: `${name} over ${p.altitudeDeg}°` });
    if (p.setsMs !== null) found.push({ atMs: p.setsMs, words: `${name} under ${p.altitudeDeg}°` });
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

/** How the rigs of a night dither together: for the pair of stretches that run beside each other longest; null where none do. */
function dithersOf(chosen: EveningSheet, sheets: readonly EveningSheet[], nameOf: (rigId: string) => string) {
  const pairs = sheets
    .filter((s) => s !== chosen)
    .flatMap((other) =>
      chosen.evening.blocks.flatMap((a) =>
        other.evening.blocks.map((b) => ({
          a,
          b,
          other,
          overlapMs: Math.min(a.endMs, b.endMs) - Math.max(a.startMs, b.startMs),
        })),
      ),
    )
    .filter((p) => p.overlapMs > 30 * MINUTE_MS)
    .sort((x, y) => y.overlapMs - x.overlapMs);
  const [pair] = pairs;
  const [mine, theirs] = [chosen.contexts[0]?.rig.data.overheads, pair?.other.contexts[0]?.rig.data.overheads];
  if (!pair || !mine || !theirs) return null;
  const match = matchedDithers(
    { subSec: pair.a.subSec, overheads: mine },
    { subSec: pair.b.subSec, overheads: theirs },
  );
  return match && { ...match, subSecA: pair.a.subSec, subSecB: pair.b.subSec, other: nameOf(pair.other.rigId) };
}

/** Where no forecast says how cold it gets, a battery is judged for frost, °C. */
const ASSUMED_AIR_C = 0;

/** How long the battery of a rig lasts from when it is set up on, and until when it is needed; null for a rig of which nobody said what it draws. */
function powerOf(rig: Rig, lines: readonly { readonly startMs: UtcMs; readonly endMs: UtcMs }[], airC: number | null) {
  const [first, last] = [lines[0], lines.at(-1)];
  if (!rig.power || !first || !last) return null;
  const air = airC ?? ASSUMED_AIR_C;
  return {
    life: batteryLife(rig.power, rig, { fromMs: first.startMs, airC: air }),
    power: rig.power,
    neededUntilMs: last.endMs,
    airC: air,
    isAirKnown: airC !== null,
  };
}

/** The run sheet of a night: what the plan has for the rig asked for, or for the first that has anything to do. */
export async function loadNight(desk: Desk, request: Request) {
  const { library, choice } = await loadChoice(desk, request);
  const params = new URL(request.url).searchParams;
  const contexts = ownContextsOf(library);
  const empty = {
    night: choice.night,
    list: [],
    view: null,
    firstStep: contexts.length > 0 ? null : firstStepOf(library),
  };
  if (contexts.length === 0) return empty;
  const spent = await nightSheets(library, choice, contexts, params.get("place"), (window, zone) =>
    clearStretch(params, window, zone),
  );
  if (!spent) return empty;
  const { place, spot, here, sheets, begun, clear } = spent;
  const rigName = (id: string) => library.rigs.find((r) => r.id === id)?.data.name ?? id;
  const list = sheets.map((s) => ({ id: s.rigId, name: rigName(s.rigId) }));
  const chosen = sheets.find((s) => s.rigId === params.get("with")) ?? sheets[0] ?? null;
  const { choice: evening, weather } = here;
  const why = evening.kind === "stayIn" ? evening.reason : null;
  if (!chosen)
    return {
      ...empty,
      view: {
        kind: "free" as const,
        place: place.data,
        why,
        others: contexts.map(leftForOthersWords).find((w) => w !== "") ?? "",
      },
    };
  const lead = chosen.contexts[0]!;
  const night = nightOver(desk, place.data, choice.night, lead.moon);
  const { sheet } = chosen;
  const blocks = sheet.lines.filter((l) => l.kind === "block");
  const [first, last] = [blocks[0], blocks.at(-1)];
  const outside = weather.hours.filter((h) => first && last && h.atMs + HOUR_MS > first.startMs && h.atMs < last.endMs);
  const air = outside.flatMap((h) => h.airC ?? []);
  const airC = air.length > 0 ? median(air) : null;
  const calibration = calibrationOf(library, lead.rig, sheet, night.sky, airC);
  const several = chosen.contexts.length > 1;
  const events = chosen.evening.blocks.flatMap((b, i, all) => {
    if (all.findIndex((x) => x.projectId === b.projectId) !== i) return [];
    const c = chosen.contexts.find((x) => x.id === b.projectId)!;
    const over = nightOver(desk, place.data, choice.night, c.moon);
    const { ofDate } = targetNight(over, c.layout.centre, b.channel, c.own[b.channel]);
    const way = targetEvents(
      nightWay(place.data, over.sky, over.steps, ofDate),
      several ? c.project.data.name : "Target",
    );
    // What it does while nobody is out is not on the sheet.
    return way.filter((e) => first && last && e.atMs >= sheet.lines[0]!.startMs && e.atMs <= last.endMs + HOUR_MS);
  });
  return {
    night: choice.night,
    list,
    firstStep: null,
    view: {
      kind: "sheet" as const,
      rigId: chosen.rigId,
      names: Object.fromEntries(chosen.contexts.map((c) => [c.id, c.project.data.name])),
      title: chosen.contexts.map((c) => c.project.data.name).join(", then "),
      place: place.data,
      rig: lead.rig.data,
      sheet,
      isTonight: choice.night === choice.today,
      nowMs: desk.now(),
      begunMs: begun?.atMs ?? null,
      freed: await freedOf(library, chosen, { place: spot, night: choice.night, steps: here.steps, calibration }),
      events: [...skyEvents(nightEvents(night.sky), night.steps), ...events],
      isSimulated: weather.isSimulated,
      clear,
      calendarId: `${lead.part.data.memberId}-${chosen.rigId}`,
      checks: checklistOf(lead.rig.data, { isAway: isAway(place.data), hasTwoRigs: sheets.length > 1 }),
      done: doneOn(library, choice.night, chosen.rigId),
      clearHours: forecastOf(library, spot, choice.night)?.within ?? null,
      cautions: cautionsOf(outside, {
        gustLimitKmh: lead.rig.data.gustLimitKmh ?? USUAL_GUST_LIMIT_KMH,
        ...(place.data.windShare === undefined ? {} : { windShare: place.data.windShare }),
        coolsToC: lead.rig.data.isCooled ? lead.rig.data.workingTempC : null,
      }),
      calibration,
      focus: hintsOnSheet(sheet, focusHint(library, lead.rig)),
      power: powerOf(lead.rig.data, sheet.lines, airC),
      dithers: dithersOf(chosen, sheets, rigName),
    },
  };
}
