import type { Desk } from "~/desk/desk";
import { theStore } from "./kept";

/** The names of deleted projects, for what is told of a plan that still knew them. */
export async function namesOfDeleted(desk: Desk): Promise<Record<string, string>> {
  const names: Record<string, string> = {};
  for (const heads of (await desk.at(theStore).open()).all())
    for (const { kind, id, deletedAt, data } of heads) {
      const name = (data as { readonly name?: unknown } | null)?.name;
      if (kind === "project" && deletedAt !== undefined && typeof name === "string") names[id] = name;
    }
  return names;
}
