import type { Quarantined } from "~/desk/records/library";

/** What is done with all data at once, with one's own name, and with things that do not read. */
export type DataIntent =
  | { readonly act: "rename"; readonly id: string; readonly rev: string; readonly name: string }
  /** Joins the file that was looked into. */
  | {
      readonly act: "join";
      /** By which the file was looked into. */
      readonly handle: string;
      readonly owner: "mine" | "friend";
      readonly letsAheadIn: boolean;
      readonly chosen: readonly string[];
    }
  | { readonly act: "clear" | "putBack" | "backup" }
  /** Takes a thing that does not read away. */
  | { readonly act: "drop"; readonly thing: Quarantined }
  /** Puts a record in its place, written as JSON. */
  | { readonly act: "mend"; readonly thing: Quarantined; readonly text: string };

/** What came of mending. */
export interface MendAnswer {
  /** Why the text is no record; "" when it is one. */
  readonly fault: string;
}
