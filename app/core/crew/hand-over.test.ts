import { expect, it } from "vitest";
import { handOverItems } from "./hand-over";

const giver = (memberId: string, name: string, channels: readonly ("Ha" | "OIII")[], panels = 1) => ({ memberId, name, channels, panels, scaleArcsec: 1.99, binning: 1 }); // prettier-ignore

it("each owes the channels promised, under names that are the same for everybody and read anywhere", () => {
  const items = handOverItems("Sh2-216, three gardens", [giver("w", "Wren", ["OIII"]), giver("i", "Inès d'Aval", ["Ha", "OIII"], 4)], ["w OIII"]); // prettier-ignore
  expect(items.map((i) => [i.memberName, i.channel, i.fileName, i.isDone])).toEqual([
    ["Inès d'Aval", "Ha", "sh2-216-three-gardens_P*_Ha_ine-s-d-aval", false],
    ["Inès d'Aval", "OIII", "sh2-216-three-gardens_P*_OIII_ine-s-d-aval", false],
    ["Wren", "OIII", "sh2-216-three-gardens_OIII_wren", true],
  ]);
  expect(new Set(items.map((i) => i.key)).size).toBe(3);
  expect(handOverItems("…", [giver("a", "木", ["Ha"])], [])[0]!.fileName).toBe("x_Ha_x");
});
