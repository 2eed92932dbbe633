import type { ProjectGap } from "~/core/records";
import { slot } from "~/desk/desk";
import type { Library } from "~/desk/records/library";
import { shownPart } from "~/desk/records/parts";

/** Projects that could not be worked out, and why: left out, so that they take no screen down. */
export const broken = slot(() => new Map<string, string>());

/** What a project lacks; null when nothing. */
export function gapOf(library: Library, projectId: string): ProjectGap | null {
  const project = library.projects.find((p) => p.id === projectId);
  const of = (part: ProjectGap["part"], isIt: (raw: Readonly<Record<string, unknown>>) => boolean): ProjectGap => {
    const stored = library.quarantine.find(({ key, raw }) => {
      const data = (raw as { readonly data?: unknown } | null)?.data;
      return key.startsWith(`${part}/`) && isIt({ id: key.slice(part.length + 1), ...(data as object | undefined) });
    });
    return { part, reason: stored?.reason ?? null };
  };
  if (!project) return of("project", (raw) => raw["id"] === projectId);
  const part = shownPart(library, project)?.data;
  if (!part) return of("part", (raw) => raw["projectId"] === projectId);
  if (!library.places.some((p) => p.id === part.placeId)) return of("place", (raw) => raw["id"] === part.placeId);
  if (!library.rigs.some((r) => r.id === part.rigId)) return of("rig", (raw) => raw["id"] === part.rigId);
  if (!library.frames.some((f) => f.data.projectId === projectId))
    return of("frame", (raw) => raw["projectId"] === projectId);
  if (!library.goals.some((g) => g.data.projectId === projectId))
    return of("goal", (raw) => raw["projectId"] === projectId);
  const reason = library.desk.at(broken).get(projectId);
  return reason === undefined ? null : { part: "project", reason };
}
