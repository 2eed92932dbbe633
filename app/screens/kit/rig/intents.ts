import type { Rig } from "~/core/exposure";

/** What the page of a rig asks for beside saving its form: the version that counts where two were written at once. */
export interface RigIntent {
  readonly act: "settle";
  readonly data: Rig;
}
