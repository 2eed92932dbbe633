import { data, redirect } from "react-router";
import type { CatalogEntry } from "~/core/catalog";
import { equivalentHours, type Channel } from "~/core/exposure";
import { neighbourHold, opticsOf, type Optics } from "~/core/framing";
import {
  accountOf,
  channelFor,
  channelSky,
  hourlySteps,
  nightSteps,
  placeSky,
  walkTarget,
  type Place,
} from "~/core/night";
import { drivePays, newProject, nightOffer } from "~/core/plan";
import { apparentVector, transits } from "~/core/sky";
import type { NightDate } from "~/core/time";
import { wrap360 } from "~/core/units";
import type { Entity, Library } from "~/storage/library";
import { loadLibrary, saveAll } from "~/storage/records";
import { newId } from "~/storage/session";
import { orAborted, skyWorker } from "~/workers/sky";
import { choiceOf, keptSearch, loadChoice, withSchool } from "~/desk/choice";
import { findTarget } from "~/desk/targets";

const STEP_MIN = 2; // one night is worth a closer look than the list's 5 minutes

/** A target's night, year and neighbourhood from the chosen place with the chosen rig. */
export async function loadTarget(request: Request, targetId: string) {
  const { library, choice } = await loadChoice(request);
  const entry = await orAborted(findTarget(library, targetId), request.signal);
  if (!entry) throw data({ code: "unknownTarget" }, { status: 404 });
  const projects = library.projects
    .filter((p) => p.data.targetId === entry.id)
    .map((p) => ({ id: p.id, name: p.data.name }));
  const ownId = library.ownTargets.find((t) => t.id === entry.id)?.id ?? null;
  if (!choice.place || !choice.rig) return { entry, ownId, projects, night: choice.night, view: null };
  const place = withSchool(choice.place.data, new URL(request.url).searchParams);
  const optics = opticsOf(choice.rig.data);
  const channels = library.filters.filter((f) => choice.rig!.data.filterIds.includes(f.id)).map((f) => f.data.channel);
  const channel = channelFor(entry, channels);
  const sky = placeSky(place, choice.night);
  const steps = nightSteps(sky, STEP_MIN);
  const vector = apparentVector(sky, { frame: "icrs", raDeg: entry.raDeg, decDeg: entry.decDeg });
  const walk = walkTarget(steps, channelSky(place, steps, channel), vector);
  const icrs = { frame: "icrs", raDeg: entry.raDeg, decDeg: entry.decDeg } as const;
  const year = orAborted(skyWorker().year({ place, from: choice.today, target: icrs, channel }), request.signal);
  year.catch(() => undefined); // an aborted year is nobody's fault; the screen that asked is gone
  const near = await orAborted(
    skyWorker().within({
      raDeg: entry.raDeg,
      decDeg: entry.decDeg,
      radiusDeg: Math.hypot(optics.fieldWidthDeg, optics.fieldHeightDeg) / 2,
      limit: 12,
    }),
    request.signal,
  );
  return {
    entry,
    ownId,
    projects,
    night: choice.night,
    view: {
      place,
      optics,
      rigName: choice.rig.data.name,
      channel,
      steps,
      walk,
      account: accountOf(steps, walk),
      hourly: hourlySteps(sky, steps, walk, vector, place.timeZone),
      clearChance: place.clearChance,
      seeingArcsec: place.seeingArcsec,
      transit: transits(sky, vector)[0] ?? null,
      near: near.filter((e) => e.id !== entry.id),
      year,
      elsewhere:
        library.places.length > 1 ? placesTonight(library, choice.place, place, entry, channel, choice.night) : [],
    },
  };
}
/** What the page of a target shows once a place and a rig are known. */
export type TargetView = NonNullable<Awaited<ReturnType<typeof loadTarget>>["view"]>;

/** One night of a target from all places, and from how many clear minutes the drive to each pays. */
function placesTonight(
  library: Library,
  here: Entity<Place>,
  herePlace: Place,
  entry: CatalogEntry,
  channel: Channel,
  night: NightDate,
) {
  const nights = library.places.map((p) =>
    placeTonight(p.id, p.id === here.id ? herePlace : p.data, herePlace, entry, channel, night),
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
function placeTonight(id: string, there: Place, here: Place, entry: CatalogEntry, channel: Channel, night: NightDate) {
  const target = { frame: "icrs", raDeg: entry.raDeg, decDeg: entry.decDeg } as const;
  const offer = nightOffer(there, target, [channel], night, STEP_MIN).channels[channel]!;
  const ratio = equivalentHours(there.skyMagPerArcsec2, here.skyMagPerArcsec2);
  return {
    id,
    name: there.name,
    skyMagPerArcsec2: there.skyMagPerArcsec2,
    usableMin: offer.usableMin,
    hereMin: offer.worthMin * ratio,
  };
}

/** Where to aim for a target of one's own that is shot beside a listed neighbour; the long side turned to it where that is needed. */
async function aimOf(library: Library, entry: CatalogEntry, optics: Optics) {
  const neighbourId = library.ownTargets.find((t) => t.id === entry.id)?.data.neighbourId;
  const neighbour = neighbourId ? await skyWorker().entry(neighbourId) : null;
  if (!neighbour) return null;
  const hold = neighbourHold(
    { frame: "icrs", raDeg: entry.raDeg, decDeg: entry.decDeg, sizeArcmin: entry.majorArcmin ?? 0 },
    { frame: "icrs", raDeg: neighbour.raDeg, decDeg: neighbour.decDeg },
    { widthArcmin: optics.planeWidthArcmin, heightArcmin: optics.planeHeightArcmin },
  );
  const { raDeg, decDeg } = neighbour;
  // The frame's long side is its width, 90° from its up axis.
  const turned = wrap360(hold.positionAngleDeg + (optics.planeWidthArcmin >= optics.planeHeightArcmin ? 90 : 0)) % 180;
  return { raDeg, decDeg, positionAngleDeg: hold.hold === "turned" ? Math.round(turned * 10) / 10 : null };
}

/** Starts a project from a target and goes to its frame. */
export async function startProject(request: Request, targetId: string) {
  const url = new URL(request.url);
  const library = await loadLibrary();
  const choice = choiceOf(library, url.searchParams);
  const entry = await findTarget(library, targetId);
  if (!entry) throw data({ code: "unknownTarget" }, { status: 404 });
  if (!choice.place || !choice.rig) return redirect("/kit");
  const filters = library.filters.filter((f) => choice.rig!.data.filterIds.includes(f.id));
  const made = newProject(
    entry,
    { rig: choice.rig.data, rigId: choice.rig.id, filters, place: choice.place.data, placeId: choice.place.id },
    choice.today,
    await aimOf(library, entry, opticsOf(choice.rig.data)),
  );
  const projectId = newId("project");
  const saved = await saveAll([
    { kind: "project", id: projectId, data: made.project, baseRev: null },
    { kind: "frame", id: newId("frame"), data: { projectId, ...made.frame }, baseRev: null },
    { kind: "goal", id: newId("goal"), data: { projectId, ...made.goal }, baseRev: null },
  ]);
  if (!saved.ok) return data({ storage: saved.error.code }, { status: 507 });
  return redirect(`/projects/${projectId}/frame${keptSearch(url.searchParams)}`);
}
