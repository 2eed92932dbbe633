import { expose } from "comlink";
import {
  coverOutlines,
  placeMosaic,
  type Cover,
  type MosaicLayout,
  type PlacementFound,
  type PlacementLimits,
  type PlacementTask,
  type PlaneVertex,
} from "~/core/framing";

const api = {
  place: (task: PlacementTask, limits: PlacementLimits, onProgress: (share: number) => void): PlacementFound =>
    placeMosaic(task, limits, onProgress),
  cover: (
    outlines: readonly (readonly PlaneVertex[])[],
    size: Pick<MosaicLayout, "planeWidthArcmin" | "planeHeightArcmin" | "overlap" | "overlapRows">,
    fixedTurnDeg: number | null,
  ): Cover[] => coverOutlines(outlines, size, fixedTurnDeg),
};

export type FrameApi = typeof api;
expose(api);
