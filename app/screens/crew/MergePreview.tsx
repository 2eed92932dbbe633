import type { MergeView } from "~/desk/sharing";
import { formatMinutes } from "~/core/notation";
import { Button } from "~/components/ui/Button";

/** Shows what a file brings before it is joined. */
export function MergePreview({
  view,
  members,
  onAccept,
  onLeave,
}: {
  readonly view: MergeView;
  readonly members: Readonly<Record<string, string>>;
  readonly onAccept: () => void;
  readonly onLeave: () => void;
}) {
  const incoming = Object.fromEntries(
    view.bundle.records
      .filter((r) => r.kind === "member")
      .map((r) => [r.id, (r.data as { name?: string }).name ?? "someone"]),
  );
  return (
    <section className="border-lamp bg-sheet mt-6 rounded-[10px] border p-4" aria-label="What the file brings">
      <h2 className="text-section">What {view.fileName} brings</h2>
      {view.fresh === 0 ? (
        <p className="text-soft mt-1">Nothing new: all {view.bundle.records.length} records are here already.</p>
      ) : null}
      {!view.hasThis ? <p className="text-lamp mt-1">It is about another project, which it will add.</p> : null}
      <ul className="mt-1">
        {view.news.map((n) => (
          <li key={`${n.memberId} ${n.channel}`}>
            {members[n.memberId] ?? incoming[n.memberId] ?? "someone"}: {n.subs} subs, {formatMinutes(n.keptMin)} of{" "}
            {n.channel}
          </li>
        ))}
      </ul>
      {view.fresh > 0 ? (
        <p className="text-note text-soft mt-1">
          {view.fresh} new or changed records of {view.bundle.records.length}.
        </p>
      ) : null}
      {view.bundle.refused.length > 0 ? (
        <p className="text-note text-rust mt-1">
          {view.bundle.refused.length} do not read and are left out:{" "}
          {view.bundle.refused
            .slice(0, 3)
            .map((r) => `${r.id} (${r.fault.path}: ${r.fault.message})`)
            .join("; ")}
        </p>
      ) : null}
      <div className="mt-3 flex gap-2">
        <Button look={view.fresh > 0 ? "main" : "quiet"} onClick={view.fresh > 0 ? onAccept : onLeave}>
          {view.fresh > 0 ? "Join it" : "Close"}
        </Button>
        {view.fresh > 0 ? <Button onClick={onLeave}>Leave it</Button> : null}
      </div>
    </section>
  );
}
