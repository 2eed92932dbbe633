import { id, night, note } from "./fields";
import { objectOf, type RecordSchema } from "./kind";

/** What somebody wrote about a night. */
export interface NightNote {
  readonly night: string;
  readonly placeId: string;
  readonly memberId: string;
  readonly note: string;
}

export const nightNote: RecordSchema<NightNote> = {
  version: 1,
  migrations: [],
  schema: objectOf<NightNote>({ night, placeId: id, memberId: id, note }),
};
