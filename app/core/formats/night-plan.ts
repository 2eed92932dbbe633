import Papa from "papaparse";
import type { Block, SheetEvent } from "~/core/night";
import { plainPosition } from "~/core/notation";
import { airmassPickering, apparentVector, horizontalAt, moonAt, separationDeg, directionOf, type Equatorial, type NightSky, type Vec3 } from "~/core/sky"; // prettier-ignore
import { spreadsheetCell } from "./panel-list";
import { MINUTE_MS, utcOffsetMinutes, type NightDate, type UtcMs } from "~/core/time";

/** Where a block points: centre of its panel and the camera's angle there. */
export interface BlockAim {
  readonly target: string;
  readonly project: string;
  readonly centre: Equatorial<"icrs">;
  /** Of the picture's up axis, north through east, [0, 360). */
  readonly cameraAngleDeg: number;
}

/** An evening to be written for other programs. */
export interface NightPlanQuestion {
  readonly night: NightDate;
  readonly writtenAt: string;
  readonly place: {
    readonly name: string;
    readonly latitudeDeg: number;
    readonly longitudeDeg: number;
    readonly elevationM: number;
    readonly timeZone: string;
  };
  readonly rig: { readonly name: string; readonly ditherEvery: number };
  readonly lines: readonly (Block | SheetEvent)[];
  readonly sky: NightSky;
  /** null = the panel is gone: the line is written without a position. */
  readonly aimOf: (block: Block) => BlockAim | null;
}

/** How a target stands at an instant; airless altitude, the air after Pickering 2002. */
interface Conditions {
  readonly altitudeDeg: number;
  readonly azimuthDeg: number;
  /** null = below the horizon. */
  readonly airmass: number | null;
  readonly moonAltitudeDeg: number;
  readonly moonSeparationDeg: number;
}

interface When {
  readonly startUtc: string;
  readonly endUtc: string;
  readonly startLocal: string;
  readonly endLocal: string;
}

/** A line of the evening: exposures, or what is done between them. Published as docs/night.schema.json. */
export type NightPlanLine =
  | (When & {
      readonly kind: "exposures";
      readonly target: string | null;
      readonly project: string | null;
      readonly panel: string;
      readonly raDeg: number | null;
      readonly decDeg: number | null;
      readonly raJ2000: string | null;
      readonly decJ2000: string | null;
      readonly cameraAngleDeg: number | null;
      readonly channel: string;
      readonly filter: string;
      readonly exposureSec: number;
      readonly count: number;
      readonly ditherEvery: number;
      readonly atStart: Conditions | null;
      readonly atEnd: Conditions | null;
    })
  | (When & { readonly kind: SheetEvent["kind"]; readonly detail: string });

/** An evening in the form of docs/night.schema.json. */
export interface NightPlan {
  readonly format: "zenithar-night";
  readonly version: 1;
  readonly writtenAt: string;
  readonly night: string;
  readonly place: NightPlanQuestion["place"];
  readonly rig: string;
  readonly lines: readonly NightPlanLine[];
}

const round = (value: number, digits: number): number => Number(value.toFixed(digits));
/** An angle [0, 360): what rounds up to the whole turn is 0. */
const turn = (deg: number, digits: number): number => round(deg, digits) % 360;

/** Local time with its offset from UTC, ISO 8601: the same hour twice in the night clocks are put back stays two. */
function localIso(ms: UtcMs, zone: string): string {
  const offset = utcOffsetMinutes(zone, ms);
  const two = (n: number) => String(n).padStart(2, "0");
  const at = Math.abs(offset);
  const wall = new Date(ms + offset * MINUTE_MS).toISOString().slice(0, 19);
  return `${wall}${offset < 0 ? "-" : "+"}${two(Math.floor(at / 60))}:${two(Math.round(at % 60))}`;
}

function conditionsAt(sky: NightSky, aim: BlockAim, ms: UtcMs): Conditions {
  const ofDate = apparentVector(sky, aim.centre);
  const { altitudeDeg, azimuthDeg } = horizontalAt(sky, ofDate, ms);
  const moon = moonAt(sky, ms);
  const on = (unit: Vec3): Equatorial<"ofDate"> => ({ frame: "ofDate", ...directionOf(unit) });
  return {
    altitudeDeg: round(altitudeDeg, 2),
    azimuthDeg: turn(azimuthDeg, 2),
    airmass: altitudeDeg > 0 ? round(airmassPickering(altitudeDeg), 3) : null,
    moonAltitudeDeg: round(moon.altitudeDeg, 2),
    moonSeparationDeg: round(separationDeg(on(ofDate), on(moon.unitOfDate)), 2),
  };
}

/** An evening for other programs: every line with its times, and of exposures where they point, what is taken, and how the sky stands. */
export function nightPlan({ night, writtenAt, place, rig, lines, sky, aimOf }: NightPlanQuestion): NightPlan {
  return {
    format: "zenithar-night",
    version: 1,
    writtenAt,
    night,
    place,
    rig: rig.name,
    lines: [...lines]
      .sort((a, b) => a.startMs - b.startMs)
      .map((line): NightPlanLine => {
        const when: When = {
          startUtc: new Date(line.startMs).toISOString(),
          endUtc: new Date(line.endMs).toISOString(),
          startLocal: localIso(line.startMs, place.timeZone),
          endLocal: localIso(line.endMs, place.timeZone),
        };
        if (line.kind !== "block") return { kind: line.kind, ...when, detail: line.detail };
        const aim = aimOf(line);
        const plain = aim && plainPosition(aim.centre);
        return {
          kind: "exposures",
          ...when,
          target: aim?.target ?? null,
          project: aim?.project ?? null,
          panel: line.panel,
          raDeg: aim && turn(aim.centre.raDeg, 6),
          decDeg: aim && round(aim.centre.decDeg, 6),
          raJ2000: plain?.ra ?? null,
          decJ2000: plain?.dec ?? null,
          cameraAngleDeg: aim && turn(aim.cameraAngleDeg, 2),
          channel: line.channel,
          filter: line.filterName,
          exposureSec: line.subSec,
          count: line.subs,
          ditherEvery: rig.ditherEvery,
          atStart: aim && conditionsAt(sky, aim, line.startMs),
          atEnd: aim && conditionsAt(sky, aim, line.endMs),
        };
      }),
  };
}

/** Columns of the same as a table: of exposures alone. */
const COLUMNS = [
  "start_utc", "end_utc", "start_local", "end_local", "target", "project", "panel", "ra_j2000", "dec_j2000", "ra_deg", "dec_deg", "camera_angle_deg",
  "channel", "filter", "exposure_s", "count", "dither_every", "altitude_start_deg", "altitude_end_deg", "moon_altitude_start_deg", "moon_separation_deg",
] as const; // prettier-ignore

/** The exposures of an evening as a table (RFC 4180), a line each. */
export const nightPlanCsv = ({ lines }: NightPlan): string =>
  Papa.unparse(
    {
      fields: [...COLUMNS],
      data: lines.flatMap((l) =>
        l.kind === "exposures"
          ? [[l.startUtc, l.endUtc, l.startLocal, l.endLocal, spreadsheetCell(l.target ?? ""), spreadsheetCell(l.project ?? ""), spreadsheetCell(l.panel), l.raJ2000, l.decJ2000, l.raDeg, l.decDeg, l.cameraAngleDeg,
              l.channel, spreadsheetCell(l.filter), l.exposureSec, l.count, l.ditherEvery, l.atStart?.altitudeDeg, l.atEnd?.altitudeDeg, l.atStart?.moonAltitudeDeg, l.atStart?.moonSeparationDeg]]
          : [],
      ), // prettier-ignore
    },
    { newline: "\r\n" },
  );
