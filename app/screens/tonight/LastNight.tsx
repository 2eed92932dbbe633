import { Link } from "react-router";
import { counted, percent } from "~/components/numbers";
import { formatMinutes } from "~/core/notation";
import type { Brought } from "~/desk/log/last-night";

/** How far a picture came by it: ", now 63 % of its hours, 58 % before". */
const shareWords = ({ share, shareBefore }: Brought): string =>
  share === null || shareBefore === null ? "" : `, now ${percent(share)} of its hours, ${percent(shareBefore)} before`;

/** What last night brought, before anything of tonight is said; nothing where nothing of it is logged. */
export function LastNight({ brought, search }: { readonly brought: readonly Brought[]; readonly search: string }) {
  if (brought.length === 0) return null;
  return (
    <p className="mt-1">
      Last night brought{" "}
      {brought.map((b, i) => (
        <span key={b.projectId}>
          {i > 0 ? "; " : ""}
          {b.kept < b.taken ? `${b.kept} of ${b.taken} subs` : counted(b.taken, "sub")}, {formatMinutes(b.keptMin)} for{" "}
          <Link to={`/projects/${b.projectId}/log${search}`} className="underline underline-offset-4">
            {b.name}
          </Link>
          {shareWords(b)}
        </span>
      ))}
      .
    </p>
  );
}
