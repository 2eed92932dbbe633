import { clockTime } from "~/components/clock";
import { fixed } from "~/components/numbers";
import { formatMinutes } from "~/core/notation";
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

const FELT_MOON = 0.9; // of its moonless worth: less than a tenth lost to the Moon is not worth a word

/** Whether the Moon takes a part of a night that is worth a word. */
export const isMoonFelt = (n: { readonly worthMin: number; readonly moonlessWorthMin: number }): boolean =>
  n.worthMin < FELT_MOON * n.moonlessWorthMin;

/** ", worth 1.9 h: Moon, 5.4 h without it"; what a night is worth in hours at the place's moonless zenith. */
export function nightWorthWords(n: {
  readonly usableMin: number;
  readonly worthMin: number;
  readonly moonlessMin: number;
  readonly moonlessWorthMin: number;
  readonly leftWorthMin: number;
}): string {
  // All of it taken, as its owner takes the Moon: what is up, and what it would bring all the same.
  if (n.usableMin === 0 && n.moonlessMin > 0)
    return `: the Moon leaves the ${formatMinutes(n.moonlessMin)} that it is up worth ${fixed(n.leftWorthMin / 60, 1)} h, of ${fixed(n.moonlessWorthMin / 60, 1)} h`;
  const worth = `, worth ${fixed(n.worthMin / 60, 1)} h`;
  return isMoonFelt(n) ? `${worth}: Moon, ${fixed(n.moonlessWorthMin / 60, 1)} h without it` : worth;
}
