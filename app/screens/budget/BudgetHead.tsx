import { fixed, roomWords, trimmed } from "~/components/numbers";
import { fileBytes } from "~/core/exposure";
import { formatHoursMinutes } from "~/core/notation";
import { totalsOf, type BudgetMaterial, type BudgetRowView } from "./budget-rows";

/** What a budget comes to, and what its hours are. */
export function BudgetHead({ rows, from }: { readonly rows: readonly BudgetRowView[]; readonly from: BudgetMaterial }) {
  const { hours, clockHours, subs } = totalsOf(rows);
  const { panels, rig } = from;
  return (
    <div>
      <p className="text-figure">
        {formatHoursMinutes(hours)} of exposure, {formatHoursMinutes(clockHours)} of clock time,{" "}
        {roomWords(subs * fileBytes(rig))}
      </p>
      <p className="text-soft max-w-[64ch]">
        {panels > 1 ? `${panels} panels, so every hour counts ${panels} times. ` : ""}The clock adds downloads, dithers,
        focusing, and a set-up and a flip each night. Hours are those of the target at its best here: lower, or under
        the Moon, they count less, and the plan reckons with that.
        {measuredWords(from)}
        {firstWords(rows, from)}
      </p>
    </div>
  );
}

/** Whose hours the goals are, where they are not this rig's. */
const measuredWords = ({ measuredBy, hourIs }: BudgetMaterial): string =>
  measuredBy === null
    ? ""
    : ` Goals are hours with ${measuredBy}: one with your rig is ${Object.entries(hourIs)
        .map(([channel, is]) => `${fixed(is, 2)} h in ${channel}`)
        .join(", ")}.`;

/** What to begin with, where the target is known. */
function firstWords(rows: readonly BudgetRowView[], { firstHours }: BudgetMaterial): string {
  if (firstHours === null) return "";
  const known = rows.flatMap(({ draft: { channel, isShort } }) => {
    const hours = firstHours[channel];
    return isShort || hours === undefined ? [] : [`${channel} ${trimmed(hours)} h`];
  });
  return ` To begin with, for this target with your rig under your sky: ${known.join(", ")}.`;
}
