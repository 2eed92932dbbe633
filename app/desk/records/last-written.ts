import { instantOfRev, type RecordKind } from "~/core/crew";
import type { Entity, Library } from "./library";

/** One thing of a project as it was written last, for whoever wants to know who changed what. */
export interface LastWritten {
  readonly kind: RecordKind;
  readonly id: string;
  /** Of what it is about; "" where its kind says it all. */
  readonly name: string;
  readonly author: string;
  readonly atMs: number;
  /** Versions of it written at the same time, that nobody has chosen from yet. */
  readonly copies: number;
}

/** What of a project was written last by whom, the latest first; log entries of one night by one member are one. */
export function lastWritten(library: Library, projectId: string): LastWritten[] {
  const called = (list: readonly Entity<{ readonly name: string }>[], id: string) =>
    list.find((e) => e.id === id)?.data.name ?? "";
  const told = <D>(kind: RecordKind, list: readonly Entity<D>[], nameOf: (d: D) => string): LastWritten[] =>
    list.map((e) => ({
      kind,
      id: e.id,
      name: nameOf(e.data),
      author: e.author,
      atMs: instantOfRev(e.rev),
      copies: e.copies.length,
    }));
  const its = <D extends { readonly projectId: string }>(list: readonly Entity<D>[]) =>
    list.filter((e) => e.data.projectId === projectId);
  const nights = new Map<string, LastWritten>();
  for (const one of told("contribution", library.log.byProject.get(projectId) ?? [], (d) => d.night)) {
    const key = `${one.author} ${one.name}`;
    const before = nights.get(key);
    if (!before || before.atMs < one.atMs) nights.set(key, { ...one, id: key });
  }
  return [
    ...told(
      "project",
      library.projects.filter((p) => p.id === projectId),
      (d) => d.name,
    ),
    ...told("part", its(library.parts), (d) => called(library.members, d.memberId)),
    ...told("frame", its(library.frames), (d) => d.title ?? ""),
    ...told("goal", its(library.goals), () => ""),
    ...told("handOver", its(library.handOvers), () => ""),
    ...nights.values(),
  ].sort((a, b) => b.atMs - a.atMs);
}
