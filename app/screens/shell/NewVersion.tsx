import { useSyncExternalStore } from "react";
import { Button } from "~/components/ui/Button";
import { hasNewVersion, onOffline, takeNewVersion } from "~/offline/register";

/** Says that a new version is ready. Only the tab that takes it is loaded anew; what is typed there is kept. */
export function NewVersion() {
  const isThere = useSyncExternalStore(onOffline, hasNewVersion, () => false);
  if (!isThere) return null;
  return (
    <div
      role="status"
      className="no-print border-rule bg-raised fixed right-4 bottom-20 z-40 flex max-w-[24rem] items-center gap-4 rounded-[8px] border px-4 py-2.5 shadow-lg sm:bottom-4"
    >
      <p>A new version is ready. Other open tabs go on with the one they have.</p>
      <Button onClick={takeNewVersion}>Load it</Button>
    </div>
  );
}
