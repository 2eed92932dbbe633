import type { Desk } from "~/desk/desk";
import { filtersOf } from "~/desk/projects/reference";
import type { Rig } from "~/core/exposure";
import { nightOffer } from "~/core/plan";
import type { Entity, Library } from "~/desk/records/library";
import { choiceOf } from "~/desk/sky/choice";
import { nightOver } from "~/desk/sky/nights";
import { heldBack } from "~/desk/records/pending";
import { libraryHere } from "~/desk/records/open-library";
import { requireContext, type ProjectContext } from "~/desk/projects/project";
import { findTarget } from "~/desk/sky/targets";
import { thePictures } from "~/desk/projects/pictures";

/** A project's frames, the one looked at, and what it is compared with. */
export async function loadFrame(desk: Desk, request: Request, projectId: string) {
  const library = await libraryHere(desk);
  const params = new URL(request.url).searchParams;
  const c = requireContext(library, projectId);
  const frame = c.frames.find((f) => f.id === params.get("frame")) ?? c.frame;
  const { night } = choiceOf(library, params);
  const goals = c.goal.data.channels;
  const first = goals[0];
  const offer = first
    ? nightOffer(nightOver(desk, c.place.data, night, c.moon), c.layout.centre, [first.channel], c.own).channels[
        first.channel
      ]
    : undefined;
  return {
    frame,
    held: await heldBack(desk, "frame", frame.id),
    picture: await desk.at(thePictures).of(frame.id),
    frames: c.frames.map((f, i) => ({ id: f.id, title: f.data.title?.trim() ?? "", number: i + 1 })),
    shotFrameId: c.frame.id,
    stock: c.stock,
    taken: c.contributions.map((x) => x.data),
    project: c.project,
    optics: c.optics,
    rig: c.rig.data,
    rigId: c.rig.id,
    kits: library.rigs.map((r) => kitOf(library, r, c)),
    goals,
    title: c.project.data.name,
    target: await findTarget(library, c.project.data.targetId).catch(() => null),
    hoursPerPanel: goals.reduce((sum, g) => sum + g.hoursPerPanel, 0),
    subSec: first?.subSec ?? 120,
    hoursANight: (offer?.usableMin ?? 0) / 60,
  };
}

/** A rig with its filters under the sky it stands under: by a member's part in this project, else where it was last used, else here. */
function kitOf(library: Library, rig: Entity<Rig>, c: ProjectContext) {
  const isIts = ({ data }: { readonly data: { readonly rigId: string } }) => data.rigId === rig.id;
  const said = library.parts.find((p) => p.data.projectId === c.id && isIts(p))?.data;
  const used = said ?? library.contributions.findLast(isIts)?.data;
  const place = library.places.find((p) => p.id === used?.placeId)?.data ?? c.place.data;
  return {
    id: rig.id,
    rig: rig.data,
    filters: filtersOf(library, rig.data).map((f) => f.data),
    skyMagPerArcsec2: place.skyMagPerArcsec2,
    placeName: place.name,
  };
}

/** What the page of a frame knows. */
export type FrameView = Awaited<ReturnType<typeof loadFrame>>;
