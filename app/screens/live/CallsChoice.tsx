import { SelectField } from "~/components/ui/Field";
import { CALLS, type Calls } from "./use-calls";

const WORDS: Readonly<Record<Calls, string>> = {
  none: "say it on this page only",
  quiet: "notify me, silently",
  sound: "notify me, with a tone",
};

/** How one is told of what is due while something else is on the screen. */
export const CallsChoice = ({
  calls,
  isRefused,
  onChoose,
}: {
  readonly calls: Calls;
  readonly isRefused: boolean;
  readonly onChoose: (calls: Calls) => void;
}) => (
  <SelectField
    label="When something is due"
    value={calls}
    fault={isRefused ? "The browser does not allow it: see its settings for this page." : undefined}
    onChange={(e) => onChoose(e.target.value as Calls)}
  >
    {CALLS.map((c) => (
      <option key={c} value={c}>
        {WORDS[c]}
      </option>
    ))}
  </SelectField>
);
