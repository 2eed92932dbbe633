import type { SampleId } from "~/desk/sharing";
import type { StartKit, StartPlace } from "~/desk/start";

/** What the start can be asked for. */
export type StartIntent =
  | {
      readonly act: "begin";
      readonly place: StartPlace;
      readonly kit: StartKit;
      /** The target whose picture is begun; null = place and rig only. */
      readonly targetId: string | null;
    }
  | { readonly act: "sample"; readonly id: SampleId };
