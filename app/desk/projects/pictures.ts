import { slot } from "~/desk/desk";
import { createPictures } from "~/storage/pictures";

export type { KeptPicture } from "~/storage/pictures";

/** Pictures of one's own under the charts of frames. */
export const thePictures = slot(({ cupboard }) => createPictures(cupboard));
