import { USUAL_REFOCUS_C } from "~/core/exposure";
import { panelSky } from "~/core/night";
import { median } from "~/core/numeric";
import type { HourForecast } from "~/core/observatory";
import { feltKmh } from "~/core/plan";
import { panelKey, skyKey, subjectOf, type RehearsalNight, type RehearsalRig } from "~/core/rehearsal";
import type { Library } from "~/desk/records/library";
import { meOf } from "~/desk/records/parts";
import { panelLabelled, type ProjectContext } from "~/desk/projects/project";
import type { Choice } from "~/desk/sky/choice";
import { nightOver } from "~/desk/sky/nights";
import { findTarget } from "~/desk/sky/targets";
import { darksWantedMin } from "./calibration";
import { nightSheets } from "./night-sheets";
import type { EveningSheet } from "./sheet";

/** What stands for what no source says of an hour; proposals. */
const UNSAID = { airC: 5, dewUnderC: 6, gustKmh: 10 } as const;

type Night = NonNullable<Awaited<ReturnType<typeof nightSheets>>>;

/** The hours of a night as they are forecast, with what no source says filled up. */
const hoursOf = ({ here, place }: Night): HourForecast[] =>
  here.weather.hours.map((h) => {
    const airC = h.airC ?? UNSAID.airC;
    return {
      startMs: h.atMs,
      odds: h.odds,
      airC,
      dewC: h.dewC ?? airC - UNSAID.dewUnderC,
      gustKmh: h.gustMs === null ? UNSAID.gustKmh : feltKmh(h.gustMs, place.data.windShare),
      seeingArcsec: h.seeingArcsec ?? place.data.seeingArcsec,
    };
  });

/** A rig of the evening, as the stand-in plays it. */
async function rigOf(library: Library, night: Night, choice: Choice, evening: EveningSheet): Promise<RehearsalRig> {
  const { sheet, contexts } = evening;
  const lead = contexts[0]!;
  const over = nightOver(library.desk, night.place.data, choice.night, lead.moon);
  const blocks = sheet.lines.flatMap((l) => (l.kind === "block" ? [l] : []));
  const pointings: Record<string, RehearsalRig["pointings"][string]> = {};
  const skies: Record<string, RehearsalRig["skies"][string]> = {};
  for (const block of blocks) {
    const c = contexts.find((p) => p.id === block.projectId);
    const panel = c && panelLabelled(c, block.panel);
    if (!panel || skies[skyKey(block)]) continue;
    pointings[panelKey(block)] = { pointing: panel.centre, positionAngleDeg: panel.positionAngleDeg };
    skies[skyKey(block)] = panelSky(over, panel.centre, block.channel);
  }
  const targets = await Promise.all(contexts.map((c) => findTarget(library, c.project.data.targetId)));
  const air = night.here.weather.hours.flatMap((h) => h.airC ?? []);
  return {
    rigId: evening.rigId,
    rig: lead.rig.data,
    filters: Object.fromEntries(contexts.flatMap((c) => c.filters).map((f) => [f.data.name, f.data])),
    sheet: { lines: sheet.lines },
    names: Object.fromEntries(contexts.map((c) => [c.id, c.project.data.name])),
    subjects: Object.fromEntries(contexts.map((c, i) => [c.id, targets[i] ? subjectOf(targets[i]) : null])),
    pointings,
    skies,
    darksMin: darksWantedMin(library, lead.rig, sheet, over.sky, air.length > 0 ? median(air) : null),
    focusPerC: lead.rig.data.refocusC ?? USUAL_REFOCUS_C,
  };
}

/** The sheets of a night as they would be rehearsed, and the zone of its clock; null = nothing is planned. */
export async function rehearsalOf(
  library: Library,
  choice: Choice,
  contexts: readonly ProjectContext[],
  placeAsked: string | null,
): Promise<{ readonly night: RehearsalNight; readonly zone: string; readonly isSimulated: boolean } | null> {
  const spent = await nightSheets(library, choice, contexts, placeAsked);
  const sheets = spent?.sheets.filter((s) => s.sheet.lines.some((l) => l.kind === "block")) ?? [];
  if (!spent || sheets.length === 0 || spent.here.weather.hours.length === 0) return null;
  const { data: place } = spent.place;
  return {
    zone: place.timeZone,
    isSimulated: spent.here.weather.isSimulated,
    night: {
      night: choice.night,
      memberId: meOf(library) ?? "me",
      site: { latitudeDeg: place.latitudeDeg, longitudeDeg: place.longitudeDeg },
      zenithSkyMag: place.skyMagPerArcsec2,
      hours: hoursOf(spent),
      rigs: await Promise.all(sheets.map((s) => rigOf(library, spent, choice, s))),
      weather: null,
    },
  };
}
