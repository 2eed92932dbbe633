import { data } from "react-router";
import { textOf } from "~/components/forms/form-numbers";
import { nightOffer } from "~/core/plan";
import { newId } from "~/storage/session";
import { loadLibrary, saveAll } from "~/storage/records";
import { keepPicture, pictureOf, type KeptPicture } from "~/storage/pictures";
import { choiceOf } from "~/desk/choice";
import { findTarget } from "~/desk/targets";
import { requireContext } from "~/desk/project";

/** A project's frames, the one looked at, and what it is compared with. */
export async function loadFrame(request: Request, projectId: string) {
  const library = await loadLibrary();
  const params = new URL(request.url).searchParams;
  const c = requireContext(library, projectId);
  const frame = c.frames.find((f) => f.id === params.get("frame")) ?? c.frame;
  const { night } = choiceOf(library, params);
  const goals = c.goal.data.channels;
  const first = goals[0];
  const offer = first
    ? nightOffer(c.place.data, c.layout.centre, [first.channel], night).channels[first.channel]
    : undefined;
  return {
    frame,
    picture: await pictureOf(frame.id),
    frames: c.frames.map((f, i) => ({ id: f.id, title: f.data.title?.trim() ?? "", number: i + 1 })),
    shotFrameId: c.frame.id,
    project: c.project,
    optics: c.optics,
    rig: c.rig.data,
    rigId: c.rig.id,
    rigs: library.rigs.map((r) => ({ id: r.id, data: r.data })),
    title: c.project.data.name,
    target: await findTarget(library, c.project.data.targetId).catch(() => null),
    hoursPerPanel: goals.reduce((sum, g) => sum + g.hoursPerPanel, 0),
    subSec: first?.subSec ?? 120,
    hoursANight: (offer?.usableMin ?? 0) / 60,
  };
}

/** What the page of a frame knows. */
export type FrameView = Awaited<ReturnType<typeof loadFrame>>;

/** Keeps a frame, or the picture under it; or adds a frame like the one shown. */
export async function saveFrame(request: Request) {
  const form = await request.formData();
  if (textOf(form, "intent") === "picture") return savePicture(form);
  const isNew = textOf(form, "intent") === "another";
  const id = isNew ? newId("frame") : textOf(form, "id");
  const saved = await saveAll([
    { kind: "frame", id, data: JSON.parse(textOf(form, "frame")), baseRev: isNew ? null : textOf(form, "baseRev") },
  ]);
  return saved.ok
    ? data({ rev: saved.value.revs[id]!, id, storage: null, said: "" })
    : data({ rev: null, id, storage: saved.error.code, said: "" }, { status: 507 });
}

async function savePicture(form: FormData) {
  const [id, file] = [textOf(form, "id"), form.get("file")];
  const told = textOf(form, "picture");
  const picture =
    file instanceof Blob && told !== ""
      ? {
          ...(JSON.parse(told) as Pick<KeptPicture, "name" | "mesh" | "opacity" | "corners">),
          bytes: await file.arrayBuffer(),
          type: file.type,
        }
      : null;
  const saved = await keepPicture(id, picture);
  return saved.ok
    ? data({ rev: null, id, storage: null, said: picture ? `${picture.name} is kept.` : "The picture is taken away." })
    : data({ rev: null, id, storage: saved.error.code, said: "" }, { status: 507 });
}
