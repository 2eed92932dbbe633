import {
  afterCommand,
  standInAt,
  type Command,
  type ObservatoryState,
  type StandInKit,
  type TakenExposure,
} from "./stand-in";
import type { UtcMs } from "~/core/time";

/** A frame as the file that a camera's program writes. */
export interface FrameFile {
  readonly name: string;
  readonly bytes: Uint8Array<ArrayBuffer>;
}

/**
 * A telescope with its devices, told what to do one command after the other (docs/observatory.md). What ships is a stand-in; something real can be
 * put in its place.
 */
export interface Observatory {
  /** Whether it is a stand-in: said wherever its frames or states show. */
  readonly isSimulated: boolean;
  readonly state: () => Promise<ObservatoryState>;
  /** Does a command to its end; of an exposure it hands out the frame, or null where nothing could be read out. */
  readonly send: (command: Command) => Promise<FrameFile | null>;
}

/** The stand-in: no device, no waiting, its clock goes as its commands take time. `frameOf` makes the file of an exposure. */
export function standInObservatory(
  kit: StandInKit,
  fromMs: UtcMs,
  frameOf: (exposure: TakenExposure) => FrameFile | null,
): Observatory {
  let state = standInAt(kit, fromMs);
  return {
    isSimulated: true,
    state: () => Promise.resolve(state),
    send(command) {
      const done = afterCommand(kit, state, command);
      state = done.state;
      return Promise.resolve(done.exposure ? frameOf(done.exposure) : null);
    },
  };
}
