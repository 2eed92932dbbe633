import { useEffect, useSyncExternalStore } from "react";
import { useDesk } from "~/at-desk";
import { FolderWatch } from "~/components/FolderWatch";
import { LatestSub } from "~/components/LatestSub";
import { counted } from "~/components/numbers";
import { Button } from "~/components/ui/Button";
import type { ReadFile } from "~/desk/log/files";
import type { LandingView } from "~/desk/log/landing";
import { theWatchedFolder } from "~/desk/log/watched-folder";
import { leftOutWords } from "./intake-words";

/** The watched folder in the log: how it stands, what waits for an answer or was left out, and the sub that landed last. */
export function Watched({
  landing,
  zone,
  isAdded,
  onLook,
}: {
  readonly landing: LandingView | null;
  readonly zone: string;
  /** Whether what was looked at is in the log now. */
  readonly isAdded: boolean;
  readonly onLook: (files: readonly ReadFile[]) => void;
}) {
  const watch = useDesk().at(theWatchedFolder);
  const { phase, asked, refused } = useSyncExternalStore(watch.listen, watch.latest, watch.latest);
  useEffect(() => {
    if (isAdded) void watch.settle();
  }, [isAdded, watch]);
  return (
    <>
      <FolderWatch watch={watch}>
        {asked.length > 0 ? (
          <p className="mt-2">
            {counted(asked.length, "file")} {asked.length === 1 ? "waits" : "wait"} for your word: where it belongs, or
            whether it can be right.{" "}
            <Button onClick={() => onLook(asked)}>{asked.length === 1 ? "Look at it" : "Look at them"}</Button>
          </p>
        ) : null}
        {refused.length > 0 ? (
          <details className="mt-2">
            <summary className="min-h-6 cursor-pointer">{counted(refused.length, "file")} left out</summary>
            <ul className="text-note">
              {refused.map((r, i) => (
                <li key={i}>
                  <span className="font-semibold">{r.name}</span>: {leftOutWords(r.why)}
                </li>
              ))}
            </ul>
          </details>
        ) : null}
      </FolderWatch>
      {phase === "watching" && landing ? <LatestSub {...landing} zone={zone} /> : null}
    </>
  );
}
