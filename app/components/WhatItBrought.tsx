import { Link } from "react-router";
import { counted, percent } from "./numbers";
import { formatMinutes } from "~/core/notation";

/** What a night brought to a picture: subs, minutes kept, and the share of its hours now and without that night. */
export interface BroughtToPicture {
  readonly projectId: string;
  readonly name: string;
  readonly taken: number;
  readonly kept: number;
  readonly keptMin: number;
  readonly share: number | null;
  readonly shareBefore: number | null;
}

/** How far a picture came by it: ", now 63 % of its hours, 58 % before". */
const shareWords = ({ share, shareBefore }: BroughtToPicture): string =>
  share === null || shareBefore === null ? "" : `, now ${percent(share)} of its hours, ${percent(shareBefore)} before`;

/** What a night brought, picture by picture. */
export function WhatItBrought({
  brought,
  search,
}: {
  readonly brought: readonly BroughtToPicture[];
  readonly search: string;
}) {
  return brought.map((b, i) => (
    <span key={b.projectId}>
      {i > 0 ? "; " : ""}
      {b.kept < b.taken ? `${b.kept} of ${b.taken} subs` : counted(b.taken, "sub")}, {formatMinutes(b.keptMin)} for{" "}
      <Link to={`/projects/${b.projectId}/log${search}`} className="underline underline-offset-4">
        {b.name}
      </Link>
      {shareWords(b)}
    </span>
  ));
}
