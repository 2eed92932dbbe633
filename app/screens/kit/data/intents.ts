import type { StoredRecord } from "~/core/crew";

/** What is done with all data at once, and with one's own name. */
export type DataIntent =
  | { readonly act: "rename"; readonly id: string; readonly rev: string; readonly name: string }
  | {
      readonly act: "join";
      readonly fileName: string;
      readonly records: readonly StoredRecord[];
      /** What of the file does not read, in words; "" = all does. */
      readonly leftOut: string;
    }
  | { readonly act: "demo" | "clear" | "putBack" | "backup" };
