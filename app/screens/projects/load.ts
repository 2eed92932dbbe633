import { firstStepOf } from "~/desk/kit/better";
import type { CatalogEntry } from "~/core/catalog";
import { channelSums } from "~/core/ledger";
import { shareOf, type ShareNight } from "~/core/season";
import type { Desk } from "~/desk/desk";
import { seasonInTurns } from "~/desk/plan/season";
import { gapOf } from "~/desk/projects/project-gap";
import { contextOf, ownContextsOf, type ProjectContext } from "~/desk/projects/project";
import type { Library } from "~/desk/records/library";
import { libraryHere } from "~/desk/records/open-library";
import { findTarget, targetNameOf } from "~/desk/sky/targets";

/** What a project's card says at once. */
function cardOf(library: Library, c: ProjectContext) {
  return {
    target: targetNameOf(library, c.project.data.targetId),
    rig: c.rig.data.name,
    place: c.place.data.name,
    zone: c.place.data.timeZone,
    panels: c.panels.length,
    channels: channelSums(c.cells),
    members: new Set(c.contributions.map((x) => x.data.memberId)).size,
    frame: c.layout,
    isMine: c.part.isMine,
  };
}

/** What each project is of; null where it cannot be found. */
async function targetsOf(library: Library): Promise<Readonly<Record<string, CatalogEntry | null>>> {
  const found = library.projects.map(
    async ({ id, data }) => [id, await findTarget(library, data.targetId).catch(() => null)] as const,
  );
  return Object.fromEntries(await Promise.all(found));
}

/** The next night of each project of one's own in the plan; null where it has none. */
async function nextNights(library: Library): Promise<Readonly<Record<string, ShareNight | null>>> {
  const own = ownContextsOf(library);
  if (own.length === 0) return {};
  const plan = await (await seasonInTurns(library)).settled;
  return Object.fromEntries(own.map((c) => [c.id, shareOf(plan, c.id).nights[0] ?? null]));
}

/** Nothing waits for what comes later, and where it fails the card says so. */
function later<T>(work: Promise<T>): Promise<T> {
  work.catch(() => undefined);
  return work;
}

/** The projects, each as a card; what must be looked up or planned comes later. */
export async function loadProjects(desk: Desk) {
  const library = await libraryHere(desk);
  const projects = library.projects.map((p) => {
    const c = contextOf(library, p.id);
    return { id: p.id, name: p.data.name, card: c && cardOf(library, c), gap: c ? null : gapOf(library, p.id) };
  });
  return {
    projects,
    firstStep: firstStepOf(library),
    targets: later(targetsOf(library)),
    next: later(nextNights(library)),
  };
}

/** The projects as their page shows them. */
export type ProjectsView = Awaited<ReturnType<typeof loadProjects>>;
export type ProjectCardView = NonNullable<ProjectsView["projects"][number]["card"]>;
