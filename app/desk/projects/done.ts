import { seasonOf } from "~/core/night";
import { doneAdvice, type DoneAdvice } from "~/core/ledger";
import { panelName } from "~/core/framing";
import type { ProjectData } from "~/core/plan";
import type { KeepFault } from "~/core/records";
import type { Result } from "~/core/result";
import { addNights, type NightDate } from "~/core/time";
import { orAborted } from "~/workers/client";
import { keep, type Kept } from "~/desk/records/acts";
import type { Library } from "~/desk/records/library";
import type { ProjectContext } from "./project";

/** What has to be set up again to go on with a picture: frame, angle, camera, calibration. */
export interface Repeat {
  readonly panels: readonly {
    readonly panel: string;
    readonly raDeg: number;
    readonly decDeg: number;
    readonly positionAngleDeg: number;
  }[];
  /** As a solution of the latest sub with one says; null = none does. */
  readonly measuredAngleDeg: number | null;
  readonly rigName: string;
  readonly sensorC: number | null;
  readonly lights: readonly {
    readonly channel: string;
    readonly filterName: string;
    readonly subSec: number;
    readonly gain: number | null;
  }[];
  /** Nights of the latest flats through the filters of this picture, and of its darks. */
  readonly flats: string | null;
  readonly darks: string | null;
}

/** Whether a picture is done, where more would help, and what to repeat next year. */
export interface DoneView {
  readonly rev: string;
  readonly advice: DoneAdvice;
  readonly finishedOn: string | null;
  readonly restsUntil: string | null;
  readonly repeat: Repeat;
  /** First evening of its next season here; null = it never ends, or never comes. */
  readonly nextSeason: Promise<NightDate | null>;
}

const USEFUL_MIN = 60; // of a night, for it to count as one of a season
const BREAK_NIGHTS = 21; // a gap shorter than that is the Moon's, not the season's

/** When a target is up again after its present or coming season; from tonight on. */
async function nextSeasonOf(c: ProjectContext, today: NightDate, signal: AbortSignal): Promise<NightDate | null> {
  const channel = c.goal.data.channels[0]?.channel ?? "L";
  const year = await orAborted(
    c.desk.workers.sky.year({ place: c.place.data, from: today, moon: c.moon, target: c.layout.centre, channel }),
    signal,
  );
  if (seasonOf(year, USEFUL_MIN).kind === "never") return null;
  let out = 0;
  for (const night of year) {
    if (night.moonlessMin < USEFUL_MIN) out++;
    else if (out >= BREAK_NIGHTS) return night.date;
    else out = 0;
  }
  // It is still in season at the end of the year looked at, or its next one begins with it.
  return out >= BREAK_NIGHTS ? addNights(today, year.length) : null;
}

const dayOf = (ms: number | null | undefined): string | null =>
  ms === null || ms === undefined ? null : new Date(ms).toISOString().slice(0, 10);

/** What is told of a picture where it may end. */
export function doneOf(library: Library, c: ProjectContext, today: NightDate, signal: AbortSignal): DoneView {
  const nextSeason = nextSeasonOf(c, today, signal).catch(() => null);
  const mine = c.contributions.filter((x) => x.data.rigId === c.rig.id).map((x) => x.data);
  const latest = mine.toSorted((a, b) => (b.startMs ?? 0) - (a.startMs ?? 0));
  const solved = latest.find((e) => typeof e.at?.positionAngleDeg === "number" && e.startMs !== null);
  const shelf = library.calibrations
    .map((x) => x.data)
    .filter((f) => f.camera === "" || f.camera === c.rig.data.cameraName);
  const last = (type: string) =>
    shelf.filter((f) => f.type === type).reduce<number | null>((a, f) => Math.max(a ?? 0, f.startMs ?? 0), null);
  return {
    rev: c.project.rev,
    advice: doneAdvice(c.cells),
    finishedOn: c.project.data.finishedOn ?? null,
    restsUntil: c.project.data.restsUntil ?? null,
    nextSeason,
    repeat: {
      panels: c.panels.map((p) => ({
        panel: panelName(p.number),
        raDeg: p.centre.raDeg,
        decDeg: p.centre.decDeg,
        positionAngleDeg: p.positionAngleDeg,
      })),
      measuredAngleDeg: solved?.at?.positionAngleDeg ?? null,
      rigName: c.rig.data.name,
      sensorC: c.rig.data.isCooled ? c.rig.data.workingTempC : null,
      lights: c.goal.data.channels.map((g) => ({
        channel: g.channel,
        filterName: library.filters.find((f) => f.id === g.filterId)?.data.name ?? g.channel,
        subSec: g.subSec,
        gain: latest.find((e) => e.channel === g.channel && e.gain !== undefined)?.gain ?? null,
      })),
      flats: dayOf(last("flat")),
      darks: dayOf(last("dark")),
    },
  };
}

/** Calls a picture finished, lets it rest until an evening, or takes it up again: nothing of it is deleted. */
export function keepState(
  c: ProjectContext,
  rev: string,
  state: Pick<ProjectData, "finishedOn" | "restsUntil">,
): Promise<Result<Kept, KeepFault>> {
  const { finishedOn: _f, restsUntil: _r, ...rest } = c.project.data;
  return keep(c.desk, [{ kind: "project", id: c.id, data: { ...rest, ...state }, baseRev: rev }]);
}
