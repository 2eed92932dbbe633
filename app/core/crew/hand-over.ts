import type { Channel } from "~/core/exposure";

/** How a project's members hand over what they took: agreed once, ticked off one by one. */
export interface HandOverData {
  readonly projectId: string;
  /** Stacks that are calibrated, or single subs as they came out of the camera. */
  readonly form: "stacks" | "calibratedSubs" | "rawSubs";
  /** Bits a pixel. */
  readonly bits: 16 | 32;
  /** What has come: "member channel". */
  readonly done: readonly string[];
}

/** Common practice, no source: what one person can put together without the others' calibration. */
export const USUAL_HAND_OVER: Omit<HandOverData, "projectId"> = { form: "stacks", bits: 32, done: [] };

/** One thing that one member owes. */
export interface HandOverItem {
  readonly key: string;
  readonly memberId: string;
  readonly memberName: string;
  readonly channel: Channel;
  readonly panels: number;
  /** As they come out of the camera, ″ a pixel. */
  readonly scaleArcsec: number;
  readonly binning: number;
  /** What the files are called, without their ending; "P*" stands for every panel. */
  readonly fileName: string;
  readonly isDone: boolean;
}

const stem = (text: string): string =>
  text
    .normalize("NFKD")
    .replaceAll(/[^A-Za-z0-9]+/g, "-")
    .replaceAll(/^-|-$/g, "")
    .toLowerCase() || "x";

/** What each member owes, by the channels they promised, in the order of names; names of files are the same for everybody. */
export function handOverItems(
  project: string,
  givers: readonly {
    readonly memberId: string;
    readonly name: string;
    readonly channels: readonly Channel[];
    readonly panels: number;
    readonly scaleArcsec: number;
    readonly binning: number;
  }[],
  done: readonly string[],
): HandOverItem[] {
  return [...givers]
    .sort((a, b) => a.name.localeCompare(b.name))
    .flatMap(({ memberId, name, channels, panels, scaleArcsec, binning }) =>
      channels.map((channel): HandOverItem => {
        const key = `${memberId} ${channel}`;
        return {
          key,
          memberId,
          memberName: name,
          channel,
          panels,
          scaleArcsec,
          binning,
          fileName: [stem(project), ...(panels > 1 ? ["P*"] : []), channel, stem(name)].join("_"),
          isDone: done.includes(key),
        };
      }),
    );
}
