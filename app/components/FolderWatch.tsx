import { useEffect, useState, useSyncExternalStore, type ReactNode } from "react";
import { counted } from "~/components/numbers";
import { StorageRefusal } from "~/components/StorageRefusal";
import { Button } from "~/components/ui/Button";
import type { WatchShown } from "~/core/live";
import type { KeepFault } from "~/core/records";

/** What is pressed. */
export interface WatchToPress {
  readonly latest: () => WatchShown & { readonly fault: KeepFault | null };
  readonly listen: (listener: () => void) => () => void;
  readonly canChoose: () => boolean;
  readonly choose: () => Promise<void>;
  readonly goOn: () => Promise<void>;
  readonly wake: () => Promise<void>;
  readonly stop: () => void;
}

/** How things stand, in a sentence. */
function standingWords({ phase, folderName, files, reading, added }: WatchShown): string {
  const name = `“${folderName ?? ""}”`;
  switch (phase) {
    case "off":
      return folderName === null
        ? "Watch the folder that the camera’s program writes into: every sub is added as it lands, with its stars and its sky measured."
        : `${name} is not being watched.`;
    case "asksLeave":
      return `${name} was watched here. The browser wants your leave to read it again; what landed since is taken then.`;
    case "elsewhere":
      return `Another tab watches ${name} already: one is enough.`;
    case "vanished":
      return `${name} is not there: a card pulled, a drive asleep, a folder moved. It is looked for every few seconds, and what landed meanwhile is taken once it is back.`;
    case "watching":
      return `Watching ${name}: ${counted(files, "file")} in it, ${added} added since, ${reading > 0 ? `${reading} being read …` : "nothing waits to be read."}`;
  }
}

/** The folder that is watched: how it stands, and the presses that it takes. `children` = what a page says of files that wait. */
export function FolderWatch({ watch, children }: { readonly watch: WatchToPress; readonly children?: ReactNode }) {
  const shown = useSyncExternalStore(watch.listen, watch.latest, watch.latest);
  const [isRefused, setRefused] = useState(false);
  useEffect(() => void watch.wake().catch(() => undefined), [watch]); // a browser that keeps no handles has none to go on with
  const press = (deed: () => Promise<void>) => () => {
    setRefused(false);
    deed().catch(() => setRefused(true));
  };
  const { phase, folderName } = shown;
  const isOn = phase === "watching" || phase === "vanished";
  if (!watch.canChoose())
    return (
      <p className="text-note text-soft mb-3">
        This browser hands out no folders to watch, as Chromium’s do: drop the files here instead.
      </p>
    );
  return (
    <section aria-label="Watched folder" className="my-3">
      <div className="flex flex-wrap items-center justify-between gap-x-6 gap-y-2">
        <p aria-live="polite" className="max-w-[75ch] min-w-64 flex-1">
          {standingWords(shown)}
        </p>
        <p className="flex flex-wrap gap-2">
          {isOn ? <Button onClick={() => watch.stop()}>Stop watching</Button> : null}
          {!isOn && folderName !== null ? (
            <Button look={phase === "asksLeave" ? "main" : "quiet"} onClick={press(watch.goOn)}>
              Watch “{folderName}” again
            </Button>
          ) : null}
          {isOn ? null : (
            <Button onClick={press(watch.choose)}>
              {folderName === null ? "Watch a folder" : "Watch another folder"}
            </Button>
          )}
        </p>
      </div>
      <StorageRefusal fault={shown.fault} />
      {isRefused ? <p className="text-rust">The browser did not open that folder. Choose another one.</p> : null}
      {children}
    </section>
  );
}
