import { counted } from "~/components/numbers";

/** What joining a file did. */
export const joinedWords = (
  fileName: string,
  { added, changed, known }: { readonly added: number; readonly changed: number; readonly known: number },
): string => `${fileName} merged: ${added} new, ${changed} changed, ${known} already here.`;

/** How things stand with backups, in a sentence. */
export function backupWords({
  ageDays,
  changes,
}: {
  readonly ageDays: number | null;
  readonly changes: number;
}): string {
  const since =
    changes === 0 ? "nothing has changed since" : `${counted(changes, "thing has", "things have")} changed since`;
  return ageDays === null
    ? "No backup has been taken yet."
    : ageDays === 0
      ? `The last backup is of today; ${since}.`
      : `The last backup is ${counted(ageDays, "day", "days")} old; ${since}.`;
}
