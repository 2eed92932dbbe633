import { useState } from "react";
import { download } from "~/components/download";
import { useAct } from "~/components/forms/use-act";
import { StorageRefusal } from "~/components/StorageRefusal";
import { Button } from "~/components/ui/Button";
import { TextField } from "~/components/ui/Field";
import { Panel } from "~/components/ui/Panel";
import type { KeepFault } from "~/core/records";
import type { Quarantined } from "~/desk/records/library";
import type { DataIntent, MendAnswer } from "./intents";

type Answer = MendAnswer & { readonly refusal?: KeepFault | null };

/** Stored things that do not read: kept as they are, to be mended or dropped. */
export function SetAside({ things }: { readonly things: readonly Quarantined[] }) {
  const { act, answer, refusal, isBusy } = useAct<DataIntent, Answer>();
  const [open, setOpen] = useState<Quarantined | null>(null);
  const [text, setText] = useState("");
  if (things.length === 0) return null;
  const show = (thing: Quarantined) => {
    setOpen(thing);
    setText(JSON.stringify(thing.raw, null, 2) ?? "");
  };
  return (
    <Panel title={`Unreadable records: ${things.length}`} className="mt-5">
      <p className="text-soft">
        These stored things do not read. They are kept as they are and go along in every export; the rest works. Where
        an earlier version of one reads, that one counts until you mend or drop this.
      </p>
      <StorageRefusal fault={refusal} />
      <ul className="my-2">
        {things.map((thing, i) => (
          <li key={i} className="border-rule border-t py-2">
            <p className="break-words">
              <span className="font-semibold">{thing.key.slice(0, 80)}</span>: {thing.reason.slice(0, 300)}
            </p>
            {open === thing ? (
              <div className="mt-2">
                <TextField
                  label="As it is stored (JSON)"
                  value={text}
                  onChange={(e) => setText(e.target.value)}
                  fault={answer?.fault ? answer.fault : undefined}
                  spellCheck={false}
                />
                <div className="mt-2 flex gap-2">
                  <Button look="main" disabled={isBusy} onClick={() => void act({ act: "mend", thing, text })}>
                    Keep it mended
                  </Button>
                  <Button onClick={() => setOpen(null)}>Close</Button>
                </div>
              </div>
            ) : (
              <div className="mt-1 flex gap-2">
                <Button onClick={() => show(thing)}>Look at it and mend it</Button>
                <Button look="stop" disabled={isBusy} onClick={() => void act({ act: "drop", thing })}>
                  Drop it
                </Button>
              </div>
            )}
          </li>
        ))}
      </ul>
      <Button onClick={() => download("zenithar-unreadable.json", JSON.stringify(things, null, 1), "application/json")}>
        Export these alone
      </Button>
    </Panel>
  );
}
