import type { Channel, Filter, Rig } from "~/core/exposure";
import type { Place } from "~/core/night";
import type { FrameData, GoalData, ProjectData } from "~/core/plan";
import type { CalibrationData, ContributionData } from "./contribution";

/**
 * A project with what booking needs to know of it, by the part of whose files these are; its frame is drawn with `frameRig`. A
 * project of several frames comes once for each, the one that is shot first.
 */
export interface BookableProject {
  readonly id: string;
  readonly project: ProjectData;
  /** The rig of that part. */
  readonly rigId: string;
  readonly frameId: string;
  readonly frame: FrameData;
  readonly goals: GoalData | null;
  readonly frameRig: Rig;
  /** Names the target goes by. */
  readonly targetNames: readonly string[];
}

/** A rig that files can come from. */
export interface BookableRig {
  readonly id: string;
  readonly rig: Rig;
  readonly filters: readonly Filter[];
  /** Where it was last used by whose files these are; null = never. */
  readonly lastPlaceId: string | null;
}

/** A place that files can come from. */
export interface BookablePlace {
  readonly id: string;
  readonly place: Place;
}

/** Whose files they are, and what they can belong to. */
export interface BookingContext {
  readonly memberId: string;
  readonly projects: readonly BookableProject[];
  readonly rigs: readonly BookableRig[];
  readonly places: readonly BookablePlace[];
}

/** Something in the header that does not agree with the plan; the exposure is booked all the same. */
export interface Mismatch {
  readonly code:
    | "rotation"
    /** Arcminutes off the panel's centre; `wanted` = the direction there, degrees from north through east. */
    | "pointing"
    | "focalLength"
    /** The pitch of the sensor's pixels, micrometres. */
    | "pixels"
    | "exposure"
    | "temperature"
    | "notPlanned"
    | "camera"
    | "binning"
    | "gain"
    | "solution"
    /** Nothing in the file says where it points, or at what. */
    | "noPointing";
  readonly found: number | string;
  readonly wanted: number | string;
}

/** Why an exposure could not be booked. */
export interface BookingFault {
  readonly code:
    | "notALight"
    | "noStart"
    | "noExposure"
    | "noFilter"
    | "unknownFilter"
    | "noPointing"
    | "noProject"
    | "noRig"
    | "noPlace";
  /** The header's own value, where there is one. */
  readonly found: string;
}

/** What a person says where a header leaves several answers. */
export interface BookingAnswer {
  readonly projectId?: string;
  readonly rigId?: string;
  readonly placeId?: string;
}

/** Several answers are possible: what is to be asked, once for all files that leave the same ones. */
export interface BookingQuestion {
  readonly kind: "question";
  /** The same for all files that leave the same answers open. */
  readonly key: string;
  readonly projects: readonly string[];
  readonly rigs: readonly string[];
  readonly places: readonly string[];
  readonly object: string;
  readonly channel: Channel | null;
  readonly exposureSec: number;
}

/** Where an exposure belongs. */
export type Booking =
  | {
      readonly kind: "light";
      readonly data: ContributionData;
      readonly projectName: string;
      readonly mismatches: readonly Mismatch[];
    }
  | { readonly kind: "calibration"; readonly data: CalibrationData };
