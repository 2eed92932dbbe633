import type { Channel, SubQuestion } from "~/core/exposure";
import { cropCorners, frameCorners, opticsOf, panelName, type CoveringFrame, type Panel } from "~/core/framing";
import { coveredShare, type ContributionData, type ShotFrame } from "~/core/ledger";
import { filterOfGoal, promises } from "~/core/plan";
import type { Equatorial } from "~/core/sky";
import { degToRad } from "~/core/units";
import { orAborted } from "~/workers/client";
import type { Coverage } from "~/workers/sky";
import type { Library } from "~/desk/records/library";
import type { ProjectContext } from "./project";
import { shotOf, shotWith } from "./reference";

/** One member's field: their frame as their rig shoots it. */
export interface MemberField {
  readonly memberId: string;
  readonly rigName: string;
  /** Channels they shoot of the picture's; the others they leave to friends. */
  readonly channels: readonly Channel[];
  /** One frame of it. */
  readonly widthDeg: number;
  readonly heightDeg: number;
  readonly scaleArcsec: number;
  readonly panels: number;
  /** Of the reference frame. */
  readonly covers: number;
  readonly frames: readonly CoveringFrame[];
}

/** What one member gave with one rig in a panel, in a channel. */
export interface CoveringRow {
  readonly channel: Channel;
  readonly memberId: string;
  readonly rigName: string;
  readonly panel: string;
  readonly keptHours: number;
  /** Hours at the reference wherever it points. */
  readonly hours: number;
  readonly pointings: number;
}

/** What lies where, and how deep. */
export interface CoverageView {
  readonly fields: readonly MemberField[];
  readonly rows: readonly CoveringRow[];
  /** Reads depth from hours, by channel: the reference's own kit and sky, with the target at its best. */
  readonly questions: Readonly<Partial<Record<Channel, { readonly question: SubQuestion; readonly subSec: number }>>>;
  /** By the reference frame: its panels as outlines. */
  readonly reference: readonly CoveringFrame[];
  /** What is judged is what is cut out of the reference frame, not all of it. */
  readonly isCropped: boolean;
  readonly answer: Promise<Coverage>;
}

const SAME_ARCMIN = 1; // pointings nearer than dithers and re-centring leave them are one
const SAME_TURN_DEG = 0.5;

const cornersOf = (
  at: { readonly centre: Equatorial<"icrs">; readonly positionAngleDeg: number },
  { layout }: ShotFrame,
) => frameCorners(at, layout.planeWidthArcmin, layout.planeHeightArcmin);

/** Where the camera pointed: as measured, where a solution says so, else as its panel is drawn; null where nobody knows. */
function pointingOf(
  entry: ContributionData,
  panel: Panel | undefined,
): { readonly centre: Equatorial<"icrs">; readonly positionAngleDeg: number } | null {
  const { at } = entry;
  if (at && (at.positionAngleDeg !== null || !panel)) {
    const { raDeg, decDeg, positionAngleDeg } = at;
    return { centre: { frame: "icrs", raDeg, decDeg }, positionAngleDeg: positionAngleDeg ?? 0 };
  }
  return panel ?? null;
}

/** All frames and panels of a project's log over one another, channel by channel, and the fields of all who take part. */
export function coverageOf(library: Library, c: ProjectContext, signal: AbortSignal): CoverageView {
  const shotBy = shotOf(library, c.stock);
  const drawn = c.stock.frames.find((f) => f.id === c.stock.referenceId)!;
  const reference = shotWith(drawn.data, opticsOf(c.reference.rig.data));
  const outline = ({ layout, panels }: ShotFrame): CoveringFrame[] =>
    panels.map((p) => ({ corners: cornersOf(p, { layout, panels }), weight: 1 }));
  const rigName = (id: string) => library.rigs.find((r) => r.id === id)?.data.name ?? "a rig that is gone";
  const pointings = new Map<string, { readonly channel: Channel; readonly frame: CoveringFrame }>();
  const rows = new Map<string, CoveringRow & { readonly keys: Set<string> }>();
  for (const { data: entry } of c.contributions) {
    const shot = entry.kept > 0 ? shotBy(entry) : null;
    const at =
      shot &&
      pointingOf(
        entry,
        shot.panels.find((p) => panelName(p.number) === entry.panel),
      );
    if (!shot || !at) continue;
    const { channel, memberId, rigId, panel } = entry;
    const keptHours = (entry.kept * entry.exposureSec) / 3600;
    const hours = keptHours * c.countOf(entry);
    const { raDeg, decDeg } = at.centre;
    const across = Math.cos(degToRad(decDeg)) * 60;
    const key = [
      channel,
      rigId,
      Math.round((raDeg * across) / SAME_ARCMIN),
      Math.round((decDeg * 60) / SAME_ARCMIN),
      Math.round((at.positionAngleDeg % 180) / SAME_TURN_DEG),
    ].join(" ");
    const known = pointings.get(key)?.frame;
    pointings.set(key, {
      channel,
      frame: { corners: known?.corners ?? cornersOf(at, shot), weight: (known?.weight ?? 0) + hours },
    });
    const rowKey = [channel, memberId, rigId, entry.frameId ?? "", panel].join(" ");
    const row = rows.get(rowKey);
    const keys = row?.keys ?? new Set<string>();
    keys.add(key);
    rows.set(rowKey, {
      channel,
      memberId,
      rigName: rigName(rigId),
      panel,
      keptHours: (row?.keptHours ?? 0) + keptHours,
      hours: (row?.hours ?? 0) + hours,
      pointings: keys.size,
      keys,
    });
  }
  const goals = c.goal.data.channels.filter((g) => !g.isShort);
  const parts = library.parts.filter((p) => p.data.projectId === c.id).map((p) => p.data);
  const fields = parts.flatMap((part): MemberField[] => {
    const { memberId, rigId, frameId } = part;
    const shot = shotBy({ rigId, ...(frameId === undefined ? {} : { frameId }) });
    const rig = library.rigs.find((r) => r.id === rigId)?.data;
    if (!shot || !rig) return [];
    const optics = opticsOf(rig);
    return [
      {
        memberId,
        rigName: rig.name,
        channels: goals.flatMap((g) => (promises(part, g.channel) ? [g.channel] : [])),
        widthDeg: optics.fieldWidthDeg,
        heightDeg: optics.fieldHeightDeg,
        scaleArcsec: optics.pixelScaleArcsecPerPx,
        panels: shot.panels.length,
        covers: coveredShare(reference, shot),
        frames: outline(shot),
      },
    ];
  });
  const shown = [...new Set([...goals.map((g) => g.channel), ...[...pointings.values()].map((p) => p.channel)])];
  const filters = c.reference.filters;
  const { crop } = drawn.data;
  const wanted = crop ? [{ corners: cropCorners(reference.layout, crop), weight: 1 }] : outline(reference);
  const answer = orAborted(
    library.desk.workers.sky.coverage({
      view: { centre: reference.layout.centre, positionAngleDeg: reference.layout.positionAngleDeg },
      layers: shown.map((channel) => ({
        channel,
        frames: [...pointings.values()].flatMap((p) => (p.channel === channel ? [p.frame] : [])),
        goalHours: goals.find((g) => g.channel === channel)?.hoursPerPanel ?? 0,
      })),
      fields: fields.map((f) => f.frames),
      wanted,
    }),
    signal,
  );
  answer.catch(() => undefined); // an aborted one is nobody's fault; the screen that asked is gone
  const { skyMagPerArcsec2, seeingArcsec } = c.reference.place.data;
  return {
    fields,
    rows: [...rows.values()].map(({ keys: _, ...row }) => row),
    reference: outline(reference),
    isCropped: crop !== undefined,
    answer,
    questions: Object.fromEntries(
      goals.flatMap((g) => {
        const filter = filterOfGoal(g, filters);
        if (!filter) return [];
        const question: SubQuestion = {
          rig: c.reference.rig.data,
          filter: filter.data,
          skyMagPerArcsec2,
          seeingArcsec,
          protectedMag: null,
          worthRate: c.bestThere[g.channel] ?? 1,
        };
        return [[g.channel, { question, subSec: g.subSec }]];
      }),
    ),
  };
}
