import { useState } from "react";
import type { MemberTotal, RecordKind } from "~/core/crew";
import { formatMinutes } from "~/core/notation";
import type { FieldChange } from "~/core/records";
import { counted } from "./numbers";
import { changeWords, RECORD_WORDS } from "./words/field-words";
import { Button } from "./ui/Button";

/** What is known of a file before it is joined. */
export interface PreviewedFile {
  readonly fileName: string;
  readonly fresh: number;
  readonly news: readonly MemberTotal[];
  readonly members: Readonly<Record<string, string>>;
  readonly ahead: readonly { readonly kind: RecordKind; readonly name: string; readonly atMs: number }[];
  readonly own: readonly { readonly what: string; readonly from: string; readonly to: string }[];
  readonly changes: readonly PreviewedChange[];
  readonly names: Readonly<Record<string, string>>;
  readonly owner: "mine" | "friend";
  readonly bundle: {
    readonly records: { readonly length: number };
    readonly refused: readonly {
      readonly key: string;
      readonly fault: { readonly path: string; readonly message: string };
    }[];
  };
}

/** Something here that a friend's file would change. */
export interface PreviewedChange {
  readonly kind: RecordKind;
  readonly id: string;
  readonly name: string;
  readonly isMine: boolean;
  readonly isDeleted: boolean;
  readonly fields: readonly FieldChange[];
}

/** How a file is joined. */
export interface JoinChoice {
  readonly owner: "mine" | "friend";
  readonly letsAheadIn: boolean;
  /** What was said yes to. */
  readonly chosen: readonly string[];
}

const FEW = 5;

/** Shows what a file brings before it is joined, and asks whose it is where that makes a difference. */
export function FilePreview({
  view,
  members,
  note,
  canBeMine,
  keyOf,
  onJoin,
  onLeave,
}: {
  readonly view: PreviewedFile;
  /** Names of the members here, by id. */
  readonly members: Readonly<Record<string, string>>;
  readonly note?: string;
  /** Whether it may be one's own backup, which brings its settings along. */
  readonly canBeMine: boolean;
  /** The name of one change, for saying yes to it; null = the deletion of the whole. */
  readonly keyOf: (of: PreviewedChange, field: FieldChange | null) => string;
  readonly onJoin: (choice: JoinChoice) => void;
  readonly onLeave: () => void;
}) {
  const isAsked = canBeMine && view.own.length > 0;
  const [owner, setOwner] = useState<JoinChoice["owner"]>(canBeMine ? view.owner : "friend");
  const [letsAheadIn, setLetsAheadIn] = useState(false);
  const isMine = owner === "mine";
  // What the project is called is agreed upon by merging; one's own things, and the hours wanted, stay unless one says yes.
  const [chosen, setChosen] = useState<ReadonlySet<string>>(
    () => new Set(view.changes.flatMap((c) => (c.isMine || c.kind === "goal" ? [] : c.fields.map((f) => keyOf(c, f))))),
  );
  const choose = (key: string, is: boolean) => {
    const next = new Set(chosen);
    if (is) next.add(key);
    else next.delete(key);
    setChosen(next);
  };
  const { refused } = view.bundle;
  const brings = view.fresh + (isMine ? view.own.length + refused.length : 0) - (letsAheadIn ? 0 : view.ahead.length);
  return (
    <section className="border-lamp bg-sheet mt-6 rounded-[10px] border p-4" aria-label="What the file brings">
      <h2 className="text-section">What {view.fileName} brings</h2>
      {view.fresh === 0 ? (
        <p className="text-soft mt-1">
          Nothing new: all of it is here already ({counted(view.bundle.records.length, "record")}).
        </p>
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
      {!isMine && view.changes.length > 0 ? (
        <Changes changes={view.changes} names={view.names} keyOf={keyOf} chosen={chosen} onChoose={choose} />
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
            <Button look="main" onClick={() => onJoin({ owner, letsAheadIn, chosen: [...chosen] })}>
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

/** What a file would change here, field by field, each with its own yes. */
function Changes({
  changes,
  names,
  keyOf,
  chosen,
  onChoose,
}: {
  readonly changes: readonly PreviewedChange[];
  readonly names: Readonly<Record<string, string>>;
  readonly keyOf: (of: PreviewedChange, field: FieldChange | null) => string;
  readonly chosen: ReadonlySet<string>;
  readonly onChoose: (key: string, is: boolean) => void;
}) {
  const box = (key: string, words: string) => (
    <li key={key}>
      <label className="flex min-h-6 items-center gap-2">
        <input type="checkbox" checked={chosen.has(key)} onChange={(e) => onChoose(key, e.target.checked)} />
        <span className="min-w-0 break-words">{words}</span>
      </label>
    </li>
  );
  const sorted = [...changes].sort((a, b) => Number(b.isMine) - Number(a.isMine));
  return (
    <fieldset className="mt-3">
      <legend className="font-semibold">It would change what you have. Tick what you agree to.</legend>
      <ul className="mt-1 space-y-2">
        {sorted.map((c) => (
          <li key={`${c.kind}/${c.id}`}>
            <p>
              {RECORD_WORDS[c.kind]}: <span className="font-semibold">{c.name}</span>{" "}
              <span className="text-note text-soft">{c.isMine ? "yours" : "shared by all in the project"}</span>
            </p>
            <ul className="text-note pl-2">
              {c.isDeleted
                ? box(keyOf(c, null), "delete it: it was deleted there")
                : c.fields.map((f) => box(keyOf(c, f), changeWords(f, names)))}
            </ul>
          </li>
        ))}
      </ul>
      <p className="text-note text-soft mt-1">What stays unticked stays as it is here, and is not asked again.</p>
    </fieldset>
  );
}
