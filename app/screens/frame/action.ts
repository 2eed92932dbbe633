import { data } from "react-router";
import { isForm } from "~/components/forms/form-data";
import { textOf } from "~/components/forms/form-numbers";
import { answer, intentOf } from "~/desk/answer";
import { addFrame, moveFrame, saveFrame, shootFrame } from "~/desk/projects";
import { libraryHere } from "~/desk/open-library";
import { requireContext } from "~/desk/project";
import { dropDraft } from "~/storage/drafts";
import { keepPicture, type KeptPicture } from "~/storage/pictures";
import type { FrameIntent, PictureAnswer } from "./intents";

/** Keeps a frame, or the picture under it; adds a frame like the one shown; says which of several is shot. */
export async function frameAction(request: Request) {
  if (isForm(request)) return savePicture(await request.formData());
  const intent = await intentOf<FrameIntent>(request);
  switch (intent.act) {
    case "save":
      return answer(await saveFrame(intent));
    case "another":
      return answer(await addFrame(requireContext(await libraryHere(), intent.projectId), intent.data));
    case "shoot": {
      const library = await libraryHere();
      return answer(await shootFrame(library, requireContext(library, intent.projectId), intent.frameId));
    }
    case "move": {
      const library = await libraryHere();
      const c = requireContext(library, intent.projectId);
      const done = await moveFrame(library, c, intent.frameId, intent.change);
      if (done.ok) dropDraft(`moved frame ${intent.frameId}`);
      const said = intent.change.counts
        ? "The frame is moved; its hours still count."
        : "Kept as a new frame; the hours stay with the old one.";
      return answer(done, said);
    }
  }
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
    ? data<PictureAnswer>({ refusal: null, said: picture ? `${picture.name} is kept.` : "The picture is taken away." })
    : data<PictureAnswer>({ refusal: saved.error, said: "" }, { status: 507 });
}
