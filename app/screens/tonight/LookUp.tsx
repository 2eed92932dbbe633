import { clockTime } from "~/components/clock";
import { Button } from "~/components/ui/Button";
import { Panel } from "~/components/ui/Panel";

/** What one sees outweighs every forecast: two buttons, for now or, the morning after, for midnight. */
export function LookUp({
  look,
  zone,
  isTonight,
  isPast,
  onLook,
  begunMs,
  onBegin,
}: {
  readonly look: { readonly atMs: number; readonly isClear: boolean } | null;
  readonly zone: string;
  readonly isTonight: boolean;
  readonly isPast: boolean;
  readonly onLook: (isClear: boolean) => void;
  /** When the night was begun; null = it has not. */
  readonly begunMs: number | null;
  /** Begins it; null = there is nothing to begin. */
  readonly onBegin: (() => void) | null;
}) {
  if (!isTonight && !isPast) return null;
  return (
    <Panel
      title={isTonight ? "Look up" : "How was it?"}
      aside={isTonight ? "counts more than any forecast" : undefined}
    >
      <div className="flex gap-2">
        <Button className="flex-1" onClick={() => onLook(true)}>
          {isTonight ? "It is clear" : "It was clear"}
        </Button>
        <Button className="flex-1" onClick={() => onLook(false)}>
          {isTonight ? "It is cloudy" : "It was cloudy"}
        </Button>
      </div>
      {begunMs !== null ? (
        <p className="text-lamp mt-2">Begun at {clockTime(begunMs, zone)}: tonight stays as it was planned then.</p>
      ) : onBegin ? (
        <Button className="mt-2 w-full" onClick={onBegin}>
          I am outside: begin the night
        </Button>
      ) : null}
      <p className="text-note text-faint mt-2" aria-live="polite">
        {look
          ? `Written down: ${look.isClear ? "clear" : "cloudy"} at ${clockTime(look.atMs, zone)}.`
          : isTonight
            ? "Written down, it also scores the forecasts and teaches your place its clear nights."
            : "About midnight. Nights nobody wrote down count as unknown, not as cloudy."}
      </p>
    </Panel>
  );
}
