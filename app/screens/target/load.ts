import { refusePage } from "~/desk/page-fault";
import type { Desk } from "~/desk/desk";
import type { CatalogEntry } from "~/core/catalog";
import { equivalentHours, sameDepthHours, underSky, type BesideSky, type Channel } from "~/core/exposure";
import { opticsOf, panelsFor, type Optics } from "~/core/framing";
import {
  accountOf,
  fullMoonShare,
  hourlySteps,
  nightWay,
  targetNight,
  type Place,
  type PlaceNight,
} from "~/core/night";
import { drivePays, nightOffer } from "~/core/plan";
import { transits } from "~/core/sky";
import type { Entity, Library } from "~/desk/records/library";
import { orAborted } from "~/desk/sky/answers";
import { nightOver } from "~/desk/sky/nights";
import { loadChoice, withSchool, type Choice } from "~/desk/sky/choice";
import { pictureAt, pictureKit } from "~/desk/projects/picture";
import { findTarget } from "~/desk/sky/targets";
import { ownWishes } from "~/desk/plan/wishes";

/** A target's night, year and neighbourhood from the chosen place with the chosen rig. */
export async function loadTarget(desk: Desk, request: Request, targetId: string) {
  const { library, choice } = await loadChoice(desk, request);
  const entry = await orAborted(findTarget(library, targetId), request.signal);
  if (!entry) refusePage({ code: "unknownTarget" });
  const projects = library.projects
    .filter((p) => p.data.targetId === entry.id)
    .map((p) => ({ id: p.id, name: p.data.name }));
  const ownId = library.ownTargets.find((t) => t.id === entry.id)?.id ?? null;
  const { rig } = choice;
  const isWished = ownWishes(library).some((w) => w.data.targetId === entry.id);
  if (!choice.place || !rig) return { entry, ownId, projects, isWished, night: choice.night, view: null };
  const place = withSchool(choice.place.data, new URL(request.url).searchParams);
  const optics = opticsOf(rig.data);
  const picture = pictureAt(library, entry, rig.data, place);
  const { advice } = picture;
  const { channel, own } = picture.jobs[0]!;
  const night = nightOver(desk, place, choice.night, choice.moon);
  const { steps, sky } = night;
  const { walk, ofDate, ...sums } = targetNight(night, entry.at, channel, own);
  const year = orAborted(
    desk.workers.sky.year({ place, from: choice.today, moon: choice.moon, target: entry.at, channel, own }),
    request.signal,
  );
  year.catch(() => undefined); // an aborted year is nobody's fault; the screen that asked is gone
  const near = await orAborted(
    desk.workers.sky.within({
      raDeg: entry.at.raDeg,
      decDeg: entry.at.decDeg,
      radiusDeg: Math.hypot(optics.fieldWidthDeg, optics.fieldHeightDeg) / 2,
      limit: 12,
    }),
    request.signal,
  );
  return {
    entry,
    ownId,
    projects,
    isWished,
    night: choice.night,
    view: {
      place,
      optics,
      rigName: rig.data.name,
      channel,
      advice,
      picture,
      /** The physical figure beside the habit, of its first channel; null for pictures of stars. */
      sameDepth:
        picture.jobs[0]!.unitSec === null
          ? null
          : sameDepthHours(pictureKit(library, rig.data, place), channel, picture.light),
      panels: panelsOfEntry(entry, optics),
      moonShare: fullMoonShare(place, channel, own),
      steps,
      walk,
      account: accountOf(steps, walk),
      sums,
      way: nightWay(place, sky, steps, ofDate),
      hourly: hourlySteps(sky, steps, walk, ofDate, place.timeZone),
      clearChance: place.clearChance,
      seeingArcsec: place.seeingArcsec,
      transit: transits(sky, ofDate)[0] ?? null,
      near: near.filter((e) => e.id !== entry.id),
      year,
      elsewhere:
        library.places.length > 1
          ? placesTonight(library, { ...choice, place: choice.place }, place, entry, { channel, own })
          : [],
    },
  };
}
/** What the page of a target shows once a place and a rig are known. */
export type TargetView = NonNullable<Awaited<ReturnType<typeof loadTarget>>["view"]>;

/** The channel a target is judged in, and by what its minutes are weighed here. */
interface Job {
  readonly channel: Channel;
  readonly own: BesideSky;
}

/** Panels that hold a target with some optics. */
function panelsOfEntry(entry: CatalogEntry, optics: Optics): number {
  const major = entry.majorArcmin ?? 0;
  const frame = { width: optics.planeWidthArcmin, height: optics.planeHeightArcmin };
  const { columns, rows } = panelsFor({ major, minor: entry.minorArcmin ?? major }, frame);
  return columns * rows;
}

/** One night of a target from all places, and from how many clear minutes the drive to each pays. */
function placesTonight(
  library: Library,
  { place: here, night, moon }: Choice & { readonly place: Entity<Place> },
  herePlace: Place,
  entry: CatalogEntry,
  job: Job,
) {
  const nights = library.places.map((p) =>
    placeTonight(
      p.id,
      nightOver(library.desk, p.id === here.id ? herePlace : p.data, night, moon),
      herePlace,
      entry,
      job,
    ),
  );
  const homeWorthMin = nights.find((n) => n.id === here.id)?.hereMin ?? 0;
  return nights.map((n) => {
    const travelMin = library.places.find((p) => p.id === n.id)?.data.travelMin ?? 0;
    const isDrive = n.id !== here.id && travelMin > 0;
    const question = { homeWorthMin, thereWorthMin: n.hereMin, thereUsableMin: n.usableMin, travelMin };
    return { ...n, travelMin, drive: isDrive ? drivePays(question) : null };
  });
}

/** One night of a target from another place, in hours of this one's zenith. */
function placeTonight(id: string, night: PlaceNight, here: Place, entry: CatalogEntry, { channel, own }: Job) {
  const { place: there } = night;
  const ownThere = underSky(own, here.skyMagPerArcsec2, there.skyMagPerArcsec2);
  const offer = nightOffer(night, entry.at, [channel], { [channel]: ownThere }).channels[channel]!;
  const ratio = equivalentHours(there.skyMagPerArcsec2, here.skyMagPerArcsec2, own);
  return {
    id,
    name: there.name,
    skyMagPerArcsec2: there.skyMagPerArcsec2,
    usableMin: offer.usableMin,
    hereMin: offer.worthMin * ratio,
  };
}
