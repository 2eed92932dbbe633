import { data } from "react-router";
import { isForm } from "~/components/forms/form-data";
import { textOf } from "~/components/forms/form-numbers";
import { answer, intentOf } from "~/desk/answer";
import { addFrame, saveFrame, saveProject } from "~/desk/projects";
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
      return answer(await addFrame(intent.data));
    case "shoot":
      return answer(await saveProject({ id: intent.projectId, baseRev: intent.rev, data: intent.data }));
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
