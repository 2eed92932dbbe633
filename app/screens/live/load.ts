import { USUAL_REFOCUS_C } from "~/core/exposure";
import { checklistOf } from "~/core/care";
import { toldSubs } from "~/core/live";
import { batteryLife, isAway } from "~/core/night";
import { median } from "~/core/numeric";
import { nightEvents } from "~/core/sky";
import { HOUR_MS, MINUTE_MS, type UtcMs } from "~/core/time";
import type { Desk } from "~/desk/desk";
import { firstStepOf } from "~/desk/kit/better";
import { focusHint, hintsOnSheet } from "~/desk/log/focus-hints";
import { landingOf } from "~/desk/log/landing";
import { darksWantedMin } from "~/desk/plan/calibration";
import { doneOn, eventsOf, focusSlopeOf } from "~/desk/plan/live";
import { nightSheets } from "~/desk/plan/night-sheets";
import { ownContextsOf } from "~/desk/projects/project";
import { loadChoice } from "~/desk/sky/choice";
import { nightOver } from "~/desk/sky/nights";

/** The night that is on, for the rig asked for or the first that has a sheet. */
export async function loadLive(desk: Desk, request: Request) {
  const { library, choice } = await loadChoice(desk, request);
  const params = new URL(request.url).searchParams;
  const contexts = ownContextsOf(library);
  const empty = { night: choice.today, view: null, firstStep: contexts.length > 0 ? null : firstStepOf(library) };
  if (contexts.length === 0) return empty;
  const spent = await nightSheets(library, { ...choice, night: choice.today }, contexts, params.get("place"));
  const chosen = spent?.sheets.find((s) => s.rigId === params.get("with")) ?? spent?.sheets[0];
  if (!spent || !chosen) return empty;
  const lead = chosen.contexts[0]!;
  const { place, here, rainMs } = spent;
  const events = eventsOf(library, choice.today, chosen.rigId);
  const { hours } = here.weather;
  const first = chosen.sheet.lines[0];
  const air = hours.flatMap((h) => h.airC ?? []);
  const power = lead.rig.data.power;
  const night = nightOver(desk, place.data, choice.today, lead.moon);
  const sky = nightEvents(night.sky);
  return {
    night: choice.today,
    firstStep: null,
    view: {
      rigId: chosen.rigId,
      rigName: lead.rig.data.name,
      rigs: spent.sheets.map((s) => ({
        id: s.rigId,
        name: library.rigs.find((r) => r.id === s.rigId)?.data.name ?? s.rigId,
      })),
      placeId: place.id,
      zone: place.data.timeZone,
      names: Object.fromEntries(chosen.contexts.map((c) => [c.id, c.project.data.name])),
      sheet: chosen.sheet,
      laidOutMs: spent.laidOutMs,
      events,
      focusEveryMs: lead.rig.data.overheads.focusEveryMin * MINUTE_MS,
      focusPerC: lead.rig.data.refocusC ?? USUAL_REFOCUS_C,
      ditherEvery: lead.rig.data.isGuided ? null : lead.rig.data.overheads.ditherEvery,
      sunriseMs: sky.horizon.kind === "passes" ? sky.horizon.upMs : null,
      duskMs: sky.horizon.kind === "passes" ? sky.horizon.downMs : null,
      rainMs,
      batteryMs:
        power && first ? batteryLife(power, lead.rig.data, { fromMs: first.startMs, airC: air[0] ?? 0 }).untilMs : null,
      hours: hours.map((h) => ({ atMs: h.atMs, odds: h.odds, airC: h.airC, dewC: h.dewC })),
      isSimulated: here.weather.isSimulated,
      packUpMin: packUpMin(chosen.sheet.lines.at(-1)),
      darksMin: darksWantedMin(library, lead.rig, chosen.sheet, night.sky, air.length > 0 ? median(air) : null),
      told: toldSubs(events),
      focus: hintsOnSheet(chosen.sheet, focusHint(library, lead.rig)),
      rig: lead.rig.data,
      slope: focusSlopeOf(library, chosen.rigId),
      checks: checklistOf(lead.rig.data, { isAway: isAway(place.data), hasTwoRigs: spent.sheets.length > 1 }),
      done: doneOn(library, choice.today, chosen.rigId),
      latest: landingOf(library, choice.today, chosen.rigId),
    },
  };
}

/** How long packing up takes, min: as the sheet has it. */
const packUpMin = (last: { readonly startMs: number; readonly endMs: number } | undefined): number =>
  last ? (last.endMs - last.startMs) / MINUTE_MS : 0;

/** The night as its page shows it. */
export type LiveView = NonNullable<Awaited<ReturnType<typeof loadLive>>["view"]>;

/** What the forecast says of an instant: that of its hour. */
export const hourAt = (view: Pick<LiveView, "hours">, nowMs: UtcMs) =>
  view.hours.find((h) => h.atMs <= nowMs && nowMs < h.atMs + HOUR_MS) ?? null;
