import { groupBy } from "~/core/numeric";
import { inOrder, type NightEvent } from "./event";

/** How a focuser moves with the air, as its owner wrote it down. */
export interface FocusSlope {
  /** Steps of the focuser for each °C of air. */
  readonly stepsPerC: number;
  /** Moves between two focuses of one night that it comes from. */
  readonly moves: number;
  /** °C of air that they went through, all together. */
  readonly overC: number;
}

const LEAST_MOVES = 3; // fewer say nothing of each other
const LEAST_C = 3; // all together: an autofocus scatters by as much as a degree moves it; proposals of this project

/**
 * Steps a focuser moves per °C, from focuses of which both the air and the position were written down, night by night: least squares
 * through the moves from one to the next, so that a filter changed between costs one move and not the rest of the night. Null where too
 * little was written down.
 */
export function focusSlope(events: readonly NightEvent[]): FocusSlope | null {
  const told = inOrder(events).flatMap(({ night, rigId, is }) =>
    is.what === "focused" && is.airC !== null && is.steps !== null
      ? [{ of: `${night} ${rigId}`, airC: is.airC, steps: is.steps }]
      : [],
  );
  let [moves, overC, cross, square] = [0, 0, 0, 0];
  for (const night of groupBy(told, (t) => t.of).values())
    night.slice(1).forEach((to, i) => {
      const [dC, dSteps] = [to.airC - night[i]!.airC, to.steps - night[i]!.steps];
      if (dC === 0) return;
      moves++;
      overC += Math.abs(dC);
      cross += dC * dSteps;
      square += dC * dC;
    });
  return moves >= LEAST_MOVES && overC >= LEAST_C ? { stepsPerC: cross / square, moves, overC } : null;
}
