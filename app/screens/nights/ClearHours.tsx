import { useNavigate, useSearchParams } from "react-router";
import { boxTime, clockTime } from "~/components/clock";
import { Button } from "~/components/ui/Button";
import { TimeField } from "~/components/ui/Field";
import { Panel } from "~/components/ui/Panel";
import type { UtcInterval } from "~/core/time";

/** Bounds the sheet to the stretch that is clear: typed, or as the forecast has it. */
export function ClearHours({
  clear,
  forecast,
  zone,
}: {
  readonly clear: UtcInterval | null;
  readonly forecast: UtcInterval | null;
  readonly zone: string;
}) {
  const [params] = useSearchParams();
  const navigate = useNavigate();
  const go = (change: Readonly<Record<string, string>>) => {
    const next = new URLSearchParams(params);
    for (const [name, value] of Object.entries(change)) {
      if (value === "") next.delete(name);
      else next.set(name, value);
    }
    void navigate(`/nights?${next.toString()}`, { replace: true, preventScrollReset: true });
  };
  const box = (name: "from" | "to", label: string) => (
    <TimeField label={label} value={params.get(name) ?? ""} onTime={(clock) => go({ [name]: clock })} />
  );
  return (
    <Panel title="Only part of it is clear" className="no-print">
      <div className="grid grid-cols-2 gap-3">
        {box("from", "Clear from")}
        {box("to", "to")}
      </div>
      <div className="mt-2 flex flex-wrap gap-2">
        {forecast ? (
          <Button onClick={() => go({ from: boxTime(forecast.startMs, zone), to: boxTime(forecast.endMs, zone) })}>
            As forecast: {clockTime(forecast.startMs, zone)}–{clockTime(forecast.endMs, zone)}
          </Button>
        ) : null}
        {clear ? (
          <Button look="plain" onClick={() => go({ from: "", to: "" })}>
            All night
          </Button>
        ) : null}
      </div>
    </Panel>
  );
}
