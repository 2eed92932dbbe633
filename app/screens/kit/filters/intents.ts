import type { Filter } from "~/core/exposure";

/** What the list of filters asks for beside saving a form. */
export interface FiltersIntent {
  readonly act: "delete";
  readonly id: string;
  readonly rev: string;
  readonly data: Filter;
}
