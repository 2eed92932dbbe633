import { handOverItems, USUAL_HAND_OVER, type HandOverData, type HandOverItem } from "~/core/crew";
import { opticsOf } from "~/core/framing";
import { panelsOf } from "~/core/plan";
import type { KeepFault } from "~/core/records";
import type { Result } from "~/core/result";
import { keep, type Kept } from "~/desk/records/acts";
import type { Desk } from "~/desk/desk";
import type { Entity, Library } from "~/desk/records/library";
import type { ProjectContext } from "./project";

const stored = (library: Library, projectId: string): Entity<HandOverData> | null =>
  library.handOvers.find((h) => h.data.projectId === projectId) ?? null;

/** What a project's members agreed to hand over, and each thing that one of them owes. */
export function handOverOf(
  library: Library,
  c: ProjectContext,
): { readonly rev: string; readonly terms: Omit<HandOverData, "projectId">; readonly items: readonly HandOverItem[] } {
  const kept = stored(library, c.id);
  const { form, bits, done } = kept?.data ?? USUAL_HAND_OVER;
  const wanted = [...new Set(c.goal.data.channels.map((g) => g.channel))];
  const givers = library.parts.flatMap(({ data: part }) => {
    if (part.projectId !== c.id) return [];
    const rig = library.rigs.find((r) => r.id === part.rigId)?.data;
    const frame = c.stock.frames.find((f) => f.id === (part.frameId ?? c.stock.referenceId))?.data;
    if (!rig || !frame) return [];
    const optics = opticsOf(rig);
    return [
      {
        memberId: part.memberId,
        name: library.members.find((m) => m.id === part.memberId)?.data.name ?? "?",
        channels: wanted.filter((ch) => part.channels?.includes(ch) ?? true),
        panels: panelsOf(frame, optics).length,
        scaleArcsec: optics.pixelScaleArcsecPerPx,
        binning: rig.sensor.binning,
      },
    ];
  });
  return {
    rev: kept?.rev ?? "",
    terms: { form, bits, done },
    items: givers.length < 2 ? [] : handOverItems(c.project.data.name, givers, done),
  };
}

/** Keeps what was agreed and ticked off: one record a project, whoever writes it. */
export const keepHandOver = (
  desk: Desk,
  projectId: string,
  terms: Omit<HandOverData, "projectId">,
  rev: string,
): Promise<Result<Kept, KeepFault>> =>
  keep(desk, [
    {
      kind: "handOver",
      id: `hand-over-${projectId}`.slice(0, 120),
      data: { projectId, ...terms },
      baseRev: rev === "" ? null : rev,
    },
  ]);
