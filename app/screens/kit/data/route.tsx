import { deskOf, useDesk } from "~/at-desk";
import { meOf } from "~/desk/records/parts";
import { useState } from "react";
import { Copies } from "~/components/Copies";
import { FilePreview, type JoinChoice } from "~/components/FilePreview";
import { BundleDrop } from "~/components/forms/BundleDrop";
import { useAct } from "~/components/forms/use-act";
import { counted } from "~/components/numbers";
import { StorageRefusal } from "~/components/StorageRefusal";
import { Link } from "react-router";
import { Button, buttonLook } from "~/components/ui/Button";
import { Panel } from "~/components/ui/Panel";
import { backupState } from "~/desk/records/backup";
import { tornIn } from "~/desk/records/library";
import { libraryHere } from "~/desk/records/open-library";
import { canPutBack } from "~/desk/records/clear";
import { lookInto, readBundle, type FileView } from "~/desk/records/file-view";
import { changeKey, nameOf } from "~/desk/records/named-records";
import type { Route } from "./+types/route";
import { dataAction } from "./action";
import type { DataIntent } from "./intents";
import { backupWords } from "~/components/words/file-words";
import { OfflinePanel } from "./OfflinePanel";
import { OwnName } from "./OwnName";
import { SetAside } from "./SetAside";

export async function clientLoader({ context }: Route.ClientLoaderArgs) {
  const desk = deskOf(context);
  const library = await libraryHere(desk);
  return {
    library,
    members: Object.fromEntries(library.members.map((m) => [m.id, m.data.name])),
    torn: tornIn(library),
    summary: [
      counted(library.places.length, "place", "places"),
      counted(library.rigs.length, "rig", "rigs"),
      counted(library.projects.length, "project", "projects"),
      counted(library.contributions.length, "log entry", "log entries"),
      counted(library.members.length, "member", "members"),
    ].join(", "),
    isEmpty: library.places.length + library.rigs.length + library.projects.length === 0,
    quarantine: library.quarantine,
    me: library.members.find((m) => m.id === meOf(library)) ?? null,
    canPutBack: canPutBack(desk),
    backup: backupState(library, desk.now()),
  };
}
clientLoader.hydrate = true as const;
export const clientAction = ({ context, request }: Route.ClientActionArgs) => dataAction(deskOf(context), request);

export const meta: Route.MetaFunction = () => [{ title: "Data in and out · Zenithar" }];

export { ScreenFault as ErrorBoundary } from "~/components/ScreenFault";

export default function DataRoute({ loaderData }: Route.ComponentProps) {
  const desk = useDesk();
  const { library, members, torn, summary, isEmpty, quarantine, me, backup, canPutBack: isCleared } = loaderData;
  const { act, refusal, isBusy } = useAct<DataIntent>();
  const [view, setView] = useState<FileView | null>(null);
  const join = async (handle: string, how: JoinChoice) => {
    await act({ act: "join", handle, ...how });
    setView(null);
  };
  return (
    <>
      <h1 className="text-headline">Data in and out</h1>
      <p className="text-soft mt-1 max-w-prose">
        Everything stays in this browser: {summary}.{" "}
        <span className={backup.isDue ? "text-lamp" : ""}>{backupWords(backup)}</span>
        {quarantine.length > 0
          ? ` ${counted(quarantine.length, "stored thing does", "stored things do")} not read; see below.`
          : ""}
      </p>
      <StorageRefusal fault={refusal} />
      {view ? (
        <FilePreview
          key={view.fileName}
          view={view}
          members={members}
          keyOf={changeKey}
          canBeMine
          onJoin={(how) => void join(view.handle, how)}
          onLeave={() => setView(null)}
        />
      ) : null}
      <div className="mt-5 grid gap-5 md:grid-cols-2">
        <Panel title="Take it with you">
          <p className="text-soft mb-3">
            One file with everything, readable by any program (JSON; the format is published in docs/formats.md). Keep
            it beside your pictures.
          </p>
          <Button look="main" onClick={() => void act({ act: "backup" })} disabled={isEmpty || isBusy}>
            Export everything
          </Button>
        </Panel>
        <Panel title="Bring it back">
          <p className="text-soft mb-3">
            A backup or a friend&apos;s file is merged with what is here: nothing is doubled, nothing newer is
            overwritten.
          </p>
          <BundleDrop
            words="Import a file"
            read={(file: Blob, signal: AbortSignal) => readBundle(desk, file, signal)}
            onBundle={async (bundle, fileName, signal) => setView(await lookInto(library, bundle, fileName, signal))}
          />
        </Panel>
        <OfflinePanel />
        {me ? (
          <Panel title="Who you are">
            <p className="text-soft mb-3">Your hours carry this name in every file you give away.</p>
            <OwnName
              key={me.rev}
              name={me.data.name}
              onSave={(name) => void act({ act: "rename", id: me.id, rev: me.rev, name })}
            />
          </Panel>
        ) : null}
        {isCleared ? (
          <Panel title="Deleted in this tab">
            <p className="text-soft mb-3">What was deleted can be put back until the tab is closed.</p>
            <Button disabled={isBusy} onClick={() => void act({ act: "putBack" })}>
              Put everything back
            </Button>
          </Panel>
        ) : null}
        {isEmpty ? (
          <Panel title="Look around first">
            <p className="text-soft mb-3">Invented groups with places, rigs and pictures in the making.</p>
            <Link to="/start" className={buttonLook("quiet")}>
              See the samples
            </Link>
          </Panel>
        ) : (
          <Panel title="Start afresh">
            <p className="text-soft mb-3">
              Deletes everything in this browser at once. You can undo it until you close the tab.
            </p>
            <Button look="stop" disabled={isBusy} onClick={() => void act({ act: "clear" })}>
              Delete everything
            </Button>
          </Panel>
        )}
      </div>
      {torn.map(({ kind, entity }) => (
        <div key={`${kind}/${entity.id}`}>
          <h2 className="text-section mt-5">
            {kind} {nameOf(kind, entity)}
          </h2>
          <Copies kind={kind} of={entity} />
        </div>
      ))}
      <SetAside things={quarantine} />
    </>
  );
}
