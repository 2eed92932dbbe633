import { KINDS, type CatalogEntry } from "~/core/catalog";
import { opticsOf } from "~/core/framing";
import { clamp } from "~/core/units";
import { subAdvice } from "./advice";
import { CHANNEL_FACTS, isNarrow, type Channel } from "./channel";
import { channelAdvice, linesOf, type ChannelAdvice } from "./channel-advice";
import {
  besideSky,
  elementArcsec,
  habitHours,
  lightModel,
  unitSnrSec,
  type BesideSky,
  type LightModel,
} from "./light-rates";
import { isOfStars, objectLight, type ObjectLight } from "./object-light";
import type { Filter, Rig } from "./rig";

/** A rig with its filters, and the sky over the place where it stands. */
export interface PictureKit {
  readonly rig: Rig;
  readonly filters: readonly Filter[];
  /** Zenith sky in V. */
  readonly skyMagPerArcsec2: number;
  readonly seeingArcsec: number;
}

/** One channel of a picture to begin with. */
export interface PictureJob {
  readonly channel: Channel;
  /** Exposure of every panel, h: to half an hour, half an hour at least. */
  readonly hours: number;
  readonly subSec: number;
  /** By what a minute of it is weighed. */
  readonly own: BesideSky;
  /** Exposure for a signal-to-noise of 1 over an element of the faintest part that belongs to the picture, s; null for pictures of stars. */
  readonly unitSec: number | null;
}

/** What a picture of an object takes with a kit under a sky. */
export interface Picture {
  readonly advice: ChannelAdvice;
  readonly light: ObjectLight;
  /** The light by which its minutes are weighed: its own; of a picture of stars that of its fainter stars. */
  readonly weighedBy: ObjectLight;
  readonly jobs: readonly PictureJob[];
  /** Exposure of one panel, all channels. */
  readonly hours: number;
  /** It is a line object, and what there is for it drowns its lines in the sky of a whole band. */
  readonly isDrowned: boolean;
}

/** Shares of L, R, G and B in a picture: 3 : 1 : 1 : 1, common practice. */
const COLOUR_SHARE = 1 / 3;
/** R, G and B without L together take as long as L with them. */
const WITHOUT_L_SHARE = 2 / 3;
/** How much longer a weaker line is taken than the strongest at most: 3 : 4, and 1 : 2 for the oxygen of remnants, shells and planetaries; common practice. */
const MOST_OF_LEAD = { usual: 4 / 3, shells: 2 } as const;
const SHELLS: readonly CatalogEntry["kind"][] = ["supernovaRemnant", "wolfRayetNebula", "planetaryNebula"];
const PLAIN_STRENGTH = 2; // a line weaker than that is taken along, not chased
/** Pictures of stars: hours in all with 80 mm, the least and the most; common practice. They go with the root of the area. */
const OF_STARS = {
  globularCluster: { hours: 3, least: 2, most: 4 },
  other: { hours: 1.7, least: 1, most: 2.5 },
} as const;
const STARS_AREA_M2 = 0.005;
/** By what minutes for stars are weighed, mag/arcsec²: the faint stars of a cluster outshine any sky. A proposal. */
const STARS_LIGHT: ObjectLight = { ha: 0, oiii: 0, sii: 0, magPerArcsec2: 21 };
/** A line object without a filter for its lines that takes more hours than this is out of reach; a proposal. */
export const DROWNED_HOURS = 25;

/** Nobody calls less a picture of a surface, h in all channels; common practice. */
const LEAST_HOURS = 2;

const MOST_HOURS = 500; // that a channel's goal can hold; a filter that misses the line altogether takes them

const toHalf = (hours: number): number => clamp(Math.round(hours * 2) / 2, 0.5, MOST_HOURS);
const isColourBand = (c: Channel) => c === "R" || c === "G" || c === "B";

/** A filter of a channel nobody has yet, with its usual values. */
const usualOf = (channel: Channel): Filter => {
  const { centreNm, bandwidthNm } = CHANNEL_FACTS[channel];
  return { name: channel, channel, centreNm, bandwidthNm, transmission: 0.9 };
};

/** What of a channel is the same for every object. */
interface ChannelKit {
  readonly subSec: number;
  readonly model: LightModel;
}

/** Exposure that an object's channels take, before rounding. */
function hoursOf(entry: CatalogEntry, unit: ReadonlyMap<Channel, number>): ReadonlyMap<Channel, number> {
  const hours = new Map<Channel, number>();
  const narrow = [...unit.keys()].filter(isNarrow);
  const lead = narrow[0] === undefined ? 0 : habitHours(unit.get(narrow[0])!);
  const isShell = SHELLS.includes(entry.kind) && linesOf(entry).oiii >= PLAIN_STRENGTH;
  const most = (c: Channel) => lead * (c === "OIII" && isShell ? MOST_OF_LEAD.shells : MOST_OF_LEAD.usual);
  for (const c of narrow) hours.set(c, Math.min(habitHours(unit.get(c)!), most(c)));
  const luminance = unit.get("L");
  const colours = [...unit.keys()].filter(isColourBand);
  // Without luminance its place is taken by the sum of the colours.
  const together = 1 / colours.reduce((sum, c) => sum + 1 / unit.get(c)!, 0);
  for (const [c, sec] of unit) {
    if (isNarrow(c)) continue;
    if (!isColourBand(c)) hours.set(c, habitHours(sec));
    else
      hours.set(
        c,
        luminance === undefined ? habitHours(together) * WITHOUT_L_SHARE : habitHours(luminance) * COLOUR_SHARE,
      );
  }
  const sum = [...hours.values()].reduce((a, b) => a + b, 0);
  const scale = Math.max(1, LEAST_HOURS / sum);
  return new Map([...hours].map(([c, h]) => [c, h * scale]));
}

/** Hours of the channels of a picture of stars: by the telescope alone. */
function starHours(
  entry: Pick<CatalogEntry, "kind">,
  channels: readonly Channel[],
  areaM2: number,
): ReadonlyMap<Channel, number> {
  const { hours, least, most } = entry.kind === "globularCluster" ? OF_STARS.globularCluster : OF_STARS.other;
  const all = clamp(hours * Math.sqrt(STARS_AREA_M2 / areaM2), least, most);
  const weight = (c: Channel) => (channels.includes("L") && isColourBand(c) ? COLOUR_SHARE : 1);
  const sum = channels.reduce((s, c) => s + weight(c), 0);
  return new Map(channels.map((c) => [c, (all * weight(c)) / sum]));
}

/**
 * Makes the judge of what pictures take with a kit: hours by one model for every object, channel, rig and sky (MATHS 3.15), in the
 * channels of `channelAdvice` (those wanted where the rig has none of them). What a channel is for all objects is worked out once.
 */
export function pictureJudge(kit: PictureKit): (entry: CatalogEntry, advice?: ChannelAdvice) => Picture {
  const { rig, skyMagPerArcsec2, seeingArcsec } = kit;
  const atHand = kit.filters.map((f) => f.channel);
  const { apertureAreaM2, pixelScaleArcsecPerPx, diffractionArcsec } = opticsOf(rig);
  const fwhmArcsec = Math.hypot(seeingArcsec, diffractionArcsec);
  const channels = new Map<Channel, ChannelKit>();
  const kitOf = (channel: Channel): ChannelKit => {
    const known = channels.get(channel);
    if (known) return known;
    const filter = kit.filters.find((f) => f.channel === channel) ?? usualOf(channel);
    const { subSec } = subAdvice({ rig, filter, skyMagPerArcsec2, seeingArcsec, protectedMag: null });
    const made = { subSec, model: lightModel({ rig, filter, skyMagPerArcsec2 }, subSec) };
    channels.set(channel, made);
    return made;
  };
  /** Of what nobody picked by hand or entered: pictures of one light, kind and size of an element are one. */
  const alike = new Map<ObjectLight, Map<number, Picture>>();
  const judge = (entry: CatalogEntry, advice: ChannelAdvice, light: ObjectLight, side: number): Picture => {
    const wanted = advice.use.length > 0 ? advice.use : advice.wanted.length > 0 ? advice.wanted : [advice.lead];
    const ofStars = isOfStars(light);
    const unit = new Map(
      wanted.map((c) => [c, unitSnrSec(kitOf(c).model, light, side, c === "Dual" ? "best" : "all")]),
    );
    const hours = ofStars ? starHours(entry, wanted, apertureAreaM2) : hoursOf(entry, unit);
    const weighedBy = ofStars ? STARS_LIGHT : light;
    const jobs = wanted.map((channel): PictureJob => {
      const { model, subSec } = kitOf(channel);
      return {
        channel,
        hours: toHalf(hours.get(channel) ?? 0),
        subSec,
        own: besideSky(model, weighedBy),
        unitSec: ofStars ? null : unit.get(channel)!,
      };
    });
    const sum = jobs.reduce((s, j) => s + j.hours, 0);
    const hasLinesOnly = !ofStars && light.magPerArcsec2 === null;
    const isDrowned = hasLinesOnly && jobs.every((j) => !isNarrow(j.channel)) && sum > DROWNED_HOURS;
    return { advice, light, weighedBy, jobs, hours: sum, isDrowned };
  };
  return (entry, advice) => {
    const light = objectLight(entry);
    const size = { pixelScaleArcsecPerPx, fwhmArcsec, majorArcmin: entry.majorArcmin ?? 0 };
    const tenths = Math.round(elementArcsec(size) * 10);
    const side = tenths / 10;
    if (entry.curated || entry.light) return judge(entry, advice ?? channelAdvice(entry, atHand), light, side);
    const ofLight = alike.get(light) ?? new Map<number, Picture>();
    const key = tenths * KINDS.length + KINDS.indexOf(entry.kind);
    const known = ofLight.get(key);
    if (known && (advice === undefined || known.advice === advice)) return known;
    const made = judge(entry, advice ?? channelAdvice(entry, atHand), light, side);
    alike.set(light, ofLight.set(key, made));
    return made;
  };
}

/** What a picture of one object takes with a kit. */
export const pictureOf = (entry: CatalogEntry, kit: PictureKit, advice?: ChannelAdvice): Picture =>
  pictureJudge(kit)(entry, advice);

const REFERENCE_SKY_MAG = 21;
const REFERENCE_HOURS = 6;

/**
 * The physical figure beside a habit: hours for the depth that the same rig reaches in 6 h under 21.0 mag/arcsec², the same object and
 * channel. No habit in it: it grows with the sky as noise does.
 */
export function sameDepthHours(kit: PictureKit, channel: Channel, light: ObjectLight): number {
  const filter = kit.filters.find((f) => f.channel === channel) ?? usualOf(channel);
  const at = (skyMagPerArcsec2: number) => {
    const { rig, seeingArcsec } = kit;
    const { subSec } = subAdvice({ rig, filter, skyMagPerArcsec2, seeingArcsec, protectedMag: null });
    return unitSnrSec(lightModel({ rig, filter, skyMagPerArcsec2 }, subSec), light, 1);
  };
  return (REFERENCE_HOURS * at(kit.skyMagPerArcsec2)) / at(REFERENCE_SKY_MAG);
}
