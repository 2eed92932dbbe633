import { err, ok, type Result } from "~/core/result";
import { addNights, instantOfWall, MINUTE_MS, nightDate } from "~/core/time";

const NOON = 12 * 60;

/** Two clock times of a night, read in its zone: before noon they are of the next morning. Why not, in words. */
export function timesOf(
  night: string,
  from: string,
  to: string,
  zone: string,
): Result<{ readonly fromMs: number; readonly toMs: number }, string> {
  const [a, b] = [instantOf(night, from, zone), instantOf(night, to, zone)];
  if (a === null || b === null) return err("Give both times.");
  return b > a ? ok({ fromMs: a, toMs: b }) : err("The second time is not after the first one, in this night.");
}

function instantOf(night: string, clock: string, zone: string): number | null {
  const match = /^(\d{1,2}):(\d{2})$/.exec(clock);
  if (!match) return null;
  const minutes = Number(match[1]) * 60 + Number(match[2]);
  if (minutes >= 24 * 60) return null;
  const day = minutes < NOON ? addNights(nightDate(night), 1) : night;
  const wall = Date.parse(`${day}T00:00:00Z`) + minutes * MINUTE_MS;
  return instantOfWall(wall, zone);
}
