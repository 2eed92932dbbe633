import { useRevalidator } from "react-router";
import { useState } from "react";
import { BundleDrop } from "~/components/forms/BundleDrop";
import { download } from "~/components/download";
import { OwnName } from "./OwnName";
import { StorageRefusal } from "~/components/StorageRefusal";
import { Button } from "~/components/ui/Button";
import { Panel } from "~/components/ui/Panel";
import { useSay } from "~/components/ui/Toasts";
import { encodeBundle, type Bundle } from "~/core/formats";
import { demoRecords } from "~/storage/demo";
import { allRecords, clearedHere, clearStore, loadLibrary, mergeIn, refillStore, saveAll } from "~/storage/records";
import { now } from "~/storage/session";
import type { Route } from "./+types/route";
import { useEdits } from "~/components/forms/use-edits";

export async function clientLoader() {
  const library = await loadLibrary();
  const count = (n: number, one: string, many: string) => `${n} ${n === 1 ? one : many}`;
  return {
    summary: [
      count(library.places.length, "place", "places"),
      count(library.rigs.length, "rig", "rigs"),
      count(library.projects.length, "project", "projects"),
      count(library.contributions.length, "log entry", "log entries"),
      count(library.members.length, "member", "members"),
    ].join(", "),
    isEmpty: library.places.length + library.rigs.length + library.projects.length === 0,
    quarantine: library.quarantine,
    settings: library.settings,
    me: library.members.find((m) => m.id === library.settings?.data.memberId) ?? null,
    cleared: clearedHere(),
    ageDays: library.settings?.data.lastBackupMs
      ? Math.floor((now() - library.settings.data.lastBackupMs) / 86_400_000)
      : null,
  };
}
clientLoader.hydrate = true as const;

export const meta: Route.MetaFunction = () => [{ title: "Data in and out · Zenithar" }];

export default function DataRoute({ loaderData }: Route.ComponentProps) {
  const { summary, isEmpty, quarantine, settings, me, ageDays, cleared } = loaderData;
  const { send } = useEdits();
  const { revalidate } = useRevalidator();
  const say = useSay();
  const [fault, setFault] = useState<string | null>(null);
  const exportAll = async () => {
    const at = new Date(now()).toISOString();
    download(
      `zenithar-everything-${at.slice(0, 10)}.zenithar.json`,
      encodeBundle(await allRecords(), "everything", at),
      "application/json",
    );
    if (settings)
      await saveAll([
        { kind: "settings", id: "settings", data: { ...settings.data, lastBackupMs: now() }, baseRev: settings.rev },
      ]);
    await revalidate();
  };
  const take = async (bundle: Pick<Bundle, "records" | "refused">, name: string) => {
    // Someone else's settings say who they are; one's own stay.
    const merged = await mergeIn(bundle.records.filter((r) => r.kind !== "settings" || settings === null));
    await revalidate();
    if (!merged.ok) return setFault(merged.error.code);
    const { added, changed, known } = merged.value;
    say(
      `${name}: ${added} new, ${changed} changed, ${known} already here${bundle.refused.length > 0 ? `, ${bundle.refused.length} unreadable and left out (${bundle.refused[0]!.id}: ${bundle.refused[0]!.fault.path})` : ""}.`,
    );
  };
  const clear = async () => {
    const all = await clearStore();
    await revalidate();
    say("Everything here is deleted.", () => void refillStore(all).then(() => revalidate()));
  };
  return (
    <>
      <h1 className="text-headline">Data in and out</h1>
      <p className="text-soft mt-1 max-w-prose">
        Everything stays in this browser: {summary}.{" "}
        {ageDays === null
          ? "No backup has been taken yet."
          : `The last backup is ${ageDays === 0 ? "of today" : `${ageDays} days old`}.`}
      </p>
      {fault ? <StorageRefusal code={fault} /> : null}
      <div className="mt-5 grid gap-5 md:grid-cols-2">
        <Panel title="Take it with you">
          <p className="text-soft mb-3">
            One file with everything, readable by any program (JSON; the format is published in docs/formats.md). Keep
            it beside your pictures.
          </p>
          <Button look="main" onClick={() => void exportAll()} disabled={isEmpty}>
            Export everything
          </Button>
        </Panel>
        <Panel title="Bring it back">
          <p className="text-soft mb-3">
            A backup or a friend&apos;s file is joined to what is here: nothing is doubled, nothing newer is
            overwritten.
          </p>
          <BundleDrop words="Import a file" onBundle={(bundle, name) => void take(bundle, name)} />
        </Panel>
        {me ? (
          <Panel title="Who you are">
            <p className="text-soft mb-3">Your hours carry this name in every file you give away.</p>
            <OwnName
              key={me.rev}
              name={me.data.name}
              onSave={(name) => send([{ kind: "member", id: me.id, data: { name }, baseRev: me.rev }])}
            />
          </Panel>
        ) : null}
        {cleared ? (
          <Panel title="Deleted in this tab">
            <p className="text-soft mb-3">{cleared.size} stored things can be put back until the tab is closed.</p>
            <Button onClick={() => void refillStore(cleared).then(() => revalidate())}>Put everything back</Button>
          </Panel>
        ) : null}
        {isEmpty ? (
          <Panel title="Look around first">
            <p className="text-soft mb-3">An invented group with places, rigs and three pictures in the making.</p>
            <Button onClick={() => void demoRecords().then((records) => take({ records, refused: [] }, "Demo group"))}>
              Load the demo group
            </Button>
          </Panel>
        ) : (
          <Panel title="Start afresh">
            <p className="text-soft mb-3">
              Deletes everything in this browser at once. You can undo it until you close the tab.
            </p>
            <Button look="stop" onClick={() => void clear()}>
              Delete everything
            </Button>
          </Panel>
        )}
        {quarantine.length > 0 ? (
          <Panel title="Set aside">
            <p className="text-soft">These stored things do not read. They are kept as they are, and the rest works.</p>
            <ul className="text-note my-2 list-disc pl-5">
              {quarantine.map((q) => (
                <li key={q.key}>
                  {q.key}: {q.reason}
                </li>
              ))}
            </ul>
            <Button
              onClick={() =>
                download("zenithar-set-aside.json", JSON.stringify(quarantine, null, 1), "application/json")
              }
            >
              Export them
            </Button>
          </Panel>
        ) : null}
      </div>
    </>
  );
}
