import { slot, type Desk } from "~/desk/desk";
import { theStore } from "./kept";

const underWay = slot(() => ({ check: null as Promise<number | null> | null }));

/**
 * Checks all that is stored again and sets aside what does not read: how many things that were; null where it cannot be done now. What
 * this version wrote is not checked when it is opened, so something that was broken in the meantime is met first by whatever is derived
 * from it.
 */
export function setBrokenAside(desk: Desk): Promise<number | null> {
  const at = desk.at(underWay);
  at.check ??= desk
    .at(theStore)
    .recheck()
    .then((done) => (done.ok ? done.value : null))
    .finally(() => (at.check = null));
  return at.check;
}

/** Does something with what is stored; where that throws, once more without what does not read. */
export async function orRechecked<T>(desk: Desk, work: () => T | Promise<T>): Promise<T> {
  try {
    return await work();
  } catch (error) {
    if (!(error instanceof Error) || !(await setBrokenAside(desk))) throw error;
    return work();
  }
}
