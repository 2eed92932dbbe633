import type { KeepFault } from "~/core/records";
import { keepFaultWords } from "./words/keep-fault-words";
import { Refusal } from "./ui/Panel";

/** Says that storing failed; what was typed is still in the form. */
export function StorageRefusal({ fault }: { readonly fault: KeepFault | null }) {
  return fault ? (
    <Refusal>
      <p>{keepFaultWords(fault)}</p>
    </Refusal>
  ) : null;
}
