import { Button } from "~/components/ui/Button";
import { counted, fixed } from "~/components/numbers";
import { formatMinutes } from "~/core/notation";
import type { FrameChange, PanelMove } from "~/core/plan";

const HAIR_ARCMIN = 0.05;
const MOST_SHOWN = 6;

/** "P3: moved by 4.2′, turned by 2.0°; no longer filled". */
function moveWords({ panel, becomes, offArcmin, turnDeg }: PanelMove): string {
  const parts = [
    ...(offArcmin >= HAIR_ARCMIN ? [`moved by ${fixed(offArcmin, 1)}′`] : []),
    ...(turnDeg >= 0.05 ? [`turned by ${fixed(turnDeg, 1)}°`] : []),
    ...(becomes !== null && becomes !== panel ? [`is now ${becomes}`] : []),
  ];
  const how = parts.length === 0 ? "moved a little" : parts.join(", ");
  return `${panel}: ${how}${becomes === null ? "; the old exposures do not fill it any more" : ""}`;
}

/** Asks what becomes of hours taken with a frame that was moved, turned or cut anew; nothing is kept before that is said. */
export function MovedQuestion({
  change,
  isBusy,
  onCount,
  onNew,
  onBack,
}: {
  readonly change: FrameChange;
  readonly isBusy: boolean;
  readonly onCount: () => void;
  readonly onNew: () => void;
  readonly onBack: () => void;
}) {
  const { moves, keptMin, follows } = change;
  const lost = moves.filter((m) => m.becomes === null);
  const told = [...lost, ...moves.filter((m) => m.becomes !== null)];
  return (
    <section
      className="border-lamp bg-sheet rounded-[8px] border p-4"
      role="alert"
      aria-label="Hours taken with this frame"
    >
      <h2 className="text-section">{formatMinutes(keptMin)} were taken with this frame as it stood</h2>
      <ul className="text-note mt-1 list-disc pl-5">
        {told.slice(0, MOST_SHOWN).map((m) => (
          <li key={m.panel}>{moveWords(m)}</li>
        ))}
        {told.length > MOST_SHOWN ? <li>and {counted(told.length - MOST_SHOWN, "more panel")}</li> : null}
      </ul>
      <p className="text-note text-soft mt-2">
        {follows
          ? "The old exposures still fill every panel: shift and turn take no more than the overlap gives."
          : `What ${lost.length === 1 ? `${lost[0]!.panel} has` : "these panels have"} would leave gaps, so the hours cannot count in the changed frame.`}
      </p>
      <div className="mt-3 flex flex-wrap gap-2">
        {follows ? (
          <Button look="main" disabled={isBusy} onClick={onCount}>
            Move it, hours still count
          </Button>
        ) : null}
        <Button look={follows ? "plain" : "main"} disabled={isBusy} onClick={onNew}>
          Keep as a new frame
        </Button>
        <Button look="plain" disabled={isBusy} onClick={onBack}>
          Put it back
        </Button>
      </div>
    </section>
  );
}
