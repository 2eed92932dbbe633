import type { Desk } from "~/desk/desk";

const NAME = "keys.single";

/** Whether single letters and figures are keys in this browser. Who speaks to their machine or rests a hand on it switches them off. */
export const areSingleKeysOn = (desk: Desk): boolean => desk.cupboard.notes.read(NAME) !== "off";

/** Switches them on or off, for this browser. */
export function setSingleKeys(desk: Desk, isOn: boolean): void {
  if (isOn) desk.cupboard.notes.drop(NAME);
  else desk.cupboard.notes.write(NAME, "off");
}
