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
}: {
  readonly look: { readonly atMs: number; readonly isClear: boolean } | null;
  readonly zone: string;
  readonly isTonight: boolean;
  readonly isPast: boolean;
  readonly onLook: (isClear: boolean) => void;
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
