import { counted } from "~/components/numbers";
import { Button } from "~/components/ui/Button";
import { impossibleWords } from "~/components/words/log-words";
import type { DoubtGroup } from "~/desk/log/doubts";

/** Exposures that cannot be as they stand, a reason each: left out until somebody says that they are right. */
export function Doubts({
  groups,
  isBusy,
  onSure,
}: {
  readonly groups: readonly DoubtGroup[];
  readonly isBusy: boolean;
  /** Takes a group in all the same, or leaves it out again. */
  readonly onSure: (key: string, isSure: boolean) => void;
}) {
  return groups.map((g) => (
    <p key={g.key} className="border-lamp my-3 border-l-2 pl-3">
      <span className="font-semibold">
        {counted(g.count, "exposure")} of {g.projectName}, night of {g.night}, {g.rigName}:
      </span>{" "}
      {impossibleWords(g.why)} {g.isSure ? "You said that they are right." : "Left out until you say."}{" "}
      <Button look="plain" disabled={isBusy} onClick={() => onSure(g.key, !g.isSure)}>
        {g.isSure ? "Leave them out" : "They are right"}
      </Button>
    </p>
  ));
}
