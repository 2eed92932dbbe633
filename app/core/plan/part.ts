import type { Channel } from "~/core/exposure";

/**
 * One member's own part in a project: where and with what they shoot it, and what they promised. A project has one aim and one
 * reference frame; what is planned, booked and calculated for a person goes by that person's part, which nobody else writes.
 */
export interface PartData {
  readonly projectId: string;
  readonly memberId: string;
  readonly placeId: string;
  readonly rigId: string;
  /** The frame they shoot; absent = the project's reference frame. */
  readonly frameId?: string;
  /** The channels they promised; absent = all of them. */
  readonly channels?: readonly Channel[];
  /** The only place at which a channel is shot, by channel; absent = wherever the rig stands. */
  readonly onlyAt?: Readonly<Partial<Record<Channel, string>>>;
  /** What they told the others of their evenings; absent = nothing. */
  readonly evenings?: Evenings;
}

/** When somebody can shoot, and where else than at home. */
export interface Evenings {
  /** Weekdays whose evenings they are not free, 0 = Sunday. */
  readonly busyWeekdays: readonly number[];
  /** Places they can drive to. */
  readonly placeIds: readonly string[];
}

/** The name under which a member's part in a project is stored: one each, whoever writes it first. */
export const partId = (projectId: string, memberId: string): string => `part-${projectId}-${memberId}`;

/** Whether a part promises a channel. */
export const promises = (part: Pick<PartData, "channels">, channel: Channel): boolean =>
  part.channels?.includes(channel) ?? true;
