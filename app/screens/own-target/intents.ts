import type { OwnTarget } from "~/core/catalog";

/** What the page of a target of one's own asks for beside saving its form. */
export interface OwnTargetIntent {
  readonly act: "delete";
  readonly rev: string;
  readonly data: OwnTarget;
}
