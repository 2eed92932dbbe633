import type { StoredRecord } from "~/core/crew";

/** What the crew's page asks for: to join what a friend sent. */
export interface CrewIntent {
  readonly act: "join";
  readonly fileName: string;
  readonly records: readonly StoredRecord[];
}
