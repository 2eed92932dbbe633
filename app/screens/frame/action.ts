import type { Desk } from "~/desk/desk";
import { data } from "react-router";
import { isForm } from "~/components/forms/form-data";
import { textOf } from "~/components/forms/form-numbers";
import { answer, intentOf } from "~/desk/records/answer";
import { addFrame, moveFrame, saveFrame, shootFrame } from "~/desk/projects/projects";
import { libraryHere } from "~/desk/records/open-library";
import { requireContext } from "~/desk/projects/project";
import { theDrafts } from "~/desk/records/kept";
import { thePictures, type KeptPicture } from "~/desk/projects/pictures";
import type { FrameIntent, PictureAnswer } from "./intents";

/** Keeps a frame, or the picture under it; adds a frame like the one shown; says which of several is shot. */
export async function frameAction(desk: Desk, request: Request) {
  if (isForm(request)) return savePicture(desk, await request.formData());
  const intent = await intentOf<FrameIntent>(request);
  switch (intent.act) {
    case "save":
      return answer(desk, await saveFrame(desk, intent));
    case "another":
      return answer(desk, await addFrame(requireContext(await libraryHere(desk), intent.projectId), intent.data));
    case "shoot": {
      const library = await libraryHere(desk);
      return answer(desk, await shootFrame(library, requireContext(library, intent.projectId), intent.frameId));
    }
    case "move": {
      const library = await libraryHere(desk);
      const c = requireContext(library, intent.projectId);
      const done = await moveFrame(library, c, intent.frameId, intent.change);
      if (done.ok) desk.at(theDrafts).drop(`moved frame ${intent.frameId}`);
      const said = intent.change.counts
        ? "The frame is moved; its hours still count."
        : "Kept as a new frame; the hours stay with the old one.";
      return answer(desk, done, said);
    }
  }
}

async function savePicture(desk: Desk, form: FormData) {
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
  const saved = await desk.at(thePictures).keep(id, picture);
  return saved.ok
    ? data<PictureAnswer>({ refusal: null, said: picture ? `${picture.name} is kept.` : "The picture is taken away." })
    : data<PictureAnswer>({ refusal: saved.error, said: "" }, { status: 507 });
}
