import { positionFaultWords } from "~/components/words/fault-words";
import { KINDS, type OwnTarget } from "~/core/catalog";
import { parsePosition } from "~/core/notation";
import { err, ok, type Result } from "~/core/result";
import { numberFault, textOf, type Faults } from "~/components/forms/form-numbers";
import { SIZE_FIELD } from "~/core/records";
import { parseNumber } from "~/core/notation";

/** Lights an own target can shine in, with their words. */
export const LIGHT_WORDS: Readonly<Record<OwnTarget["light"], string>> = {
  continuum: "continuous: stars, galaxies, dust",
  Ha: "mostly H-alpha",
  OIII: "mostly OIII",
  mixed: "H-alpha and OIII",
};

/** Reads the form of a target of one's own; what is wrong comes by the name of the box. */
export function readOwnTarget(form: FormData): Result<OwnTarget, Faults> {
  const faults: Record<string, string> = {};
  const name = textOf(form, "name").trim();
  if (name === "" || name.length > 120) faults["name"] = "Give a name, 120 letters at most.";
  const position = parsePosition(textOf(form, "position"));
  if (!position.ok) faults["position"] = positionFaultWords(position.error);
  const sizeText = textOf(form, "size").trim();
  const sizeFault = sizeText === "" ? undefined : numberFault(SIZE_FIELD, sizeText);
  if (sizeFault) faults["size"] = sizeFault;
  const kind = KINDS.find((k) => k === textOf(form, "kind"));
  if (!kind) faults["kind"] = "Choose a kind.";
  if (!position.ok || !kind || Object.keys(faults).length > 0) return err(faults);
  const light = textOf(form, "light");
  return ok({
    name,
    raDeg: position.value.raDeg,
    decDeg: position.value.decDeg,
    kind,
    majorArcmin: sizeText === "" ? null : parseNumber(sizeText),
    light: light === "Ha" || light === "OIII" || light === "mixed" ? light : "continuum",
    neighbourId: textOf(form, "neighbourId"),
    note: textOf(form, "note").slice(0, 4000),
  });
}
