import type { Desk } from "~/desk/desk";
import { starAt, starsWithin, surfaceBrightness, type CatalogEntry, type SkyData } from "~/core/catalog";
import { elementArcsec, isOfStars, objectLight, pictureJudge, type Channel } from "~/core/exposure";
import { mosaicExtent, opticsOf, panelName, skyToFrame, type MosaicLayout } from "~/core/framing";
import { learntTime, type LoomCell } from "~/core/ledger";
import { bestRate } from "~/core/night";
import { hoursOf, nightOffer } from "~/core/plan";
import { usualRotationDegPerHour } from "~/core/sky";
import type { NightDate } from "~/core/time";
import { skyData } from "~/desk/sky/chart-sky";
import { choiceOf } from "~/desk/sky/choice";
import { nightOver } from "~/desk/sky/nights";
import { libraryHere } from "~/desk/records/open-library";
import type { Library } from "~/desk/records/library";
import { requireContext, type ProjectContext } from "~/desk/projects/project";
import { pictureKit } from "~/desk/projects/picture";
import { weatherKept } from "~/desk/sky/weather";
import { findTarget } from "~/desk/sky/targets";

/** Magnitudes of the catalogue's stars inside a mosaic. */
function starsInside(sky: SkyData, layout: MosaicLayout): number[] {
  const extent = mosaicExtent(layout);
  return starsWithin(sky.stars, {
    ...layout.centre,
    radiusDeg: Math.hypot(extent.widthArcmin, extent.heightArcmin) / 110,
    faintest: 14,
  }).flatMap((row) => {
    const star = starAt(sky.stars.stars, row);
    const p = skyToFrame(layout, star.at);
    return p && Math.abs(p.xArcmin) < extent.widthArcmin / 2 && Math.abs(p.yArcmin) < extent.heightArcmin / 2
      ? [star.magnitude]
      : [];
  });
}

const BRIGHT_CORE_MAG = 16; // of bright nebulae and galaxies; from memory, MATHS C3.10 uses it

/** Median of the air that forecasts give for the night; null where they say nothing. */
function nightAir(library: Library, c: ProjectContext, night: NightDate): number | null {
  const { steps } = nightOver(library.desk, c.place.data, night, c.moon);
  const air = weatherKept(library, c.place, night, hoursOf(steps)).hours.flatMap((h) => h.airC ?? []);
  air.sort((a, b) => a - b);
  return air[air.length >> 1] ?? null;
}

/** Exposure to begin with in every channel at hand: of those advised together, of any other beside them. */
function firstHours(
  library: Library,
  c: ProjectContext,
  entry: CatalogEntry,
): Readonly<Partial<Record<Channel, number>>> {
  const judge = pictureJudge(pictureKit(library, c.rig.data, c.place.data));
  const { advice, jobs } = judge(entry);
  const others = c.filters.map((f) => f.data.channel).filter((ch) => !jobs.some((j) => j.channel === ch));
  const beside = others.flatMap((ch) => judge(entry, { ...advice, use: [...advice.use, ch] }).jobs.slice(-1));
  return Object.fromEntries([...jobs, ...beside].map((j) => [j.channel, j.hours]));
}

/** What of a target can be drawn as a patch; null for pictures of stars, and where its size is not known. */
function shownObject(entry: CatalogEntry, { rig, place }: ProjectContext) {
  const light = objectLight(entry);
  const optics = opticsOf(rig.data);
  if (isOfStars(light) || entry.majorArcmin === null) return null;
  return {
    light,
    majorArcmin: entry.majorArcmin,
    minorArcmin: entry.minorArcmin ?? entry.majorArcmin,
    positionAngleDeg: entry.positionAngleDeg ?? 0,
    pxArcsec: elementArcsec({
      pixelScaleArcsecPerPx: optics.pixelScaleArcsecPerPx,
      fwhmArcsec: Math.hypot(place.data.seeingArcsec, optics.diffractionArcsec),
      majorArcmin: entry.majorArcmin,
    }),
  };
}

/** What a budget is made from: goals, rig, sky, and what the chosen night offers. */
export async function loadBudget(desk: Desk, request: Request, projectId: string) {
  const library = await libraryHere(desk);
  const c = requireContext(library, projectId);
  const { night } = choiceOf(library, new URL(request.url).searchParams);
  const channels = c.filters.map((f) => f.data.channel);
  const [entry, sky] = await Promise.all([
    findTarget(library, c.project.data.targetId).catch(() => null),
    skyData(desk).catch(() => null),
  ]);
  return {
    goal: c.goal,
    rig: c.rig.data,
    place: c.place.data,
    filters: c.filters,
    time: learntTime(library.contributions.filter((x) => x.data.rigId === c.rig.id).map((x) => x.data)),
    rotationDegPerHour: usualRotationDegPerHour(
      c.place.data.latitudeDeg,
      c.layout.centre.decDeg,
      c.place.data.minAltitudeDeg,
    ),
    airC: nightAir(library, c, night),
    /** V of the middle of a target with a bright core, mag/arcsec²: assumed; null = no such core is known. */
    coreMag: entry?.curated?.hasBrightCore ? BRIGHT_CORE_MAG : null,
    /** Mean surface brightness of the target, V mag/arcsec², where the catalogue's magnitude is of its area. */
    objectMag: entry ? surfaceBrightness(entry) : null,
    panels: c.panels.length,
    panelNames: c.panels.map((p) => panelName(p.number)),
    offer: nightOffer(nightOver(library.desk, c.place.data, night, c.moon), c.layout.centre, channels, c.own),
    /** Exposure of a panel to begin with, by channel that there is a filter for; null where the target is not known. */
    firstHours: entry ? firstHours(library, c, entry) : null,
    entry,
    /** Worth of a minute at the target's best, by channel: what goals and depths are told for. */
    bestRates: Object.fromEntries(
      channels.map((ch) => [ch, c.bestRates[ch] ?? bestRate(c.place.data, c.layout.centre, ch, c.own[ch])]),
    ) as Readonly<Partial<Record<Channel, number>>>,
    /** Hours at the project's reference that an hour with this rig is, by channel, and whose that is; null = this one's own. */
    measuredBy:
      c.reference.rig.id === c.rig.id && c.reference.place.id === c.place.id
        ? null
        : `${c.reference.rig.data.name}, ${c.reference.place.data.name}`,
    hourIs: Object.fromEntries(channels.map((ch) => [ch, c.hourIs(ch)])) as Readonly<Partial<Record<Channel, number>>>,
    /** Kept so far, by the clock and as it counts, mean over the panels, by channel. */
    keptHours: Object.fromEntries(
      channels.map((channel) => {
        const mine = c.cells.filter((cell) => cell.channel === channel);
        const mean = (of: (cell: LoomCell) => number) =>
          mine.reduce((sum, cell) => sum + of(cell), 0) / 60 / Math.max(1, c.panels.length);
        return [channel, { kept: mean((x) => x.keptMin), counted: mean((x) => x.countedMin) }];
      }),
    ) as Readonly<Partial<Record<Channel, { readonly kept: number; readonly counted: number }>>>,
    /** Exposure that counts, by channel and panel, h. */
    panelHours: Object.fromEntries(
      channels.map((channel) => [
        channel,
        c.cells
          .filter((cell) => cell.channel === channel)
          .map((cell) => ({ word: cell.panel, hours: cell.countedMin / 60 })),
      ]),
    ) as Readonly<Partial<Record<Channel, readonly { readonly word: string; readonly hours: number }[]>>>,
    object: entry ? shownObject(entry, c) : null,
    starMags: sky ? starsInside(sky, c.layout) : null,
  };
}
