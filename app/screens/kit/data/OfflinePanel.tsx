import { useEffect, useState, useSyncExternalStore } from "react";
import { megabytes } from "~/components/numbers";
import { Button } from "~/components/ui/Button";
import { Panel } from "~/components/ui/Panel";
import { offlineState, onOffline, type OfflineState } from "~/offline/register";
import { useDesk } from "~/at-desk";
import type { StorageState } from "~/desk/records/kept";

const OFFLINE_WORDS: Readonly<Record<OfflineState, string>> = {
  ready: "The whole app lies in this browser: it opens without a network, and without its server.",
  fetching: "The app is being fetched into this browser; until then it needs its server.",
  incomplete:
    "The app did not come whole, so nothing of it was kept: the network broke off, or something between this browser and the server answers in its place, such as a page that asks you to log in. Load this page again when the network is yours.",
  impossible:
    "This browser does not keep the app itself: without its server it does not open. It takes an address with https, or localhost.",
};

/** How the app stands without a network, what is stored, and whether the browser promises to keep it. */
export function OfflinePanel() {
  const { cupboard } = useDesk();
  const offline = useSyncExternalStore(onOffline, offlineState, () => "fetching" as const);
  const [state, setState] = useState<StorageState | null>(null);
  const [isRefused, setRefused] = useState(false);
  useEffect(() => {
    let isHere = true;
    void cupboard.storageState().then((s) => isHere && setState(s));
    return () => {
      isHere = false;
    };
  }, [offline, cupboard]);
  const ask = async () => {
    setRefused(!(await cupboard.askToKeep()));
    setState(await cupboard.storageState());
  };
  return (
    <Panel title="Without a network">
      <p className="text-soft">{OFFLINE_WORDS[offline]}</p>
      {state?.usedBytes != null ? (
        <p className="text-soft mt-2">
          Stored here, with the app: {megabytes(state.usedBytes)}
          {state.mostBytes ? ` of up to ${megabytes(state.mostBytes)}` : ""}.
        </p>
      ) : null}
      {state?.promise === "kept" ? (
        <p className="text-soft mt-2">The browser promises to keep it until you delete it.</p>
      ) : state ? (
        <>
          <p className="text-lamp mt-2">
            {isRefused
              ? "The browser did not promise it. It may clear what is stored here when the disk is full: take backups. Some browsers promise once the app is installed or used often."
              : "The browser may clear what is stored here when the disk is full."}
          </p>
          <Button className="mt-2" onClick={() => void ask()}>
            {isRefused ? "Ask it again" : "Ask it to keep everything"}
          </Button>
        </>
      ) : null}
    </Panel>
  );
}
