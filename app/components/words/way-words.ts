import { clockTime } from "~/components/clock";
import type { AltitudePassage, Obstruction } from "~/core/night";

/** "over 30° from 20:14 to 03:40". */
export function passageWords(p: AltitudePassage, zone: string): string {
  const over = `over ${p.altitudeDeg}°`;
  if (p.kind === "always") return `${over} all night`;
  if (p.kind === "never") return `never ${over}`;
  const [from, to] = [p.risesMs, p.setsMs].map((ms) => (ms === null ? null : clockTime(ms, zone)));
  if (from && to && p.risesMs! > p.setsMs!) return `${over} until ${to} and again from ${from}`;
  if (from && to) return `${over} from ${from} to ${to}`;
  return from ? `${over} from ${from}` : `${over} until ${to}`;
}

/** "behind the poplar 22:06–22:48". */
export const obstructionWords = (o: Obstruction, zone: string): string =>
  `behind ${o.name === "" ? "the skyline" : o.name} ${clockTime(o.startMs, zone)}–${clockTime(o.endMs, zone)}`;
