import { useRef } from "react";
import { useFetcher } from "react-router";
import { Button } from "~/components/ui/Button";
import { TextField } from "~/components/ui/Field";

/** What came of a forecast read or typed. */
export interface OwnForecastAnswer {
  readonly fault?: string;
  readonly said?: string;
}

const LARGEST_BYTES = 2_000_000;

/** A forecast of one's own: a file, or a few typed lines. */
export function OwnForecast() {
  const fetcher = useFetcher<OwnForecastAnswer>();
  const file = useRef<HTMLInputElement>(null);
  const read = async (chosen: File | undefined) => {
    if (!chosen) return;
    const text = chosen.size > LARGEST_BYTES ? "" : await chosen.text();
    void fetcher.submit({ intent: "forecastFile", text, name: chosen.name, tooLarge: String(chosen.size > LARGEST_BYTES) }, { method: "post" }); // prettier-ignore
    if (file.current) file.current.value = "";
  };
  return (
    <details className="border-rule mt-3 border-t pt-2">
      <summary className="text-soft hover:text-ink min-h-6 cursor-pointer">A forecast of your own</summary>
      <fetcher.Form method="post" className="mt-2 grid max-w-[60ch] gap-2">
        <input type="hidden" name="intent" value="typed" />
        <TextField
          label="Hours, cloud, gusts"
          name="text"
          rows={3}
          placeholder={"18-23 20\n23-3 80 35"}
          fault={fetcher.data?.fault}
          hint="From–to by your clock, cloud in %, gusts in km/h if you know them; a line a stretch."
          spellCheck={false}
        />
        <div className="flex flex-wrap items-center gap-3">
          <Button type="submit">Use these lines</Button>
          <label className="text-soft hover:text-ink cursor-pointer underline underline-offset-4">
            or read a forecast file
            <input
              ref={file}
              type="file"
              accept=".json,application/json"
              aria-label="Forecast file"
              className="sr-only"
              onChange={(e) => void read(e.target.files?.[0])}
            />
          </label>
        </div>
        <p className="text-note text-soft" aria-live="polite">
          {fetcher.data?.said ?? ""}
        </p>
      </fetcher.Form>
    </details>
  );
}
