import { counted, fixed, signed } from "~/components/numbers";
import type { FocusHint, FocusMove } from "~/core/ledger";

/** "+120 steps, ± 4 over 6 changes". */
export const focusMoveWords = ({ steps, spread, changes }: FocusMove): string =>
  `${signed(steps)} steps, ${spread === null ? "" : `± ${fixed(spread)} `}over ${counted(changes, "change")}`;

/** "focuser +120 steps, ± 4 over 6 changes, from L", "the focus lies 0.17 mm further out than with L, by the glass". */
export const focusHintWords = (hint: FocusHint): string =>
  hint.by === "glass"
    ? `the focus lies ${fixed(Math.abs(hint.mm), 2)} mm further ${hint.mm > 0 ? "out" : "in"} than with ${hint.from}, by the glass`
    : `focuser from ${hint.from}: ${focusMoveWords(hint)}`;
