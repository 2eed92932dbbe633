import { criticalFocusZoneUm, focusShiftMm, type Channel, type Filter, type Rig } from "~/core/exposure";
import { opticsOf } from "~/core/framing";
import { focusMoves, type FocusHint, type FocusMove } from "~/core/ledger";
import type { RunSheet } from "~/core/night";
import { topic } from "~/desk/memo";
import { meOf } from "~/desk/records/parts";
import type { Entity, Library } from "~/desk/records/library";

/** The filter of a rig for a channel: the first it has. */
const filterFor = (filters: readonly Entity<Filter>[], rig: Rig, channel: Channel): Filter | null =>
  filters.find((f) => rig.filterIds.includes(f.id) && f.data.channel === channel)?.data ?? null;

const measured = topic<ReturnType<typeof focusMoves>>(8);

/** What one's own subs show of a rig's focuser; read once of a log. */
function measuredOf(library: Library, rigId: string): ReturnType<typeof focusMoves> {
  const mine = library.log.byMember.get(meOf(library) ?? "") ?? [];
  return library.desk.memo(measured, rigId, [mine], () =>
    focusMoves(mine.map((c) => c.data).filter((s) => s.rigId === rigId)),
  );
}

/** Moves of a rig's focuser that its subs show, from the first of its filters that has any to each of the others. */
export function measuredMoves(
  library: Library,
  rig: Entity<Rig>,
): readonly ({ readonly from: Channel; readonly to: Channel } & FocusMove)[] {
  const moves = measuredOf(library, rig.id);
  const channels = [
    ...new Set(library.filters.filter((f) => rig.data.filterIds.includes(f.id)).map((f) => f.data.channel)),
  ];
  const from = channels.find((c) => channels.some((to) => to !== c && moves(c, to)));
  if (!from) return [];
  return channels.flatMap((to) => {
    const move = to === from ? null : moves(from, to);
    return move ? [{ from, to, ...move }] : [];
  });
}

/** How the focus of a rig moves between two channels; null where nobody measured it and the glass does not say, or moves it less than shows. */
export function focusHint(library: Library, rig: Entity<Rig>): (from: Channel, to: Channel) => FocusHint | null {
  const moveOf = measuredOf(library, rig.id);
  const { focalRatio } = opticsOf(rig.data);
  return (from, to) => {
    if (from === to) return null;
    const move = moveOf(from, to);
    if (move) return { by: "subs", from, ...move };
    const [a, b] = [from, to].map((channel) => filterFor(library.filters, rig.data, channel)?.thicknessMm);
    if (a === undefined || b === undefined) return null;
    const mm = focusShiftMm(b, focalRatio) - focusShiftMm(a, focalRatio);
    return Math.abs(mm) * 1000 > criticalFocusZoneUm(focalRatio) / 2 ? { by: "glass", from, mm } : null;
  };
}

/** The hints of a sheet, by when its filter is changed. */
export function hintsOnSheet(
  { lines }: RunSheet,
  hint: (from: Channel, to: Channel) => FocusHint | null,
): Readonly<Record<number, FocusHint>> {
  const hints: Record<number, FocusHint> = {};
  let last: Channel | null = null;
  lines.forEach((line, i) => {
    if (line.kind === "block") last = line.channel;
    if (line.kind !== "filter" || last === null) return;
    const next = lines.slice(i).find((l) => l.kind === "block");
    const found = next ? hint(last, next.channel) : null;
    if (found) hints[line.startMs] = found;
  });
  return hints;
}
