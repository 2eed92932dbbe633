/** What the record of a picture asks for: its end, its rest, or that it goes on. */
export interface RecordIntent {
  readonly act: "state";
  readonly rev: string;
  readonly state: "finish" | "resume" | { readonly restsUntil: string };
}
