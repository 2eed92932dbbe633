import type { StoredRecord } from "~/core/crew";

/** What a file holds: one project with all it needs, or everything. */
export type BundleScope = "project" | "everything";

export const FORMAT = "zenithar-bundle";
export const VERSION = 1;

/** Writes records as a bundle; `unread` are things that do not read, carried along as they are. */
export const encodeBundle = (
  records: readonly StoredRecord[],
  scope: BundleScope,
  exportedAt: string,
  unread: readonly unknown[] = [],
  plan: unknown = null,
): string =>
  JSON.stringify(
    {
      format: FORMAT,
      version: VERSION,
      scope,
      exportedAt,
      records,
      ...(unread.length > 0 ? { unread } : {}),
      ...(plan === null ? {} : { plan }),
    },
    null,
    1,
  );
