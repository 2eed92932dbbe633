import { data } from "react-router";
import type { KeepFault } from "~/core/records";
import type { Result } from "~/core/result";
import type { Kept } from "./acts";
import type { Desk } from "~/desk/desk";
import { notify } from "./notices";

/** What a screen hears of an act it asked for. */
export interface Answer {
  /** Why nothing was kept; null when it was. */
  readonly refusal: KeepFault | null;
  readonly revs: Readonly<Record<string, string>>;
}

/** Answers a screen; what was done is said once it is done, with its Undo. */
export function answer(desk: Desk, done: Result<Kept, KeepFault>, said = "") {
  if (!done.ok) return data<Answer>({ refusal: done.error, revs: {} }, { status: 507 });
  if (said !== "") notify(desk, said, done.value.undoId);
  return data<Answer>({ refusal: null, revs: done.value.revs });
}

/** The intent a screen posted to its own action. */
export const intentOf = async <I>(request: Request): Promise<I> => (await request.json()) as I;
