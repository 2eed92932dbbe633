import { name } from "./fields";
import { objectOf, type RecordSchema } from "./kind";

/** Somebody of the group. */
export interface Member {
  readonly name: string;
}

export const member: RecordSchema<Member> = {
  version: 1,
  migrations: [],
  schema: objectOf<Member>({ name }),
};
