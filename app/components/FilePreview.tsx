import { useState } from "react";
import type { MemberTotal, RecordKind } from "~/core/crew";
import { formatMinutes } from "~/core/notation";
import { counted } from "./numbers";
import { Button } from "./ui/Button";

/** What is known of a file before it is joined. */
export interface PreviewedFile {
  readonly fileName: string;
  readonly fresh: number;
  readonly news: readonly MemberTotal[];
  readonly members: Readonly<Record<string, string>>;
  readonly ahead: readonly { readonly kind: RecordKind; readonly name: string; readonly atMs: number }[];
  readonly own: readonly { readonly what: string; readonly from: string; readonly to: string }[];
  readonly owner: "mine" | "friend";
  readonly bundle: {
    readonly records: { readonly length: number };
    readonly refused: readonly {
      readonly key: string;
      readonly fault: { readonly path: string; readonly message: string };
    }[];
  };
}

/** How a file is joined. */
export interface JoinChoice {
  readonly owner: "mine" | "friend";
  readonly letsAheadIn: boolean;
}

const FEW = 5;

/** Shows what a file brings before it is joined, and asks whose it is where that makes a difference. */
export function FilePreview({
  view,
  members,
  note,
  canBeMine,
  onJoin,
  onLeave,
}: {
  readonly view: PreviewedFile;
  /** Names of the members here, by id. */
  readonly members: Readonly<Record<string, string>>;
  readonly note?: string;
  /** Whether it may be one's own backup, which brings its settings along. */
  readonly canBeMine: boolean;
  readonly onJoin: (choice: JoinChoice) => void;
  readonly onLeave: () => void;
}) {
  const isAsked = canBeMine && view.own.length > 0;
  const [owner, setOwner] = useState<JoinChoice["owner"]>(canBeMine ? view.owner : "friend");
  const [letsAheadIn, setLetsAheadIn] = useState(false);
  const isMine = owner === "mine";
  const { refused } = view.bundle;
  const brings = view.fresh + (isMine ? view.own.length + refused.length : 0) - (letsAheadIn ? 0 : view.ahead.length);
  return (
    <section className="border-lamp bg-sheet mt-6 rounded-[10px] border p-4" aria-label="What the file brings">
      <h2 className="text-section">What {view.fileName} brings</h2>
      {view.fresh === 0 ? (
        <p className="text-soft mt-1">Nothing new: all {view.bundle.records.length} records are here already.</p>
      ) : (
        <p className="text-soft mt-1">
          {view.fresh} new or changed of {counted(view.bundle.records.length, "record", "records")}.
        </p>
      )}
      {note ? <p className="text-lamp mt-1">{note}</p> : null}
      <ul className="mt-1">
        {view.news.map((n) => (
          <li key={`${n.memberId} ${n.channel}`}>
            {members[n.memberId] ?? view.members[n.memberId] ?? "someone"}: {counted(n.subs, "sub", "subs")},{" "}
            {formatMinutes(n.keptMin)} of {n.channel}
          </li>
        ))}
      </ul>
      {isAsked ? (
        <fieldset className="mt-3">
          <legend className="font-semibold">Whose file is it?</legend>
          <label className="mt-1 flex gap-2">
            <input type="radio" name="owner" checked={!isMine} onChange={() => setOwner("friend")} />
            <span>A friend&apos;s: who I am and what I have chosen stays as it is.</span>
          </label>
          <label className="mt-1 flex gap-2">
            <input type="radio" name="owner" checked={isMine} onChange={() => setOwner("mine")} />
            <span>My own backup: it changes these too.</span>
          </label>
          {isMine ? (
            <ul className="text-note mt-1 list-disc pl-10" aria-label="What changes about you">
              {view.own.map((line) => (
                <li key={line.what}>
                  {line.what}: {line.from} → {line.to}
                </li>
              ))}
            </ul>
          ) : null}
        </fieldset>
      ) : null}
      {view.ahead.length > 0 ? (
        <div className="mt-3">
          <p className="text-rust">
            {view.ahead.length === 1
              ? "One version says that it was written more than a day from now: a clock was wrong there. Let in, it counts before whatever you change until then."
              : `${view.ahead.length} versions say that they were written more than a day from now: a clock was wrong there. Let in, they count before whatever you change until then.`}
          </p>
          <ul className="text-note list-disc pl-5">
            {view.ahead.slice(0, FEW).map((r, i) => (
              <li key={i}>
                {r.kind} {r.name}, {new Date(r.atMs).toISOString().slice(0, 10)}
              </li>
            ))}
            {view.ahead.length > FEW ? <li>and {view.ahead.length - FEW} more</li> : null}
          </ul>
          <label className="mt-1 flex gap-2">
            <input type="checkbox" checked={letsAheadIn} onChange={(e) => setLetsAheadIn(e.target.checked)} />
            <span>Let {view.ahead.length === 1 ? "it" : "them"} in all the same</span>
          </label>
        </div>
      ) : null}
      {refused.length > 0 ? (
        <p className="text-note text-rust mt-2">
          {refused.length === 1 ? "One does not read and is" : `${refused.length} do not read and are`}{" "}
          {isMine ? "kept as unreadable" : "left out"}:{" "}
          {refused
            .slice(0, 3)
            .map((r) => `${r.key.slice(0, 60)} (${r.fault.path}: ${r.fault.message})`)
            .join("; ")}
        </p>
      ) : null}
      <div className="mt-3 flex gap-2">
        {brings > 0 ? (
          <>
            <Button look="main" onClick={() => onJoin({ owner, letsAheadIn })}>
              Merge
            </Button>
            <Button onClick={onLeave}>Cancel</Button>
          </>
        ) : (
          <Button onClick={onLeave}>Close</Button>
        )}
      </div>
    </section>
  );
}
