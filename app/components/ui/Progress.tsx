import { Progress as Radix } from "radix-ui";

/** How far long work has come, in the app's own look; with a way to stop it where there is one. */
export function Progress({
  words,
  share,
  onStop,
}: {
  readonly words: string;
  /** [0, 1]; null = nobody knows. */
  readonly share: number | null;
  readonly onStop?: () => void;
}) {
  return (
    <div className="my-2 flex max-w-md flex-wrap items-center gap-x-4 gap-y-2">
      <p className="text-soft w-full">{words}</p>
      <Radix.Root
        value={share === null ? null : Math.round(100 * share)}
        aria-label={words}
        className="bg-raised h-1.5 min-w-40 flex-1 overflow-hidden rounded-full"
      >
        <Radix.Indicator
          className="bg-lamp h-full rounded-full"
          style={{ width: `${Math.round(100 * (share ?? 0.1))}%` }}
        />
      </Radix.Root>
      {onStop ? (
        <button
          type="button"
          onClick={onStop}
          className="border-rule bg-sheet hover:bg-raised min-h-8 rounded-[6px] border px-3"
        >
          Stop
        </button>
      ) : null}
    </div>
  );
}
