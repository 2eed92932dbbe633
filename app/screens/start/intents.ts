import type { SampleId } from "~/desk/records/join";
import type { StartKit, StartPlace } from "~/desk/kit/start";

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
